import type { Remote } from "comlink";
import { useCallback, useEffect, useRef, useState } from "react";
import type { WorkFailed } from "./asking.ts";
import { lastAsked, type Standing } from "./last-asked.ts";
import type { WorkerKind, Workers } from "./workers.ts";

/** How what a page asked of a worker stands. */
export interface Work<Question, Answer> {
  /** The last answer, and the question it is the answer to; null before the first. */
  readonly answer: { readonly to: Question; readonly value: Answer } | null;
  /** Whether the question asked last is still to be answered. */
  readonly isBehind: boolean;
  /** Why the question asked last has no answer; null while it may get one. Never take the lack of an answer for one. */
  readonly trouble: WorkFailed | null;
  tryAgain(): void;
}

/**
 * Asks a worker whatever a page asks last: one question at a time, those in between passed over, ended with the page. `work` may tell
 * more than one answer to a question, each better than the one before; it must be the same function at every drawing. Null asks nothing.
 */
export function useWork<K extends WorkerKind, Question, Answer>(
  kind: K,
  question: Question | null,
  work: (
    remote: Remote<Workers[K]>,
    question: Question,
    tell: (answer: Answer) => void,
    standing: Standing,
  ) => Promise<void>,
): Work<Question, Answer> {
  const [answer, setAnswer] = useState<{ to: Question; value: Answer } | null>(null);
  const [failed, setFailed] = useState<{ to: Question; trouble: WorkFailed } | null>(null);
  const asker = useRef<ReturnType<typeof lastAsked<K, Question>> | null>(null);
  useEffect(() => {
    const made = lastAsked<K, Question>(
      kind,
      (remote, to, standing) =>
        work(
          remote,
          to,
          (value) => {
            if (standing.isOver()) return;
            setFailed(null);
            setAnswer({ to, value });
          },
          standing,
        ),
      (trouble, to) => setFailed({ to, trouble }),
    );
    asker.current = made;
    return () => made.end();
  }, [kind, work]);
  useEffect(() => {
    if (question !== null) asker.current?.ask(question);
  }, [question]);
  const tryAgain = useCallback(() => {
    setFailed(null);
    if (question !== null) asker.current?.ask(question);
  }, [question]);
  const trouble = failed && failed.to === question ? failed.trouble : null;
  return { answer, isBehind: question !== null && answer?.to !== question && !trouble, trouble, tryAgain };
}
