import type { Fault } from "@true-spine/core/document/fault.ts";

/** The server answered and said no: its problem document, ready to show. */
export class Refused extends Error {
  constructor(
    readonly status: number,
    title: string,
    readonly details: { faults?: Fault[]; revision?: number; file?: unknown },
  ) {
    super(title);
  }
}

/** No answer: the server is away, or broke. Trying again later is right. */
export class Unreachable extends Error {
  constructor() {
    super("The server does not answer.");
  }
}

const ANSWER_WITHIN_MS = 15_000;

/** Sends a request to this program's own server. Throws Refused for a no, Unreachable for no answer. */
export async function send<T>(method: string, path: string, body?: unknown): Promise<T> {
  let response: Response;
  try {
    response = await fetch(`/api${path}`, {
      method,
      headers: body === undefined ? {} : { "content-type": "application/json" },
      body: body === undefined ? undefined : JSON.stringify(body),
      signal: AbortSignal.timeout(ANSWER_WITHIN_MS),
    });
  } catch {
    throw new Unreachable();
  }
  if (response.status >= 500) throw new Unreachable();
  let value: unknown;
  try {
    const text = await response.text();
    value = text === "" ? undefined : JSON.parse(text);
  } catch {
    throw new Unreachable();
  }
  if (response.ok) return value as T;
  const problem = (value ?? {}) as { title?: string } & Refused["details"];
  throw new Refused(response.status, problem.title ?? "The request was refused.", problem);
}
