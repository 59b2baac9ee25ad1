import { type Answers, firstBlade } from "@true-spine/core/design/first.ts";
import type { LengthUnit } from "@true-spine/core/units/length.ts";
import { expose } from "comlink";

/** Looking for a first blade takes some dozens of judgements: off the main thread. */
const designing = {
  first: (answers: Answers, unit: LengthUnit) => firstBlade(answers, unit),
};

export type Designing = typeof designing;

expose(designing);
