import type { Blade } from "@true-spine/core/blade/schema.ts";
import type { Evaluation } from "@true-spine/core/evaluate/evaluation.ts";
import type { Finding, NotJudged } from "@true-spine/core/findings/finding.ts";
import type { Balance } from "@true-spine/core/handle/balance.ts";

/** What was found of the open blade, with the figures of the whole. */
export interface Judged {
  /** The file these figures belong to. */
  readonly file: Blade;
  readonly whole: Pick<Evaluation, "blade" | "forward">;
  /** Of the knife, with what is on its tang. */
  readonly balance: Pick<Balance, "mass" | "x" | "fromPlunge">;
  readonly findings: readonly Finding[];
  readonly notJudged: readonly NotJudged[];
  /** Whether the remedies have been put to the test; until then there are none. */
  readonly isConfirmed: boolean;
}
