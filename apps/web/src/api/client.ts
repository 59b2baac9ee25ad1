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

/** No answer, or one that says to come back later: the server is away. Trying again later is right. */
export class Unreachable extends Error {
  constructor() {
    super("The server does not answer.");
  }
}

const ANSWER_WITHIN_MS = 15_000;
const BYTES_WITHIN_MS = 120_000;
/** What a server or whatever stands before it says when it will serve again: too many requests, and 502 to 504 of RFC 9110. */
const AWAY: readonly number[] = [429, 502, 503, 504];

/** Sends a request to this program's own server. Throws Refused for a no, Unreachable for no answer. */
export async function send<T>(method: string, path: string, body?: unknown): Promise<T> {
  const response = await ask(path, {
    method,
    headers: body === undefined ? {} : { "content-type": "application/json" },
    body: body === undefined ? undefined : JSON.stringify(body),
    signal: AbortSignal.timeout(ANSWER_WITHIN_MS),
  });
  return answerOf<T>(response);
}

export interface Page<T> {
  readonly rows: readonly T[];
  /** What is asked for the page after it; null after the last. */
  readonly next: string | null;
  /** How many there are in all, where that is told. */
  readonly total: number | null;
}

/** Asks for a page of a list: where the next one is stands in its Link header (RFC 8288). Throws as `send` does. */
export async function sendForPage<T>(path: string): Promise<Page<T>> {
  const response = await ask(path, { signal: AbortSignal.timeout(ANSWER_WITHIN_MS) });
  const rows = await answerOf<T[]>(response);
  const next = /<\/api([^>]+)>; rel="next"/.exec(response.headers.get("link") ?? "")?.[1] ?? null;
  const total = response.headers.get("x-total");
  return { rows, next, total: total === null ? null : Number(total) };
}

/** Sends bytes of a type, with time for many of them. Throws as `send` does. */
export async function sendBytes<T>(path: string, type: string, bytes: Blob): Promise<T> {
  const headers = { "content-type": type };
  const signal = AbortSignal.timeout(BYTES_WITHIN_MS);
  return answerOf<T>(await ask(path, { method: "POST", headers, body: bytes, signal }));
}

/** Fetches bytes. Throws as `send` does. */
export async function fetchBytes(path: string): Promise<Uint8Array> {
  const response = await ask(path, { signal: AbortSignal.timeout(BYTES_WITHIN_MS) });
  if (!response.ok) await answerOf(response);
  return new Uint8Array(await response.arrayBuffer());
}

async function ask(path: string, request: RequestInit): Promise<Response> {
  let response: Response;
  try {
    response = await fetch(`/api${path}`, request);
  } catch {
    throw new Unreachable();
  }
  if (AWAY.includes(response.status)) throw new Unreachable();
  return response;
}

async function answerOf<T>(response: Response): Promise<T> {
  let value: unknown;
  try {
    const text = await response.text();
    value = text === "" ? undefined : JSON.parse(text);
  } catch {
    // Cut off on its way, or words of something else than this server.
    if (response.ok) throw new Unreachable();
  }
  if (response.ok) return value as T;
  const problem = (value ?? {}) as { title?: string } & Refused["details"];
  throw new Refused(response.status, problem.title ?? "The request was refused.", problem);
}

/** What went wrong with a request, in a sentence. */
export function whyOf(error: unknown): string {
  return error instanceof Refused || error instanceof Unreachable
    ? error.message
    : "Something went wrong in this page.";
}
