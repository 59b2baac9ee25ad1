import type { Blade } from "@true-spine/core/blade/schema.ts";
import type { Beside } from "@true-spine/core/findings/judge.ts";
import { staysSoft } from "@true-spine/core/route/heats.ts";
import type { Remote } from "comlink";
import { useEffect, useMemo } from "react";
import { useOtherBlades } from "../api/blades.ts";
import { useSettings } from "../app/settings.ts";
import type { Judged } from "../blade/judged.ts";
import { useDocument, useFile, useScreen } from "../blade/screen.ts";
import { useLearned } from "../shop/useLearned.ts";
import type { Standing } from "./last-asked.ts";
import { useWork } from "./useWork.ts";
import type { Workers } from "./workers.ts";

interface Question {
  readonly file: Blade;
  readonly beside: Beside;
}

const QUIET_MS = 250;

/** Judges whatever blade is shown last, and puts what comes of it on the screen. */
export function useJudging(): void {
  const { judging, id } = useScreen();
  const file = useFile();
  const limits = useDocument("limits");
  const handle = useDocument("handle");
  const route = useDocument("route");
  const isRouted = route.stages.length > 0;
  const isSoft = staysSoft(route);
  const others = useOtherBlades(id);
  const learned = useLearned();
  const unit = useSettings((settings) => settings.unit);
  const question = useMemo(
    () => ({ file, beside: { unit, limits, handle, others, learned, isRouted, staysSoft: isSoft } }),
    [file, unit, limits, handle, others, learned, isRouted, isSoft],
  );
  const { answer, trouble, tryAgain } = useWork("judge", question, judged);
  useEffect(() => {
    judging.setState({ judged: answer?.value ?? null, trouble, tryAgain });
  }, [judging, answer, trouble, tryAgain]);
}

/** Findings first; their remedies once the hand rests. */
async function judged(
  remote: Remote<Workers["judge"]>,
  { file, beside }: Question,
  tell: (judged: Judged) => void,
  { isOver, isWaiting }: Standing,
): Promise<void> {
  const result = { file, ...(await remote.judge(file, beside)), isConfirmed: false };
  tell({ ...result, findings: result.findings.map((finding) => ({ ...finding, remedies: [] })) });
  await new Promise((resolve) => setTimeout(resolve, QUIET_MS));
  if (isWaiting() || isOver()) return;
  const findings = await remote.confirm(file, result.findings, beside);
  if (!isWaiting()) tell({ ...result, findings, isConfirmed: true });
}
