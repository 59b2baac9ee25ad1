import type { Fault } from "@true-spine/core/document/fault.ts";
import type { Context } from "hono";
import { HTTPException } from "hono/http-exception";
import type { Logger } from "pino";
import { isDatabaseAway } from "./database-away.ts";

type Status = 400 | 401 | 403 | 404 | 409 | 413 | 415 | 421 | 422 | 429 | 503;

const COME_BACK_S = 2;

/** An error that a caller is told about, as RFC 9457 `application/problem+json`. */
export class Problem extends Error {
  constructor(
    readonly status: Status,
    readonly title: string,
    readonly extra: Record<string, unknown> = {},
    /** Seconds after which it is worth asking again. */
    readonly retryAfter?: number,
  ) {
    super(title);
  }
}

/** A document that was refused, fault by fault. */
export function refusedDocument(faults: readonly Fault[]): Problem {
  return new Problem(422, "The document has faults and was not saved.", { faults });
}

export function notFound(what: string): Problem {
  return new Problem(404, `There is no such ${what}.`);
}

/** Something this server needs is away for a while: nothing is lost by asking again. */
export function away(title: string): Problem {
  return new Problem(503, title, {}, COME_BACK_S);
}

/**
 * The one place where errors become responses. What is not a Problem is a defect: logged, told to `onDefect`, and not described to whoever
 * asked.
 */
export function problemResponse(
  log: Logger,
  error: unknown,
  c: Context,
  onDefect: (what: string, where: string) => void = () => {},
): Response {
  if (error instanceof Problem) return respond(c, error);
  if (error instanceof HTTPException)
    return respond(c, { status: error.status, title: error.message || "The request was refused." });
  if (isDatabaseAway(error)) {
    log.warn({ err: error, path: c.req.path }, "database away");
    return respond(c, away("The database does not answer just now. Nothing is lost: try again in a moment."));
  }
  log.error({ err: error, path: c.req.path }, "request failed");
  onDefect(error instanceof Error ? error.message : String(error), `${c.req.method} ${c.req.path}`);
  const title = "Something went wrong here; nothing was saved. The server's log says more.";
  return respond(c, { status: 500, title });
}

function respond(
  c: Context,
  { status, title, extra = {}, retryAfter }: Omit<Partial<Problem>, "status"> & { status: number },
): Response {
  return c.body(JSON.stringify({ type: "about:blank", title, status, ...extra }), status as 400, {
    "content-type": "application/problem+json",
    "cache-control": "no-store",
    ...(retryAfter === undefined ? {} : { "retry-after": String(retryAfter) }),
    // What is left of a body that is too large is not read: its connection is of no more use.
    ...(status === 413 ? { connection: "close" } : {}),
  });
}
