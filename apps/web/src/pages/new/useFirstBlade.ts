import type { Answers, FirstBlade } from "@true-spine/core/design/first.ts";
import type { LengthUnit } from "@true-spine/core/units/length.ts";
import type { Remote } from "comlink";
import { useEffect, useState } from "react";
import { useWork, type Work } from "../../workers/useWork.ts";
import type { Workers } from "../../workers/workers.ts";

interface Question {
  readonly answers: Answers;
  readonly unit: LengthUnit;
}

const PAUSE_MS = 150;

/** The first blade these answers make, looked for once the answers rest; null while it is looked for. */
export function useFirstBlade(
  answers: Answers,
  unit: LengthUnit,
): Work<Question, FirstBlade> & { made: FirstBlade | null } {
  const [question, setQuestion] = useState<Question | null>(null);
  useEffect(() => {
    const timer = setTimeout(() => setQuestion({ answers, unit }), PAUSE_MS);
    return () => clearTimeout(timer);
  }, [answers, unit]);
  const work = useWork("design", question, first);
  const isOfThese = work.answer?.to.answers === answers && work.answer.to.unit === unit;
  return { ...work, made: isOfThese ? work.answer!.value : null };
}

async function first(
  remote: Remote<Workers["design"]>,
  { answers, unit }: Question,
  tell: (made: FirstBlade) => void,
): Promise<void> {
  tell(await remote.first(answers, unit));
}
