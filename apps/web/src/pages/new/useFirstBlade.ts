import type { Answers, FirstBlade } from "@true-spine/core/design/first.ts";
import type { LengthUnit } from "@true-spine/core/units/length.ts";
import { wrap } from "comlink";
import { useEffect, useState } from "react";
import type { Designing } from "../../workers/design.worker.ts";

/** The first blade these answers make, looked for in a worker; null while it is looked for. A newer question ends an older. */
export function useFirstBlade(answers: Answers, unit: LengthUnit): FirstBlade | null {
  const [found, setFound] = useState<{ for: Answers; made: FirstBlade } | null>(null);
  useEffect(() => {
    let worker: Worker | null = null;
    const timer = setTimeout(async () => {
      worker = new Worker(new URL("../../workers/design.worker.ts", import.meta.url), { type: "module" });
      const made = await wrap<Designing>(worker).first(answers, unit);
      setFound({ for: answers, made });
      worker.terminate();
    }, PAUSE_MS);
    return () => {
      clearTimeout(timer);
      worker?.terminate();
    };
  }, [answers, unit]);
  return found?.for === answers ? found.made : null;
}

const PAUSE_MS = 150;
