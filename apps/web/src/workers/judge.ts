import type { Blade } from "@true-spine/core/blade/schema.ts";
import type { Evaluation } from "@true-spine/core/evaluation.ts";
import type { Finding, NotJudged } from "@true-spine/core/findings/finding.ts";
import type { Beside } from "@true-spine/core/findings/judge.ts";
import type { Balance } from "@true-spine/core/handle/balance.ts";
import { useEffect, useState } from "react";
import { useOtherBlades } from "../api/blades.ts";
import { useSettings } from "../app/settings.ts";
import { useDocument, useFile, useScreen } from "../blade/screen.ts";
import type { Judging } from "./judge.worker.ts";
import { lastAsked } from "./last-asked.ts";

export interface Judged {
  /** The file these figures belong to. */
  readonly file: Blade;
  readonly whole: Pick<Evaluation, "blade" | "forward">;
  /** Of the knife, with what is on its tang. */
  readonly balance: Pick<Balance, "mass" | "x" | "fromPlunge">;
  readonly findings: readonly Finding[];
  readonly notJudged: readonly NotJudged[];
  /** Whether the remedies have been put to the test; until then none is shown. */
  readonly isConfirmed: boolean;
}

const QUIET_MS = 250;

/** Judges whatever blade is shown last: one at a time in the worker, those in between are passed over. */
export function useJudging(): void {
  const { judging } = useScreen();
  const file = useFile();
  const limits = useDocument("limits");
  const handle = useDocument("handle");
  const isRouted = useDocument("route").stages.length > 0;
  const others = useOtherBlades(useScreen().id);
  const unit = useSettings((settings) => settings.unit);
  const [judge] = useState(startJudge);
  useEffect(() => {
    judge.show = (judged) => judging.setState({ judged });
    return () => judge.end();
  }, [judge, judging]);
  useEffect(
    () => judge.ask({ file, beside: { unit, limits, handle, others, isRouted } }),
    [judge, file, unit, limits, handle, others, isRouted],
  );
}

function startJudge() {
  const judge = {
    show: (_: Judged) => {},
    ...lastAsked<Judging, { file: Blade; beside: Beside }>(
      () => new Worker(new URL("./judge.worker.ts", import.meta.url), { type: "module" }),
      async (remote, { file, beside }, { isOver, isWaiting }) => {
        const result = { file, ...(await remote.judge(file, beside)), isConfirmed: false };
        if (isOver()) return;
        judge.show({ ...result, findings: result.findings.map((finding) => ({ ...finding, remedies: [] })) });
        await new Promise((resolve) => setTimeout(resolve, QUIET_MS));
        if (isWaiting() || isOver()) return;
        const findings = await remote.confirm(file, result.findings, beside);
        if (!isOver() && !isWaiting()) judge.show({ ...result, findings, isConfirmed: true });
      },
    ),
  };
  return judge;
}
