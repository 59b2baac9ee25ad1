import type { Fault } from "@true-spine/core/document/fault.ts";
import type { Context } from "hono";
import { HTTPException } from "hono/http-exception";
import type { Logger } from "pino";

/** An error that a caller is told about, as RFC 9457 `application/problem+json`. */
export class Problem extends Error {
  constructor(
    readonly status: 400 | 403 | 404 | 409 | 413 | 415 | 422,
    readonly title: string,
    readonly extra: Record<string, unknown> = {},
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

/** The one place where errors become responses. What is not a Problem is a defect: logged, and not described. */
export function problemResponse(log: Logger, error: unknown, c: Context): Response {
  if (error instanceof Problem) return respond(c, error.status, error.title, error.extra);
  if (error instanceof HTTPException)
    return respond(c, error.status, error.message || "The request was refused.", {});
  log.error({ err: error, path: c.req.path }, "request failed");
  return respond(c, 500, "Something went wrong here; nothing was saved. The server's log says more.", {});
}

function respond(c: Context, status: number, title: string, extra: Record<string, unknown>): Response {
  return c.body(JSON.stringify({ type: "about:blank", title, status, ...extra }), status as 400, {
    "content-type": "application/problem+json",
  });
}
