import { type Remote, wrap } from "comlink";
import { startWorker, type WorkerKind, type Workers } from "./workers.ts";

/** Longer than any work within the limits of its files takes, on a slow machine too: what is then not answered hangs. */
export const ANSWER_WITHIN_MS = 90_000;

/** A worker that could not be loaded, broke, or did not answer. */
export class WorkFailed extends Error {
  constructor(readonly why: "failed" | "hangs") {
    super(
      why === "hangs" ? "It took too long and was stopped." : "It failed. That is a defect in the program.",
    );
  }
}

/** Somebody stopped it. */
export class WorkStopped extends Error {
  constructor() {
    super("Stopped.");
  }
}

/** Rejects when a worker breaks, takes too long, or is stopped; never resolves. A worker that cannot be loaded answers nothing at all. */
export function failureOf(worker: Worker, withinMs: number, signal?: AbortSignal) {
  let end = () => {};
  const failing = new Promise<never>((_, reject) => {
    const broken = (event: Event) => {
      console.error("worker", (event as ErrorEvent).message ?? event.type);
      reject(new WorkFailed("failed"));
    };
    const stopped = () => reject(new WorkStopped());
    const timer = setTimeout(() => reject(new WorkFailed("hangs")), withinMs);
    worker.addEventListener("error", broken);
    worker.addEventListener("messageerror", broken);
    signal?.addEventListener("abort", stopped);
    if (signal?.aborted) stopped();
    end = () => {
      clearTimeout(timer);
      worker.removeEventListener("error", broken);
      worker.removeEventListener("messageerror", broken);
      signal?.removeEventListener("abort", stopped);
    };
  });
  // Whoever waits for it hears of it; where nobody does any more it is no news.
  failing.catch(() => {});
  return { failing, end: () => end() };
}

/**
 * Asks a worker of its own one thing. Rejects with WorkFailed where it breaks or hangs, WorkStopped where `signal` says so, and with
 * what the worker threw. It ends with the answer.
 */
export async function askOnce<K extends WorkerKind, T>(
  kind: K,
  question: (remote: Remote<Workers[K]>) => Promise<T>,
  { signal, withinMs = ANSWER_WITHIN_MS }: { signal?: AbortSignal; withinMs?: number } = {},
): Promise<T> {
  const worker = startWorker(kind);
  const { failing, end } = failureOf(worker, withinMs, signal);
  try {
    return await Promise.race([question(wrap<Workers[K]>(worker)), failing]);
  } finally {
    end();
    worker.terminate();
  }
}
