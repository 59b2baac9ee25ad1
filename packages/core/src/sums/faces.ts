import { hollowFace, tallestHollow } from "../grind/relations.ts";
import { atan, degrees, tan } from "../units/angle.ts";
import { tidy } from "../units/tidy.ts";
import { plungeOf } from "./bevels.ts";
import { makePiece, type Piece, usualEdge } from "./piece.ts";
import { acrossAt, type Sketch, sectionOf, upTo } from "./sketch.ts";
import {
  type Answer,
  angle,
  askAngle,
  askLength,
  type Given,
  impossible,
  length,
  numberOf,
  type Say,
  type Sum,
  wanting,
} from "./sum.ts";

/** Finest wheel and coarsest that a bevel is cut by, mm. */
const WHEELS = [10, 2000] as const;
/** What the nearest is taken to, mm. */
const STEP = 0.01;

/** The hollow of a wheel: how tall it can be, its chord, and its tangents at edge and line. */
export const HOLLOW: Sum = {
  key: "hollow",
  group: "bevel and edge",
  name: "Hollow by a wheel",
  words: "hollow wheel diameter tallest necks thin below edge chord tangent worn wheel radius contact",
  how: "Stock, edge and wheel give the tallest hollow before it is thinner than its edge; a height gives its angles.",
  asks: [
    askLength("thickness", "Thick at the top", "thickness"),
    askLength("behind", "Behind the edge", "thickness"),
    askLength("wheel", "Wheel, across"),
    askLength("climb", "Hollow, high above the edge bevel", "height"),
    askAngle("chord", "or its chord, angle a side"),
    askLength("worn", "Worn to, across"),
    askAngle("edge", "Edge angle a side"),
  ],
  answer(given, say) {
    const [t, e, wheel, high, chord, worn] = ["thickness", "behind", "wheel", "climb", "chord", "worn"].map(
      (key) => numberOf(given, key),
    );
    if (t === undefined || e === undefined || wheel === undefined)
      return wanting("Give the stock, what is left at the edge, and the wheel.");
    if (e >= t) return impossible("the edge is as thick as the stock, so there is nothing to hollow");
    if (wheel < WHEELS[0] || wheel > WHEELS[1])
      return impossible(`a wheel is ${say.length(WHEELS[0])} to ${say.length(WHEELS[1])} across`);
    const rise = (t - e) / 2;
    if (rise >= wheel) return impossible("the wheel is smaller than what it takes off");
    const tallest = tallestHollow(t, e, wheel);
    if (high === undefined && chord !== undefined && !(chord > 0 && chord < 60))
      return impossible("a chord lies above 0 and below 60° a side");
    // A jig holds the blade to the wheel by the chord: that, the wheel and the stock are the height.
    const climb = high ?? (chord === undefined ? undefined : rise / tan(chord));
    if (climb === undefined) return tallestAnswer({ t, e, wheel, tallest }, given, say);
    if (climb > tallest + STEP / 2)
      return impossible(
        `so high the hollow is thinner above the edge than at it: ${say.length(tallest)} is the tallest`,
        {
          words: `The tallest of this wheel is ${say.length(tallest)}.`,
          given: { climb: Math.floor(tallest * 100) / 100 },
        },
      );
    return hollowAnswer({ t, e, wheel, tallest, climb: Math.min(climb, tallest), worn }, given, say);
  },
};

interface HollowAsked {
  readonly t: number;
  readonly e: number;
  readonly wheel: number;
  readonly tallest: number;
}

function pieceOf({ t, e, wheel }: Omit<HollowAsked, "tallest">, climb: number, given: Given) {
  const { atShoulder, chordAngle } = hollowFace(t, e, wheel, climb);
  const alpha = numberOf(given, "edge") ?? usualEdge(Math.max(0, atShoulder, chordAngle));
  if (e > 0 && alpha <= atShoulder)
    return { ok: false, because: "the hollow is steeper at its edge than the edge itself" } as const;
  if (e > 0 && alpha <= chordAngle)
    return {
      ok: false,
      because: "an edge that is flatter than the hollow's chord takes its top off",
    } as const;
  const shoulder = e > 0 ? e / 2 / tan(alpha) : 0;
  return makePiece({
    thickness: t,
    behind: e,
    edgeAngle: alpha,
    bevel: { kind: "hollow", wheel, height: shoulder + climb },
    tall: shoulder + climb,
  });
}

function tallestAnswer(asked: HollowAsked, given: Given, say: Say): Answer {
  const made = pieceOf(asked, asked.tallest, given);
  if (!made.ok) return impossible(made.because);
  const { edgeBevel, grindLine, angleAtGrindLine } = made.station.right;
  return {
    state: "answered",
    figures: [
      length("tallest before it necks", (grindLine ?? 0) - (edgeBevel ?? 0), true),
      angle("its tangent at the line", angleAtGrindLine ?? 0),
    ],
    relations: [
      `h = √(2Rs − s²), s = (T − e) / 2 = ${say.length((asked.t - asked.e) / 2)}, R = ${say.length(asked.wheel / 2)}: ${say.length(asked.tallest)}`,
    ],
    notes: [
      "There the wheel stands upright on the edge: any taller and the hollow is thinner than the edge below it.",
    ],
    sketch: faceSketch(made, say),
    blade: made.blade,
  };
}

function hollowAnswer(
  asked: HollowAsked & { climb: number; worn: number | undefined },
  given: Given,
  say: Say,
): Answer {
  const { t, e, wheel, climb, worn } = asked;
  const made = pieceOf(asked, climb, given);
  if (!made.ok) return impossible(made.because);
  const { angleAtShoulder, angleAtGrindLine } = made.station.right;
  const { chordAngle, sagitta, chord } = hollowFace(t, e, wheel, climb);
  const isWorn = worn !== undefined && worn >= WHEELS[0] && worn <= WHEELS[1] && worn > t - e;
  const tallestWorn = isWorn ? tallestHollow(t, e, worn) : null;
  const after = isWorn && climb <= tallestWorn! ? pieceOf({ ...asked, wheel: worn }, climb, given) : null;
  return {
    state: "answered",
    figures: [
      angle("chord, a side", chordAngle, true),
      angle("tangent at the edge", angleAtShoulder ?? 0, true),
      angle("tangent at the line", angleAtGrindLine ?? 0, true),
      length("deepest below its chord", sagitta),
      length("along the chord", chord),
      length("tallest of this wheel", asked.tallest),
      ...(after?.ok
        ? [
            angle("worn, tangent at the edge", after.station.right.angleAtShoulder ?? 0),
            angle("worn, tangent at the line", after.station.right.angleAtGrindLine ?? 0),
          ]
        : []),
    ],
    relations: [
      `tan of the chord = (T − e) / 2h = ${say.length((t - e) / 2)} / ${say.length(climb)}: ${say.angle(chordAngle)}`,
      `the wheel turns by 2 asin(chord / D) over it, half of that to either side of the chord`,
    ],
    ...(tallestWorn !== null && climb > tallestWorn
      ? {
          notes: [
            `Worn, the wheel makes it thinner above its edge than at it: ${say.length(tallestWorn)} would be its tallest.`,
          ],
        }
      : {}),
    sketch: { ...faceSketch(made, say), ...(after?.ok ? { beside: sectionOf(after.field) } : {}) },
    blade: made.blade,
    put: (copy) => {
      const plunge = plungeOf(copy);
      const height = (made.station.right.edgeBevel ?? 0) + climb;
      copy.bevels = {
        right: {
          kind: "hollow",
          wheelDiameter: wheel,
          pull: "follow",
          set: "height",
          height: [{ u: 0, h: tidy(height) }],
          plunge,
        },
        left: "same",
      };
      copy.edge.behind = [{ u: 0, t: e }];
    },
  };
}

function faceSketch(made: Piece, say: Say): Sketch {
  const { edgeBevel, grindLine } = made.station.right;
  const [low, high] = [edgeBevel ?? 0, grindLine ?? 0];
  const { flats, behind } = made.station;
  return {
    steel: sectionOf(made.field),
    marks: [
      acrossAt(high, flats, say.length(flats)),
      ...(behind ? [acrossAt(low, behind, `${say.length(behind)} at the edge`)] : []),
      upTo(low, high, flats / 2 + 1.5, say.length(high - low)),
    ],
  };
}

/** A convex face by how far it stands out of its chord. */
export const CONVEX: Sum = {
  key: "convex",
  group: "bevel and edge",
  name: "Convex face",
  words: "convex bulge slack belt apple seed chord tangent at the edge rounded",
  how: "How far the face stands out of its chord gives its angle at the edge and at the line.",
  asks: [
    askLength("thickness", "Thick at the top", "thickness"),
    askLength("behind", "Behind the edge", "thickness", 0),
    askLength("climb", "Face, high", "height"),
    askLength("bulge", "Bulge out of its chord"),
  ],
  answer(given, say) {
    const [t, climb, bulge] = ["thickness", "climb", "bulge"].map((key) => numberOf(given, key));
    const e = numberOf(given, "behind") ?? 0;
    if (t === undefined || climb === undefined || bulge === undefined)
      return wanting("Give the stock, how high the face is, and how far it bulges.");
    if (e >= t) return impossible("the edge is as thick as the stock, so there is no face");
    if (!(climb > 0) || !(bulge > 0)) return impossible("both height and bulge have to be more than nothing");
    const rise = (t - e) / 2;
    const chord = atan(rise / climb);
    const steepest = chord + degrees(2 * Math.atan((2 * bulge) / Math.hypot(rise, climb)));
    if (steepest >= 60) return impossible("so far out it would be steeper than 60° a side at the edge");
    const alpha = usualEdge(steepest);
    const shoulder = e > 0 ? e / 2 / tan(alpha) : 0;
    const made = makePiece({
      thickness: t,
      behind: e,
      edgeAngle: alpha,
      bevel: { kind: "convex", bulge, height: shoulder + climb },
      tall: shoulder + climb,
    });
    if (!made.ok) return impossible(made.because);
    const { angleAtShoulder, angleAtGrindLine } = made.station.right;
    return {
      state: "answered",
      figures: [
        angle("tangent at the edge, a side", angleAtShoulder ?? 0, true),
        angle("chord, a side", chord, true),
        angle("tangent at the line", angleAtGrindLine ?? 0, true),
      ],
      relations: [
        `tan of the chord = (T − e) / 2h = ${say.length(rise)} / ${say.length(climb)}: ${say.angle(chord)}`,
        `at both ends the face leaves its chord by 2 atan(2b / c), b = ${say.length(bulge)}`,
      ],
      sketch: faceSketch(made, say),
      blade: made.blade,
      put: (copy) => {
        const plunge = plungeOf(copy);
        copy.bevels = {
          right: {
            kind: "convex",
            bulge,
            pull: "follow",
            set: "height",
            height: [{ u: 0, h: tidy(climb) }],
            plunge,
          },
          left: "same",
        };
      },
    };
  },
};
