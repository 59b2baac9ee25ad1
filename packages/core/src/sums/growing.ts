import { bevelClimb } from "../grind/relations.ts";
import { makePiece, type Piece } from "./piece.ts";
import { acrossAt, sectionOf, upTo } from "./sketch.ts";
import { angle, askAngle, askLength, impossible, length, numberOf, type Sum, wanting } from "./sum.ts";

/** How far a grind line climbs as the edge comes down. */
export const GROWTH: Sum = {
  key: "growth",
  group: "grow",
  name: "Growth of the line",
  words: "growth grow climb grind line rises edge comes down before after hardening how far",
  how: "From the edge as it is to the edge it shall have, at one angle.",
  asks: [
    askLength("now", "Edge now", "thickness"),
    askLength("last", "Edge at last", "thickness", 0),
    askAngle("angle", "Bevel angle a side"),
    askLength("thickness", "Thick at the top", "thickness"),
  ],
  answer(given, say) {
    const [now, beta, t] = ["now", "angle", "thickness"].map((key) => numberOf(given, key));
    const last = numberOf(given, "last") ?? 0;
    if (now === undefined || beta === undefined) return wanting("Give the edge now, and the angle.");
    if (!(beta > 0 && beta < 60)) return impossible("a bevel lies above 0 and below 60° a side");
    if (last > now) return impossible("the edge at last is thicker than the edge now: nothing comes off");
    const top = t ?? now + 2;
    if (now >= top) return impossible("the edge is as thick as the steel, so there is no line yet");
    const piece = (edge: number) =>
      makePiece({
        thickness: top,
        behind: edge,
        edgeAngle: 60,
        bevel: { kind: "angle", angle: beta },
        tall: bevelClimb(top, 0, beta) + now,
      });
    const [before, after] = [piece(now), piece(last)];
    if (!before.ok) return impossible(before.because);
    if (!after.ok) return impossible(after.because);
    const high = ({ station }: Piece) => (station.right.grindLine ?? 0) - (station.right.edgeBevel ?? 0);
    const grows = high(after) - high(before);
    return {
      state: "answered",
      figures: [
        length("the line climbs by", grows, true),
        ...(t === undefined
          ? []
          : [length("it stands now, above the edge", high(before)), length("and at last", high(after))]),
      ],
      relations: [
        `(e₁ − e₂) / 2 tan β = (${say.length(now)} − ${say.length(last)}) / (2 × tan ${say.angle(beta)}) = ${say.length(grows)}`,
      ],
      sketch: {
        steel: sectionOf(after.field),
        beside: sectionOf(before.field),
        marks: [upTo(high(before), high(after), top / 2 + 1, say.length(grows))],
      },
      blade: after.blade,
      put: (copy) => {
        copy.edge.behind = [{ u: 0, t: last }];
      },
    };
  },
};

/** Out of square: what it costs, and what it looks like. */
export const SQUARE: Sum = {
  key: "square",
  group: "grow",
  name: "Outline out of square",
  words: "out of square perimeter outline grind lines apart unlike one side higher",
  how: "One side is ground so much steeper, the other so much flatter.",
  asks: [
    askLength("thickness", "Thick at the top", "thickness"),
    askAngle("angle", "Bevel angle a side"),
    askAngle("off", "Out of square"),
  ],
  answer(given, say) {
    const [t, beta, off] = ["thickness", "angle", "off"].map((key) => numberOf(given, key));
    if (t === undefined || beta === undefined || off === undefined)
      return wanting("Give the stock, the angle, and how far the outline is out of square.");
    if (!(off >= 0 && off < beta && beta + off <= 60))
      return impossible("the outline is further out of square than the bevel is steep", {
        words: `Less than ${say.angle(beta)} out.`,
        given: { off: Math.floor(Math.max(0, Math.min(beta, 60 - beta) - 0.1) * 10) / 10 },
      });
    const made = makePiece({
      thickness: t,
      behind: 0,
      edgeAngle: 0,
      bevel: { kind: "angle", angle: beta + off, left: beta - off },
      tall: bevelClimb(t, 0, beta - off),
    });
    if (!made.ok) return impossible(made.because);
    const [low, high] = [made.station.right.grindLine ?? 0, made.station.left.grindLine ?? 0];
    return {
      state: "answered",
      figures: [
        length("grind lines apart", high - low, true),
        length("the steeper side's line", low),
        length("the flatter side's line", high),
      ],
      relations: [
        `T / 2 tan(β − q) − T / 2 tan(β + q) = ${say.length(high)} − ${say.length(low)} = ${say.length(high - low)}`,
      ],
      notes: [
        "It shows as one line higher than the other though both faces were held alike and the edge is in the middle.",
      ],
      sketch: {
        steel: sectionOf(made.field),
        marks: [acrossAt(low, t, say.length(low)), acrossAt(high, t, say.length(high))],
      },
      blade: made.blade,
    };
  },
};

/** Off centre: what it costs, and what it looks like. */
export const CENTRE: Sum = {
  key: "centre",
  group: "grow",
  name: "Edge off centre",
  words: "edge off centre apex wander lines differ unlike centring takes off one face",
  how: "Half of what the two sides differ by, as a gauge reads them from either face.",
  asks: [
    askLength("off", "Off centre by", "height"),
    askAngle("angle", "Bevel angle a side"),
    askLength("thickness", "Thick at the top", "thickness", 4),
    askLength("behind", "Behind the edge", "thickness", 0),
  ],
  answer(given, say) {
    const [off, beta] = ["off", "angle"].map((key) => numberOf(given, key));
    const t = numberOf(given, "thickness") ?? 4;
    const e = numberOf(given, "behind") ?? 0;
    if (off === undefined || beta === undefined) return wanting("Give how far off it is, and the angle.");
    if (!(beta > 0 && beta < 60)) return impossible("a bevel lies above 0 and below 60° a side");
    if (!(Math.abs(off) + e / 2 < t / 2))
      return impossible(`so far off the edge lies outside the steel, ${say.length(t)} thick`, {
        words: `Less than ${say.length(t / 2 - e / 2)} off.`,
        given: { off: Math.floor((t / 2 - e / 2) * 99) / 100 },
      });
    const made = makePiece({
      thickness: t,
      behind: e,
      edgeAngle: Math.min(60, beta + 5),
      bevel: { kind: "angle", angle: beta },
      offCentre: off,
      tall: bevelClimb(t + 2 * Math.abs(off), 0, beta) + e,
    });
    if (!made.ok) return impossible(made.because);
    const [right, left] = [made.station.right.grindLine ?? 0, made.station.left.grindLine ?? 0];
    const apart = Math.abs(left - right);
    return {
      state: "answered",
      figures: [
        length("grind lines apart", apart, true),
        length("centring takes off one face", 2 * Math.abs(off), true),
        angle("at the angle a side", beta),
      ],
      relations: [
        `2k / tan β = 2 × ${say.length(Math.abs(off))} / tan ${say.angle(beta)} = ${say.length(apart)}`,
      ],
      notes: ["The face that is far from the edge has the higher line; what centring takes, the edge loses."],
      sketch: {
        steel: sectionOf(made.field),
        marks: [acrossAt(right, t, say.length(right)), acrossAt(left, t, say.length(left))],
      },
      blade: made.blade,
    };
  },
};
