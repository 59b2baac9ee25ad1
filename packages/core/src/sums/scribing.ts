import { thicknessAt } from "../blade/field.ts";
import { bevelClimb, scribeGap, scribeSetting } from "../grind/relations.ts";
import { tan } from "../units/angle.ts";
import { makePiece, PIECE, type Piece } from "./piece.ts";
import { acrossAt, type Mark, type Sketch, sectionOf, upTo } from "./sketch.ts";
import { angle, askAngle, askLength, impossible, length, numberOf, type Sum, wanting } from "./sum.ts";

/** A plain bar of the thicknesses at its two ends: what lines are scribed on before there is a bevel. */
function bar(thickness: readonly [number, number]) {
  return makePiece({ thickness, behind: 0, bevel: { kind: "angle", angle: 60 }, tall: 2 });
}

const thickAt = ({ field }: Piece, x: number) => thicknessAt(field, x, field.ring.top - 0.01);

/** Looking at the edge of a bar: its faces and what is scribed between them. */
function edgeOn(thickness: number, lines: readonly Mark[]): Sketch {
  const half = thickness / 2;
  const high = Math.max(2, 1.5 * thickness);
  return {
    steel: [
      [
        [-half, 0],
        [half, 0],
        [half, high],
        [-half, high],
      ],
    ],
    marks: lines,
  };
}

function scribed(at: number, high: number, words?: string): Mark {
  return {
    kind: "scribed",
    line: [
      [at, 0],
      [at, high],
    ],
    ...(words ? { words } : {}),
  };
}

/** The height gauge for a gap, or the gap of a gauge, along a taper where there is one. */
export const GAUGE: Sum = {
  key: "gauge",
  group: "scribe",
  name: "Height gauge and gap",
  words: "scribe height gauge setting gap centre lines cross meet taper half thickness",
  how: "Thickness and setting give the gap; thickness and gap give the setting. Another thickness at the tip says where the lines meet.",
  asks: [
    askLength("thickness", "Thick", "thickness"),
    askLength("setting", "Gauge set at", "height"),
    askLength("gap", "Gap between the lines"),
    askLength("tip", "Thick at the far end", "thickness"),
    askLength("along", "Far end, away"),
  ],
  answer(given, say) {
    const [t, s, g, tip, along] = ["thickness", "setting", "gap", "tip", "along"].map((key) =>
      numberOf(given, key),
    );
    if (t === undefined || (s === undefined && g === undefined))
      return wanting("Give the thickness, and the gauge or the gap.");
    const setting = s ?? scribeSetting(t, g!);
    if (setting < 0) return impossible(`a gap wider than the steel is thick, ${say.length(t)}`);
    if (setting > t)
      return impossible("the gauge is set above the steel", {
        words: `Half the thickness, ${say.length(t / 2)}, scribes one line.`,
        given: { setting: t / 2 },
      });
    const made = bar([t, tip ?? t]);
    if (!made.ok) return impossible(made.because);
    const here = thickAt(made, 0.001);
    const gap = scribeGap(here, setting);
    const far = tip === undefined ? null : scribeGap(thickAt(made, PIECE.length - 0.001), setting);
    const long = along ?? PIECE.length;
    const share = tip === undefined || tip === t ? null : (t - 2 * setting) / (t - tip);
    const meets = share !== null && share >= 0 && share <= 1;
    const high = Math.max(2, 1.5 * t);
    return {
      state: "answered",
      figures: [
        length("gap of the lines", gap, s !== undefined),
        length("gauge at", setting, s === undefined),
        length("the lines meet where it is thick", 2 * setting, true),
        ...(far === null ? [] : [length("gap at the far end", far)]),
        ...(meets && along !== undefined ? [length("they meet so far along", share * long, true)] : []),
      ],
      relations: [`g = T − 2s = ${say.length(t)} − 2 × ${say.length(setting)} = ${say.length(gap)}`],
      notes: [
        ...(gap < 0 ? ["Less than nothing: the lines have crossed, and the centre still lies midway."] : []),
        ...(meets
          ? [
              "From where they meet on, each line stands past the centre: go by the middle of the two, or set the gauge anew.",
            ]
          : []),
      ],
      sketch: edgeOn(here, [
        scribed(here / 2 - setting, high, say.length(Math.abs(gap))),
        scribed(setting - here / 2, high),
      ]),
      blade: made.blade,
    };
  },
};

/** Drills by which a centre is scribed, mm: every half. Source: common practice. */
const DRILL_STEP = 0.5;

/** A drill laid flat beside the blade and turned over. */
export const DRILL: Sum = {
  key: "drill",
  group: "scribe",
  name: "Drill as a scriber",
  words: "drill scribe scriber flipped flat centre line bit named letter number",
  how: "A drill laid flat scribes a line at its own thickness from either face.",
  asks: [
    askLength("thickness", "Thick", "thickness"),
    askLength("drill", "Drill"),
    askLength("gap", "Gap wanted"),
  ],
  answer(given, say) {
    const [t, d, gap] = ["thickness", "drill", "gap"].map((key) => numberOf(given, key));
    if (t === undefined || (d === undefined && gap === undefined))
      return wanting("Give the thickness, and the drill or the gap.");
    const drill = d ?? Math.max(DRILL_STEP, Math.round((t - gap!) / DRILL_STEP) * DRILL_STEP);
    const made = bar([t, t]);
    if (!made.ok) return impossible(made.because);
    const here = thickAt(made, PIECE.middle);
    const apart = Math.abs(here - drill);
    // The point of a drill scribes at half its thickness.
    const at = drill / 2;
    const high = Math.max(2, 1.5 * t);
    return {
      state: "answered",
      figures: [
        length("lines apart", apart, true),
        length(d === undefined ? "nearest drill, every half millimetre" : "drill", drill, d === undefined),
      ],
      relations: [`|T − D| = |${say.length(t)} − ${say.length(drill)}| = ${say.length(apart)}`],
      sketch: edgeOn(here, [scribed(at - here / 2, high, say.length(apart)), scribed(here / 2 - at, high)]),
      blade: made.blade,
    };
  },
};

/** How far outside scribed lines to stop for an edge to leave, and how much of the section is still on there. */
export const LEAVE: Sum = {
  key: "leave",
  group: "grow",
  name: "Edge to leave, and what is still on",
  words: "edge to leave oven hardening stop outside lines share still on left dime coin",
  how: "Thickness and the edge to leave say what is still to come off; the gap says where to stop.",
  asks: [
    askLength("thickness", "Thick at the top", "thickness"),
    askLength("edge", "Edge to leave", "thickness"),
    askLength("gap", "Gap of the lines", "height"),
    askAngle("angle", "Bevel angle a side"),
  ],
  answer(given, say) {
    const [t, e, gap, beta] = ["thickness", "edge", "gap", "angle"].map((key) => numberOf(given, key));
    if (t === undefined || e === undefined) return wanting("Give the thickness, and the edge to leave.");
    if (e >= t) return impossible("the edge to leave is as thick as the steel: nothing is ground");
    if (beta !== undefined && !(beta > 0 && beta < 60))
      return impossible("a bevel lies above 0 and below 60° a side");
    const outside = gap === undefined ? null : (e - gap) / 2;
    const climb = beta === undefined ? t : bevelClimb(t, e, beta);
    const made = makePiece({
      thickness: t,
      behind: e,
      edgeAngle: 60,
      bevel: { kind: "angle", angle: beta ?? Math.atan((t - e) / 2 / climb) * (180 / Math.PI) },
      tall: climb + e,
    });
    if (!made.ok) return impossible(made.because);
    const { grindLine, edgeBevel } = made.station.right;
    return {
      state: "answered",
      figures: [
        ...(outside === null ? [] : [length("stop outside each line", outside, true)]),
        { name: "of a bevel to nothing still on", value: 100 * (e / t) ** 2, unit: "%", isMain: true },
        ...(beta === undefined
          ? []
          : [
              length("the line stands, above the edge", (grindLine ?? 0) - (edgeBevel ?? 0)),
              length("still to climb to an edge of nothing", e / 2 / tan(beta)),
            ]),
      ],
      relations: [
        ...(outside === null
          ? []
          : [`(e − g) / 2 = (${say.length(e)} − ${say.length(gap!)}) / 2 = ${say.length(outside)}`]),
        `(e / T)² = (${say.length(e)} / ${say.length(t)})² = ${(100 * (e / t) ** 2).toFixed(1)} %`,
      ],
      ...(outside !== null && outside < 0 ? { notes: ["Less than nothing: go so far past the lines."] } : {}),
      sketch: edgeOn(t, [
        scribed(-e / 2, Math.max(2, 1.5 * t), `${say.length(e)} left`),
        scribed(e / 2, Math.max(2, 1.5 * t)),
        ...(gap === undefined
          ? []
          : [scribed(-gap / 2, Math.max(2, 1.5 * t)), scribed(gap / 2, Math.max(2, 1.5 * t))]),
      ]),
      blade: made.blade,
    };
  },
};

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
