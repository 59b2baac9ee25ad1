import { type Remote, wrap } from "comlink";
import { ANSWER_WITHIN_MS, failureOf, WorkFailed } from "./asking.ts";
import { startWorker, type WorkerKind, type Workers } from "./workers.ts";

/** How the answering of one question stands while it is being answered. */
export interface Standing {
  /** The worker was ended meanwhile: whatever comes of this is for nobody. */
  isOver(): boolean;
  /** Another question waits already. */
  isWaiting(): boolean;
}

export type Answering<K extends WorkerKind, Question> = (
  remote: Remote<Workers[K]>,
  question: Question,
  standing: Standing,
) => Promise<void>;

/**
 * Puts questions to a worker one at a time; of those that come meanwhile only the last is asked. The worker is made by
 * the first question. One that fails or hangs is ended and told of, and the next question makes another: an answer that cannot
 * be given is a defect, and must not silence what comes after.
 */
export function lastAsked<K extends WorkerKind, Question>(
  kind: K,
  answer: Answering<K, Question>,
  onTrouble: (trouble: WorkFailed, question: Question) => void,
  start: (kind: K) => Worker = startWorker,
): { ask(question: Question): void; end(): void } {
  let worker: Worker | null = null;
  // Held as long as the worker: a proxy that is collected tells the worker to answer nobody any more.
  let remote: Remote<Workers[K]> | null = null;
  let waiting: { question: Question } | null = null;
  let isBusy = false;

  async function work(): Promise<void> {
    isBusy = true;
    worker ??= start(kind);
    const mine = worker;
    remote ??= wrap<Workers[K]>(mine);
    const asked = remote;
    const standing = { isOver: () => worker !== mine, isWaiting: () => waiting !== null };
    while (waiting && worker === mine) {
      const { question } = waiting;
      waiting = null;
      const { failing, end: forget } = failureOf(mine, ANSWER_WITHIN_MS);
      try {
        await Promise.race([answer(asked, question, standing), failing]);
      } catch (error) {
        if (worker !== mine) return;
        console.error(error);
        drop();
        onTrouble(error instanceof WorkFailed ? error : new WorkFailed("failed"), question);
      } finally {
        forget();
      }
    }
    if (worker === mine) isBusy = false;
    // What was asked while the one before failed is asked of another.
    else if (!worker && waiting && !isBusy) void work();
  }

  function drop(): void {
    worker?.terminate();
    worker = null;
    remote = null;
    isBusy = false;
  }
  return {
    ask(question) {
      waiting = { question };
      if (!isBusy) void work();
    },
    // Effects run twice in development: a worker ended by the first is made again by the next question.
    end() {
      drop();
      waiting = null;
    },
  };
}
