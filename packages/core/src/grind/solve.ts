import { placeAt } from "../blade/chain.ts";
import type { Field } from "../blade/field.ts";
import { exitAlong } from "../blade/outline.ts";
import type { HeightRow, Side, ThicknessRow } from "../blade/schema.ts";
import { offsetFor } from "../blade/side.ts";
import { read } from "../blade/table.ts";
import { atan, degrees, radians, tan } from "../units/angle.ts";

/** Either what was asked for, or why it cannot be, in words. */
export type Solved<T> = ({ readonly ok: true } & T) | { readonly ok: false; readonly because: string };

const impossible = (because: string) => ({ ok: false, because }) as const;

/** One face from shoulder to grind line, alike on both sides: lengths mm, angle degrees per side. */
export interface BevelFigures {
  /** Thickness at the top of the bevel, and behind the edge at its bottom. */
  readonly thickness: number;
  readonly behind: number;
  /** Height along the centre plane, and width as a caliper laid on the face reads it. */
  readonly climb: number;
  readonly width: number;
  readonly angle: number;
}

/**
 * Fills in a bevel from what is known of it: any two of climb, width and angle with one thickness, or both
 * thicknesses with any one of them. What is known too often must agree as well as figures given to 0.01 mm and 0.1° can. Source: geometry.
 */
export function solveBevel(known: Partial<BevelFigures>): Solved<BevelFigures> {
  const { thickness, behind, climb, width, angle } = known;
  if (Object.values(known).some((value) => value !== undefined && !(value >= 0))) {
    return impossible("a length or an angle is below nothing");
  }
  const fromThickness =
    thickness !== undefined && behind !== undefined ? (thickness - behind) / 2 : undefined;
  if (fromThickness !== undefined && fromThickness <= 0) {
    return impossible("the bevel is as thick at its foot as at its top, so there is nothing to grind");
  }
  const shape = shapeFrom(fromThickness, climb, width, angle);
  if (!shape.ok) return shape;
  const { rise } = shape;
  if (thickness === undefined && behind === undefined) {
    return impossible("no thickness is known, at the top or behind the edge");
  }
  const top = thickness ?? behind! + 2 * rise;
  const bare = behind ?? thickness! - 2 * rise;
  if (bare < -slackOf(shape.climb, angle))
    return impossible(`the bevel runs out ${(-bare).toFixed(3)} mm past the centre before it ends`);
  const foot = Math.max(0, bare);
  return agree(known, {
    thickness: top,
    behind: foot,
    climb: shape.climb,
    width: shape.width,
    angle: shape.angle,
  });
}

function shapeFrom(
  rise: number | undefined,
  climb: number | undefined,
  width: number | undefined,
  angle: number | undefined,
): Solved<{ rise: number; climb: number; width: number; angle: number }> {
  const whole = (up: number, along: number) =>
    ({ ok: true, rise: up, climb: along, width: Math.hypot(up, along), angle: atan(up / along) }) as const;
  if (climb !== undefined && climb > 0) {
    if (rise !== undefined) return whole(rise, climb);
    if (angle !== undefined)
      return angle > 0 ? whole(climb * tan(angle), climb) : impossible("an angle of 0 takes nothing off");
    if (width !== undefined) {
      if (width <= climb) return impossible("the face is no wider than it is high, so it takes nothing off");
      return whole(Math.sqrt(width ** 2 - climb ** 2), climb);
    }
  }
  if (width !== undefined && width > 0) {
    if (rise !== undefined) {
      if (rise >= width) return impossible("the face is narrower than the steel it takes off");
      return whole(rise, Math.sqrt(width ** 2 - rise ** 2));
    }
    if (angle !== undefined && angle > 0) {
      return whole(width * Math.sin(radians(angle)), width * Math.cos(radians(angle)));
    }
  }
  if (rise !== undefined && angle !== undefined) {
    return angle > 0 ? whole(rise, rise / tan(angle)) : impossible("an angle of 0 never gets there");
  }
  return impossible(
    "too little is known: give two of height, width and angle, or both thicknesses and one of them",
  );
}

/** Figures are given to a hundredth of a millimetre and a tenth of a degree: half of that is not told apart. */
const ROUNDED = { length: 0.005, angle: 0.05 } as const;

/** What rounding may make of a thickness, mm: by its own figures, and by an angle's over the height of the bevel. */
function slackOf(climb: number, angle: number | undefined): number {
  return 4 * ROUNDED.length + (angle === undefined ? 0 : 2 * climb * radians(ROUNDED.angle));
}

function agree(known: Partial<BevelFigures>, all: BevelFigures): Solved<BevelFigures> {
  for (const [key, value] of Object.entries(known) as [keyof BevelFigures, number][]) {
    const least = key === "angle" ? ROUNDED.angle : ROUNDED.length;
    // What is worked out from rounded figures is off by more than they are.
    const most =
      least + (key === "angle" ? degrees(4 * ROUNDED.length) / all.climb : slackOf(all.climb, known.angle));
    if (value !== undefined && Math.abs(value - all[key]) > most) {
      return impossible(
        `the ${key} given, ${value}, does not go with the rest, which make it ${all[key].toFixed(3)}`,
      );
    }
  }
  return { ok: true, ...all };
}

/**
 * The edge angle from thickness behind the edge and bevel height, with the standard uncertainty that both
 * readings bring (first order, as the ISO guide to the expression of uncertainty combines them).
 */
export function edgeAngleFromReadings(
  behind: { readonly value: number; readonly uncertainty: number },
  height: { readonly value: number; readonly uncertainty: number },
): Solved<{ angle: number; uncertainty: number; mostlyFrom: "thickness" | "height" }> {
  if (!(height.value > 0) || !(behind.value > 0))
    return impossible("an edge bevel needs a thickness and a height");
  const slope = behind.value / 2 / height.value;
  const perSlope = degrees(1) / (1 + slope ** 2);
  const byThickness = (perSlope * behind.uncertainty) / (2 * height.value);
  const byHeight = (perSlope * slope * height.uncertainty) / height.value;
  return {
    ok: true,
    angle: atan(slope),
    uncertainty: Math.hypot(byThickness, byHeight),
    mostlyFrom: byHeight > byThickness ? "height" : "thickness",
  };
}

/** What one place along the edge asks of a jig. */
interface Asked {
  readonly u: number;
  /** The blade's height there, square to its edge. */
  readonly height: number;
  /** That side's share behind the edge, and the height of its edge bevel. */
  readonly behind: number;
  readonly edgeBevel: number;
  /** Where a grind line at a height above the edge lies, and half the flats there, from the apex plane. */
  flatAt(h: number): { readonly x: number; readonly half: number };
}

function askedAt(field: Field, side: Side, u: number): Asked {
  const { edge } = field.blade;
  const { x, y, tx, ty } = placeAt(field.edge, u * field.edge.length);
  const from = offsetFor(edge.offset, side);
  const share = side === "right" ? edge.rightShare : 1 - edge.rightShare;
  const behind = read(field.behind, u) * share;
  return {
    u,
    height: exitAlong(field.ring, x, y, -ty, tx, 1e-3),
    behind,
    edgeBevel: behind > 0 ? behind / tan(edge.angle[side]) : 0,
    flatAt(h) {
      // The flat is as thick as it is where the line is, not where the edge is.
      const at = x - ty * h;
      const F = read(field.thickness, at) / 2;
      return { x: at, half: F - (from === "own-face" ? F : from === "other-face" ? -F : from) };
    },
  };
}

/** The jig angle, degrees from the centre plane, that meets a wanted grind line with the thickness behind the edge as drawn. */
export function jigAngle(field: Field, side: Side, u: number, grindLine: number): Solved<{ angle: number }> {
  const { behind, edgeBevel, height, flatAt } = askedAt(field, side, u);
  if (grindLine <= edgeBevel) {
    return impossible(`the edge bevel alone is ${edgeBevel.toFixed(2)} mm high, above the grind line wanted`);
  }
  if (grindLine > height) return impossible(`the blade is only ${height.toFixed(2)} mm high there`);
  const { half } = flatAt(grindLine);
  if (half <= behind) return impossible("the flats are no thicker there than the edge shall be");
  const angle = atan((half - behind) / (grindLine - edgeBevel));
  const { angle: edges } = field.blade.edge;
  return edges[side] > 0 && behind > 0 && angle >= edges[side]
    ? impossible(`that takes ${angle.toFixed(1)}°, no flatter than the edge itself`)
    : { ok: true, angle };
}

const PLACES = [0, 0.2, 0.4, 0.6, 0.8, 1] as const;
const HALVINGS = 50;

/** Where a face at an angle comes out of the flats, from the edge; null where it never does below the spine. */
function lineAt({ edgeBevel, behind, height, flatAt }: Asked, angle: number): number | null {
  const below = (h: number) => behind + (h - edgeBevel) * tan(angle) < flatAt(h).half;
  if (!below(edgeBevel) || below(height)) return null;
  let [low, high] = [edgeBevel, height];
  for (let i = 0; i < HALVINGS; i++) {
    const middle = (low + high) / 2;
    if (below(middle)) low = middle;
    else high = middle;
  }
  return high;
}

/**
 * One setting: what a jig held at one angle makes of the whole bevel. Either the taper stays and the grind line
 * goes where the angle takes it, or the line stays and the stock must be tapered to suit. Each compromise with
 * what it costs: how far the line runs from the drawn one, how much the thickness must change, mm.
 */
export function oneSetting(
  field: Field,
  side: Side,
  angle: number,
  line: (u: number) => number,
): Solved<{ line: HeightRow[]; lineMoves: number; thickness: ThicknessRow[]; thicknessChanges: number }> {
  if (!(angle > 0 && angle <= 60)) return impossible("a jig's angle lies above 0 and up to 60°");
  const asked = PLACES.map((u) => askedAt(field, side, u)).filter(({ height, u }) => height > line(u));
  const centred =
    typeof field.blade.edge.offset === "number"
      ? field.blade.edge.offset * (side === "right" ? 1 : -1)
      : null;
  if (centred === null)
    return impossible("with the apex in a face the stock's thickness does not move the line on its own");
  const low = asked.find(({ behind, flatAt }) => flatAt(0).half <= behind);
  if (low)
    return impossible(`at ${low.flatAt(0).x.toFixed(0)} mm the flats are no thicker than the edge shall be`);
  const inside = asked.find(({ u, edgeBevel }) => line(u) <= edgeBevel);
  if (inside)
    return impossible(`at ${inside.flatAt(0).x.toFixed(0)} mm the drawn line lies within the edge bevel`);
  const found = asked.map((one) => ({ u: one.u, x: one.flatAt(0).x, h: lineAt(one, angle) }));
  const out = found.find(({ h }) => h === null);
  if (out)
    return impossible(
      `at ${angle}° the bevel does not come out of the flats below the spine at ${out.x.toFixed(0)} mm`,
    );
  const rows = found.map(({ u, h }) => ({ u, h: h! }));
  const stock = asked
    .map(({ u, behind, edgeBevel, flatAt }) => ({
      x: flatAt(line(u)).x,
      t: 2 * (behind + centred + (line(u) - edgeBevel) * tan(angle)),
    }))
    .filter(({ x }, i, all) => i === 0 || x > all[i - 1]!.x);
  return {
    ok: true,
    line: rows,
    lineMoves: Math.max(...rows.map(({ u, h }) => Math.abs(h - line(u)))),
    thickness: stock,
    thicknessChanges: Math.max(...stock.map(({ x, t }) => Math.abs(t - read(field.thickness, x)))),
  };
}

/** The angle and height for one side that bring its grind line level with the other side's, though the sides are unlike. */
export function matchLine(
  field: Field,
  side: Side,
  u: number,
  otherLine: number,
): Solved<{ angle: number; height: number }> {
  const found = jigAngle(field, side, u, otherLine);
  return found.ok ? { ok: true, angle: found.angle, height: otherLine } : found;
}
