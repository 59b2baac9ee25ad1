import type { Context } from "hono";
import type { Tagged } from "../records/answers.ts";

/** What the database has put together already, as it is. */
export function asItIs(c: Context, { bytes, etag }: Tagged<unknown>): Response {
  return c.body(bytes, 200, { "content-type": "application/json", etag });
}
