import { bevelOn, type HeightRow, SIDES, type Side } from "../blade/schema.ts";
import { type Station, thicknessAbove } from "../blade/station.ts";
import { wedgeArea } from "../edge/compare.ts";
import { swingAt } from "../grind/pull.ts";
import { tan } from "../units/angle.ts";
import { edgeAngleAt, edgeThickness, isZeroEdge } from "./edge-section.ts";
import type { Finding, Remedy } from "./finding.ts";
import { clearStations, type Judged, onSide, owner, type Rule, sidesOf, stretches } from "./judged.ts";
import { type Purpose, STARTING_VALUE } from "./purposes.ts";

/** Will it cut: thickness and angles against what the knife is for. Without a purpose these are not judged. */

/** Thickness behind the edge above the purpose's range. */
export const behindTooThick: Rule = (judged) => {
  const { purpose, field, say } = judged;
  if (!purpose) return [];
  const most = purpose.behind[1];
  const edge = (s: Station) => edgeThickness(field, s, purpose);
  return stretches(clearStations(judged), (s) => (edge(s)?.t ?? 0) > most + 0.005).map(
    ({ from, to, stations }): Finding => {
      const thickest = Math.max(...stations.map((s) => edge(s)!.t));
      return {
        id: "behind-edge-thick",
        severity: thickest > 1.5 * most && most > 0.2 ? "fix" : "watch",
        where: { x: [from, to] },
        measured: thickest,
        wanted: purpose.behind,
        unit: "mm",
        message: `${edgePlace(judged, stations)} is up to ${say.length(thickest)} ${say.along(from, to)}; ${purpose.name} wants ${say.length(purpose.behind[0])} to ${say.length(most)}.`,
        advice: "Grind the edge thinner before sharpening, or give the knife another purpose.",
        ...judged.heldTo("behind"),
        remedies: [...clampBehind(judged, null, most), ...followTheCurve(judged)],
      };
    },
  );
};

/** What is measured of an edge, as the subject of a sentence: at the shoulder, or at the height where a shoulder would be. */
export function edgePlace({ field, purpose, say }: Judged, stations: readonly Station[]): string {
  const edge = purpose && edgeThickness(field, stations[0]!, purpose);
  return edge?.isZero ? `Thickness ${say.length(edge.above)} above the edge` : "Thickness behind the edge";
}

/** Brings every row of the BTE table within bounds. A straight pull's result is not in its table. */
export function clampBehind(judged: Judged, least: number | null, most: number | null): Remedy[] {
  const { blade, say } = judged;
  const bound = (t: number) => Math.min(most ?? t, Math.max(least ?? t, t));
  const changes = blade.edge.behind.flatMap((row, i) =>
    bound(row.t) !== row.t ? [{ path: ["edge", "behind", i, "t"], value: bound(row.t) }] : [],
  );
  if (changes.length === 0) return [];
  const words = most !== null ? `Take it down to ${say.length(most)}.` : `Leave ${say.length(least!)} there.`;
  return [{ words, changes }];
}

/**
 * Thickness at a fixed height above the apex, the fair comparison between knives. Not asked where the blade is
 * less than twice as tall, at the point, where that height is nearly the spine.
 */
const tooThickAt =
  (height: 5 | 10): Rule =>
  (judged) => {
    const { purpose, field, say } = judged;
    const most = height === 5 ? purpose?.at5 : purpose?.at10;
    if (!purpose || most === null || most === undefined) return [];
    const thick = (s: Station) => thicknessAbove(field, s, height) ?? 0;
    return stretches(clearStations(judged), (s) => s.height >= 2 * height && thick(s) > most + 0.01).map(
      ({ from, to, stations }): Finding => {
        const thickest = Math.max(...stations.map(thick));
        return {
          id: `thick-at-${height}`,
          severity: thickest > 1.5 * most ? "fix" : "watch",
          where: { x: [from, to] },
          measured: thickest,
          wanted: [null, most],
          unit: "mm",
          message: `${say.length(height)} above the edge it is up to ${say.length(thickest)} ${say.along(from, to)}; ${purpose.name} wants no more than ${say.length(most)}.`,
          advice: "Take the grind line higher, the stock thinner, or the edge thinner.",
          ...judged.heldTo(height === 5 ? "at5" : "at10"),
          remedies: [...thinnerAbove(judged, height, most), ...followTheCurve(judged)],
        };
      },
    );
  };

/** Raises the line until the face is flat enough, or grinds to the spine. Flat bevels on both sides only. */
function thinnerAbove(judged: Judged, height: number, most: number): Remedy[] {
  const { blade, say } = judged;
  const remedies: Remedy[] = [];
  for (const side of SIDES) {
    const bevel = bevelOn(blade, side);
    if (side === "left" && blade.bevels.left === "same") continue;
    if (bevel.kind !== "flat" || bevel.pull !== "follow" || bevel.set === "full" || !judged.field.alike)
      continue;
    const rows = heightFor(judged, height, most);
    const path = ["bevels", owner(judged, side)];
    const tallest = Math.max(...rows.map((row) => row.h));
    remedies.push(
      {
        words: `Take the grind line up to ${say.length(tallest)}.`,
        changes: [
          {
            path,
            value: { kind: "flat", pull: "follow", set: "height", height: rows, plunge: bevel.plunge },
          },
        ],
      },
      {
        words: "Grind to the spine: set the bevel full.",
        changes: [{ path, value: { kind: "flat", pull: "follow", set: "full", plunge: bevel.plunge } }],
      },
    );
  }
  return remedies;
}

/** Rows of grind-line height that bring the thickness at `height` down to `most`, from tan β = (T − e)/2 ÷ (b − d). */
function heightFor(judged: Judged, height: number, most: number): HeightRow[] {
  const { stations, blade } = judged;
  const picked = stations.filter((_, i) => i % 4 === 0 || i === stations.length - 1);
  return picked.map((station) => {
    const e = station.behind ?? blade.edge.behind[0]!.t;
    const bevel = e / 2 / tan(blade.edge.angle.right || 20);
    const slope = Math.max(0.005, (most - 0.02 - e) / 2 / Math.max(0.5, height - bevel));
    const wanted = bevel + (station.flats - e) / 2 / slope;
    const now = station.right.grindLine ?? station.height;
    return { u: Number(station.u.toFixed(4)), h: Number(Math.min(2000, Math.max(now, wanted)).toFixed(2)) };
  });
}

/** How much more wedge than the purpose's own limits make, before it is told of: a starting value. */
const WEDGE_SLACK = 1.1;

/** Area of the first ten millimetres that a purpose's thickest limits enclose, mm²; null without such limits. */
export function wedgeLimit(purpose: Purpose): number | null {
  if (purpose.at5 === null || purpose.at10 === null) return null;
  return (5 * (purpose.behind[1] + purpose.at5)) / 2 + (5 * (purpose.at5 + purpose.at10)) / 2;
}

/** The wedge that does the parting: section area in the first ten millimetres. */
export const wedgeThick: Rule = (judged) => {
  const { purpose, field, say } = judged;
  const limit = purpose && wedgeLimit(purpose);
  if (!purpose || !limit) return [];
  const area = (s: Station) => wedgeArea(field, s) ?? 0;
  return stretches(clearStations(judged), (s) => s.height >= 20 && area(s) > WEDGE_SLACK * limit).map(
    ({ from, to, stations }): Finding => {
      const most = Math.max(...stations.map(area));
      return {
        id: "wedge-thick",
        severity: most > 1.5 * limit ? "fix" : "watch",
        where: { x: [from, to] },
        measured: most,
        wanted: [null, limit],
        message: `The first 10 mm of the section hold ${most.toFixed(1)} mm² ${say.along(from, to)}, ${Math.round((100 * most) / limit)} % of what ${purpose.name} should: it will wedge.`,
        advice: "Take the grind line higher, the stock thinner, or the edge thinner.",
        ...judged.heldTo("at10"),
        remedies: [...thinnerAbove(judged, 10, purpose.at10!), ...followTheCurve(judged)],
      };
    },
  );
};

/** Tallest edge bevel that still looks and sharpens like one, mm: a starting value. */
const TALLEST_EDGE_BEVEL = 2;

/** An edge bevel wider than wanted, all along. A straight pull's widening has a finding of its own. */
export const edgeBevelWide: Rule = (judged) => {
  const { say, blade } = judged;
  return sidesOf(judged).flatMap((side) => {
    const bevel = bevelOn(blade, side);
    if (bevel.kind === "none" || bevel.pull === "straight" || blade.edge.angle[side] === 0) return [];
    const isWide = (s: Station) =>
      (s[side].edgeBevel ?? 0) > TALLEST_EDGE_BEVEL && !isZeroEdge(judged.field, s);
    return stretches(clearStations(judged), isWide).map(({ from, to, stations }): Finding => {
      const tallest = Math.max(...stations.map((s) => s[side].edgeBevel!));
      const steeper = Math.ceil(blade.edge.angle[side] * (tallest / TALLEST_EDGE_BEVEL) + 1);
      return {
        id: "edge-bevel-wide",
        severity: "watch",
        where: { ...onSide(judged, side), x: [from, to] },
        measured: tallest,
        wanted: [null, TALLEST_EDGE_BEVEL],
        unit: "mm",
        message: `The edge bevel is up to ${say.length(tallest)} high ${say.along(from, to)}; past ${say.length(TALLEST_EDGE_BEVEL)} it is a second grind.`,
        advice: "Thin it behind the edge before sharpening, or sharpen at a higher angle.",
        basis: STARTING_VALUE,
        remedies: [
          ...clampBehind(judged, null, judged.purpose?.behind[1] ?? 0.6),
          ...(steeper <= 30
            ? [
                {
                  words: `Sharpen at ${steeper}° a side.`,
                  changes: (judged.field.alike ? SIDES : [side]).map((one) => ({
                    path: ["edge", "angle", one],
                    value: steeper,
                  })),
                },
              ]
            : []),
        ],
      };
    });
  });
};

/** Edge angle above what the purpose wants: it will push rather than cut. */
export const edgeAngleHigh: Rule = (judged) => angleOutside(judged, "high");
/** Edge angle below what the purpose wants: it may not stand. */
export const edgeAngleLow: Rule = (judged) => angleOutside(judged, "low");

/** Angle of each side of the edge, the one furthest out along it, degrees, rounded to a tenth; 0 on a side without an edge. */
function edgeAngles(judged: Judged, which: "high" | "low"): Record<Side, number> {
  const clear = clearStations(judged);
  const on = (side: Side) => {
    const found = clear.flatMap((s) => edgeAngleAt(judged.field, s)[side] ?? []);
    // Where nothing is clear of the plunge, the file's own angle is all there is.
    if (found.length === 0) return clear.length === 0 ? judged.blade.edge.angle[side] : 0;
    return Math.round(10 * (which === "high" ? Math.max(...found) : Math.min(...found))) / 10;
  };
  return { left: on("left"), right: on("right") };
}

function angleOutside(judged: Judged, which: "high" | "low"): Finding[] {
  const { purpose, heldTo, field } = judged;
  if (!purpose) return [];
  const [least, most] = purpose.edgeAngle;
  const angle = edgeAngles(judged, which);
  const clear = clearStations(judged);
  const isZero = clear.length > 0 && clear.every((s) => isZeroEdge(field, s));
  // Ground on one side only, the whole edge is that side's angle: half of it is what a side of another would be.
  const isSingle = angle.left === 0 || angle.right === 0;
  return SIDES.flatMap((side): Finding[] => {
    const value = isSingle ? angle[side] / 2 : angle[side];
    const isOut = which === "high" ? value > most : value < least;
    if (value === 0 || !isOut) return [];
    if (side === "left" && angle.left === angle.right) return [];
    const both = angle.left === angle.right;
    const bound = which === "high" ? most : least;
    return [
      {
        id: `edge-angle-${which}`,
        severity: Math.abs(value - bound) > 5 ? "fix" : "watch",
        where: both ? {} : { side },
        measured: value,
        wanted: purpose.edgeAngle,
        unit: "degrees",
        message: isSingle
          ? `The edge is ${angle[side]}° on the ${side} alone, as ${value}° a side; ${purpose.name} wants ${least}° to ${most}° a side.`
          : `The edge is ${value}° a side${both ? "" : ` on the ${side}`}; ${purpose.name} wants ${least}° to ${most}°.`,
        advice:
          which === "high"
            ? "Sharpen at a lower angle, or thin it behind the edge first."
            : "Sharpen at a higher angle, or keep it for soft material.",
        ...heldTo("edgeAngle"),
        remedies: isZero
          ? bevelsAt(judged, both ? SIDES : [side], isSingle ? 2 * bound : bound)
          : [
              {
                words: isSingle ? `Sharpen at ${2 * bound}°.` : `Sharpen at ${bound}° a side.`,
                changes: (both ? SIDES : [side]).map((s) => ({
                  path: ["edge", "angle", s],
                  value: isSingle ? 2 * bound : bound,
                })),
              },
            ],
      },
    ];
  });
}

/** The bevels that run to the apex, ground at another angle: flat ones that are set by their angle. */
function bevelsAt(judged: Judged, sides: readonly Side[], angle: number): Remedy[] {
  const owners = [...new Set(sides.map((side) => owner(judged, side)))];
  const changes = owners.flatMap((side) => {
    const bevel = bevelOn(judged.blade, side);
    return bevel.kind === "flat" && bevel.set === "angle"
      ? [{ path: ["bevels", side, "angle"], value: angle }]
      : [];
  });
  return changes.length === owners.length ? [{ words: `Grind the bevel at ${angle}° a side.`, changes }] : [];
}

/** Every straight pull swung round instead, at the angle it has. */
export function followTheCurve(judged: Judged): Remedy[] {
  const changes = sidesOf(judged).flatMap((side) => {
    const bevel = bevelOn(judged.blade, side);
    if (bevel.kind === "none" || bevel.pull !== "straight") return [];
    const { angle, plunge } = bevel;
    const value = { kind: "flat", pull: "follow", set: "angle", angle, plunge };
    return [{ path: ["bevels", owner(judged, side)], value }];
  });
  return changes.length > 0 ? [{ words: "Follow the curve of the edge.", changes }] : [];
}

/** An edge bevel that widens along the edge, as a straight pull makes it round the belly. */
export const edgeBevelWidens: Rule = (judged) => {
  const { say, blade } = judged;
  return SIDES.flatMap((side): Finding[] => {
    const bevel = bevelOn(blade, side);
    if (bevel.kind === "none" || bevel.pull !== "straight") return [];
    if (side === "left" && judged.field.alike) return [];
    const clear = clearStations(judged).filter((s) => s[side].edgeBevel !== null);
    if (clear.length < 3) return [];
    const start = clear[0]![side].edgeBevel!;
    const wide = clear.filter((s) => s[side].edgeBevel! > 1.5 * start + 0.1);
    if (wide.length === 0) return [];
    const from = wide[0]!.x;
    const to = wide[wide.length - 1]!.x;
    const widest = Math.max(...wide.map((s) => s[side].edgeBevel!));
    const thickest = Math.max(...wide.map((s) => s.behind ?? 0));
    return [
      {
        id: "edge-bevel-widens",
        severity: "watch",
        where: { ...(judged.field.alike ? {} : { side }), x: [from, to] },
        measured: widest,
        wanted: [null, 1.5 * start + 0.1],
        unit: "mm",
        message: `Pulled straight, the edge thickens round the belly ${say.along(from, to)}: up to ${say.length(thickest)} behind it, with an edge bevel ${say.length(widest)} high.`,
        advice: `Swing the handle away from ${say.along(from, from).slice(3)} on, by up to ${swingAt(judged.field, to, bevel.restAngle ?? 0).toFixed(0)}°, so that the bevel follows the edge.`,
        basis: "geometry",
        remedies: followTheCurve(judged),
      },
    ];
  });
};

export const WILL_IT_CUT: readonly Rule[] = [
  behindTooThick,
  tooThickAt(5),
  tooThickAt(10),
  wedgeThick,
  edgeBevelWide,
  edgeAngleHigh,
  edgeBevelWidens,
];
