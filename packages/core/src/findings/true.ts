import { SIDES, type Side } from "../blade/schema.ts";
import type { PerSide } from "../blade/station.ts";
import { read } from "../blade/table.ts";
import type { AsFound } from "../inspect/as-found.ts";
import type { Bench } from "../inspect/bench.ts";
import { PATTERN } from "../inspect/faults/fault.ts";
import type { Figure } from "../inspect/figure.ts";
import { verdictOf } from "../inspect/figure.ts";
import type { Diagnosis, Explained } from "../inspect/fit.ts";
import { QUANTITY } from "../inspect/quantity.ts";
import { type Reading, type Spot, sideWords } from "../inspect/schema.ts";
import type { Doubt, RoundDoubt } from "../inspect/screen.ts";
import type { Slip } from "../inspect/slips.ts";
import type { BenchSteel } from "../inspect/target.ts";
import { centringCost, linesAgainst, type Together } from "../inspect/together.ts";
import { INSTRUMENT_NAMES } from "../shop/instrument.ts";
import type { LengthUnit } from "../units/length.ts";
import { type Finding, found, type NotJudged, type Severity } from "./finding.ts";
import { forgedFindings } from "./forged.ts";
import { type Speech, speechIn } from "./judged.ts";

/** Is the work true: what was read at a stage, held against what it should leave. */
interface Work {
  readonly stage: BenchSteel;
  readonly figures: readonly Figure[];
  readonly together: Together;
  readonly diagnosis: Diagnosis;
  readonly found: AsFound | null;
  readonly doubts: readonly Doubt[];
  readonly say: Speech;
}

const bothOf = ({ left, right }: PerSide<number>) => left + right;

/** Left over on a face after what must still come off it; what was found there, not what was planned. Null unread. */
function spareAt({ stage, found }: Work, side: Side, u: number): number | null {
  return found && stage.left.faces[side] + read(found.faces[side], u) - stage.needed[side];
}

/** Whether the finished blade is still in the steel at a share of the edge, whatever the stage's line says. */
function isStillIn(work: Work, u: number | undefined): boolean {
  return u !== undefined && SIDES.every((side) => (spareAt(work, side, u) ?? -1) >= 0);
}

const GO_ON =
  "The finished blade is still in it: go on with the other places first, and come to this one last, lightly.";

type WorkRule = (work: Work) => Finding[];

const BAND = "starting band, in the spirit of common practice";

const finding = (
  id: string,
  severity: Severity,
  where: Finding["where"],
  message: string,
  advice: string,
  basis: string,
  more: Partial<Finding> = {},
): Finding => found(id, severity, message, advice, basis, { where, ...more });

/** A finding where a derived figure is beyond its band: to fix beyond doubt, to watch within it. Null where it is good. */
function severityOf(off: number, band: number, expanded: number): Severity | null {
  const verdict = verdictOf(off, band, expanded);
  if (verdict === "out") return "fix";
  // Doubtful on the good side is no news until it is more than half of the band.
  return verdict === "doubtful" && Math.abs(off) > band * 0.8 ? "watch" : null;
}

const edgeOffCentre: WorkRule = ({ stage, together, say }) => {
  const off = together.centre.map((one) => ({
    ...one,
    severity: severityOf(one.value, one.band, one.expanded),
  }));
  const runs: (typeof off)[] = [];
  for (const one of off) {
    const last = runs.at(-1)?.at(-1);
    const isNext = last && off.indexOf(last) === off.indexOf(one) - 1 && last.value * one.value > 0;
    if (one.severity && isNext) runs.at(-1)!.push(one);
    else if (one.severity) runs.push([one]);
  }
  return runs.map((run) => {
    const worst = run.reduce((a, b) => (Math.abs(b.value) > Math.abs(a.value) ? b : a));
    const side: Side = worst.value > 0 ? "left" : "right";
    const x = [run[0]!.x, run.at(-1)!.x] as const;
    const cost = centringCost(stage, worst.u, side, worst.value);
    const standing = stage.steel.station(worst.u);
    const left = (standing.behind ?? bothOf(stage.left.faces)) - cost.edge;
    const apart = Math.abs(worst.linesApart);
    const against = linesAgainst(worst, together.lines);
    if (against)
      return finding(
        "readings-contradict",
        "watch",
        { x },
        `The edge readings put the edge ${say.length(Math.abs(worst.value))} ${side} of centre ${say.along(worst.x, worst.x)}; the grind lines there are ${say.length(Math.abs(against.value))} unlike instead of ${say.length(apart)}. Both cannot be right.`,
        "Read the edge from both flats and both grind lines there again. Grind nothing for this until they agree.",
        "geometry: four standard uncertainties",
        { measured: worst.value, wanted: [-worst.band, worst.band], unit: "mm" },
      );
    return finding(
      "edge-off-centre",
      worst.severity!,
      { side, x },
      `Edge is ${say.length(Math.abs(worst.value))} ${side} of centre ${say.along(...x)}, within ${say.length(worst.expanded)}; ${apart < standing.height ? `it makes the grind lines ${say.length(apart)} unlike.` : "it takes one grind line out over the spine."}`,
      left < bothOf(stage.needed)
        ? `Centring it takes ${say.length(cost.off)} off the ${side} face, which this edge no longer has: leave it, or move both lines.`
        : `Centring it takes ${say.length(cost.off)} off the ${side} face: the edge thins by as much, and that grind line climbs ${cost.line < standing.height ? say.length(cost.line) : "out over the spine"}.`,
      `geometry; ${BAND}`,
      { measured: worst.value, wanted: [-worst.band, worst.band], unit: "mm" },
    );
  });
};

const linesApart: WorkRule = ({ together, say }) => {
  const worst = together.lines.toSorted((a, b) => Math.abs(b.value) - Math.abs(a.value))[0];
  const severity = worst && severityOf(worst.value, worst.band, worst.expanded);
  if (!worst || !severity) return [];
  const higher = worst.value > 0 ? "left" : "right";
  return [
    finding(
      "grind-lines-apart",
      severity,
      { side: higher, x: [worst.x, worst.x] },
      `The ${higher} grind line stands ${say.length(Math.abs(worst.value))} higher than the other ${say.along(worst.x, worst.x)}.`,
      `The ${higher === "left" ? "right" : "left"} face still has steel, or the ${higher} one has gone too far: see which by the edge from both flats.`,
      BAND,
      { measured: worst.value, wanted: [-worst.band, worst.band], unit: "mm" },
    ),
  ];
};

const plungesApart: WorkRule = ({ together, say }) => {
  const { place, lean } = together.plunges;
  const found: Finding[] = [];
  const severity = place && severityOf(place.value, 0.25, place.expanded);
  if (place && severity) {
    const back = place.value > 0 ? "right" : "left";
    found.push(
      finding(
        "plunges-apart",
        severity,
        { side: back },
        `The ${back} plunge starts ${say.length(Math.abs(place.value))} further back than the other.`,
        "Work the other back to it, from one square and with the same overhang; not the shorter one forward, which cannot be.",
        BAND,
        { measured: place.value, wanted: [-0.25, 0.25], unit: "mm" },
      ),
    );
  }
  const leaning = lean && severityOf(lean.value, 1, lean.expanded);
  if (lean && leaning) {
    found.push(
      finding(
        "plunges-lean",
        leaning,
        {},
        `The plunges lean ${Math.abs(lean.value).toFixed(1)}° apart.`,
        "Square the guide again from the spine, on both sides, before the next pass.",
        BAND,
        { measured: lean.value, wanted: [-1, 1], unit: "degrees" },
      ),
    );
  }
  return found;
};

const edgeUneven: WorkRule = (work) => {
  const {
    together: { edge },
    say,
  } = work;
  const severity = edge && severityOf(edge.range.value, edge.band, edge.range.expanded);
  if (!edge || !severity) return [];
  const isIn = isStillIn(work, edge.least.u);
  return [
    finding(
      "edge-uneven",
      isIn ? "watch" : severity,
      { x: [Math.min(edge.least.x, edge.most.x), Math.max(edge.least.x, edge.most.x)] },
      `Along the edge it reads from ${say.length(edge.least.value)} ${say.along(edge.least.x, edge.least.x)} to ${say.length(edge.most.value)} ${say.along(edge.most.x, edge.most.x)}: ${say.length(edge.range.value)} more than planned between them.`,
      isIn && edge.most.off <= edge.band ? GO_ON : "Work the thick places alone, lightly, and read again.",
      BAND,
      { measured: edge.range.value, wanted: [0, edge.band], unit: "mm" },
    ),
  ];
};

const taperOff: WorkRule = ({ together: { taper }, say }) => {
  const severity = taper && severityOf(taper.value, 0.16, taper.expanded);
  if (!taper || !severity) return [];
  return [
    finding(
      "taper-off",
      severity,
      {},
      `The distal taper is off by ${say.length(Math.abs(taper.value))} from the first flat read to the last: the tip's end is too ${taper.value > 0 ? "thick" : "thin"}.`,
      "Dress the flats before the bevels: every line is laid out from them.",
      "flats within ± 0.08 mm: starting band",
      { measured: taper.value, wanted: [-0.16, 0.16], unit: "mm" },
    ),
  ];
};

const crooked: WorkRule = ({ stage, together, figures, say }) => {
  const found: Finding[] = [];
  const bow = figures.find(({ spot }) => spot.what === "bow");
  const how = stage.isHard
    ? "Fine peening in the hollow, along the furrow, stretches that side; or bend warm at the spine with the edge kept cold. One blow, look again. Only after tempering."
    : "Soft: simply bend it back, and sight along it edge up and edge down.";
  const bowed = bow && severityOf(bow.off, bow.target.band, bow.uncertainty.expanded);
  if (bow && bowed) {
    const hollow: Side = bow.off > 0 ? "left" : "right";
    found.push(
      finding(
        "bow",
        bowed,
        { side: hollow },
        `Bowed ${say.length(Math.abs(bow.off))}: the ${hollow} flat is the hollow one.`,
        how,
        "common practice",
        { measured: bow.off, wanted: [-bow.target.band, bow.target.band], unit: "mm" },
      ),
    );
  }
  const twisted = together.twist && severityOf(together.twist.value, 1, together.twist.expanded);
  if (together.twist && twisted) {
    const turned = together.twist.value > 0 ? "left" : "right";
    found.push(
      finding(
        "twist",
        twisted,
        {},
        `Twisted ${Math.abs(together.twist.value).toFixed(1)}° heel to tip: the tip's edge is turned to the ${turned}.`,
        stage.isHard
          ? "Clamp it against the twist in the next temper, a little beyond straight."
          : "Turn it back with a wrench at the tip, the heel in the vice between soft jaws.",
        "common practice",
        { measured: together.twist.value, wanted: [-1, 1], unit: "degrees" },
      ),
    );
  }
  return found;
};

const hardnessOff: WorkRule = ({ figures }) => {
  const read = figures.find(({ spot }) => spot.what === "hardness");
  const severity = read && severityOf(read.off, read.target.band, read.uncertainty.expanded);
  if (!read || !severity) return [];
  const soft = read.off < 0;
  return [
    finding(
      "hardness-off",
      severity,
      {},
      `Reads ${read.value.toFixed(1)} HRC where ${read.target.value.toFixed(1)} is wanted.`,
      soft
        ? "Grind below the decarburized skin and read again; a file skates on hard steel. Then harden again: a temper gives none back."
        : "Temper again, 10 °C hotter, and read again.",
      "± 2 HRC: starting band; common practice",
    ),
  ];
};

/** Readings that are out and that no finding above speaks of. */
const SPOKEN: readonly Spot["what"][] = ["bow", "twist", "hardness", "over"];

const readOut: WorkRule = (work) => {
  const { figures, say } = work;
  const out = figures.filter(({ verdict, spot }) => verdict === "out" && !SPOKEN.includes(spot.what));
  const worst = new Map<string, Figure>();
  for (const figure of out) {
    const key = `${figure.spot.what} ${figure.spot.side ?? ""}`;
    const known = worst.get(key);
    if (!known || Math.abs(figure.off / figure.target.band) > Math.abs(known.off / known.target.band))
      worst.set(key, figure);
  }
  return [...worst.values()].map((figure) => {
    const { spot, target, off } = figure;
    const { name, unit } = QUANTITY[spot.what];
    const told = (value: number) => (unit === "mm" ? say.length(value) : `${value.toFixed(1)}${unit}`);
    const where = QUANTITY[spot.what].at === "whole" ? "" : ` ${say.along(target.x, target.x)}`;
    const count = out.filter((one) => one.spot.what === spot.what && one.spot.side === spot.side).length;
    const more = count > 1 ? `, the worst of ${count}` : "";
    const isThin = spot.what === "line" ? off > 0 : off < 0;
    const isIn = isThin && isStillIn(work, spot.u);
    return finding(
      "reading-out",
      isIn ? "watch" : "fix",
      { ...(spot.side ? { side: spot.side } : {}), x: [target.x, target.x] },
      `${spot.side ? `${spot.side === "left" ? "Left" : "Right"}: ` : ""}${name}${where} reads ${told(figure.value)}, ${told(Math.abs(off))} ${off > 0 ? "more" : "less"} than planned${more}.`,
      isIn
        ? GO_ON
        : "Read it once more before anything is ground; then see what the readings look like together.",
      target.basis,
      unit === "HRC"
        ? {}
        : { measured: figure.value, wanted: [target.value - target.band, target.value + target.band] },
    );
  });
};

/** What the readings look like together, in a sentence. */
export function told(one: Explained, say: Speech): string {
  const { shape } = one;
  if (shape.pattern === "off-centre" && shape.side && shape.x) {
    const way = one.size > 0 ? "too thick" : "too far down";
    return `one side ground unlike the other: the ${shape.side} face is ${say.length(Math.abs(one.size))} ${way} ${say.along(...shape.x)}`;
  }
  if (shape.step && shape.side) {
    const { height, angle, above } = shape.step;
    return `two slopes on the ${shape.side} side: above a step near the edge it stands ${say.length(one.size)} proud at its own ${above.toFixed(1)}°, below it it is steeper, about ${angle(one.size).toFixed(0)}° were the step ${say.length(height)} up`;
  }
  const size = shape.unit === "mm" ? say.length(Math.abs(one.size)) : `${Math.abs(one.size).toFixed(1)}°`;
  const side = shape.side ? `, ${shape.side} side` : "";
  const along = shape.x && shape.pattern !== "flats-not-true" ? ` ${say.along(...shape.x)}` : "";
  const which = shape.instrument ? ` (${INSTRUMENT_NAMES[shape.instrument]})` : "";
  return `${PATTERN[one.pattern].name}${which}: ${size}${side}${along}`;
}

const pattern: WorkRule = ({ diagnosis, say }) =>
  diagnosis.found.slice(0, 1).map((one) => {
    const facts = PATTERN[one.pattern];
    return finding(
      "fault-pattern",
      "watch",
      { ...(one.shape.side ? { side: one.shape.side } : {}), ...(one.shape.x ? { x: one.shape.x } : {}) },
      `The readings look like ${told(one, say)}. Usual cause: ${facts.cause}.`,
      facts.cure,
      `weighted least squares over ${Math.round(one.share * 100)} % of what is off; causes: common practice`,
    );
  });

/** What is taken for a slip of the hand: first of all, as nothing leans on it. */
const doubted: WorkRule = ({ doubts, say }) =>
  doubts.map((doubt) => {
    const [first] = doubt.readings;
    const where = first && doubt.readings.length === 1 ? whereOf(first) : {};
    return finding(
      "reading-doubted",
      "watch",
      where,
      doubtWords(doubt, say),
      adviceOn(doubt),
      "each reading held to what all the others say; the slips: common practice",
    );
  });

function whereOf({ side, x }: Spot): Finding["where"] {
  return { ...(side ? { side } : {}), ...(x === undefined ? {} : { x: [x, x] as const }) };
}

const SLIP_WORDS: Readonly<Record<Slip, string>> = {
  "ten-times": "typed ten times too large",
  "a-tenth": "typed as a tenth of it",
  "hundred-times": "typed without its point",
  "a-hundredth": "typed as a hundredth of it",
  "in-thousandths": "written in thousandths",
  "in-inches": "written in inches",
  "in-millimetres": "written in millimetres",
  "digits-swapped": "with its digits swapped",
  "other-sign": "with the other sign",
  "other-side": "from the other side",
  "other-stage": "from another stage",
  unlike: "",
};
const ROUND_WORDS: Readonly<Record<RoundDoubt, (of: string | null) => string>> = {
  units: (of) =>
    `This round seems to be written down in another unit (${of}): nothing in it fits, and all of it would.`,
  sides: () => "Left and right seem to be changed over: each side reads what the other should.",
  stage: (of) => `These look like readings of another stage (${of}): all of it fits there.`,
  blade: () => "Hardly any of this fits the blade, or itself: is it another blade's?",
};

function adviceOn({ slip, instead }: Doubt): string {
  if (slip in ROUND_WORDS) return "Settle that first: until then nothing leans on this round.";
  return instead === null
    ? "Read it again: the same once more, and it is believed. Until then nothing leans on it."
    : "Read it again, or mend it. Until then nothing leans on it.";
}

/** A doubt in a sentence. */
export function doubtWords({ slip, readings, instead, of }: Doubt, say: Speech): string {
  if (slip in ROUND_WORDS) return ROUND_WORDS[slip as RoundDoubt](of);
  const [reading] = readings as [Reading];
  const { name, unit } = QUANTITY[reading.what];
  const figure = (value: number) => (unit === "mm" ? say.length(value) : `${value.toFixed(1)}${unit}`);
  const side = sideWords(reading);
  const lead = `${name}${side ? `${side},` : ""} reads ${figure(reading.value)}`;
  if (slip === "unlike") return `${lead}, like nothing that was read around it.`;
  return `${lead}. Is it ${figure(instead ?? 0)}, ${SLIP_WORDS[slip as Slip]}?`;
}

/** What is behind the edge, how high its bevel is and how long its face: one triangle. */
const triangleOpen: WorkRule = ({ together, say }) => {
  const open = together.edgeAngles.flatMap((one) =>
    one.open && Math.abs(one.open.off) > one.open.covers ? [{ ...one, open: one.open }] : [],
  );
  if (open.length === 0) return [];
  const worst = open.reduce((a, b) => (Math.abs(b.open.off) > Math.abs(a.open.off) ? b : a));
  return [
    finding(
      "triangle-open",
      "watch",
      { side: worst.side, x: [worst.x, worst.x] },
      `Behind the edge, height and face do not close at ${say.along(worst.x, worst.x)}: the face is ${say.length(Math.abs(worst.open.off))} too ${worst.open.off > 0 ? "long" : "short"} for them.`,
      "Read the height again: on a short bevel it is the least sure.",
      "geometry",
      { measured: worst.open.off, wanted: [-worst.open.covers, worst.open.covers], unit: "mm" },
    ),
  ];
};

const RULES: readonly WorkRule[] = [
  triangleOpen,
  doubted,
  edgeOffCentre,
  plungesApart,
  linesApart,
  edgeUneven,
  taperOff,
  crooked,
  hardnessOff,
  readOut,
  pattern,
];
const RANK = { fix: 0, watch: 1, note: 2 } as const;

/** Judges the work of a stage by every rule, worst first. */
export function judgeWork({ second, ...bench }: Judged, unit: LengthUnit): Finding[] {
  const say = speechIn(unit);
  const first = [...RULES.flatMap((rule) => rule({ ...bench, say })), ...forgedFindings({ ...bench, say })];
  const other = second ? RULES.flatMap((rule) => rule({ ...second, say })) : [];
  return [...first, ...other.map(onTheSecond)].sort((a, b) => RANK[a.severity] - RANK[b.severity]);
}

type Judged = Pick<Bench, "stage" | "figures" | "together" | "diagnosis" | "found" | "doubts" | "second">;

/** A finding of the second edge says so. */
function onTheSecond(one: Finding): Finding {
  const { message, where } = one;
  return {
    ...one,
    where: { ...where, edge: "second" },
    message: `Second edge: ${message.charAt(0).toLowerCase()}${message.slice(1)}`,
  };
}

/** What a stage's readings leave unjudged, and why. */
export function workNotJudged({
  stage,
  figures,
  second,
}: Pick<Bench, "stage" | "figures" | "second">): NotJudged[] {
  const has = (what: Spot["what"]) => figures.some(({ spot }) => spot.what === what);
  return [
    ...(stage.isBevelled && !stage.isSharpened && !has("over")
      ? [
          {
            id: "edge-off-centre",
            why: "The edge was not read from both flats: whether it is centred is not known.",
          },
        ]
      : []),
    ...(stage.isSharpened
      ? [
          {
            id: "edge-off-centre",
            why: "Sharpened, the edge is too thin for a height gauge: its centre is judged before.",
          },
        ]
      : []),
    ...(second && !second.stage.isSharpened && !second.figures.some(({ spot }) => spot.what === "over")
      ? [
          {
            id: "edge-off-centre",
            why: "The second edge was not read from both flats: whether it is centred is not known.",
          },
        ]
      : []),
    ...(stage.isHard && stage.hardness === null
      ? [{ id: "hardness-off", why: "No hardness is wanted yet: say which, and it is judged." }]
      : []),
    ...(stage.isHard && stage.hardness !== null && !has("hardness")
      ? [{ id: "hardness-off", why: "Hardness was not read." }]
      : []),
    ...(has("bow") ? [] : [{ id: "bow", why: "Bow was not read." }]),
    ...(has("twist") ? [] : [{ id: "twist", why: "Twist was not read." }]),
  ];
}
