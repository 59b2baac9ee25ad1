import { cuttingRate } from "../abrasive/cutting.ts";
import { micronsOf, nearestGrade, SCALES, type ScaleKey, scratchDepth } from "../abrasive/gradings.ts";
import { abrasiveName } from "../abrasive/schema.ts";
import { USUAL_STORE } from "../abrasive/usual-store.ts";
import { massOf, sectionSums } from "../blade/mass.ts";
import { standInNamed, standInsFor } from "../route/past.ts";
import { densityOf } from "../steel/steels.ts";
import { tan } from "../units/angle.ts";
import { MILLIMETRES_IN, showFraction } from "../units/length.ts";
import { makePiece, PIECE } from "./piece.ts";
import { acrossAt, sectionOf } from "./sketch.ts";
import {
  askAngle,
  askLength,
  askNumber,
  type Figure,
  impossible,
  length,
  numberOf,
  type Sum,
  wanting,
} from "./sum.ts";

/** Steel that a bevel takes off, and how long a belt is at it. */
export const REMOVED: Sum = {
  key: "removed",
  group: "bench",
  name: "Steel removed, and minutes",
  words: "steel removed grams minutes time how long grinding dust section area belt rate weight",
  how: "A bevel along a length of edge, down to an edge, by a belt of the usual store.",
  asks: [
    askLength("thickness", "Thick at the top", "thickness"),
    askAngle("angle", "Bevel angle a side"),
    askLength("edge", "Edge left", "thickness", 0),
    askLength("length", "Edge, long", undefined, 100),
    {
      kind: "choice",
      key: "belt",
      name: "Belt",
      options: USUAL_STORE.map((belt) => ({ value: belt.id, name: abrasiveName(belt) })),
      usual: USUAL_STORE[0]!.id,
    },
    {
      kind: "choice",
      key: "steel",
      name: "The steel is",
      options: [
        { value: "soft", name: "soft" },
        { value: "hard", name: "hardened" },
      ],
      usual: "soft",
    },
  ],
  answer(given, say) {
    const [t, beta] = ["thickness", "angle"].map((key) => numberOf(given, key));
    const e = numberOf(given, "edge") ?? 0;
    const long = numberOf(given, "length") ?? 100;
    if (t === undefined || beta === undefined) return wanting("Give the stock, and the angle.");
    if (e >= t) return impossible("the edge left is as thick as the stock: nothing comes off");
    if (!(beta > 0 && beta < 60)) return impossible("a bevel lies above 0 and below 60° a side");
    const climb = (t - e) / 2 / tan(beta);
    const made = makePiece({
      thickness: t,
      behind: e,
      edgeAngle: e > 0 ? 60 : 0,
      bevel: { kind: "angle", angle: beta },
      tall: climb + e,
    });
    if (!made.ok) return impossible(made.because);
    const { field } = made;
    const from = field.ring.bottom + (made.station.right.edgeBevel ?? 0);
    const tall = field.ring.top - from;
    const standing = sectionSums(field, PIECE.middle, [[from, field.ring.top]]).area;
    const area = tall * t - standing;
    const volume = area * long;
    const belt = USUAL_STORE.find(({ id }) => id === given.belt) ?? USUAL_STORE[0]!;
    const minutes = volume / cuttingRate(belt, given.steel !== "hard");
    return {
      state: "answered",
      figures: [
        { name: "section removed, both sides", value: area, unit: "mm²", isMain: true },
        { name: "removed", value: massOf(volume, densityOf(undefined)), unit: "g", isMain: true },
        { name: "by every 100 mm of edge", value: massOf(area * 100, densityOf(undefined)), unit: "g" },
        { name: "about, a session's average", value: minutes, unit: "min", isMain: true },
      ],
      relations: [
        `(T − e)² / 4 tan β = (${say.length(t)} − ${say.length(e)})² / (4 × tan ${say.angle(beta)}) = ${area.toFixed(2)} mm²`,
      ],
      notes: ["Rates are starting values: the shop's own log corrects them in its stores."],
      sketch: { steel: sectionOf(field), marks: [acrossAt(tall - 1, t, say.length(t))] },
      blade: made.blade,
    };
  },
};

/** A grit across the scales. */
export const GRITS: Sum = {
  key: "grits",
  group: "bench",
  name: "Grits across the scales",
  words: "grit grits belt paper micron scale P CAMI JIS convert stone grade scratch depth",
  how: "A grade of one scale, what its grain is, and the nearest of the others.",
  asks: [
    { kind: "text", key: "grade", name: "Grade" },
    {
      kind: "choice",
      key: "scale",
      name: "Of the scale",
      options: SCALES.map(({ key, name }) => ({ value: key, name })),
      usual: "P",
    },
  ],
  answer(given) {
    const grade = String(given.grade ?? "").trim();
    if (grade === "") return wanting("Type a grade, like 120.");
    const scale = (given.scale ?? "P") as ScaleKey;
    const known = SCALES.find(({ key }) => key === scale)!;
    const named = known.grades.find(
      ([name]) => name.toLowerCase().replace(/^p/, "") === grade.toLowerCase().replace(/^p/, ""),
    )?.[0];
    const microns = micronsOf(scale, named ?? grade);
    if (microns === null) {
      const wanted = digitsOf(grade);
      const near = known.grades
        .map(([name]) => name)
        .sort((a, b) => Math.abs(digitsOf(a) - wanted) - Math.abs(digitsOf(b) - wanted))[0];
      return impossible(
        `the ${known.name} scale has no grade “${grade}”`,
        near ? { words: `Its nearest is ${near}.`, given: { grade: near } } : undefined,
      );
    }
    return {
      state: "answered",
      figures: [
        { name: "mean grain", value: microns, unit: "µm", isMain: true },
        ...SCALES.filter(({ key }) => key !== scale && key !== "micron").flatMap(
          ({ key, name }): Figure[] => {
            const nearest = nearestGrade(key, microns);
            return nearest
              ? [{ name, value: nearest.times, unit: "", words: nearest.grade, isMain: true }]
              : [];
          },
        ),
        length("deepest scratch, about", scratchDepth(microns)),
      ],
      relations: [`source of the scale: ${known.source}`],
    };
  },
};

const digitsOf = (grade: string) => Number(grade.replace(/\D/g, ""));

/** Celsius and Fahrenheit. */
export const TEMPERATURE: Sum = {
  key: "temperature",
  group: "bench",
  name: "Temperatures",
  words: "temperature celsius fahrenheit convert heat temper oven degrees",
  how: "Either way.",
  asks: [askNumber("celsius", "°C"), askNumber("fahrenheit", "°F")],
  answer(given) {
    const [c, f] = ["celsius", "fahrenheit"].map((key) => numberOf(given, key));
    if (c === undefined && f === undefined) return wanting("Give either.");
    const celsius = c ?? (f! - 32) / 1.8;
    if (celsius < -273.15) return impossible("there is nothing colder than −273.15 °C");
    return {
      state: "answered",
      figures: [
        { name: "Celsius", value: celsius, unit: "°C", isMain: c === undefined },
        { name: "Fahrenheit", value: celsius * 1.8 + 32, unit: "°F", isMain: c !== undefined },
      ],
      relations: [`F = 1.8 C + 32 = 1.8 × ${celsius.toFixed(1)} + 32 = ${(celsius * 1.8 + 32).toFixed(1)}`],
    };
  },
};

/** Letter drills, thousandths of an inch. Source: from memory of the American standard for twist drills, ANSI/ASME B94.11M. */
const LETTERS = {
  A: 234,
  B: 238,
  C: 242,
  D: 246,
  E: 250,
  F: 257,
  G: 261,
  H: 266,
  I: 272,
  J: 277,
  K: 281,
  L: 290,
  M: 295,
  N: 302,
  O: 316,
  P: 323,
  Q: 332,
  R: 339,
  S: 348,
  T: 358,
  U: 368,
  V: 377,
  W: 386,
  X: 397,
  Y: 404,
  Z: 413,
} as const;

/** A length in every measure of the bench, and what is as thick. */
export const LENGTHS: Sum = {
  key: "lengths",
  group: "bench",
  name: "Lengths, fractions, drills, coins",
  words:
    "length convert thousandths thou fraction inch millimetre drill letter number coin dime quarter feeler as thick as",
  how: "A length in any unit, a letter drill or a coin by name.",
  asks: [askLength("length", "Length"), { kind: "text", key: "named", name: "or by name: dime, drill F" }],
  answer(given) {
    const named = String(given.named ?? "").trim();
    const mm = numberOf(given, "length") ?? (named === "" ? undefined : byName(named));
    if (mm === undefined)
      return named === ""
        ? wanting("Give a length, or a name.")
        : impossible(`“${named}” is no coin or letter drill known here`, {
            words: "Try dime, quarter, or a letter from A to Z.",
            given: { named: "dime" },
          });
    if (!(mm > 0)) return impossible("a length is more than nothing");
    const { text, off } = showFraction(mm);
    const letter = Object.entries(LETTERS).reduce((a, b) =>
      Math.abs(b[1] * MILLIMETRES_IN.thou - mm) < Math.abs(a[1] * MILLIMETRES_IN.thou - mm) ? b : a,
    );
    const isLettered =
      mm >= LETTERS.A * MILLIMETRES_IN.thou - 0.2 && mm <= LETTERS.Z * MILLIMETRES_IN.thou + 0.2;
    return {
      state: "answered",
      figures: [
        { name: "millimetres", value: mm, unit: "", words: `${Number(mm.toFixed(4))} mm`, isMain: true },
        { name: "inches", value: mm, unit: "", words: `${(mm / 25.4).toFixed(4)} in`, isMain: true },
        {
          name: "thousandths",
          value: mm,
          unit: "",
          words: `${(mm / MILLIMETRES_IN.thou).toFixed(1)} thou`,
          isMain: true,
        },
        {
          name: "nearest 64th",
          value: mm,
          unit: "",
          words: `${text} in, ${Math.abs(off) < 0.0005 ? "exactly" : `${off > 0 ? "+" : "−"}${Math.abs(off).toFixed(3)} mm`}`,
        },
        ...(isLettered
          ? [
              {
                name: "letter drill",
                value: mm,
                unit: "",
                words: `${letter[0]}, ${(letter[1] / 1000).toFixed(3)} in`,
              } as const,
            ]
          : []),
        ...standInsFor(mm).map((one): Figure => ({ ...length(`as thick as ${one.name}`, one.thickness) })),
      ],
      relations: ["1 in = 25.4 mm exactly; 1 thou = 0.0254 mm"],
    };
  },
};

function byName(text: string): number | undefined {
  const letter = /^(?:drill |letter )?([a-z])$/i.exec(text)?.[1]?.toUpperCase() as
    | keyof typeof LETTERS
    | undefined;
  if (letter && letter in LETTERS) return LETTERS[letter] * MILLIMETRES_IN.thou;
  return standInNamed(text) ?? undefined;
}

/** Fingers across a hand. */
const FINGERS = 4;

/** Where a knife balances, in fingers of this hand. */
export const FINGERS_OF: Sum = {
  key: "fingers",
  group: "bench",
  name: "Balance in fingers of this hand",
  words: "balance fingers finger hand breadth point forward of the plunge guard",
  how: "A hand's breadth across four fingers, and a place from the plunge, either way.",
  asks: [
    askLength("hand", "Hand, across four fingers", undefined, 85),
    askLength("place", "From the plunge"),
    askNumber("fingers", "or in fingers"),
  ],
  answer(given, say) {
    const hand = numberOf(given, "hand") ?? 85;
    const [place, fingers] = ["place", "fingers"].map((key) => numberOf(given, key));
    if (place === undefined && fingers === undefined) return wanting("Give the place, or the fingers.");
    if (!(hand >= 40 && hand <= 150))
      return impossible(`a hand is ${say.length(40)} to ${say.length(150)} across`);
    const one = hand / FINGERS;
    const mm = place ?? fingers! * one;
    return {
      state: "answered",
      figures: [
        { name: "fingers", value: mm / one, unit: "", isMain: place !== undefined },
        length("from the plunge", mm, place === undefined),
        length("one finger", one),
      ],
      relations: [`a finger is a quarter of the hand: ${say.length(hand)} / 4 = ${say.length(one)}`],
    };
  },
};
