import { hotterFor } from "../heat/learned.ts";
import type { FileProof, HeatOp, Proof } from "../heat/schema.ts";
import type { OpReport } from "../route/heat-report.ts";
import { isHeat, withoutHeats } from "../route/heats.ts";
import { nameOf, STAGES, withStage } from "../route/stages.ts";
import {
  COMMON,
  finding,
  type Heated,
  type HeatOffer,
  type HeatRule,
  hardening,
  opsIn,
} from "./heat-finding.ts";

/** What was done at the fire and seen after it: files, coupons, clocks, readings. */

const isSeen = (saw: FileProof["saw"]) => (proof: Proof) => "saw" in proof && proof.saw === saw;

/** Sure below this says so in every verdict, %: starting value. */
const SURE = 80;
const scrapUnproved: HeatRule = ({ heat, proofs }) => {
  const { from, sure } = heat.steel;
  if ((from !== "scrap" && sure >= SURE) || proofs.some(isSeen("skates"))) return [];
  return [
    finding(
      "scrap-unproved",
      "watch",
      from === "scrap"
        ? `The steel is scrap, sure to ${Math.round(sure)} %: nobody knows yet that it hardens.`
        : `The steel is sure to ${Math.round(sure)} % only.`,
      "Harden a coupon of the same bar first, at three heats: the hardest with the finest grain is its own.",
      COMMON,
    ),
  ];
};

/** Hardened and nobody tried a file; or it bites. */
const fileTest: HeatRule = (asked) => {
  const { route, report, proofs, done } = asked;
  const isDone = (id: string) => done.includes(id);
  const harden = hardening(asked).at(-1);
  if (!harden || !isDone(harden.op.id)) return [];
  // What was done to it since cannot be taken back by a file.
  const isPast = route.stages
    .slice(route.stages.findIndex(({ id }) => id === harden.op.id) + 1)
    .some(({ id }) => id !== undefined && isDone(id));
  const here = proofs.filter((one): one is FileProof => one.what === "file" && one.after === harden.op.id);
  const at = (place: FileProof["place"]) => here.findLast((one) => one.place === place)?.saw;
  if (here.length === 0)
    return [
      finding(
        "no-file-test",
        isPast ? "watch" : "fix",
        "Hardened, and no file has been tried on it.",
        isPast
          ? "It has gone on since: try one at the tang or the spine before more is done to it."
          : "Edge, spine and tang, before it is tempered: a file skates on hard steel.",
        COMMON,
      ),
    ];
  const edge = at("edge");
  if (edge === "bites" || edge === "mixed") return [softEdge(asked, harden, edge === "bites")];
  const isMixed =
    edge === "skates" && at("spine") === "bites" && !report.ops.some(({ op: { kind } }) => kind === "clay");
  return isMixed
    ? [
        finding(
          "hardness-mixed",
          "note",
          "The edge skates, the spine bites: its section cools too slowly there.",
          "No fault where the spine may be soft; else a faster quenchant.",
          COMMON,
        ),
      ]
    : [];
};

/** A file bites: how much has to come off before it says anything of the steel, what is there to come off, and where to look next. */
function softEdge(asked: Heated, { skin, sections, op }: OpReport, isBitten: boolean) {
  const { route, report, heat, proofs, say } = asked;
  const isCool = report.steel !== null && op.T < report.steel.austenite.low;
  const isThick = sections.some(({ place, fares }) => place === "edge" && fares === "usually not");
  const isScrap = heat.steel.from === "scrap";
  const isNoSteel = isScrap || proofs.some((one) => one.what === "coupon" && one.saw === "bites");
  const off = 2 * skin.depth;
  const spare = report.toCome - off;
  const why = isCool
    ? "It was too cool."
    : isThick
      ? "Its section is too thick for that quenchant."
      : isScrap
        ? "It may be no steel that hardens: try a coupon."
        : "Normalize and harden it again, twice at most.";
  const room =
    spare >= 0
      ? `${say.length(report.toCome)} is still to come off, so ${say.length(spare)} of that is left.`
      : `Only ${say.length(report.toCome)} is still to come off: it ends ${say.length(-spare)} a side too thin.`;
  const most = Math.min(1, Math.ceil(off * 100) / 100);
  const offers: HeatOffer[] = [
    ...(most > route.skin + 0.005
      ? [{ words: `Leave ${say.length(most)} for the skin`, route: { ...route, skin: most } }]
      : []),
    ...(isNoSteel ? [{ words: "It stays as soft as it is", route: withoutHeats(route) }] : []),
  ];
  return finding(
    "edge-soft",
    "fix",
    `A file ${isBitten ? "bites" : "half bites"} at the edge: it is soft, or its skin is.`,
    `Take ${say.length(off)} off a side there and try again. ${room} Does it still bite: ${why}`,
    "common practice; diffusion of carbon, from memory of Callister and of Birks and Jackson",
    { offers },
  );
}

/** Within so long of the quench, min: starting value. */
const TEMPER_WITHIN = 60;
const MINUTE = 60_000;
const temperLate: HeatRule = ({ runs, report }) => {
  const last = (kind: HeatOp["kind"]) =>
    runs.filter((run) => report.ops.some(({ op }) => op.id === run.op && op.kind === kind));
  const [quenched, tempered] = [last("harden").at(-1)?.ended, last("temper")[0]?.began];
  if (!quenched || !tempered) return [];
  const minutes = (Date.parse(tempered) - Date.parse(quenched)) / MINUTE;
  if (minutes <= TEMPER_WITHIN) return [];
  return [
    finding(
      "temper-late",
      "watch",
      `Tempered ${Math.round(minutes)} minutes after the quench.`,
      "Raw hard steel cracks on its own: look along the edge, within the hour next time.",
      `${COMMON}; starting value`,
    ),
  ];
};

const soakShort: HeatRule = ({ runs, report }) =>
  runs.flatMap(({ op: id, through, ended }) => {
    const op = report.ops.find((one) => one.op.id === id);
    if (!op || !through || !ended) return [];
    const held = (Date.parse(ended) - Date.parse(through)) / MINUTE;
    if (held >= op.op.minutes - 0.5) return [];
    return [
      finding(
        "soak-short",
        "watch",
        `${op.name}: held ${held.toFixed(0)} of ${op.op.minutes} minutes after it was warm through.`,
        "What dissolves takes its time: hold it again, or prove it with a file.",
        COMMON,
      ),
    ];
  });

/** What can be done only while the steel is soft was left, and it is hard. */
const softWorkLeft: HeatRule = ({ route, report, done, runs }) => {
  const harden = report.ops.find(({ op }) => op.kind === "harden");
  if (!harden || !(done.includes(harden.op.id) || runs.some(({ op }) => op === harden.op.id))) return [];
  // Whoever ticks nothing off has said nothing of it.
  if (!route.stages.some(({ id, kind }) => !isHeat(kind) && done.includes(id ?? ""))) return [];
  const left = route.stages.filter(
    ({ id, kind }) =>
      !isHeat(kind) &&
      kind !== "forge" &&
      STAGES[kind].notAfter.some((one) => one.kind === "harden") &&
      !done.includes(id ?? ""),
  );
  return left.map((stage) =>
    finding(
      "soft-work-left",
      "fix",
      `${nameOf(stage, route.stages)} is not ticked as done, and it has been in the fire.`,
      "Soft work ends at the quench: anneal it and harden it again, or go without.",
      COMMON,
    ),
  );
};

/** Further apart than this is uneven, HRC: starting value. */
const APART = 2;

/** What a tester said after each heat. */
const hardnessApart: HeatRule = ({ report, hardness, testerGive }) =>
  report.ops.flatMap(({ op, name }) => {
    const values = hardness.filter(({ stage }) => stage === op.id).map(({ value }) => value);
    const [low, high] = [Math.min(...values), Math.max(...values)];
    if (values.length < 2 || high - low <= APART + testerGive) return [];
    return [
      finding(
        "hardness-mixed",
        "watch",
        `After ${name} it reads ${low.toFixed(1)} to ${high.toFixed(1)} HRC: more apart than the tester is.`,
        "Its heat was uneven. Read again on the flats, below the skin; then harden it again, evenly.",
        `${COMMON}; starting value`,
      ),
    ];
  });

/** A hardness that was read before the last temper that was done: that of the finished blade is not known. */
const hardnessEarlier: HeatRule = ({ report, hardness, done }) => {
  const tempers = report.ops.filter(({ op }) => op.kind === "temper" && done.includes(op.id));
  const last = tempers.at(-1);
  if (!last || hardness.some(({ stage }) => stage === last.op.id)) return [];
  const read = tempers.findLast(({ op }) => hardness.some(({ stage }) => stage === op.id));
  if (!read) return [];
  return [
    finding(
      "hardness-earlier",
      "note",
      `The hardness was read after ${read.name}; ${last.name} was done later.`,
      `Read the hardness after ${last.name}: the record of this steel needs the final one.`,
      COMMON,
    ),
  ];
};

/** Harder or softer after its last temper than it should be. */
const temperedOff: HeatRule = (asked) => {
  const { route, heat, report, hardness, wanted, testerGive } = asked;
  const { tempers } = report;
  const last = report.ops.findLast(({ op }) => op.kind === "temper");
  if (!last || !tempers) return [];
  const values = hardness.filter(({ stage }) => stage === last.op.id).map(({ value }) => value);
  const expect = last.op.expect ?? (wanted === null ? null : [wanted, wanted]);
  if (values.length === 0 || !expect) return [];
  const reads = values.reduce((sum, value) => sum + value, 0) / values.length;
  const middle = (expect[0]! + expect[1]!) / 2;
  if (reads > expect[1]! + testerGive) {
    const more = Math.ceil(hotterFor(reads - middle, tempers.one, tempers.expected));
    const T = last.op.T + more;
    const stages = withStage(route.stages, "temper");
    const id = stages.find((stage) => !route.stages.includes(stage))!.id!;
    const by = tempers.expected;
    return [
      finding(
        "hardness-high",
        "watch",
        `Reads ${reads.toFixed(1)} HRC after its tempers, ${(reads - middle).toFixed(1)} harder than is wanted.`,
        `Temper again, ${more} °C hotter${by.kind === "fit" ? `: ${(-by.slope * 1000).toFixed(1)} HRC for each thousand of the parameter here` : ""}.`,
        by.kind === "fit"
          ? `${by.points.length} readings of this shop; J. H. Hollomon and L. D. Jaffe (1945), from memory of`
          : COMMON,
        {
          offers: [
            {
              words: `Temper once more at ${Math.round(T)} °C`,
              route: { ...route, stages },
              heat: { ...heat, ops: [...opsIn(asked), { ...last.op, id, T }] },
            },
          ],
        },
      ),
    ];
  }
  if (reads >= expect[0]! - testerGive) return [];
  return [
    finding(
      "hardness-low",
      "fix",
      `Reads ${reads.toFixed(1)} HRC after its tempers, ${(middle - reads).toFixed(1)} softer than is wanted.`,
      "A temper gives none back. Read again below the skin; then normalize it, harden and temper it again, twice at most.",
      COMMON,
    ),
  ];
};

export const AS_DONE: readonly HeatRule[] = [
  fileTest,
  softWorkLeft,
  hardnessApart,
  hardnessEarlier,
  temperedOff,
  soakShort,
  scrapUnproved,
  temperLate,
];
