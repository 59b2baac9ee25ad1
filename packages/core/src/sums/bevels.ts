import type { Blade, Plunge } from "../blade/schema.ts";
import { thicknessAbove } from "../blade/station.ts";
import { type BevelFigures, solveBevel } from "../grind/solve.ts";
import { atan, degrees, tan } from "../units/angle.ts";
import { tidy } from "../units/tidy.ts";
import { makePiece, type Piece, type PieceOrder } from "./piece.ts";
import { acrossAt, sectionOf, upTo } from "./sketch.ts";
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

/** Any three of thickness, edge, height or width, and angle: the section of a flat bevel. */
export const BEVEL: Sum = {
  key: "bevel",
  group: "bevel and edge",
  name: "Flat bevel",
  words:
    "section bevel angle quarter inch height width face stock thickness grind line primary how high flat zero",
  how: "Give any three, height or width as one; with the edge left empty it is ground to nothing.",
  asks: [
    askLength("thickness", "Thick at the top", "thickness"),
    askLength("behind", "Thick at the edge", "thickness"),
    askLength("climb", "Bevel, high", "height"),
    askLength("width", "Bevel, along the face", "height"),
    askAngle("angle", "Angle a side"),
  ],
  answer(given, say) {
    const known = knownOf(given, ["thickness", "behind", "climb", "width", "angle"]);
    const shape = ["climb", "width", "angle"].filter((key) => key in known).length;
    const bodies = ["thickness", "behind"].filter((key) => key in known).length;
    if (bodies === 0) return wanting("Say how thick it is at the top, or at the edge.");
    if (shape === 0) return wanting("Say how high the bevel is, how wide its face, or at what angle.");
    // One thickness and one of the rest: the edge is then ground to nothing.
    const isZero = bodies === 1 && shape === 1 && "thickness" in known;
    if (bodies === 1 && shape === 1 && !isZero) return wanting("Say how thick it is at the top, too.");
    const asked = isZero ? { ...known, behind: 0 } : known;
    const solved = solveBevel(asked);
    if (!solved.ok) return impossible(solved.because, nearestBevel(asked, say));
    if (solved.angle > 60) return impossible("no bevel is ground steeper than 60° a side");
    return bevelAnswer(solved, given, say);
  },
};

function knownOf(given: Given, keys: readonly (keyof BevelFigures)[]): Partial<BevelFigures> {
  return Object.fromEntries(
    keys.flatMap((key) => {
      const value = numberOf(given, key);
      return value === undefined ? [] : [[key, value]];
    }),
  );
}

function bevelAnswer(solved: BevelFigures, given: Given, say: Say): Answer {
  const { thickness, behind, climb } = solved;
  const order: PieceOrder = {
    thickness,
    behind,
    // What figures were rounded to may leave less than nothing at the edge: the angle then gives.
    bevel: { kind: "angle", angle: atan((thickness - behind) / 2 / climb) },
    tall: climb + behind,
  };
  const made = makePiece(order);
  if (!made.ok) return impossible(made.because);
  const read = bevelRead(made);
  const rise = `(${say.length(thickness)} − ${say.length(behind)})`;
  const is = (key: string) => numberOf(given, key) === undefined;
  return {
    state: "answered",
    figures: [
      angle("angle a side", read.angle, is("angle")),
      angle("inclusive", 2 * read.angle),
      length("bevel, high", read.climb, is("climb") && is("width")),
      length("bevel, along the face", read.width, is("width") && is("climb")),
      length("thick at the top", read.top, is("thickness")),
      length("thick at the edge", read.behind, is("behind") && behind > 0),
    ],
    relations: [
      `tan β = (T − e) / 2h = ${rise} / (2 × ${say.length(climb)}): β = ${say.angle(read.angle)} by its height`,
      `sin β = (T − e) / 2f: a face ${say.length(climb)} wide, as a caliper laid on it reads, would be ${facedInWords(thickness, behind, climb, say)}`,
    ],
    sketch: {
      steel: sectionOf(made.field),
      marks: [
        acrossAt(made.station.right.grindLine ?? climb, thickness, say.length(thickness)),
        ...(behind > 0
          ? [acrossAt(made.station.right.edgeBevel ?? 0, behind, `${say.length(behind)} at the edge`)]
          : []),
        upTo(
          made.station.right.edgeBevel ?? 0,
          made.station.right.grindLine ?? climb,
          thickness / 2 + 1.5,
          say.length(climb),
        ),
      ],
    },
    blade: made.blade,
    put: putBevel(read.angle, read.behind),
  };
}

/** What the angle would be were the height the width along the face, in words. */
function facedInWords(thickness: number, behind: number, width: number, say: Say): string {
  const sine = (thickness - behind) / 2 / width;
  return sine < 1 ? say.angle(degrees(Math.asin(sine))) : "narrower than the steel it takes off";
}

/** A bevel as the field of its piece has it. */
function bevelRead({ station }: Piece) {
  const { edgeBevel, grindLine, primaryAngle } = station.right;
  const climb = (grindLine ?? 0) - (edgeBevel ?? 0);
  const behind = station.behind ?? 0;
  return {
    angle: primaryAngle ?? 0,
    climb,
    width: Math.hypot(climb, (station.flats - behind) / 2),
    top: station.flats,
    behind,
  };
}

/** The height at which an edge is nothing at this angle, or the angle that leaves nothing at this height. */
function nearestBevel({ thickness, climb, angle: beta }: Partial<BevelFigures>, say: Say) {
  if (thickness === undefined || climb === undefined || beta === undefined || !(beta > 0) || !(climb > 0))
    return undefined;
  const high = thickness / 2 / tan(beta);
  if (high >= climb) return undefined;
  return { words: `At ${say.angle(beta)} it is nothing ${say.length(high)} up.`, given: { climb: high } };
}

/** The plunge of a blade as it stands; a plain one where it has no bevel yet. */
export function plungeOf({ bevels: { right } }: Blade): Plunge {
  return right.kind === "none" ? { x: 0, lean: 0, radius: 2 } : right.plunge;
}

/** Puts a flat bevel of an angle, down to a thickness behind the edge, into a blade; its plunge stays. */
export function putBevel(beta: number, behind: number): (copy: Blade) => void {
  return (copy) => {
    const plunge = plungeOf(copy);
    copy.bevels = {
      right: { kind: "flat", pull: "follow", set: "angle", angle: tidy(beta), plunge },
      left: "same",
    };
    copy.edge.behind = [{ u: 0, t: tidy(behind) }];
  };
}

/** A bevel believed to be of one angle, measured by a thickness at a height. */
export const BELIEVED: Sum = {
  key: "believed",
  group: "bevel and edge",
  name: "Believed and measured",
  words: "believed measured mean angle two faces apart different thinking wrong too thick behind jig says",
  how: "How thick it is so far above the apex says the mean of both faces.",
  asks: [
    askLength("thickness", "Thick", "thickness"),
    askLength("height", "So far above the apex", "height"),
    askAngle("believed", "Believed angle a side"),
  ],
  answer(given, say) {
    const [t, h, believed] = ["thickness", "height", "believed"].map((key) => numberOf(given, key));
    if (t === undefined || h === undefined)
      return wanting("Say how thick it is, and how far above the apex.");
    if (!(t > 0) || !(h > 0)) return impossible("both have to be more than nothing");
    const mean = atan(t / 2 / h);
    const other = believed === undefined ? null : atan(t / h - tan(believed));
    if (mean > 60) return impossible("no bevel is ground steeper than 60° a side");
    const apart = other !== null && other > 0 && other <= 60 && believed! > 0;
    const made = makePiece({
      // Thick enough that the steeper of the two faces is still face there.
      thickness: Math.min(25, Math.max(0.1, 1.2 * t, apart ? 2.2 * h * tan(Math.max(believed!, other)) : 0)),
      behind: 0,
      edgeAngle: 0,
      bevel: apart ? { kind: "angle", angle: believed!, left: other } : { kind: "angle", angle: mean },
      tall: 1.3 * h,
    });
    if (!made.ok) return impossible(made.because);
    const read = thicknessAbove(made.field, made.station, h) ?? 0;
    return {
      state: "answered",
      figures: [
        angle("mean of both faces", atan(read / 2 / h), true),
        ...(other === null
          ? []
          : [
              angle("more than believed", mean - believed!),
              ...(apart ? [angle("the other face, if one is as believed", other)] : []),
            ]),
        ...(believed === undefined
          ? []
          : [length("believed, it would be thick there", 2 * h * tan(believed))]),
      ],
      relations: [
        `tan of the mean = t / 2h = ${say.length(t)} / (2 × ${say.length(h)}): ${say.angle(mean)}`,
        ...(apart
          ? [
              `t = h (tan ${say.angle(believed!)} + tan ${say.angle(other)}): two faces, or one mean, a height gauge cannot tell`,
            ]
          : []),
      ],
      ...(other !== null && other <= 0
        ? {
            notes: [
              "Even with the other face upright, one face at the believed angle would be thicker there.",
            ],
          }
        : {}),
      sketch: {
        steel: sectionOf(made.field),
        marks: [acrossAt(h, t, say.length(t)), upTo(0, h, t / 2 + 0.8, say.length(h))],
      },
      blade: made.blade,
      put: putBevel(mean, 0),
    };
  },
};
