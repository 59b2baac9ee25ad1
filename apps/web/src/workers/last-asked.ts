import { type Remote, wrap } from "comlink";

/** How the answering of one question stands while it is being answered. */
export interface Standing {
  /** The worker was ended meanwhile: whatever comes of this is for nobody. */
  isOver(): boolean;
  /** Another question waits already. */
  isWaiting(): boolean;
}

/**
 * Puts questions to a worker one at a time; of those that come meanwhile only the last is asked. The worker is made by
 * the first question. One that fails is ended, and the next question makes another: an answer that cannot be given is a
 * defect, and must not silence what comes after.
 */
export function lastAsked<Work, Question>(
  start: () => Worker,
  answer: (remote: Remote<Work>, question: Question, standing: Standing) => Promise<void>,
): { ask(question: Question): void; end(): void } {
  let worker: Worker | null = null;
  // Held as long as the worker: a proxy that is collected tells the worker to answer nobody any more.
  let remote: Remote<Work> | null = null;
  let waiting: { question: Question } | null = null;
  let isBusy = false;
  async function work(): Promise<void> {
    isBusy = true;
    worker ??= start();
    const mine = worker;
    remote ??= wrap<Work>(mine);
    const asked = remote;
    const standing = { isOver: () => worker !== mine, isWaiting: () => waiting !== null };
    try {
      while (waiting && worker === mine) {
        const { question } = waiting;
        waiting = null;
        await answer(asked, question, standing);
      }
    } catch (error) {
      console.error(error);
      if (worker === mine) end();
    }
    if (worker === mine) isBusy = false;
  }
  // Effects run twice in development: a worker ended by the first is made again by the next question.
  function end(): void {
    worker?.terminate();
    worker = null;
    remote = null;
    isBusy = false;
    waiting = null;
  }
  return {
    ask(question) {
      waiting = { question };
      if (!isBusy) void work();
    },
    end,
  };
}
