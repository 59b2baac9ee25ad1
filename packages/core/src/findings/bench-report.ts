import type { Line as DrawnLine } from "../blade/lines.ts";
import { SIDES, type Side } from "../blade/schema.ts";
import { read } from "../blade/table.ts";
import type { AsFound } from "../inspect/as-found.ts";
import { type Asked, type Bench, benchOf, foundFaces, type Line } from "../inspect/bench.ts";
import type { Correction } from "../inspect/correct.ts";
import { PATTERN, type PatternKey } from "../inspect/faults/fault.ts";
import type { Explained } from "../inspect/fit.ts";
import { speaksOf } from "../inspect/known-bend.ts";
import { QUANTITY } from "../inspect/quantity.ts";
import { type Spot, sideWords } from "../inspect/schema.ts";
import type { Doubt } from "../inspect/screen.ts";
import { clearSpan } from "../inspect/span.ts";
import { type BenchSteel, targetAt } from "../inspect/target.ts";
import type { Together } from "../inspect/together.ts";
import { grindLinesOf } from "../route/report.ts";
import type { LengthUnit } from "../units/length.ts";
import type { Finding, NotJudged } from "./finding.ts";
import { type Speech, speechIn } from "./judged.ts";
import { judgeStraight } from "./straight.ts";
import { doubtWords, judgeWork, told, workNotJudged } from "./true.ts";

/** A fault that the readings look like, in words and figures. */
export interface LooksLike {
  readonly pattern: PatternKey;
  /** Said where it is of the second edge. */
  readonly edge?: "second";
  readonly words: string;
  readonly cause: string;
  readonly cure: string;
  readonly side: Side | null;
  readonly x: readonly [number, number] | null;
  readonly size: number;
  readonly sizeWithin: number;
  readonly unit: "mm" | "°";
  readonly share: number;
  readonly weight: number;
  readonly evidence: readonly string[];
}

/** All that a page shows of the bench at one stage: plain figures, nothing that must be asked again. */
export interface BenchReport {
  readonly isBevelled: boolean;
  readonly isHard: boolean;
  readonly lines: readonly Line[];
  readonly together: Together;
  /** Where each edge was read from both flats: how far off centre. */
  readonly centre: readonly (Together["centre"][number] & { readonly edge?: "second" })[];
  readonly found: readonly LooksLike[];
  readonly rivals: readonly LooksLike[];
  /** One more reading that would tell the first pattern from its nearest rival. */
  readonly settles: { readonly spot: Spot; readonly words: string } | null;
  /** Whether something is off that no pattern explains. */
  readonly isUnexplained: boolean;
  readonly faces: ReturnType<typeof foundFaces>;
  readonly corrections: readonly Correction[];
  /** What is taken for a slip of the hand, in words. */
  readonly doubts: readonly (Doubt & { readonly words: string })[];
  readonly findings: readonly Finding[];
  readonly notJudged: readonly NotJudged[];
  /** How many readings lie where this blade no longer has anything to read. */
  readonly astray: number;
  /** For the strips: wanted edge with its band, x and mm. */
  readonly edge: readonly { readonly x: number; readonly value: number; readonly band: number }[];
  readonly grindLine: { readonly [side in Side]: readonly DrawnLine[] };
  /** Least on a face beyond what the finished blade still needs, mm, and what covers 95 of 100 there; null unread. */
  readonly spare: { readonly least: number; readonly within: number } | null;
}

const POINTS = 40;

/** Works the bench out for a page, in the unit on show. */
export function benchReport(asked: Asked, unit: LengthUnit): BenchReport {
  const bench = benchOf(asked);
  const { stage, together, diagnosis, found, second } = bench;
  const edges = second ? [bench, second] : [bench];
  const say = speechIn(unit);
  const along = bench.straight;
  const straight = asked.straight && along ? judgeStraight(asked.straight, along, unit) : [];
  const told: readonly string[] = along ? speaksOf(along) : [];
  const [from, to] = stage.blank ? ([0.06, 0.94] as const) : clearSpan(stage);
  const us = Array.from({ length: POINTS + 1 }, (_, i) => from + ((to - from) * i) / POINTS);
  const edge =
    stage.isBevelled || stage.blank
      ? us.flatMap((u) => {
          const target = targetAt(stage, { what: stage.isSharpened ? "behind" : "edge", u });
          return target ? [{ x: target.x, value: target.value, band: target.band }] : [];
        })
      : [];
  return {
    isBevelled: stage.isBevelled,
    isHard: stage.isHard,
    lines: edges.flatMap(({ lines }) => lines),
    together,
    centre: edges.flatMap((one) => one.together.centre.map((each) => ({ ...each, ...edgeOf(one) }))),
    found: edges
      .flatMap((one) => one.diagnosis.found.map((each) => looksLike(each, one.stage, say)))
      .filter(({ pattern }) => !told.includes(pattern)),
    rivals: diagnosis.rivals.map((one) => looksLike(one, stage, say)),
    settles: settledBy(bench, say) ?? (second && settledBy(second, say)),
    isUnexplained: edges.some((one) => one.diagnosis.pattern === "unknown"),
    faces: found ? foundFaces(stage, found) : [],
    corrections: edges.flatMap(({ corrections }) => corrections),
    doubts: edges.flatMap(({ doubts }) => doubts.map((one) => ({ ...one, words: doubtWords(one, say) }))),
    findings: [...judgeWork(bench, unit).filter(({ id }) => !told.includes(id)), ...straight].sort(byRank),
    notJudged: workNotJudged(bench).filter(({ id }) => !told.includes(id)),
    astray: edges.reduce((sum, { astray }) => sum + astray.length, 0),
    edge,
    grindLine: grindLinesOf(stage.steel),
    spare: found && leastSpare(stage, found),
  };
}

const RANK = { fix: 0, watch: 1, note: 2 } as const;
const byRank = (a: Finding, b: Finding) => RANK[a.severity] - RANK[b.severity];
/** One more reading that would tell the first fault from its nearest rival, in words; null where none would. */
function settledBy({ stage, diagnosis: { settles } }: Bench, say: Speech): BenchReport["settles"] {
  return (
    settles && {
      spot: settles.spot,
      words: `${spotWords(settles.spot, say, stationX(stage, settles.spot))}: ${say.length(settles.first)} speaks for the first, ${say.length(settles.rival)} for the next.`,
    }
  );
}

const edgeOf = ({ stage: { edge } }: Bench) => (edge ? { edge } : {});

function leastSpare(stage: BenchSteel, found: AsFound) {
  const all = SIDES.flatMap((side) =>
    found.at.map((u) => ({
      least: stage.left.faces[side] + read(found.faces[side], u) - stage.needed[side],
      within: 2 * read(found.within[side], u),
    })),
  );
  return all.reduce((a, b) => (b.least < a.least ? b : a));
}

const stationX = (stage: BenchSteel, { u, x }: Spot) =>
  u === undefined ? (x ?? 0) : stage.steel.station(u).x;

/** A spot in words: what, which side, where. */
function spotWords(spot: Spot, say: Speech, x: number): string {
  const { name, at } = QUANTITY[spot.what];
  const height = spot.height === undefined ? "" : ` ${say.length(spot.height)} up`;
  return `${name}${height}${sideWords(spot)}${at === "whole" ? "" : ` ${say.along(x, x)}`}`;
}

function looksLike(one: Explained, { edge }: BenchSteel, say: Speech): LooksLike {
  const { shape } = one;
  const figure = (spot: Spot, value: number) =>
    QUANTITY[spot.what].unit === "mm" ? say.length(value) : `${value.toFixed(1)}${QUANTITY[spot.what].unit}`;
  return {
    pattern: one.pattern,
    ...(edge ? { edge } : {}),
    words: `${edge ? "on the second edge: " : ""}${told(one, say)}`,
    cause: PATTERN[one.pattern].cause,
    cure: PATTERN[one.pattern].cure,
    side: shape.side ?? null,
    x: shape.x ?? null,
    size: one.size,
    sizeWithin: one.sizeWithin,
    unit: shape.unit,
    share: one.share,
    weight: one.weight,
    evidence: one.evidence.map(
      ({ spot, x, off, says }) =>
        `${spotWords(spot, say, x)}: off by ${figure(spot, off)}, this says ${figure(spot, says)}`,
    ),
  };
}
