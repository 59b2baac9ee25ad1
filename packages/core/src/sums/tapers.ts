import { thicknessAt } from "../blade/field.ts";
import { stationAtX } from "../blade/station.ts";
import { oneSetting } from "../grind/solve.ts";
import { atan, tan } from "../units/angle.ts";
import { makePiece, PIECE } from "./piece.ts";
import type { Sketch } from "./sketch.ts";
import {
  type Answer,
  angle,
  askAngle,
  askLength,
  type Figure,
  impossible,
  length,
  numberOf,
  type Say,
  type Sum,
  wanting,
} from "./sum.ts";

/** A taper over a length: what it is between, by the hundred and by the angle. */
export const TAPER: Sum = {
  key: "taper",
  group: "taper",
  name: "Taper over a length",
  words: "taper distal spine thickness tang along length how thick at per hundred between",
  how: "From one thickness to another over a length; how thick it is in between.",
  asks: [
    askLength("from", "Thick here", "thickness"),
    askLength("to", "Thick there", "thickness"),
    askLength("length", "Between them"),
    askLength("at", "So far along"),
  ],
  answer(given, say) {
    const [from, to, long, at] = ["from", "to", "length", "at"].map((key) => numberOf(given, key));
    if (from === undefined || to === undefined || long === undefined)
      return wanting("Give both thicknesses, and how far they are apart.");
    if (!(long > 0)) return impossible("they have to be some way apart");
    if (at !== undefined && (at < 0 || at > long))
      return impossible("that lies beyond the taper", {
        words: `From 0 to ${say.length(long)}.`,
        given: { at: Math.min(long, Math.max(0, at)) },
      });
    const made = bar(from, to);
    if (!made.ok) return impossible(made.because);
    const thick = (share: number) => {
      const { field } = made;
      return thicknessAt(
        field,
        PIECE.length * Math.min(0.99999, Math.max(0.00001, share)),
        field.ring.top - 0.01,
      );
    };
    return {
      state: "answered",
      figures: [
        ...(at === undefined ? [] : [length(`thick ${say.length(at)} along`, thick(at / long), true)]),
        length("half way", thick(0.5), at === undefined),
        length("by every 100 mm", (100 * (to - from)) / long),
        angle("a side", atan((to - from) / 2 / long)),
      ],
      relations: [
        `T(x) = T₁ + (T₂ − T₁) x / L: (${say.length(to)} − ${say.length(from)}) over ${say.length(long)}`,
      ],
      sketch: fromAbove(from, to, long, at),
      blade: made.blade,
    };
  },
};

function bar(from: number, to: number) {
  return makePiece({ thickness: [from, to], behind: 0, bevel: { kind: "angle", angle: 60 }, tall: 2 });
}

/** Looking down on the spine; thickness is drawn larger than length. */
function fromAbove(from: number, to: number, long: number, at?: number): Sketch {
  const times = Math.max(1, Math.min(12, (0.25 * long) / Math.max(from, to)));
  const half = (t: number) => (t * times) / 2;
  const here = at === undefined ? null : from + ((to - from) * at) / long;
  return {
    steel: [
      [
        [0, -half(from)],
        [long, -half(to)],
        [long, half(to)],
        [0, half(from)],
      ],
    ],
    marks:
      here === null
        ? []
        : [
            {
              kind: "size",
              line: [
                [at!, -half(here)],
                [at!, half(here)],
              ],
            },
          ],
  };
}

/** How many places along the blade are told. */
const PLACES = [0.05, 0.5, 0.95] as const;

/** One setting: the line and the taper for which a jig grinds it all at one angle, and what each compromise costs. */
export const ONE_SETTING: Sum = {
  key: "one-setting",
  group: "taper",
  name: "One setting for it all",
  words: "one setting jig taper line compromise single angle whole blade follow hold straight level",
  how: "A taper, an edge and one angle: where the line then runs; or the line kept level, and what taper that asks for.",
  asks: [
    askLength("heel", "Thick at the heel", "thickness"),
    askLength("tip", "Thick at the tip", "thickness"),
    askLength("behind", "Behind the edge", "thickness"),
    askAngle("angle", "Jig at, a side"),
    askLength("line", "Line wanted, high", "height"),
    askAngle("edge", "Edge angle a side", 20),
  ],
  answer(given, say) {
    const [heel, tip, e, beta, line] = ["heel", "tip", "behind", "angle", "line"].map((key) =>
      numberOf(given, key),
    );
    const alpha = numberOf(given, "edge") ?? 20;
    if (
      heel === undefined ||
      tip === undefined ||
      e === undefined ||
      (beta === undefined && line === undefined)
    )
      return wanting("Give both thicknesses, the edge, and the angle or the line wanted.");
    if (Math.min(heel, tip) <= e)
      return impossible("at its thin end the stock is no thicker than the edge shall be");
    if (beta !== undefined && !(beta > 0 && beta <= 60))
      return impossible("a bevel lies above 0 and up to 60° a side");
    const up = e > 0 ? e / 2 / tan(alpha) : 0;
    const wanted = line ?? up + ((heel + tip) / 2 - e) / 2 / tan(beta!);
    if (wanted <= up) return impossible("the line wanted lies within the edge bevel");
    const held = beta ?? atan((heel + tip - 2 * e) / 4 / (wanted - up));
    if (e > 0 && held >= alpha)
      return impossible("the bevel is as steep as the edge, so there is no edge bevel");
    const tall = Math.max(wanted, up + (Math.max(heel, tip) - e) / 2 / tan(held));
    const made = makePiece({
      thickness: [heel, tip],
      behind: e,
      edgeAngle: alpha,
      bevel: { kind: "angle", angle: held },
      tall,
    });
    if (!made.ok) return impossible(made.because);
    return settingAnswer({ made, held, wanted, isByLine: beta === undefined }, say);
  },
};

function settingAnswer(
  {
    made,
    held,
    wanted,
    isByLine,
  }: { made: ReturnType<typeof makePiece> & { ok: true }; held: number; wanted: number; isByLine: boolean },
  say: Say,
): Answer {
  const { field } = made;
  const lines = PLACES.map((share) => stationAtX(field, PIECE.length * share)?.right.grindLine ?? 0);
  const level = makeLevel(made, wanted);
  const angles = level
    ? PLACES.map((share) => stationAtX(level, PIECE.length * share)?.right.primaryAngle ?? 0)
    : null;
  const kept = oneSetting(field, "right", held, () => wanted);
  const ends = kept.ok ? [kept.thickness[0]!.t, kept.thickness.at(-1)!.t] : null;
  const figures: Figure[] = [
    ...(isByLine ? [angle("one angle that is right half way", held, true)] : []),
    length("line at the heel", lines[0]!, !isByLine),
    length("in the middle", lines[1]!, !isByLine),
    length("at the tip", lines[2]!, !isByLine),
    length("the line runs from level by", Math.max(...lines) - Math.min(...lines), true),
    ...(angles
      ? [angle("line kept level, at the heel", angles[0]!), angle("and at the tip", angles[2]!)]
      : []),
    ...(ends && kept.ok
      ? [
          length("or stock of, at the heel", ends[0]!),
          length("stock, at the tip", ends[1]!),
          length("which changes it by", kept.thicknessChanges),
        ]
      : []),
  ];
  return {
    state: "answered",
    figures,
    relations: [`the line's height follows T: h = (T − e) / 2 tan β, at ${say.angle(held)}`],
    notes: [
      "Held at one angle the line runs with the taper; kept level, the angle has to change along the blade, or the stock has to be alike.",
      ...(kept.ok ? [] : [`Kept level by its taper alone: ${kept.because}.`]),
    ],
    sketch: {
      steel: [
        [
          [0, 0],
          [PIECE.length, 0],
          [PIECE.length, field.ring.top - field.ring.bottom],
          [0, field.ring.top - field.ring.bottom],
        ],
      ],
      marks: [
        {
          kind: "scribed",
          words: "one angle",
          line: PLACES.map((share, i) => [PIECE.length * share, lines[i]!] as const),
        },
        {
          kind: "datum",
          words: "level",
          line: [
            [0, wanted],
            [PIECE.length, wanted],
          ],
        },
      ],
    },
    blade: made.blade,
  };
}

/** The same piece with its line kept level, as a field; null where it cannot be. */
function makeLevel({ blade }: { blade: Parameters<typeof structuredClone>[0] & object }, wanted: number) {
  const copy = structuredClone(blade) as Extract<ReturnType<typeof makePiece>, { ok: true }>["blade"];
  const made = makePiece({
    thickness: [copy.thickness[0]!.t, copy.thickness[1]!.t],
    behind: copy.edge.behind[0]!.t,
    edgeAngle: copy.edge.angle.right,
    bevel: { kind: "height", height: wanted },
    tall: wanted,
  });
  return made.ok ? made.field : null;
}
