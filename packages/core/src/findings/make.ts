import { distanceTo } from "../blade/check.ts";
import type { Field } from "../blade/field.ts";
import { EDGE, isPrimary } from "../blade/half.ts";
import { ringPoints, spansAt } from "../blade/outline.ts";
import { type Bevel, bevelOn, type Hole, SIDES, type Side } from "../blade/schema.ts";
import type { Station } from "../blade/station.ts";
import { read } from "../blade/table.ts";
import { atan, tan } from "../units/angle.ts";
import { followTheCurve } from "./cut.ts";
import { isZeroEdge } from "./edge-section.ts";
import { heightOf } from "./false-edge.ts";
import type { Change, Finding, Remedy } from "./finding.ts";
import {
  clearStations,
  type Judged,
  onSide,
  owner,
  type Rule,
  type Speech,
  sidesOf,
  stretches,
  tipX,
} from "./judged.ts";
import { plungePlace } from "./plunge-place.ts";

/** Will it make a blade: what geometry alone forbids, or makes strange. */

/** Thickness that rises toward the tip, ahead of the plunges. Behind them a tang may taper the other way. */
export const taperRises: Rule = ({ blade, field, say }) => {
  const from = Math.max(0, field.plunges.right?.x ?? 0, field.plunges.left?.x ?? 0);
  const rows = blade.thickness;
  const found: Finding[] = [];
  for (let i = 1; i < rows.length; i++) {
    const [before, here] = [rows[i - 1]!, rows[i]!];
    if (here.x <= from || here.t <= before.t + 1e-9) continue;
    found.push({
      id: "taper-rises",
      severity: "watch",
      where: { x: [before.x, here.x] },
      measured: here.t,
      wanted: [null, before.t],
      unit: "mm",
      message: `The blade grows thicker toward the tip, ${say.along(before.x, here.x)}: ${say.length(before.t)} to ${say.length(here.t)}.`,
      advice: "A distal taper only falls: bring the forward figure down to the one behind it.",
      basis: "common practice",
      remedies: [
        {
          words: `Make it ${say.length(before.t)} there, and no thicker ahead of it.`,
          changes: rows.flatMap((row, k) =>
            k >= i && row.t > before.t ? [{ path: ["thickness", k, "t"], value: before.t }] : [],
          ),
        },
      ],
    });
    break;
  }
  return found;
};

/** A grind line that leaves through the spine well before the tip. */
export const lineRunsOut: Rule = (judged) => {
  const { blade, stations, say } = judged;
  const tip = tipX(judged);
  return sidesOf(judged).flatMap((side) => {
    const bevel = bevelOn(blade, side);
    if (bevel.kind === "none" || bevel.set === "full") return [];
    const out = stretches(stations, (station) => station[side].endsAt === "spine");
    return out.map(({ from, to }): Finding => {
      const early = from < tip * 0.75;
      return {
        id: "grind-line-runs-out",
        severity: early ? "watch" : "note",
        where: { ...onSide(judged, side), x: [from, to] },
        message: `The grind line runs out of the spine ${say.along(from, to)}.`,
        advice: early
          ? "Lower the grind line there, or grind to the spine on purpose."
          : "Usual near a point; lower the line toward the tip if a flat is wanted there.",
        basis: "geometry",
        remedies: early && bevel.pull === "follow" ? [setFull(judged, side, bevel)] : [],
      };
    });
  });
};

function setFull(judged: Judged, side: Side, bevel: Exclude<Bevel, { kind: "none" }>): Remedy {
  const { kind, pull, plunge } = bevel;
  const shape =
    bevel.kind === "hollow"
      ? { wheelDiameter: bevel.wheelDiameter }
      : bevel.kind === "convex"
        ? { bulge: bevel.bulge }
        : {};
  return {
    words: "Grind to the spine: set the bevel full.",
    changes: [
      { path: ["bevels", owner(judged, side)], value: { kind, pull, ...shape, set: "full", plunge } },
    ],
  };
}

/** Thinner behind the edge than this it is a zero bevel, mm. */
const ZERO = 0.02;

/** A primary bevel as steep as the edge bevel, or steeper, somewhere on its face. */
export const steeperThanEdge: Rule = (judged) => {
  const { blade, field, say } = judged;
  return sidesOf(judged).flatMap((side) => {
    const wanted = blade.edge.angle[side];
    const bevel = bevelOn(blade, side);
    if (wanted === 0 || bevel.kind === "none") return [];
    const share = side === "right" ? blade.edge.rightShare : 1 - blade.edge.rightShare;
    const steepest = (station: Station) => {
      const shoulder = (read(field.behind, station.u) * share) / tan(wanted);
      return Math.max(...[shoulder, station.height].map((d) => faceAngle(judged, station, side, d)));
    };
    // A bevel that is meant to run to the apex has no edge bevel to be flatter than.
    const isZero = (station: Station) => read(field.behind, station.u) * share < ZERO;
    // A convex edge is flattest where it ends.
    const edgeEnds = (station: Station) => station[side].edgeAtShoulder ?? wanted;
    const isSteep = (station: Station) =>
      !isZero(station) && !isZeroEdge(field, station) && steepest(station) >= edgeEnds(station);
    return stretches(clearStations(judged), isSteep).map(({ from, to, stations }): Finding => {
      const angle = Math.max(...stations.map(steepest));
      const needed = Math.ceil(angle + 2);
      return {
        id: "bevel-steeper-than-edge",
        severity: "fix",
        where: { ...onSide(judged, side), x: [from, to] },
        measured: angle,
        wanted: [null, wanted],
        unit: "degrees",
        message: `The primary bevel is up to ${angle.toFixed(1)}° a side ${say.along(from, to)}, no flatter than the edge's ${wanted.toFixed(1)}°.`,
        advice:
          "Raise the edge angle above it, or take the grind line higher so that the bevel lies flatter.",
        basis: "geometry",
        remedies: needed <= 60 ? [sharpenAt(judged, side, needed)] : [],
      };
    });
  });
};

function faceAngle({ field }: Judged, station: Station, side: Side, d: number): number {
  field.sampleAt(station.x + station.inward[0] * d, station.y + station.inward[1] * d);
  return Number.isFinite(field[side].primary) ? atan(field[side].slope) : 0;
}

function sharpenAt(judged: Judged, side: Side, angle: number): Remedy {
  const sides = judged.field.alike ? SIDES : [side];
  return {
    words: `Sharpen at ${angle}° a side.`,
    changes: sides.map((s) => ({ path: ["edge", "angle", s], value: angle })),
  };
}

/** An edge bevel so flat that it climbs past the grind line: no primary bevel is left under it. */
export const edgeSwallowsBevel: Rule = (judged) => {
  const { blade, field, say } = judged;
  return sidesOf(judged).flatMap((side) => {
    const bevel = bevelOn(blade, side);
    if (bevel.kind === "none" || bevel.pull === "straight") return [];
    const isSwallowed = (station: Station) => {
      if (station.cut[side][0] !== EDGE || station.cut[side].some(isPrimary)) return false;
      field.sampleAt(station.x, station.y);
      return field[side].primary === Number.POSITIVE_INFINITY;
    };
    return stretches(clearStations(judged), isSwallowed).map(({ from, to, stations: here }): Finding => {
      const tallest = Math.max(...here.map(({ cut }) => cut.breaks[1]!));
      return {
        id: "edge-swallows-bevel",
        severity: "fix",
        where: { ...onSide(judged, side), x: [from, to] },
        measured: tallest,
        unit: "mm",
        message: `At ${blade.edge.angle[side]}° a side the edge bevel climbs ${say.length(tallest)}, past the grind line, ${say.along(from, to)}: no primary bevel is left.`,
        advice: "Sharpen at a higher angle, or leave less behind the edge.",
        basis: "geometry",
        remedies: [15, 20, 25].map((angle) => sharpenAt(judged, side, angle)),
      };
    });
  });
};

/** Sides that differ by so little that they were meant alike. */
export const sidesDiffer: Rule = ({ blade, say }) => {
  const { left, right } = blade.bevels;
  if (left === "same" || left.kind === "none" || right.kind === "none") return [];
  if (left.kind !== right.kind || left.set !== right.set || left.pull !== right.pull) return [];
  const apart = differences(left, right);
  const noticed = apart.filter(({ by, meant }) => by > 1e-6 && by <= meant);
  if (noticed.length === 0 || apart.some(({ by, meant }) => by > meant)) return [];
  const told = noticed.map(
    ({ what, by, unit }) => `${what} by ${unit === "mm" ? say.length(by) : `${by.toFixed(1)}°`}`,
  );
  const remedy: Remedy = {
    words: "Make the left side the same as the right.",
    changes: [{ path: ["bevels", "left"], value: "same" }],
  };
  return [
    {
      id: "sides-differ",
      severity: "watch",
      where: {},
      message: `Left and right differ a little: ${told.join(", ")}.`,
      advice: "If they are meant alike, make them one; if not, no harm.",
      basis: "geometry",
      remedies: [remedy],
    },
  ];
};

function differences(left: Exclude<Bevel, { kind: "none" }>, right: Exclude<Bevel, { kind: "none" }>) {
  const apart = [
    { what: "plunge place", by: Math.abs(left.plunge.x - right.plunge.x), meant: 3, unit: "mm" },
    { what: "plunge lean", by: Math.abs(left.plunge.lean - right.plunge.lean), meant: 5, unit: "degrees" },
    { what: "plunge radius", by: Math.abs(left.plunge.radius - right.plunge.radius), meant: 3, unit: "mm" },
  ];
  if (left.set === "angle" && right.set === "angle") {
    apart.push({ what: "bevel angle", by: Math.abs(left.angle - right.angle), meant: 1, unit: "degrees" });
  }
  if (left.set === "height" && right.set === "height") {
    const by = Math.max(
      ...[0, 0.25, 0.5, 0.75, 1].map((u) => Math.abs(heightOf(left.height, u) - heightOf(right.height, u))),
    );
    apart.push({ what: "grind line", by, meant: 3, unit: "mm" });
  }
  return apart;
}

/** A hole nearer to the outline than its own diameter. */
export const holeNearEdge: Rule = ({ blade, field, say }) => {
  const points = ringPoints(field.ring);
  return (blade.holes ?? []).flatMap((hole, i): Finding[] => {
    const wall = distanceTo(points, hole.x, hole.y) - hole.d / 2;
    if (wall >= hole.d || wall >= 5) return [];
    const smaller = Math.floor(((wall + hole.d / 2) / 1.5) * 100) / 100;
    const change: Change = { path: ["holes", i, "d"], value: smaller };
    return [
      {
        id: "hole-near-edge",
        severity: wall < hole.d / 2 ? "fix" : "watch",
        where: { x: [hole.x - hole.d / 2, hole.x + hole.d / 2] },
        measured: wall,
        wanted: [Math.min(hole.d, 5), null],
        unit: "mm",
        message: `The hole at ${say.along(hole.x, hole.x).slice(3)} has only ${say.length(wall)} of steel beside it, less than its own diameter of ${say.length(hole.d)}.`,
        advice: "Move it in, or drill it smaller.",
        basis: "common practice",
        remedies: [...moveIn(field, hole, i, say), ...drillSmaller(smaller, change, say)],
      },
    ];
  });
};

/** The hole brought to the middle of the steel above and below it. */
function moveIn(field: Field, hole: Hole, i: number, say: Speech): Remedy[] {
  const span = spansAt(field.ring, hole.x).find(([bottom, top]) => hole.y > bottom && hole.y < top);
  if (!span) return [];
  const y = Number(((span[0] + span[1]) / 2).toFixed(2));
  const words = `Move it to ${say.length(Math.abs(y))} ${y < 0 ? "below" : "above"} the datum.`;
  return [{ words, changes: [{ path: ["holes", i, "y"], value: y }] }];
}

function drillSmaller(to: number, change: Change, say: Speech): Remedy[] {
  return to >= 1 ? [{ words: `Drill it ${say.length(to)}.`, changes: [change] }] : [];
}

/** A straight pull whose plane passes below the apex: the edge itself is ground away. */
export const planeBelowApex: Rule = (judged) => {
  const { blade, field, stations, say } = judged;
  return sidesOf(judged).flatMap((side) => {
    const bevel = bevelOn(blade, side);
    if (bevel.kind === "none" || bevel.pull !== "straight") return [];
    const offset =
      typeof blade.edge.offset === "number" ? blade.edge.offset * (side === "right" ? 1 : -1) : 0;
    const below = (station: Station) => {
      field.sampleAt(station.x, station.y);
      return offset - field[side].primary;
    };
    return stretches(stations, (station) => below(station) > 1e-6).map(
      ({ from, to, stations: here }): Finding => {
        const deepest = Math.max(...here.map(below));
        const share = side === "right" ? blade.edge.rightShare : 1 - blade.edge.rightShare;
        const more = Math.ceil(((deepest / share) * 1.1 + 0.05) * 100) / 100;
        return {
          id: "plane-below-apex",
          severity: "fix",
          where: { ...onSide(judged, side), x: [from, to] },
          measured: deepest,
          unit: "mm",
          message: `The straight pull goes ${say.length(deepest)} past the apex ${say.along(from, to)}: the edge is ground away there.`,
          advice: "Leave more behind the edge at the plunge, turn the rest angle, or follow the curve.",
          basis: "geometry",
          remedies: [
            {
              words: `Leave ${say.length(more)} more behind the edge.`,
              changes: blade.edge.behind.map((row, i) => ({
                path: ["edge", "behind", i, "t"],
                value: Number((row.t + more).toFixed(3)),
              })),
            },
            ...followTheCurve(judged),
          ],
        };
      },
    );
  });
};

export const WILL_IT_MAKE: readonly Rule[] = [
  taperRises,
  lineRunsOut,
  steeperThanEdge,
  edgeSwallowsBevel,
  plungePlace,
  sidesDiffer,
  holeNearEdge,
  planeBelowApex,
];
