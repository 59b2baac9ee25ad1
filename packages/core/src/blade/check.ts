import { type Fault, pathOf } from "../document/fault.ts";
import { degrees, tan } from "../units/angle.ts";
import { firstAtX, placeAt } from "./chain.ts";
import { faceFaults, round, secondFaceFaults } from "./check-faces.ts";
import { crossings } from "./crossing.ts";
import { arcRadius } from "./face.ts";
import { compileField, type Field } from "./field.ts";
import { CLOSING_TOLERANCE, compileRing, isInside, type Ring, ringPoints } from "./outline.ts";
import { type Blade, bevelOn, SIDES, type Side } from "./schema.ts";
import { plungeFootY } from "./side.ts";

/** A blade of the right shape, looked over: its faults, or with none the field it compiles to. */
export type Checked =
  | { readonly faults: readonly Fault[]; readonly field: null }
  | { readonly faults: readonly []; readonly field: Field };

/**
 * Everything wrong with a blade of the right shape that its geometry can tell: open or crossing outlines,
 * tables out of order, faces that cannot be.
 */
export function checkBlade(blade: Blade): Checked {
  const plain = [
    ...tableFaults(blade),
    ...chainFaults(blade),
    ...edgeFaults(blade),
    ...(blade.secondEdge ? secondFaults(blade, blade.secondEdge) : []),
  ];
  if (plain.length > 0) return { faults: plain, field: null };
  const ring = compileRing(blade.outline);
  const crossed = crossings(ring);
  if (crossed.length > 0) return { faults: crossed, field: null };
  if (isUpsideDown(ringPoints(ring))) {
    const message = "lies above the spine: y is up, so an edge has the lower y";
    return { faults: [{ path: "$.outline.edge", message }], field: null };
  }
  const placed = [...holeFaults(blade, ring), ...plungeFaults(blade, ring)];
  if (placed.length > 0) return { faults: placed, field: null };
  const field = compileField(blade, undefined, ring);
  if (blade.secondEdge && !field.second) {
    const message = "does not lie on the spine from its beginning to its end";
    return { faults: [{ path: "$.secondEdge.from", message }], field: null };
  }
  const faces = [...faceFaults(field), ...secondFaceFaults(field)];
  return faces.length > 0 ? { faults: faces, field: null } : { faults: [], field };
}

function tableFaults(blade: Blade): Fault[] {
  const faults: Fault[] = [];
  const rising = (values: readonly number[], key: string, ...at: (string | number)[]) => {
    for (let i = 1; i < values.length; i++) {
      if (values[i]! > values[i - 1]!) continue;
      faults.push({
        path: pathOf(...at, i, key),
        message: `is ${values[i]}, but must be more than the row before it, ${values[i - 1]}`,
      });
    }
  };
  const xs = blade.thickness.map((row) => row.x);
  rising(xs, "x", "thickness");
  rising(
    blade.edge.behind.map((row) => row.u),
    "u",
    "edge",
    "behind",
  );
  for (const side of SIDES) {
    const bevel = blade.bevels[side];
    if (bevel === "same" || bevel.kind === "none" || bevel.set !== "height") continue;
    rising(
      bevel.height.map((row) => row.u),
      "u",
      "bevels",
      side,
      "height",
    );
  }
  if (blade.falseEdge && blade.falseEdge.from >= blade.falseEdge.to) {
    faults.push({ path: "$.falseEdge.to", message: "must lie ahead of from" });
  }
  return faults;
}

function chainFaults(blade: Blade): Fault[] {
  const faults: Fault[] = [];
  const { spine, edge, tang } = blade.outline;
  for (const [name, nodes] of Object.entries(blade.outline)) {
    for (let i = 1; i < nodes.length; i++) {
      if (apart(nodes[i - 1]!.at, nodes[i]!.at) > CLOSING_TOLERANCE) continue;
      faults.push({ path: pathOf("outline", name, i, "at"), message: "lies on the node before it" });
    }
  }
  const meet = (a: readonly number[], b: readonly number[], path: string, what: string) => {
    const gap = apart(a, b);
    if (gap <= CLOSING_TOLERANCE) return;
    faults.push({ path, message: `the outline is open: ${what} are ${gap.toFixed(3)} mm apart` });
  };
  const last = <T>(nodes: readonly T[]) => nodes[nodes.length - 1]!;
  meet(
    last(edge).at,
    last(spine).at,
    pathOf("outline", "edge", edge.length - 1, "at"),
    "edge and spine at the tip",
  );
  meet(tang[0]!.at, edge[0]!.at, pathOf("outline", "tang", 0, "at"), "tang and edge at the heel");
  meet(
    last(tang).at,
    spine[0]!.at,
    pathOf("outline", "tang", tang.length - 1, "at"),
    "tang and spine at the junction",
  );
  return faults;
}

function apart(a: readonly number[], b: readonly number[]): number {
  return Math.hypot(a[0]! - b[0]!, a[1]! - b[1]!);
}

function edgeFaults(blade: Blade): Fault[] {
  const faults: Fault[] = [];
  const { edge } = blade;
  if (edge.kind === "convex" && edge.bulge === undefined)
    faults.push({ path: "$.edge.bulge", message: "must be said of a convex edge" });
  if (edge.kind !== "convex" && edge.bulge !== undefined)
    faults.push({ path: "$.edge.bulge", message: "is only of a convex edge" });
  const isThick = edge.behind.some((row) => row.t > 0);
  for (const side of SIDES) {
    const share = side === "right" ? edge.rightShare : 1 - edge.rightShare;
    if (edge.angle[side] === 0 && isThick && share > 0) {
      faults.push({
        path: pathOf("edge", "angle", side),
        message: `is 0, so the ${side} side can have no share of the thickness behind the edge: set rightShare to ${side === "right" ? 0 : 1}`,
      });
    }
    const isBulgeTold = faults.some(({ path }) => path === "$.edge.bulge");
    if (edge.kind === "convex" && edge.bulge !== undefined && share > 0 && !isBulgeTold)
      faults.push(...convexEdgeFaults(edge, edge.bulge, side, share));
    const bevel = bevelOn(blade, side);
    if (bevel.kind !== "none" && bevel.pull === "straight" && typeof edge.offset !== "number") {
      faults.push({
        path: "$.edge.offset",
        message: "must be a number of mm where a side is pulled straight",
      });
    }
  }
  return faults;
}

/** Tables out of order, no angle under a thickness, or a false edge in the same place. */
function secondFaults(blade: Blade, second: NonNullable<Blade["secondEdge"]>): Fault[] {
  const faults: Fault[] = [];
  const rising = (values: readonly number[], ...at: (string | number)[]) => {
    const i = values.findIndex((value, k) => k > 0 && value <= values[k - 1]!);
    if (i > 0)
      faults.push({
        path: pathOf(...at, i, "v"),
        message: `must be greater than the one before it, ${values[i - 1]}`,
      });
  };
  if (blade.falseEdge)
    faults.push({
      path: "$.falseEdge",
      message: "cannot be where there is a second edge: take one of the two away",
    });
  if (second.to !== undefined && second.from >= second.to)
    faults.push({ path: "$.secondEdge.to", message: "must lie ahead of from" });
  rising(
    second.behind.map(({ v }) => v),
    "secondEdge",
    "behind",
  );
  for (const side of SIDES) {
    const bevel = second.bevels[side];
    if (bevel !== "same" && bevel.kind !== "none" && bevel.set === "height")
      rising(
        bevel.height.map(({ v }) => v),
        "secondEdge",
        "bevels",
        side,
        "height",
      );
    if (second.angle[side] === 0 && second.behind.some(({ t }) => t > 0))
      faults.push({
        path: pathOf("secondEdge", "angle", side),
        message: "is 0, so nothing can be behind the edge on that side",
      });
  }
  return faults;
}

/** A convex edge bevel that turns down before its shoulder, or stands upright at its apex, at the narrowest it has. */
function convexEdgeFaults(edge: Blade["edge"], bulge: number, side: Side, share: number): Fault[] {
  const thin = Math.min(...edge.behind.filter(({ t }) => t > 0).map(({ t }) => t));
  if (!Number.isFinite(thin) || edge.angle[side] === 0) return [];
  const e = thin * share;
  const chord = Math.hypot(e, e / tan(edge.angle[side]));
  const turn = bulge < chord / 2 ? degrees(Math.asin(chord / 2 / arcRadius(chord, bulge))) : 90;
  const [atShoulder, atApex] = [edge.angle[side] - turn, edge.angle[side] + turn];
  if (atShoulder > 0 && atApex < 90) return [];
  return [
    {
      path: "$.edge.bulge",
      message: `is too much for an edge bevel ${round(chord)} mm wide: it would be ${round(atShoulder)}° at its shoulder and ${round(atApex)}° at its apex`,
    },
  ];
}

/** The ring runs junction, tip, heel: clockwise, when y is up and the spine is above the edge. */
function isUpsideDown(points: readonly (readonly [number, number])[]): boolean {
  const twice = points.reduce((sum, [x, y], i) => {
    const [nextX, nextY] = points[(i + 1) % points.length]!;
    return sum + x * nextY - nextX * y;
  }, 0);
  return twice > 0;
}

function holeFaults(blade: Blade, ring: Ring): Fault[] {
  const points = ringPoints(ring);
  const faults: Fault[] = [];
  const holes = blade.holes ?? [];
  holes.forEach((hole, i) => {
    const path = pathOf("holes", i);
    if (!isInside(ring, hole.x, hole.y) || distanceTo(points, hole.x, hole.y) < hole.d / 2) {
      faults.push({ path, message: "does not lie wholly inside the outline" });
    }
    for (let j = 0; j < i; j++) {
      const other = holes[j]!;
      const gap = Math.hypot(hole.x - other.x, hole.y - other.y) - (hole.d + other.d) / 2;
      if (gap < 0) faults.push({ path, message: `runs into hole ${j + 1}, at ${other.x} mm` });
    }
    if (hole.counterbore && hole.counterbore.d <= hole.d) {
      faults.push({ path, message: `has a counterbore no wider than itself, ${hole.d} mm` });
    }
  });
  return faults;
}

/** Distance from a point to a closed run of points, mm. */
export function distanceTo(points: readonly (readonly [number, number])[], x: number, y: number): number {
  let least = Number.POSITIVE_INFINITY;
  for (let i = 0; i < points.length; i++) {
    const [ax, ay] = points[i]!;
    const [bx, by] = points[(i + 1) % points.length]!;
    const ex = bx - ax;
    const ey = by - ay;
    const share = Math.min(1, Math.max(0, ((x - ax) * ex + (y - ay) * ey) / (ex * ex + ey * ey || 1)));
    least = Math.min(least, Math.hypot(ax + share * ex - x, ay + share * ey - y));
  }
  return least;
}

function plungeFaults(blade: Blade, { edge }: Ring): Fault[] {
  const faults: Fault[] = [];
  for (const side of SIDES) {
    const bevel = blade.bevels[side];
    if (bevel === "same" || bevel.kind === "none" || plungeFootY(edge, bevel.plunge) !== null) continue;
    const path = pathOf("bevels", side, "plunge", "x");
    faults.push({ path, message: `no edge lies at ${bevel.plunge.x}, so the plunge has no foot` });
  }
  const { start } = blade.edge;
  if (start !== undefined && firstAtX(edge, start) === null && start > placeAt(edge, 0).x) {
    faults.push({
      path: "$.edge.start",
      message: `no edge lies at ${start}, so sharpening cannot begin there`,
    });
  }
  return faults;
}
