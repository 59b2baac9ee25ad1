import { compileField } from "@true-spine/core/blade/field.ts";
import type { Blade } from "@true-spine/core/blade/schema.ts";
import { wholeBlade } from "@true-spine/core/evaluation.ts";
import type { Finding } from "@true-spine/core/findings/finding.ts";
import { confirmRemedies, judge } from "@true-spine/core/findings/judge.ts";
import type { LengthUnit } from "@true-spine/core/units/length.ts";
import { expose } from "comlink";

/** The slower half of every edit, off the main thread: whole-blade figures and findings, then their remedies. */
const judging = {
  judge(blade: Blade, unit: LengthUnit) {
    const field = compileField(blade);
    return { whole: wholeBlade(field), ...judge(blade, field, unit) };
  },
  confirm(blade: Blade, findings: readonly Finding[], unit: LengthUnit): Finding[] {
    return confirmRemedies(blade, findings, unit);
  },
};

export type Judging = typeof judging;

expose(judging);
