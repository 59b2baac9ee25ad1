import { thicknessAbove } from "../blade/station.ts";
import { solveBevel } from "../grind/solve.ts";
import { atan, degrees, tan } from "../units/angle.ts";
import { tidy } from "../units/tidy.ts";
import { makePiece, type Piece, type PieceOrder } from "./piece.ts";
import { acrossAt, sectionOf, upTo } from "./sketch.ts";
import {
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
        copy.edge.angle = { left: tidy(faceAngle), right: tidy(faceAngle) };
        copy.edge.behind = [{ u: 0, t: tidy(e) }];
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
