import { type Fault, pathOf } from "../document/fault.ts";
import { atan, degrees, tan } from "../units/angle.ts";
import { firstAtX, placeAt } from "./chain.ts";
import { crossings } from "./crossing.ts";
import { arcRadius, readFace } from "./face.ts";
import { compileField, type Field } from "./field.ts";
import { CLOSING_TOLERANCE, compileRing, exitAlong, isInside, type Ring, ringPoints } from "./outline.ts";
import { type Bevel, type Blade, bevelOn, SIDES, type Side } from "./schema.ts";
import { secondBevelOn } from "./second.ts";
import { offsetFor, plungeFootY } from "./side.ts";
import { read } from "./table.ts";

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

/** Places along a second edge that are looked at. */
const SECOND_PLACES = 40;

/** Where a second edge's shoulder stands as far out as the flat, or a wheel is too small. */
function secondFaceFaults(field: Field): Fault[] {
  const { second, blade } = field;
  if (!second || !blade.secondEdge) return [];
  for (let i = 0; i <= SECOND_PLACES; i++) {
    const v = i / SECOND_PLACES;
    const { x } = placeAt(field.spine, second.sFrom + v * (second.sTo - second.sFrom));
    const [e, F] = [read(second.behind, v) / 2, read(field.thickness, x) / 2];
    if (e >= F)
      return [
        {
          path: "$.secondEdge.behind",
          message: `at v ${round(v)} the shoulder stands ${round(e)} mm from the centre plane, as far as the flat (${round(F)} mm)`,
        },
      ];
    for (const side of SIDES) {
      const bevel = secondBevelOn(blade.secondEdge, side);
      if (bevel.kind !== "hollow" || bevel.set !== "height") continue;
      const b = read(second[side].height!, v);
      const dE = e > 0 ? e / second[side].tanEdge : 0;
      const chord = Math.hypot(b - dE, F - e);
      if (b > dE && chord > bevel.wheelDiameter)
        return [
          {
            path: pathOf("secondEdge", "bevels", side, "wheelDiameter"),
            message: `at v ${round(v)} the bevel is ${round(chord)} mm wide, more than the wheel of ${bevel.wheelDiameter} mm across can reach`,
          },
        ];
    }
  }
  return [];
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

const PLACES_ALONG = 60;
const PLACES_UP = 24;

function faceFaults(field: Field): Fault[] {
  const { blade } = field;
  const us = new Set(Array.from({ length: PLACES_ALONG + 1 }, (_, i) => i / PLACES_ALONG));
  for (const row of blade.edge.behind) us.add(row.u);
  const faults: Fault[] = [];
  for (const side of blade.bevels.left === "same" && field.alike ? (["right"] as const) : SIDES) {
    const bevel = bevelOn(blade, side);
    if (bevel.kind === "none") continue;
    if (bevel.set === "height") for (const row of bevel.height) us.add(row.u);
    const from = plungeU(field, side);
    const wheres = [from, ...[...us].filter((u) => u > from).sort((a, b) => a - b)];
    for (const u of bevel.pull === "straight" ? [from] : wheres) {
      const fault = faceFault(field, side, bevel, u);
      if (!fault) continue;
      faults.push(fault);
      break;
    }
  }
  if (faults.length === 0) {
    const necked = neckFault(field, [...us]);
    if (necked) faults.push(necked);
  }
  return faults;
}

function plungeU(field: Field, side: Side): number {
  const cut = field.plunges[side];
  const s = cut ? firstAtX(field.edge, cut.x) : null;
  return s === null ? 0 : s / field.edge.length;
}

/** The chord's own faults at u: a shoulder as thick as the flat, a wheel too small, a face that turns down. */
function faceFault(
  field: Field,
  side: Side,
  bevel: Exclude<Bevel, { kind: "none" }>,
  u: number,
): Fault | null {
  const { blade } = field;
  const place = placeAt(field.edge, u * field.edge.length);
  const inward = [-place.ty, place.tx] as const;
  const F = read(field.thickness, place.x) / 2;
  const offset = offsetFor(blade.edge.offset, side);
  const o = offset === "own-face" ? F : offset === "other-face" ? -F : offset;
  const share = side === "right" ? blade.edge.rightShare : 1 - blade.edge.rightShare;
  const e = read(field.behind, u) * share;
  const dE = e > 0 ? e / tan(blade.edge.angle[side]) : 0;
  const at = `at u ${round(u)} on the ${side} side`;
  // The flat side of a chisel may be hollowed between its edge and its line: there the apex lies in the face itself.
  const isHollowedFlat = bevel.kind === "hollow" && offset === "own-face" && e === 0;
  if (o + e >= F && !isHollowedFlat) {
    return {
      path: "$.edge.behind",
      message: `${at} the shoulder stands ${round(o + e)} mm from the centre plane, as far as the flat (${round(F)} mm)`,
    };
  }
  const relief = bevel.kind === "flat" && bevel.pull === "follow" ? bevel.relief : undefined;
  if (bevel.kind === "flat" && !relief) return null;
  const b =
    bevel.set === "height"
      ? heightAt(bevel.height, u)
      : exitAlong(field.ring, place.x, place.y, inward[0], inward[1], 1e-3);
  if (relief) {
    const eased = o + e + (relief.height - dE) * tan(relief.angle);
    const primary =
      bevel.set === "angle" ? bevel.angle : atan((F - eased) / Math.max(1e-9, b - relief.height));
    return reliefFault(relief, { dE, b: bevel.set === "angle" ? null : b, eased, F, primary }, side, at);
  }
  if (b <= dE) return null;
  const top = read(field.thickness, place.x + inward[0] * b) / 2;
  const chord = Math.hypot(b - dE, top - o - e);
  if (bevel.kind === "hollow" && chord > bevel.wheelDiameter) {
    return {
      path: pathOf("bevels", side, "wheelDiameter"),
      message: `${at} the bevel is ${round(chord)} mm wide, more than the wheel of ${bevel.wheelDiameter} mm across can reach`,
    };
  }
  if (bevel.kind === "convex") {
    const face = { h: 0, slope: 0 };
    readFace({ kind: "convex", bulge: bevel.bulge }, b, dE, o + e, b, top, face);
    if (face.slope <= 0 || bevel.bulge > chord / 2) {
      return {
        path: pathOf("bevels", side, "bulge"),
        message: `${at} a bulge of ${bevel.bulge} mm turns the face down before the grind line (${round(atan(face.slope))}° there)`,
      };
    }
  }
  return null;
}

/** A relief that ends within the edge bevel or past the line, comes out of the flat, or is no steeper than the bevel above it. */
function reliefFault(
  { angle, height }: { angle: number; height: number },
  { dE, b, eased, F, primary }: { dE: number; b: number | null; eased: number; F: number; primary: number },
  side: Side,
  at: string,
): Fault | null {
  const fault = (key: string, message: string) => ({ path: pathOf("bevels", side, "relief", key), message });
  if (height <= dE)
    return fault("height", `${at} the relief ends within the edge bevel, ${round(dE)} mm high`);
  if (b !== null && height >= b)
    return fault("height", `${at} the relief ends past the grind line, ${round(b)} mm up`);
  if (eased >= F) return fault("angle", `${at} the relief comes out of the flat before it ends`);
  if (angle <= primary)
    return fault("angle", `${at} the relief is no steeper than the bevel above it, ${round(primary)}°`);
  return null;
}

function heightAt(rows: readonly { u: number; h: number }[], u: number): number {
  return read({ at: Float64Array.from(rows, (r) => r.u), value: Float64Array.from(rows, (r) => r.h) }, u);
}

/** A hollow that leaves the blade, both sides together, thinner above the shoulder than at it. */
function neckFault(field: Field, us: readonly number[]): Fault | null {
  const { blade } = field;
  const side = SIDES.find((s) => bevelOn(blade, s).kind === "hollow");
  if (!side) return null;
  const from = Math.max(plungeU(field, "right"), plungeU(field, "left"));
  const radius = Math.max(field.plunges.right?.radius ?? 0, field.plunges.left?.radius ?? 0);
  for (const u of [...us].sort((a, b) => a - b)) {
    if (u * field.edge.length <= from * field.edge.length + 2 * radius) continue;
    const place = placeAt(field.edge, u * field.edge.length);
    const [nx, ny] = [-place.ty, place.tx];
    const height = exitAlong(field.ring, place.x, place.y, nx, ny, 1e-3);
    const thick = (d: number) => {
      field.sampleAt(place.x + nx * d, place.y + ny * d);
      return Math.min(field.right.primary, field.right.flat) + Math.min(field.left.primary, field.left.flat);
    };
    const total = read(field.behind, u);
    const shares = [blade.edge.rightShare, 1 - blade.edge.rightShare];
    const heights = [blade.edge.angle.right, blade.edge.angle.left].map((a, i) =>
      a > 0 ? (total * shares[i]!) / tan(a) : 0,
    );
    const shoulder = Math.max(...heights, 0);
    if (shoulder >= height) continue;
    const atShoulder = thick(shoulder);
    for (let k = 1; k <= PLACES_UP; k++) {
      const d = shoulder + ((height - shoulder) * k) / PLACES_UP;
      const t = thick(d);
      if (t >= atShoulder - 1e-6) continue;
      const bevel = bevelOn(blade, side);
      const key = bevel.kind === "hollow" && blade.bevels[side] !== "same" ? side : "right";
      return {
        path: pathOf("bevels", key, "wheelDiameter"),
        message: `at u ${round(u)} the hollow is thinner ${round(d - shoulder)} mm above the shoulder (${round(t)} mm) than at it (${round(atShoulder)} mm): use a larger wheel or a lower grind line`,
      };
    }
  }
  return null;
}

function round(value: number): number {
  return Number(value.toFixed(3));
}
