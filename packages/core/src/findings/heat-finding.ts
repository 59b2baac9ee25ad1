import type { Blade } from "../blade/schema.ts";
import type { Handle } from "../handle/schema.ts";
import type { Gate, Heat, HeatOp, HeatRun, Proof } from "../heat/schema.ts";
import type { HeatReport, OpReport } from "../route/heat-report.ts";
import type { Route } from "../route/schema.ts";
import { type Offered, offering } from "./finding.ts";
import type { Speech } from "./judged.ts";

/** What may be done about a heat at one press: its own document, or the route, as it would then be. */
export interface HeatOffer {
  readonly words: string;
  readonly heat?: Heat;
  readonly route?: Route;
}
export type HeatFinding = Offered<HeatOffer>;

/** What was done and seen of it. */
export interface HeatWork {
  readonly runs: readonly HeatRun[];
  readonly proofs: readonly Proof[];
  readonly gates: readonly Gate[];
  /** Stages that are done, by their ids. */
  readonly done: readonly string[];
  /** Hardness readings, HRC, by the stage they were taken after. */
  readonly hardness: readonly { readonly stage: string; readonly value: number }[];
}
export const NO_HEAT_WORK: HeatWork = { runs: [], proofs: [], gates: [], done: [], hardness: [] };

/** What a rule of the heats is asked about. */
export interface Heated extends HeatWork {
  readonly blade: Blade;
  readonly route: Route;
  readonly heat: Heat;
  readonly report: HeatReport;
  readonly handle: Handle | null;
  /** HRC wanted in the end, where the blade says so. */
  readonly wanted: number | null;
  /** How far the tester's reading may be off, HRC: covers 95 of 100. */
  readonly testerGive: number;
  readonly say: Speech;
}
export type HeatRule = (asked: Heated) => HeatFinding[];

export const finding = offering<HeatOffer>;

export const ANDREWS =
  "K. W. Andrews (1965) and the iron–carbon diagram, from memory of; spreads are starting values";
export const COMMON = "common practice";

/** The heats in order. */
export const opsIn = ({ report }: Pick<Heated, "report">): HeatOp[] => report.ops.map(({ op }) => op);
/** The quenches. */
export const hardening = ({ report }: Pick<Heated, "report">): OpReport[] =>
  report.ops.filter(({ op }) => op.kind === "harden");
