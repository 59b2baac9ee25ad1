import type { StraightAsked, StraightReport } from "../inspect/straightness.ts";
import { workedOn } from "../route/stages.ts";
import type { Bend } from "../straight/fit.ts";
import { bowLeft } from "../straight/lines.ts";
import type { LengthUnit } from "../units/length.ts";
import { type Finding, found } from "./finding.ts";
import { type Speech, speechIn } from "./judged.ts";

/** What a blade's straightness comes to, worst first. */
interface Read {
  readonly asked: StraightAsked;
  readonly report: StraightReport;
  readonly say: Speech;
}
type Rule = (read: Read) => Finding[];

const DEGREE = Math.PI / 180;
const COVERS = 1.96;
const COMMON = "common practice";
const FIT = "least squares; G. Schwarz (1978) and R. T. Birge (1932), from memory of; starting bands";

const hollowWords = (height: number) => `${height > 0 ? "left" : "right"} flat hollow`;
const isOut = ({ height, give, band }: StraightReport) => Math.abs(height) > band + give;

/** A shape in words, with its place. */
export function bendWords(
  { shape, amplitudes }: Bend,
  height: number,
  { say, place }: { say: Speech; place: readonly [number, number] | null },
): string {
  const degrees = (radians: number) => `${Math.abs(radians / DEGREE).toFixed(2)}°`;
  const at = (x: number) => Math.round(x);
  switch (shape.kind) {
    case "even":
      return `Bowed evenly, ${say.length(Math.abs(height))} high, ${hollowWords(height)}`;
    case "bend": {
      const within = place && place[0] < place[1] ? ` (${at(place[0])} to ${at(place[1])})` : "";
      return `Bent ${degrees(amplitudes[0]!)} at ${at(shape.at)}${within}, ${hollowWords(height)}`;
    }
    case "part":
      return `Bowed from ${at(shape.from)} to ${at(shape.to)}, ${say.length(Math.abs(height))} high, ${hollowWords(height)}`;
    case "two":
      return `Bent two ways, ${degrees(amplitudes[0]!)} at ${at(shape.at[0])} and ${degrees(amplitudes[1]!)} at ${at(shape.at[1])}`;
  }
}

const RIVAL_WORDS: Readonly<Record<Bend["shape"]["kind"], string>> = {
  even: "an even bow fits",
  bend: "one bend fits",
  part: "a bow of a part fits",
  two: "two bends fit",
};

/** How it is worked, in one sentence. */
export function workWords({ work, state, build }: StraightReport): string {
  const [first] = work;
  if (!first) return "";
  const { advice, strikes } = first;
  if (!advice.face) return advice.words;
  const lean = Math.round(Math.abs((first.lines.lean * 180) / Math.PI));
  const way = lean < 3 ? "square across" : `leaning ${lean}°`;
  const xs = strikes.map(({ x }) => Math.round(x));
  const at = xs.length === 1 ? `at ${xs[0]}` : `from ${xs[0]} to ${xs[xs.length - 1]}`;
  const built = { solid: "One steel", clad: "Hard core, soft sides", unknown: "Build unknown" }[build];
  const stands = {
    soft: "soft",
    hot: "at black heat",
    window: "in the oil",
    raw: "raw hard",
    temper: "in the temper",
    hard: "hard",
  }[state];
  return `${built}, ${stands}: ${advice.face} face up, ${way} ${at}. ${advice.words}`;
}

const bent: Rule = ({ report, say }) => {
  const { best, rival, height, fit } = report;
  if (!best || (best.shape.kind !== "two" && !isOut(report))) return [];
  const id = { even: "bow", part: "bow", bend: "bend-at", two: "s-bend" }[best.shape.kind];
  const near = rival ? `; ${RIVAL_WORDS[rival.shape.kind]} nearly as well` : "";
  const next = fit.next && rival ? nextWords(fit.next) : "";
  return [
    found(
      id,
      "watch",
      `${bendWords(best, height, { say, place: fit.place })}${near}.`,
      [workWords(report), next].filter(Boolean).join(" "),
      FIT,
      { measured: height, wanted: [-report.band, report.band], unit: "mm" },
    ),
  ];
};

/** One more reading, or a better instrument. */
export function nextWords({ x, by }: NonNullable<StraightReport["fit"]["next"]>): string {
  return by < 1
    ? "They differ by less than can be read: a finer feeler, or a dial instead."
    : `One more reading at ${x} would tell them apart.`;
}

const turned: Rule = ({ report, say }) => {
  const { twist, twistBand } = report;
  if (!twist || Math.abs(twist.total) <= twistBand + COVERS * twist.u) return [];
  const degrees = Math.abs(twist.total / DEGREE).toFixed(1);
  const where = twist.at === null ? "heel to tip" : `at once, at ${Math.round(twist.at)}`;
  const lines = report.work.filter(({ lines: { lean } }) => Math.abs(lean) > 0.05);
  const both =
    lines.length > 1 && lines[0]!.advice.face
      ? ` Lines at ${Math.round(Math.abs((lines[0]!.lines.lean * 180) / Math.PI))}° on both faces, half each: on one alone it leaves a bow of ${say.length(Math.abs(bowLeft(twist.total, twist.span)))}.`
      : "";
  return [
    found(
      "twist",
      "watch",
      `Twisted ${degrees}° ${where}: the tip's edge is turned to the ${twist.total > 0 ? "left" : "right"}.`,
      `${lines[0]?.advice.words ?? ""}${both}`,
      "geometry; common practice",
      { measured: twist.total / DEGREE, wanted: [-1, 1], unit: "degrees" },
    ),
  ];
};

/** Left to grinding, where every face holds it. */
const grindOut: Rule = ({ report, say }) => {
  const bow = report.best ? Math.abs(report.height) : 0;
  const isBent = isOut(report) || (report.twist && Math.abs(report.twist.total) > report.twistBand);
  if (!isBent) return [];
  return report.spares.holds
    ? [
        found(
          "grind-it-out",
          "note",
          `What is still to come off holds it: every face could spare a bow of ${say.length(report.spares.bow)}.`,
          "Leave it to grinding, both faces by turns, and look again.",
          "geometry: half the bow off each face, the skin still under it",
        ),
      ]
    : [
        found(
          "straight-no-allowance",
          report.state === "hard" ? "watch" : "note",
          `What is still to come off does not hold it: ${say.length(bow)} against ${say.length(report.spares.bow)}.`,
          "Straighten it first; ground as it is, one face goes through its skin or below its line.",
          "geometry: half the bow off each face, the skin still under it",
        ),
      ];
};

const tooFew: Rule = ({ report }) =>
  report.rows > 0 && report.rows < 4
    ? [
        found(
          "too-few",
          "note",
          `${report.rows} readings tell no bend: four tell an even bow, five a bend, seven two.`,
          "Read more places along it, both ends among them.",
          COMMON,
        ),
      ]
    : [];

const rawWorked: Rule = ({ asked }) =>
  asked.blows.some(({ state }) => state === "raw")
    ? [
        found(
          "raw-worked",
          "fix",
          "It was struck raw hard.",
          "Look along the edge for cracks, in oil or under a lens; temper it before anything else.",
          COMMON,
        ),
      ]
    : [];

/** Blows that did nothing, or too much. */
const blowsRule: Rule = ({ asked, report, say }) => {
  const { history } = report;
  const [was, is] = [history.at(-2), history.at(-1)];
  const last = asked.blows.at(-1);
  const lastSet = asked.sets.findLast(({ kind }) => kind !== "roll");
  if (was === undefined || is === undefined || !last || !lastSet) return [];
  if (Date.parse(lastSet.when) < Date.parse(last.when)) return [];
  if (was * is < 0 && Math.abs(is) > report.band)
    return [
      found(
        "overshot",
        "watch",
        `It has gone past straight: ${say.length(Math.abs(is))} the other way.`,
        "Stop, and read again before the next blow.",
        COMMON,
      ),
    ];
  const moved = Math.abs(was - is);
  return last.count >= 3 && moved < report.give && Math.abs(is) > report.band
    ? [
        found(
          "blow-none",
          "watch",
          `${last.count} blows moved it by less than can be told.`,
          "Is it the right face, and on the line? Harder, or a smaller bit; never within 5 mm of a thin edge.",
          COMMON,
        ),
      ]
    : [];
};

/** Build unknown: the first light blow in the furrow tells, by whether it is straighter after it. */
const buildTold: Rule = ({ asked, report, say }) => {
  const { history, build, state, give } = report;
  const [was, is] = [history.at(-2), history.at(-1)];
  const last = asked.blows.at(-1);
  if (build !== "unknown" || state !== "hard" || last?.tool !== "bit") return [];
  if (was === undefined || is === undefined || report.rows === 0) return [];
  const moved = Math.abs(was) - Math.abs(is);
  if (Math.abs(moved) <= give / 2) return [];
  return [
    found(
      "build-told",
      "note",
      moved > 0
        ? `That blow took ${say.length(moved)} out of it: it works as one steel.`
        : `That blow put ${say.length(-moved)} into it: its sides are soft.`,
      moved > 0
        ? "Go on in the furrow, hollow up."
        : "Go on along the crest, crest up on a soft stump, with a soft hammer; put its core on Grind.",
      COMMON,
    ),
  ];
};

/** Ground since it was read. */
const readAgain: Rule = ({ asked: { route, sets }, report }) => {
  const last = sets.at(-1);
  if (!last || report.rows === 0) return [];
  const since = route.stages.find((stage) => {
    const on = workedOn(stage);
    const isGrinding = on === "flats" || on === "bevels" || stage.kind === "harden";
    return isGrinding && stage.done !== undefined && Date.parse(stage.done) > Date.parse(last.when);
  });
  return since
    ? [
        found(
          "read-again",
          "watch",
          "It was ground or heated since it was read.",
          "Every fire and every grind moves it: read it again.",
          COMMON,
        ),
      ]
    : [];
};

/** Over a quarter of the band by its own weight. */
const sag: Rule = ({ report, asked: { sets }, say }) =>
  report.sag > report.band / 4 && sets.some(({ kind }) => kind === "rise")
    ? [
        found(
          "sag-in-reading",
          "watch",
          `Lying on its ends it sags ${say.length(report.sag)} by its own weight.`,
          "Read it standing on its spine, or on both faces: then it falls out.",
          "uniform beam, any handbook",
        ),
      ]
    : [];

/** A straightedge that nobody reversed for a year. Starting value. */
const YEAR_MS = 366 * 24 * 3600 * 1000;
const reference: Rule = ({ asked: { sets, shop }, say, report }) => {
  const gap = sets.findLast(({ kind }) => kind === "gap");
  if (!gap) return [];
  const own = shop.instruments?.find(({ id, kind }) => kind === "feelers" && id === gap.instrument);
  const rule = own ?? shop.instruments?.find(({ kind }) => kind === "feelers");
  const most = Math.max(0, ...(rule?.shape ?? []).map(({ t }) => Math.abs(t)));
  if (most > report.band / 4)
    return [
      found(
        "reference-bent",
        "watch",
        `The straightedge is bent itself, by ${say.length(most)}: it is taken off what it reads.`,
        "Use a better one for a thin blade.",
        "reversal: C. J. Evans, R. J. Hocken and W. T. Estler (1996), from memory of",
      ),
    ];
  const isFresh = rule?.checked && Date.parse(gap.when) - Date.parse(rule.checked) < YEAR_MS;
  return isFresh || sets.some(({ pair }) => pair)
    ? []
    : [
        found(
          "reference-unchecked",
          "note",
          "Nobody has said within a year that this straightedge is straight.",
          "Read both faces with it, the same end to the tip: that tells the blade and the straightedge apart.",
          COMMON,
        ),
      ];
};

/** No blow: it was ground so, or a thin edge has waved. */
const edgeWaves: Rule = ({ report }) =>
  report.edgeWaves
    ? [
        found(
          "edge-waves",
          "watch",
          "Its edge wanders, its spine does not, and it is not turned.",
          "Ground so, or a thin edge that waved in the fire: no blow. Read whether the edge is off centre.",
          COMMON,
        ),
      ]
    : [];

const RULES: readonly Rule[] = [
  rawWorked,
  bent,
  edgeWaves,
  turned,
  blowsRule,
  buildTold,
  grindOut,
  readAgain,
  sag,
  reference,
  tooFew,
];
const RANK = { fix: 0, watch: 1, note: 2 } as const;

/** Judges how straight a blade is, by what was read and struck. */
export function judgeStraight(
  asked: StraightAsked,
  report: StraightReport,
  unit: LengthUnit = "mm",
): Finding[] {
  if (asked.sets.length === 0) return rawWorked({ asked, report, say: speechIn(unit) });
  const read = { asked, report, say: speechIn(unit) };
  return RULES.flatMap((rule) => rule(read)).sort((a, b) => RANK[a.severity] - RANK[b.severity]);
}
