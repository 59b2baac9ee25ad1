import type { Blade } from "@true-spine/core/blade/schema.ts";
import type { Evaluation } from "@true-spine/core/evaluation.ts";
import type { Finding, NotJudged } from "@true-spine/core/findings/finding.ts";
import type { Beside } from "@true-spine/core/findings/judge.ts";
import type { Balance } from "@true-spine/core/handle/balance.ts";
import { type Remote, wrap } from "comlink";
import { useEffect, useState } from "react";
import { useOtherBlades } from "../api/blades.ts";
import { useSettings } from "../app/settings.ts";
import type { Judging } from "../workers/judge.worker.ts";
import { useDocument, useFile, useScreen } from "./context.ts";

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
    () => judge.ask(file, { unit, limits, handle, others, isRouted }),
    [judge, file, unit, limits, handle, others, isRouted],
  );
}

function startJudge() {
  let worker: Worker | null = null;
  // Held as long as the worker: a proxy that is collected tells the worker to answer nobody any more.
  let remote: Remote<Judging> | null = null;
  let waiting: { file: Blade; beside: Beside } | null = null;
  let isBusy = false;
  const judge = {
    show: (_: Judged) => {},
    ask(file: Blade, beside: Beside) {
      waiting = { file, beside };
      if (!isBusy) void work();
    },
    end,
  };
  function end(): void {
    // Effects run twice in development: a worker ended by the first is made again by the next question.
    worker?.terminate();
    worker = null;
    remote = null;
    isBusy = false;
    waiting = null;
  }
  async function work(): Promise<void> {
    isBusy = true;
    worker ??= new Worker(new URL("../workers/judge.worker.ts", import.meta.url), { type: "module" });
    const mine = worker;
    remote ??= wrap<Judging>(mine);
    const asked = remote;
    try {
      while (waiting && worker === mine) await judgeOne(asked, mine);
    } catch (error) {
      console.error(error);
      // A judgement that fails is a defect; the next edit asks a fresh worker, so that one blade does not silence all.
      if (worker === mine) end();
    }
    if (worker === mine) isBusy = false;
  }
  async function judgeOne(asked: Remote<Judging>, mine: Worker): Promise<void> {
    const { file, beside } = waiting!;
    waiting = null;
    const result = { file, ...(await asked.judge(file, beside)), isConfirmed: false };
    if (worker !== mine) return;
    judge.show({ ...result, findings: result.findings.map((finding) => ({ ...finding, remedies: [] })) });
    if (!(await isQuiet())) return;
    const findings = await asked.confirm(file, result.findings, beside);
    if (worker === mine && !waiting) judge.show({ ...result, findings, isConfirmed: true });
  }
  async function isQuiet(): Promise<boolean> {
    await new Promise((resolve) => setTimeout(resolve, QUIET_MS));
    return waiting === null;
  }
  return judge;
}
