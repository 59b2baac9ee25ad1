import { thicknessAt } from "../blade/field.ts";
import { bevelClimb, scribeGap, scribeSetting } from "../grind/relations.ts";
import { tan } from "../units/angle.ts";
import { makePiece, PIECE, type Piece } from "./piece.ts";
import type { Mark, Sketch } from "./sketch.ts";
import { askAngle, askLength, impossible, length, numberOf, type Sum, wanting } from "./sum.ts";

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
