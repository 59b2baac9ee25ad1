import type { Blade } from "@true-spine/core/blade/schema.ts";
import type { Beside } from "@true-spine/core/findings/judge.ts";
import type { Bundle } from "@true-spine/core/registry/bundle.ts";
import type { Summary } from "@true-spine/core/registry/contract.ts";
import { type ReadBundle, readBundle, writeBundle } from "@true-spine/formats/bundle.ts";
import { BODIES, type BodyName } from "../bodies.ts";
import { Problem } from "../problem.ts";
import { summaryOf } from "../summary.ts";
import { isWithinBounds } from "./bounds.ts";

/** What takes its time, as a thread of its own does it: plain data in, plain data out. */
export type Task =
  | { readonly do: "read"; readonly body: BodyName; readonly text: string }
  | { readonly do: "summarize"; readonly blade: Blade; readonly beside: Beside }
  | { readonly do: "pack"; readonly bundle: Bundle; readonly made: string }
  | { readonly do: "unpack"; readonly bytes: Uint8Array };

export type ReadBody =
  | { readonly ok: true; readonly value: unknown }
  | {
      readonly ok: false;
      readonly status: Problem["status"];
      readonly title: string;
      readonly extra: object;
    };

/** A request's body from its text: parsed within bounds and checked, or why not. Throws only where this program is wrong. */
export function readBody(body: BodyName, text: string): ReadBody {
  const refused = (status: Problem["status"], title: string, extra: object = {}) =>
    ({ ok: false, status, title, extra }) as const;
  if (!isWithinBounds(text)) {
    return refused(
      413,
      "The request holds more than any document may: it is nested too deep or has too many values.",
    );
  }
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    return refused(400, "The request is not readable JSON.");
  }
  try {
    return { ok: true, value: BODIES[body](value) };
  } catch (error) {
    if (error instanceof Problem) return refused(error.status, error.title, error.extra);
    throw error;
  }
}

export function perform(task: Task): ReadBody | Summary | Promise<Uint8Array | ReadBundle> {
  switch (task.do) {
    case "read":
      return readBody(task.body, task.text);
    case "summarize":
      return summaryOf(task.blade, task.beside);
    case "pack":
      return writeBundle(task.bundle, task.made);
    case "unpack":
      return readBundle(task.bytes);
  }
}
