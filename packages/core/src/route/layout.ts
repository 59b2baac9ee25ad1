import { bevelOn, type Hole, SIDES, type Side } from "../blade/schema.ts";
import type { PerSide } from "../blade/station.ts";
import { linesApartOutOfSquare, scribeGap, scribeSetting } from "../grind/relations.ts";
import { tan } from "../units/angle.ts";
import { type LengthUnit, showLengthWithUnit } from "../units/length.ts";
import { onSecondEdge, type StageSteel } from "./ladder.ts";
import type { Route } from "./schema.ts";
import type { Steel } from "./steel.ts";
import { type StageTarget, targetsAt } from "./targets.ts";

/** What is scribed before grinding, and what it will be worth: lengths mm, angles degrees. Source: geometry. */
export interface LayoutSheet {
  readonly places: readonly LayoutPlace[];
  /** The same along the second edge, near where it begins, in its middle and near its end; empty without one. */
  readonly second: readonly LayoutPlace[];
  /** Height gauge for two centre lines `gap` apart at the heel, scribed from both faces. */
  readonly setting: number;
  /** The face the apex lies in: one line is scribed, from that face. Null where it lies between the two. */
  readonly face: Side | null;
  /** Where the two lines meet on the taper, and beyond which they have crossed; null where they never do. */
  readonly meetAt: number | null;
  /** Beyond which the steel is thinner than the setting and the gauge scribes nothing; null where it never is. */
  readonly missesFrom: number | null;
  readonly plunges: readonly { readonly side: Side | "both"; readonly foot: number; readonly top: number }[];
  readonly holes: readonly Hole[];
  /** How far apart the two grind lines come out when the outline is out of square; null where no bevel has an angle. */
  readonly squareness: readonly { readonly degrees: number; readonly apart: number }[];
}

export interface LayoutPlace {
  readonly place: StageTarget["place"];
  readonly x: number;
  /** Over the flats when the lines are scribed. */
  readonly flats: number;
  /** Between the two lines; negative where they have crossed: the centre is still midway. */
  readonly gap: number;
  /** Height gauge for lines the wanted gap apart here, from each face; alike where the apex is in the middle. */
  readonly gauge: PerSide<number>;
  /** One line from one face: half the thickness here. */
  readonly single: number;
  /** A drill laid flat and flipped scribes lines this far apart. */
  readonly drillApart: number;
  /** The edge to leave with the rough belt, and how far outside the lines on each side that is. */
  readonly edge: number;
  readonly outside: number;
  /** The grind line to scribe now on each side, where it will end, and how far it climbs. */
  readonly line: { readonly [side in Side]: { now: number; final: number; climb: number } | null };
}

/** Angles out of square worth knowing the cost of, degrees. */
const OUT_OF_SQUARE = [0.25, 0.5, 1] as const;

/** The layout sheet for a stage: scribed on the steel as `now` has it, for the bevel that `rough` leaves. */
export function layoutOf(
  now: StageSteel,
  rough: StageSteel,
  { gap, drill: named }: Pick<Route, "gap" | "drill">,
  roughSecond: StageSteel | null = null,
): LayoutSheet {
  const { finished } = now;
  const { offset } = finished.blade.edge;
  const face = offset === "left-face" ? "left" : offset === "right-face" ? "right" : null;
  const aside = typeof offset === "number" ? offset : 0;
  const whole = { ...now, steel: finished, isBevelled: true };
  const [scribed, ground, last] = [targetsAt(now), targetsAt(rough), targetsAt(whole)];
  const thickness = (x: number) => flatsAt(now.steel, x);
  const setting = Math.max(0, scribeSetting(scribed[0]!.flats, gap));
  const drill = named ?? nearestDrill(scribed[0]!.flats, gap);
  const along = (ground: readonly StageTarget[], last: readonly StageTarget[], off: number) =>
    ground.map(({ place, x, edge, grindLine }, i): LayoutPlace => {
      const flats = thickness(x);
      const apart = scribeGap(flats, setting);
      const line = (side: Side) => {
        const [from, to] = [grindLine[side], last[i]!.grindLine[side]];
        return from === null || to === null ? null : { now: from, final: to, climb: to - from };
      };
      return {
        place,
        x,
        flats,
        gap: apart,
        gauge: {
          left: Math.max(0, scribeSetting(flats, gap) + off),
          right: Math.max(0, scribeSetting(flats, gap) - off),
        },
        single: flats / 2,
        drillApart: Math.abs(flats - drill),
        edge,
        outside: (edge - Math.abs(apart)) / 2,
        line: { left: line("left"), right: line("right") },
      };
    });
  const turned = roughSecond && onSecondEdge(roughSecond);
  const turnedLast = turned && { ...turned, steel: turned.finished };
  const range = [scribed[0]!.x, finished.field.ring.right] as const;
  const middle = last[1]!;
  const beta = middle.angle.right ?? middle.angle.left;
  return {
    places: along(ground, last, aside),
    // The second edge's apex lies in the middle.
    second: turned && turnedLast ? along(targetsAt(turned), targetsAt(turnedLast), 0) : [],
    setting,
    face,
    meetAt: fallsTo(thickness, 2 * setting, range),
    missesFrom: fallsTo(thickness, setting, range),
    plunges: plungeMarks(finished),
    holes: finished.blade.holes ?? [],
    squareness:
      beta === null
        ? []
        : OUT_OF_SQUARE.filter((degrees) => degrees < beta).map((degrees) => ({
            degrees,
            apart: linesApartOutOfSquare(middle.flats, beta, degrees),
          })),
  };
}

/** Over the flats at x as they stand, mm. */
function flatsAt({ field }: Steel, x: number): number {
  field.sampleAt(x, field.ring.top);
  return field.right.flat + field.left.flat;
}

/** Drills by which a centre is scribed, mm. Source: common practice, half millimetres. */
function nearestDrill(thickness: number, gap: number): number {
  return Math.round((thickness - gap) * 2) / 2;
}

/** Where a thickness first falls to a value along x; null where it never does. */
function fallsTo(thickness: (x: number) => number, value: number, [from, to]: readonly [number, number]) {
  const steps = 2000;
  const at = (i: number) => from + ((to - from) * i) / steps;
  for (let i = 0; i <= steps; i++) {
    if (thickness(at(i)) > value) continue;
    if (i === 0) return from;
    const [a, b] = [thickness(at(i - 1)), thickness(at(i))];
    return at(i - 1) + ((at(i) - at(i - 1)) * (a - value)) / (a - b || 1);
  }
  return null;
}

/** Foot and top of each plunge from the junction, to be marked from one square on both sides. */
function plungeMarks(finished: Steel): LayoutSheet["plunges"] {
  const { plunge } = finished.drawn;
  return SIDES.flatMap((side) => {
    const isSame = finished.blade.bevels.left === "same";
    if (isSame && side === "left") return [];
    const [cut, line] = [finished.field.plunges[side], plunge[side]];
    if (!cut || !line) return [];
    // The straight line that is scribed, not the sweep that the belt's overhang leaves beside it.
    const bevel = bevelOn(finished.blade, side);
    const lean = bevel.kind === "none" ? 0 : bevel.plunge.lean;
    const rise = line[line.length - 1]![1] - cut.y;
    return [{ side: isSame ? "both" : side, foot: cut.x, top: cut.x + rise * tan(lean) }];
  });
}

/**
 * Where the two lines of one setting meet on the taper and what to do there, in words; nothing where they stay apart, or where one
 * line is scribed.
 */
export function crossingInWords(layout: LayoutSheet, unit: LengthUnit): string[] {
  const { meetAt, missesFrom, face, places } = layout;
  if (face !== null || meetAt === null) return [];
  const say = (mm: number) => showLengthWithUnit(mm, unit);
  const beyond = places.filter(({ x }) => x > meetAt);
  const anew = beyond.map(({ place, gauge }) => `${say(gauge.right)} at the ${place}`).join(", ");
  return [
    `On the taper the lines meet ${say(meetAt)} from the junction and cross beyond it: they stand as far past the centre as they stood before it, so the middle between them still is the centre.`,
    anew === ""
      ? "Nothing is read beyond there: leave it at that."
      : `Grind to the middle there, or set the gauge anew: ${anew}.`,
    ...(missesFrom === null
      ? []
      : [`From ${say(missesFrom)} on the steel is thinner than the gauge is set: it scribes nothing.`]),
  ];
}

/** How far from each scribed line the rough belt stops, in words: outside it, or past it. */
export function stopInWords(outside: number, unit: LengthUnit): string {
  const say = (mm: number) => showLengthWithUnit(mm, unit, unit === "mm" ? 3 : undefined);
  return outside >= 0
    ? `Stop ${say(outside)} outside each scribed line.`
    : `Go ${say(-outside)} past each scribed line.`;
}
