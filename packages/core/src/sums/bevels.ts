import type { Blade } from "../blade/schema.ts";
import { thicknessAbove } from "../blade/station.ts";
import { wedgeArea } from "../edge/compare.ts";
import { PURPOSES } from "../findings/purposes.ts";
import { type BevelFigures, solveBevel } from "../grind/solve.ts";
import { atan, degrees, tan } from "../units/angle.ts";
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

/** Puts a flat bevel of an angle, down to a thickness behind the edge, into a blade; its plunge stays. */
export function putBevel(beta: number, behind: number): (copy: Blade) => void {
  return (copy) => {
    const { right } = copy.bevels;
    const plunge = right.kind === "none" ? { x: 0, lean: 0, radius: 2 } : right.plunge;
    copy.bevels = {
      right: { kind: "flat", pull: "follow", set: "angle", angle: round(beta), plunge },
      left: "same",
    };
    copy.edge.behind = [{ u: 0, t: round(behind) }];
  };
}

const round = (value: number) => Math.round(value * 1e4) / 1e4;

/** The edge bevel: any two of what is behind it, how high or wide it is, and its angle. */
export const EDGE: Sum = {
  key: "edge",
  group: "bevel and edge",
  name: "Edge bevel",
  words:
    "edge angle sharpening behind the edge bte bevel height width face how high wide secondary micro apex inclusive",
  how: "Give any two, height or width as one.",
  asks: [
    askLength("behind", "Behind the edge", "thickness"),
    askLength("height", "Edge bevel, high", "height"),
    askLength("width", "Edge bevel, along the face", "height"),
    askAngle("angle", "Edge angle a side"),
  ],
  answer(given, say) {
    const [behind, height, width, alpha] = ["behind", "height", "width", "angle"].map((key) =>
      numberOf(given, key),
    );
    if ([behind, height, width, alpha].filter((value) => value !== undefined).length < 2)
      return wanting("Give any two of them.");
    const solved = solveBevel({
      ...(behind === undefined ? {} : { thickness: behind }),
      behind: 0,
      ...(height === undefined ? {} : { climb: height }),
      ...(width === undefined ? {} : { width }),
      ...(alpha === undefined ? {} : { angle: alpha }),
    });
    if (!solved.ok) {
      if (height !== undefined && behind === undefined && alpha === undefined)
        return wanting("Say how thick it is behind the edge, or at what angle.");
      return impossible(solved.because);
    }
    if (solved.angle > 60) return impossible("no edge is sharpened steeper than 60° a side");
    const made = makePiece(pieceOfEdge(solved.thickness, solved.angle));
    if (!made.ok) return impossible(made.because);
    const read = made.station;
    const up = read.right.edgeBevel ?? 0;
    const e = read.behind ?? 0;
    const faceAngle = atanOf(e / 2, up);
    return {
      state: "answered",
      figures: [
        angle("edge angle a side", faceAngle, alpha === undefined),
        angle("inclusive", 2 * faceAngle),
        length("edge bevel, high", up, height === undefined && width === undefined),
        length(
          "edge bevel, along the face",
          Math.hypot(up, e / 2),
          height === undefined && width === undefined,
        ),
        length("behind the edge", e, behind === undefined),
      ],
      relations: [
        `tan α = e / 2h = ${say.length(e)} / (2 × ${say.length(up)}): α = ${say.angle(faceAngle)}`,
        ...(up >= e / 2 && up > 0
          ? [
              `sin α = e / 2f: were ${say.length(up)} its width along the face, ${say.angle(degrees(Math.asin(e / 2 / up)))}`,
            ]
          : []),
      ],
      sketch: edgeSketch(made, say),
      blade: made.blade,
      put: (copy) => {
        copy.edge.angle = { left: round(faceAngle), right: round(faceAngle) };
        copy.edge.behind = [{ u: 0, t: round(e) }];
      },
    };
  },
};

const atanOf = (rise: number, run: number) => (run > 0 ? atan(rise / run) : 0);

/** A piece with an edge of its own on a bevel that is flatter than it. */
function pieceOfEdge(behind: number, edgeAngle: number): PieceOrder {
  const beta = Math.min(6, edgeAngle / 2);
  const high = behind / 2 / tan(edgeAngle);
  const climb = Math.max(3, 3 * high);
  return {
    thickness: Math.min(25, Math.max(0.1, behind + 2 * climb * tan(beta))),
    behind,
    edgeAngle,
    bevel: { kind: "angle", angle: beta },
    tall: high + climb,
  };
}

function edgeSketch(made: Piece, say: Say) {
  const up = made.station.right.edgeBevel ?? 0;
  const e = made.station.behind ?? 0;
  return {
    steel: sectionOf(made.field),
    tall: 2.2 * up,
    marks: [acrossAt(up, e, `${say.length(e)} behind`), upTo(0, up, 0.7 * e + 0.2 * up, say.length(up))],
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

/** Two edges compared at one height: what the thicker of two bevels is where the other ends. */
export const COMPARE: Sum = {
  key: "compare",
  group: "bevel and edge",
  name: "Two edges, compared fairly",
  words: "compare fair two edges same height thinner thicker behind the edge higher bevel",
  how: "Thickness behind the edge says little without the height it was read at: both are held at the lower of the two.",
  asks: [
    askLength("behind1", "First, behind the edge", "thickness"),
    askLength("height1", "First, edge bevel high", "height"),
    askLength("behind2", "Second, behind the edge", "thickness"),
    askLength("height2", "Second, edge bevel high", "height"),
  ],
  answer(given, say) {
    const first = edgeFrom(given, "1");
    // Three boxes: the same behind both is what makes them worth comparing.
    const second = edgeFrom({ behind2: given.behind1 ?? "", ...given }, "2");
    if (!first || !second) return wanting("Give both heights, and how thick it is behind the edge.");
    const one = makePiece(pieceOfEdge(first.behind, first.angle));
    const two = makePiece(pieceOfEdge(second.behind, second.angle));
    if (!one.ok) return impossible(one.because);
    if (!two.ok) return impossible(two.because);
    const at = Math.min(first.height, second.height);
    const [thickOne, thickTwo] = [one, two].map(
      (piece) => thicknessAbove(piece.field, piece.station, at) ?? 0,
    );
    const along = ({ behind, height }: typeof first) =>
      behind / 2 <= height ? degrees(Math.asin(behind / 2 / height)) : null;
    const [alongOne, alongTwo] = [along(first), along(second)];
    return {
      state: "answered",
      figures: [
        angle("first, a side", first.angle, true),
        angle("second, a side", second.angle, true),
        ...(alongOne === null ? [] : [angle("first, were its height along the face", alongOne)]),
        ...(alongTwo === null ? [] : [angle("second, were its height along the face", alongTwo)]),
        length(`first, ${say.length(at)} up`, thickOne!, true),
        length(`second, ${say.length(at)} up`, thickTwo!, true),
      ],
      relations: [
        `first: tan α = ${say.length(first.behind)} / (2 × ${say.length(first.height)}) → ${say.angle(first.angle)}`,
        `second: tan α = ${say.length(second.behind)} / (2 × ${say.length(second.height)}) → ${say.angle(second.angle)}`,
        `at ${say.length(at)}: ${say.length(thickOne!)} beside ${say.length(thickTwo!)}`,
      ],
      sketch: {
        steel: sectionOf(one.field),
        beside: sectionOf(two.field),
        tall: 1.4 * Math.max(first.height, second.height),
        marks: [acrossAt(at, Math.max(thickOne!, thickTwo!), `${say.length(at)} up`)],
      },
      blade: one.blade,
    };
  },
};

function edgeFrom(given: Given, which: "1" | "2") {
  const [behind, height] = [numberOf(given, `behind${which}`), numberOf(given, `height${which}`)];
  if (behind === undefined || height === undefined || !(behind > 0) || !(height > 0)) return null;
  const alpha = atan(behind / 2 / height);
  return alpha > 60 ? null : { behind, height, angle: alpha };
}

/** Heights that purposes are judged at, mm. */
const JUDGED_AT = [2, 5, 10] as const;

/** What the wedge above an edge is, and which purposes it suits. */
export const WEDGE: Sum = {
  key: "wedge",
  group: "bevel and edge",
  name: "Wedge, and what it is for",
  words: "wedge thick above edge purpose cut split food 5 mm 10 mm too thick behind what for cutting slicer",
  how: "The wedge that has to go through: thicknesses above the edge, and the purposes whose limits it keeps.",
  asks: [
    askLength("thickness", "Thick at the top", "thickness"),
    askLength("behind", "Behind the edge", "thickness"),
    askAngle("angle", "Bevel angle a side"),
    askAngle("edge", "Edge angle a side", 20),
  ],
  answer(given, say) {
    const [t, e, beta] = ["thickness", "behind", "angle"].map((key) => numberOf(given, key));
    const alpha = numberOf(given, "edge") ?? 20;
    if (t === undefined || e === undefined || beta === undefined)
      return wanting("Give the stock, what is behind the edge, and the bevel's angle.");
    if (e >= t) return impossible("the edge is as thick as the stock, so there is no bevel");
    if (!(beta > 0 && beta < 60)) return impossible("a bevel lies above 0 and below 60° a side");
    if (e > 0 && beta >= alpha)
      return impossible("the bevel is as steep as the edge, so there is no edge bevel");
    const climb = (t - e) / 2 / tan(beta);
    const made = makePiece({
      thickness: t,
      behind: e,
      edgeAngle: alpha,
      bevel: { kind: "angle", angle: beta },
      tall: Math.max(12, climb + e / 2 / tan(Math.max(1, alpha))),
    });
    if (!made.ok) return impossible(made.because);
    const thick = JUDGED_AT.map((up) => [up, thicknessAbove(made.field, made.station, up) ?? 0] as const);
    const [, five, ten] = thick.map(([, value]) => value);
    const within = PURPOSES.filter(
      ({ behind, edgeAngle, at5, at10 }) =>
        e >= behind[0] - 1e-9 &&
        e <= behind[1] + 1e-9 &&
        alpha >= edgeAngle[0] &&
        alpha <= edgeAngle[1] &&
        five! <= (at5 ?? Number.POSITIVE_INFINITY) &&
        ten! <= (at10 ?? Number.POSITIVE_INFINITY),
    );
    const area = wedgeArea(made.field, made.station);
    return {
      state: "answered",
      figures: [
        ...thick.map(([up, value], i) => length(`${say.length(up)} above the edge`, value, i > 0)),
        ...(area === null
          ? []
          : [{ name: "section within 10 mm of the edge", value: area, unit: "mm²" } as const]),
      ],
      relations: [
        `e + 2 (h − e / 2 tan α) tan β: at ${say.length(5)} ${say.length(five!)}, at ${say.length(10)} ${say.length(ten!)}`,
      ],
      notes: [
        within.length > 0
          ? `Within the limits of ${within.map(({ name }) => name).join(", ")}: starting values.`
          : "No purpose's limits are all kept: starting values.",
      ],
      sketch: {
        steel: sectionOf(made.field),
        marks: thick.map(([up, value]) => acrossAt(up, value, say.length(value))),
      },
      blade: made.blade,
      put: putBevel(beta, e),
    };
  },
};
