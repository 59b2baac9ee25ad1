import { act } from "@testing-library/react";
import { compileField } from "@true-spine/core/blade/field.ts";
import { wholeBlade } from "@true-spine/core/evaluate/evaluation.ts";
import { confirmRemedies, judge } from "@true-spine/core/findings/judge.ts";
import { balanceOf } from "@true-spine/core/handle/balance.ts";
import type { JudgedState } from "../src/blade/screen.ts";
import type { Bench } from "./screen.tsx";

/** What the worker would tell, told at once. */
export function judgeNow({ judging, file }: Bench, isConfirmed = true) {
  const field = compileField(file());
  const found = judge(file(), field);
  const { mass, x, fromPlunge } = balanceOf(field, null);
  const judged = {
    file: file(),
    whole: wholeBlade(field),
    balance: { mass, x, fromPlunge },
    ...found,
    findings: isConfirmed ? confirmRemedies(file(), found.findings) : found.findings,
    isConfirmed,
  } as unknown as JudgedState["judged"];
  act(() => judging.setState({ judged }));
}
