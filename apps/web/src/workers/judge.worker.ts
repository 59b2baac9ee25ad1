import { compileField } from "@true-spine/core/blade/field.ts";
import type { Blade } from "@true-spine/core/blade/schema.ts";
import { wholeBlade } from "@true-spine/core/evaluate/evaluation.ts";
import type { Finding } from "@true-spine/core/findings/finding.ts";
import { type Beside, confirmRemedies, judge } from "@true-spine/core/findings/judge.ts";
import { balanceOf } from "@true-spine/core/handle/balance.ts";
import { expose } from "comlink";

/** The slower half of every edit, off the main thread: whole-blade figures and findings, then their remedies. */
const judging = {
  judge(blade: Blade, beside: Beside) {
    const field = compileField(blade);
    const { mass, x, fromPlunge } = balanceOf(field, beside.handle ?? null);
    return { whole: wholeBlade(field), balance: { mass, x, fromPlunge }, ...judge(blade, field, beside) };
  },
  confirm(blade: Blade, findings: readonly Finding[], beside: Beside): Finding[] {
    return confirmRemedies(blade, findings, beside);
  },
};

export type Judging = typeof judging;

expose(judging);
