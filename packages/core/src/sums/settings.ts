import { angleFrom, costOfAngle, readingFor, type Setup } from "../grind/setups.ts";
import type { Sketch } from "./sketch.ts";
import {
  type Answer,
  type Ask,
  angle,
  askAngle,
  askLength,
  askNumber,
  type Given,
  impossible,
  length,
  numberOf,
  type Say,
  type Sum,
  wanting,
} from "./sum.ts";

/** What each way of holding must be told beside the angle. */
const KINDS: readonly { value: Setup["kind"]; name: string }[] = [
  { value: "rest", name: "rest, from the platen" },
  { value: "guide", name: "bevel guide and block" },
  { value: "screw", name: "screw jig" },
  { value: "arm", name: "tool arm with a dial" },
  { value: "wheel", name: "contact wheel" },
  { value: "stone", name: "stone, spine lifted" },
  { value: "file", name: "file, end lifted" },
];

const ASKS: readonly Ask[] = [
  {
    kind: "choice",
    key: "kind",
    name: "Held by",
    options: KINDS,
    usual: "screw",
  },
  askAngle("angle", "Angle a side"),
  askNumber("reading", "or what it reads"),
  { ...askLength("far", "Pivot away"), only: { key: "kind", of: ["screw"] } },
  { ...askLength("wheel", "Wheel, across"), only: { key: "kind", of: ["wheel"] } },
  { ...askLength("width", "Edge to what is lifted"), only: { key: "kind", of: ["stone", "file"] } },
  {
    kind: "choice",
    key: "by",
    only: { key: "kind", of: ["screw"] },
    name: "Screw goes by",
    options: [
      { value: "tangent", name: "tangent: upright" },
      { value: "sine", name: "sine: across the arm" },
    ],
    usual: "tangent",
  },
  { ...askNumber("zero", "Dial's zero", 0), only: { key: "kind", of: ["arm"] } },
  askLength("line", "Line, high, to say what it costs"),
];

/** Least and most that a set-up's own measure may be, mm. */
const FAR = [5, 5000] as const;
/** What a hand is off by on a scale of degrees, and on one of lengths. */
const OFF = { "°": 0.1, mm: 0.5 } as const;

/** Jig, rest, screw, arm and stone, both ways, with what a little off is worth. */
export const JIG: Sum = {
  key: "jig",
  group: "set",
  name: "Jig, rest, screw, arm, stone",
  words:
    "jig rest platen screw sine tangent tool arm dial zero stone lift spine setting angle set guide block wheel file",
  how: "An angle gives what to set; what it reads gives the angle.",
  asks: ASKS,
  answer(given, say) {
    const setup = setupFrom(given, say);
    if (typeof setup === "string") return wanting(setup);
    if ("state" in setup) return setup;
    const [beta, reading, line] = ["angle", "reading", "line"].map((key) => numberOf(given, key));
    if (beta === undefined && reading === undefined) return wanting("Give the angle, or what it reads.");
    if (beta !== undefined && !(beta > 0 && beta < 60))
      return impossible("a bevel lies above 0 and below 60° a side");
    const held = beta ?? angleFrom(setup, reading!);
    if (held === null) {
      const most = readingFor(setup, 60);
      return impossible("no angle reads that", {
        words: `At 60° a side it reads ${most.value.toFixed(2)}.`,
        given: { reading: Math.floor(most.value * 100) / 100 },
      });
    }
    return jigAnswer(setup, held, { isByAngle: beta !== undefined, line }, say);
  },
};

function setupFrom(given: Given, say: Say): Setup | string | Answer {
  const kind = String(given.kind ?? "screw") as Setup["kind"];
  const far = numberOf(
    given,
    { screw: "far", wheel: "wheel", stone: "width", file: "width" }[kind as string] ?? "",
  );
  const isFar = kind === "screw" || kind === "stone" || kind === "file" || kind === "wheel";
  if (isFar && far === undefined)
    return kind === "screw"
      ? "Say how far away the pivot is."
      : kind === "wheel"
        ? "Say how large the wheel is across."
        : "Say how wide the blade is from edge to spine, or how long the file.";
  if (isFar && !(far! >= FAR[0] && far! <= FAR[1]))
    return impossible(`that lies from ${say.length(FAR[0])} to ${say.length(FAR[1])}`);
  switch (kind) {
    case "screw":
      return { kind, pivot: far!, by: given.by === "sine" ? "sine" : "tangent" };
    case "arm":
      return { kind, zero: numberOf(given, "zero") ?? 0, sense: 1 };
    case "wheel":
      return { kind, diameter: far! };
    case "stone":
    case "file":
      return { kind, width: far! };
    default:
      return { kind };
  }
}

function jigAnswer(
  setup: Setup,
  held: number,
  { isByAngle, line }: { isByAngle: boolean; line: number | undefined },
  say: Say,
): Answer {
  const read = readingFor(setup, held);
  const off = OFF[read.unit];
  const [under, over] = [angleFrom(setup, read.value - off), angleFrom(setup, read.value + off)];
  const worth =
    under !== null && over !== null ? Math.abs(over - under) / 2 : Math.abs((under ?? held) - (over ?? held));
  const cost = line === undefined ? null : costOfAngle(line, held, worth);
  const both: Setup[] =
    setup.kind === "screw"
      ? [
          { ...setup, by: "tangent" },
          { ...setup, by: "sine" },
        ]
      : [];
  return {
    state: "answered",
    figures: [
      { name: `set it to, ${read.datum}`, value: read.value, unit: read.unit, isMain: isByAngle },
      ...(read.also ? [{ name: read.also.datum, value: read.also.value, unit: "°" } as const] : []),
      angle("a side is held at", held, !isByAngle),
      angle("inclusive", 2 * held),
      ...both.map((one) =>
        length(
          one.kind === "screw" && one.by === "sine" ? "by sine" : "by tangent",
          readingFor(one, held).value,
        ),
      ),
      angle(`${read.unit === "mm" ? say.length(off) : `${off}°`} off is worth`, worth),
      ...(cost
        ? [
            length("at the edge, the line held", cost.edge),
            length("or of the line, the edge held", cost.line),
          ]
        : []),
    ],
    relations: [relationOf(setup, held, say)],
    sketch: triangle(held),
  };
}

function relationOf(setup: Setup, held: number, say: Say): string {
  const at = say.angle(held);
  switch (setup.kind) {
    case "screw":
      return setup.by === "sine"
        ? `L sin β = ${say.length(setup.pivot)} × sin ${at}`
        : `L tan β = ${say.length(setup.pivot)} × tan ${at}`;
    case "stone":
    case "file":
      return `w sin β = ${say.length(setup.width)} × sin ${at}`;
    case "rest":
      return `90° − β = 90° − ${at}, and β itself from square`;
    case "arm":
      return `zero + β = ${say.angle(setup.zero)} + ${at}`;
    default:
      return `β = ${at}`;
  }
}

/** The angle as it is held, for the eye. */
function triangle(held: number): Sketch {
  const run = 40;
  const rise = run * Math.tan((held * Math.PI) / 180);
  return {
    steel: [
      [
        [0, 0],
        [run, 0],
        [run, rise],
      ],
    ],
    marks: [
      {
        kind: "size",
        words: `${held.toFixed(2)}°`,
        line: [
          [run * 0.3, 0],
          [run * 0.3 * Math.cos(held * (Math.PI / 180)), run * 0.3 * Math.sin(held * (Math.PI / 180))],
        ],
      },
    ],
  };
}

/** A machine's angle asked back: what it says, a side or inclusive, and from which plane. */
export const SAID: Sum = {
  key: "said",
  group: "set",
  name: "A side, inclusive, or from square",
  words: "inclusive a side per side both sides platen square total angle convert machine 25 degrees",
  how: "What a machine, a drawing or a friend calls an angle, told the other ways.",
  asks: [
    askNumber("said", "Said to be, °"),
    {
      kind: "choice",
      key: "as",
      name: "Meant",
      options: [
        { value: "side", name: "a side, from the centre plane" },
        { value: "inclusive", name: "inclusive, both sides together" },
        { value: "square", name: "between rest and platen, 90 is square" },
      ],
      usual: "side",
    },
  ],
  answer(given) {
    const said = numberOf(given, "said");
    if (said === undefined) return wanting("Say what angle.");
    const side = { side: said, inclusive: said / 2, square: 90 - said }[String(given.as ?? "side")] ?? said;
    if (!(side > 0 && side <= 60)) return impossible("a bevel lies above 0 and below 60° a side");
    return {
      state: "answered",
      figures: [
        angle("a side", side, true),
        angle("inclusive", 2 * side, true),
        angle("between rest and platen", 90 - side),
        { name: "rise for 100 along, a side", value: 100 * Math.tan((side * Math.PI) / 180), unit: "" },
      ],
      relations: [
        `inclusive = 2β; rest = 90° − β; a slope of 1 in ${(1 / Math.tan((side * Math.PI) / 180)).toFixed(2)}`,
      ],
      sketch: triangle(side),
    };
  },
};
