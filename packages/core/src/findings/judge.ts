import { compileField, type Field } from "../blade/field.ts";
import { parseBlade } from "../blade/parse.ts";
import type { Blade } from "../blade/schema.ts";
import { stationAt } from "../blade/station.ts";
import type { LearnedLimit } from "../edge/trials.ts";
import type { Handle } from "../handle/schema.ts";
import type { LengthUnit } from "../units/length.ts";
import { WILL_IT_BALANCE } from "./balance.ts";
import { BESIDE, steelUntried } from "./beside.ts";
import { CORE_RULES } from "./core.ts";
import { WILL_IT_CUT } from "./cut.ts";
import { DETAILS } from "./details.ts";
import { FALSE_EDGE_RULES } from "./false-edge.ts";
import { type Finding, type NotJudged, type Remedy, withChanges } from "./finding.ts";
import { causesFirst } from "./groups.ts";
import { type Judged, type OtherBlade, speechIn } from "./judged.ts";
import { WILL_IT_LAST } from "./last.ts";
import {
  basisOf,
  LIMIT_NAMES,
  LIMITS,
  type Limits,
  learnedBasis,
  NO_LIMITS,
  purposeLearned,
  purposeWithin,
} from "./limits.ts";
import { WILL_IT_MAKE } from "./make.ts";
import { MEANT_RULES } from "./meant.ts";
import { OWN_PURPOSE, type Purpose, purposeOf } from "./purposes.ts";
import { SECOND_EDGE_RULES } from "./second-edge.ts";
import { WILL_IT_STAND } from "./stand.ts";
import { TANG_RULES } from "./tang.ts";

const PLACES = 40;
const RANK = { fix: 0, watch: 1, note: 2 } as const;

export interface Judgement {
  /** Worst first. Remedies are candidates until `confirmRemedies` has put them to the test. */
  readonly findings: readonly Finding[];
  readonly notJudged: readonly NotJudged[];
}

/** What a blade is judged beside: the other documents that belong to it, and the shop's other blades. */
export interface Beside {
  /** What the sentences speak in; mm where none is said. */
  readonly unit?: LengthUnit;
  readonly limits?: Limits;
  readonly handle?: Handle | null;
  readonly others?: readonly OtherBlade[];
  /** Limits of purposes that this shop's trials moved. */
  readonly learned?: readonly LearnedLimit[];
  /** Whether a route is planned: stock, oven and heat are then judged with it. */
  readonly isRouted?: boolean;
  /** Whether that route never hardens it. */
  readonly staysSoft?: boolean;
}

/** Judges a checked blade by every rule. `field` saves compiling it again. */
export function judge(blade: Blade, field: Field = compileField(blade), beside: Beside = {}): Judgement {
  const { unit = "mm", limits = NO_LIMITS, others = [], learned = [] } = beside;
  const handle = beside.handle && isThere(beside.handle) ? beside.handle : null;
  const stations = Array.from({ length: PLACES }, (_, i) => stationAt(field, (i + 0.5) / PLACES));
  const usual = purposeOf(blade.use);
  const purpose = usual && purposeLearned(usual, learned);
  const judged: Judged = {
    blade,
    field,
    stations,
    purpose: purpose && purposeWithin(purpose, limits),
    say: speechIn(unit),
    handle,
    others,
    staysSoft: beside.staysSoft ?? false,
    heldTo: (limit) => ({
      limit,
      basis: (limits[limit] ? null : learnedBasis(limit, blade.use, learned)) ?? basisOf(limit, limits),
    }),
  };
  const findings = [
    ...WILL_IT_MAKE,
    ...CORE_RULES,
    ...SECOND_EDGE_RULES,
    ...DETAILS,
    ...MEANT_RULES,
    ...TANG_RULES,
    ...FALSE_EDGE_RULES,
    ...WILL_IT_CUT,
    ...BESIDE,
    ...WILL_IT_LAST,
    ...WILL_IT_STAND,
    ...WILL_IT_BALANCE,
  ].flatMap((rule) => rule(judged));
  findings.sort((a, b) => RANK[a.severity] - RANK[b.severity]);
  const meant = limits.meant ?? [];
  const isMeant = ({ id }: Finding) => meant.some((one) => one.finding === id);
  return {
    findings: causesFirst(findings.filter((one) => !isMeant(one))),
    notJudged: [
      ...notJudged(judged),
      ...meant
        .filter((one) => findings.some(({ id }) => id === one.finding))
        .map((one) => ({ id: one.finding, why: `Meant so: ${one.reason.replace(/\.$/, "")}.` })),
      ...(beside.isRouted ? [] : NEEDS_MORE),
    ],
  };
}

function isThere({ parts, pins }: Handle): boolean {
  return parts.length + pins.length > 0;
}

/** What needs more than the steel itself to be judged. */
const NEEDS_MORE: readonly NotJudged[] = [
  {
    id: "stock",
    why: "No bar is named, so whether the flats come out of it after scale and clean-up is not known.",
  },
  {
    id: "hardening",
    why: "No stages are planned, so what is left for hardening and what heats up while grinding is not known.",
  },
];

function notJudged(judged: Judged): NotJudged[] {
  const { blade, purpose, handle } = judged;
  if (!purpose) {
    const why = blade.use
      ? `“${blade.use}” is not a purpose with limits of its own, so thickness and angles have nothing to be held to.`
      : "No purpose is chosen, so thickness and angles have nothing to be held to.";
    return [
      { id: "will-it-cut", why },
      { id: "will-it-last", why },
    ];
  }
  const balance: NotJudged = {
    id: "balance-with-handle",
    why: "No handle is described, so where it balances with one on is not known.",
  };
  return [
    ...unset(purpose),
    ...steelUntried(judged),
    ...(purpose.key === "chopper" && !handle ? [balance] : []),
  ];
}

/** Limits that a purpose of the maker's own leaves open. */
function unset(purpose: Purpose): NotJudged[] {
  if (purpose.key !== OWN_PURPOSE.key) return [];
  const open = LIMITS.filter((limit) => purpose[limit] === OWN_PURPOSE[limit]).map(
    (limit) => LIMIT_NAMES[limit],
  );
  if (open.length === 0) return [];
  return [{ id: "no-limit-set", why: `Nothing is set for this blade on: ${open.join(", ")}.` }];
}

/**
 * Keeps only the remedies that hold: put into the blade, the file is still sound, the finding is gone from its
 * place, and nothing new must be fixed. At most one remedy is kept for each finding: the first that holds.
 */
export function confirmRemedies(blade: Blade, findings: readonly Finding[], beside: Beside = {}): Finding[] {
  return findings.map((finding) => {
    for (const remedy of finding.remedies) {
      const after = afterRemedy(blade, findings, finding, remedy, beside);
      if (!after) continue;
      const clears = findings.filter(
        (other) => other !== finding && !after.some((left) => isSameFinding(left, other)),
      );
      return { ...finding, remedies: [remedy], clears: [...new Set(clears.map(({ id }) => id))] };
    }
    return { ...finding, remedies: [] };
  });
}

/** What is found once a remedy is put in; null where it does not hold. */
function afterRemedy(
  blade: Blade,
  before: readonly Finding[],
  finding: Finding,
  remedy: Remedy,
  beside: Beside,
): readonly Finding[] | null {
  const parsed = parseBlade(withChanges(blade, remedy.changes));
  if (!parsed.ok) return null;
  const after = judge(parsed.blade, parsed.field, beside).findings;
  if (after.some((other) => isSameFinding(other, finding))) return null;
  const isNoWorse = after.every(
    (other) =>
      other.severity !== "fix" ||
      before.some((known) => known.severity === "fix" && isSameFinding(other, known)),
  );
  return isNoWorse ? after : null;
}

/** The same rule firing on the same side at a place that overlaps. */
export function isSameFinding(a: Finding, b: Finding): boolean {
  if (a.id !== b.id || (a.where.side && b.where.side && a.where.side !== b.where.side)) return false;
  if (!a.where.x || !b.where.x) return true;
  return a.where.x[0] <= b.where.x[1] && b.where.x[0] <= a.where.x[1];
}
