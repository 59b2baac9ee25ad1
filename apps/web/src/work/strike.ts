import type { StraightReport } from "@true-spine/core/inspect/straightness.ts";
import { pastBy } from "@true-spine/core/straight/advice.ts";
import type { StraightSet } from "@true-spine/core/straight/schema.ts";
import type { BladeScreen } from "../blade/screen.ts";
import { record } from "./useWorkRows.ts";

/** Writes down blows along the lines that are worked first, so many on each. Nothing where nothing is to be struck. */
export function strike(
  screen: Pick<BladeScreen, "work">,
  {
    report,
    stage,
    count,
    lastSet,
    past = report.load?.past,
  }: {
    report: StraightReport;
    stage: string;
    count: number;
    lastSet?: StraightSet;
    /** How far past straight it was pressed, mm; absent: as far as was advised. */
    past?: number | undefined;
  },
): void {
  const [first] = report.work;
  if (!first?.advice.tool || !first.advice.face) return;
  for (const { face, from, to } of first.strikes)
    record(screen, {
      stage,
      what: "blow",
      state: report.state,
      ...(lastSet ? { before: lastSet.id } : {}),
      face,
      from: [...from],
      to: [...to],
      tool: first.advice.tool,
      count,
      ...(first.advice.what === "clamp"
        ? { past: Math.abs(pastBy(report.height, report.stays ?? undefined)) }
        : {}),
      ...(report.load && past !== undefined
        ? { past, span: report.load.span, sagitta: past + Math.abs(report.height) }
        : {}),
    });
}
