import type { Finding } from "@true-spine/core/findings/finding.ts";
import type { StraightAsked, StraightReport } from "@true-spine/core/inspect/straightness.ts";
import type { LengthUnit } from "@true-spine/core/units/length.ts";
import { straightAt } from "@true-spine/core/work/joined.ts";
import type { Remote } from "comlink";
import { useMemo } from "react";
import { useSettings } from "../app/settings.ts";
import { useDocument, useFile, useScreen } from "../blade/screen.ts";
import { useShop } from "../shop/shop.ts";
import { useRoute, useWorkRows } from "../work/useWorkRows.ts";
import { useWork, type Work } from "./useWork.ts";
import type { Workers } from "./workers.ts";

interface Question {
  readonly asked: StraightAsked;
  readonly unit: LengthUnit;
}
export interface StraightAnswer {
  readonly report: StraightReport;
  readonly findings: readonly Finding[];
  /** The bend in words; null where none is told. */
  readonly words: string | null;
  /** How it is worked, in a sentence. */
  readonly work: string;
}

/** What is asked of how straight the open blade is at a stage. */
export function useStraightAsked(stage: string): StraightAsked {
  const { id } = useScreen();
  const blade = useFile();
  const route = useRoute();
  const straight = useDocument("straight");
  const { shop } = useShop();
  const rows = useWorkRows();
  return useMemo(() => {
    const { sets, blows } = straightAt(rows.filter((row) => row.stage === stage));
    return { id, blade, route, shop, stage, straight, sets, blows };
  }, [id, blade, route, shop, stage, straight, rows]);
}

/** How straight the open blade is at a stage: behind while a newer answer is on its way. */
export function useStraight(stage: string): Work<Question, StraightAnswer> {
  const asked = useStraightAsked(stage);
  const unit = useSettings((settings) => settings.unit);
  const question = useMemo(() => ({ asked, unit }), [asked, unit]);
  return useWork("bench", question, ask);
}

async function ask(
  remote: Remote<Workers["bench"]>,
  { asked, unit }: Question,
  tell: (answer: StraightAnswer) => void,
): Promise<void> {
  tell(await remote.straight(asked, unit));
}
