import type { EdgeFinding } from "@true-spine/core/findings/edge.ts";
import type { NotJudged } from "@true-spine/core/findings/finding.ts";
import type { Reading } from "@true-spine/core/inspect/schema.ts";
import type { EdgeAsked, EdgeReport } from "@true-spine/core/route/edge-report.ts";
import type { WhichEdge } from "@true-spine/core/route/schema.ts";
import type { ThinReport } from "@true-spine/core/route/thin-report.ts";
import type { LengthUnit } from "@true-spine/core/units/length.ts";
import { sharpenedAt } from "@true-spine/core/work/joined.ts";
import type { Remote } from "comlink";
import { useMemo } from "react";
import { useSettings } from "../app/settings.ts";
import { useDocument, useFile } from "../blade/screen.ts";
import { useReadings } from "../readings/useReadings.ts";
import { useShop } from "../shop/shop.ts";
import { useWorkRows } from "../work/useWorkRows.ts";
import { useWork, type Work } from "./useWork.ts";
import type { Workers } from "./workers.ts";

interface Question {
  readonly asked: EdgeAsked;
  readonly unit: LengthUnit;
}
/** Null where the blade has no such edge. */
type Answer = {
  readonly report: EdgeReport;
  readonly thin: ThinReport | null;
  readonly findings: readonly EdgeFinding[];
  readonly notJudged: readonly NotJudged[];
} | null;

/** One edge of the open blade worked out: behind while a newer answer is on its way. */
export function useEdge(which: WhichEdge, after?: number): Work<Question, Answer> {
  const blade = useFile();
  const route = useDocument("route");
  const edge = useDocument("edge");
  const { shop } = useShop();
  const rows = useWorkRows();
  const readings = useReadings();
  const unit = useSettings((settings) => settings.unit);
  const question = useMemo(() => {
    const done = sharpenedAt(rows, which);
    const then = after === undefined ? {} : { after };
    const read = behindSince(readings, which, done.at(-1)?.when);
    const behind = read.length > 0 ? { behind: read } : {};
    return { asked: { blade, route, shop, edge, which, done, ...then, ...behind }, unit };
  }, [blade, route, shop, edge, which, rows, readings, unit, after]);
  return useWork("route", question, ask);
}

/** What was read behind it last at each place, since it was last sharpened. */
function behindSince(readings: readonly Reading[], which: WhichEdge, since: string | undefined) {
  const last = new Map<number, number>();
  for (const { what, u, value, when, edge = "first" } of readings) {
    const isLater = since === undefined || Date.parse(when) > Date.parse(since);
    if (what === "behind" && u !== undefined && edge === which && isLater) last.set(u, value);
  }
  return [...last].map(([u, t]) => ({ u, t }));
}

async function ask(
  remote: Remote<Workers["route"]>,
  { asked, unit }: Question,
  tell: (answer: Answer) => void,
): Promise<void> {
  tell(await remote.edge(asked, unit));
}
