import type { Fault } from "@true-spine/core/document/fault.ts";
import { readJson } from "@true-spine/core/document/read-json.ts";

/** What a file says, where it is sound; else why not in words. Nothing is taken in of one that is not. */
export async function takeIn<Parsed extends { ok: true } | { ok: false; faults: readonly Fault[] }>(
  file: File,
  parse: (value: unknown) => Parsed,
): Promise<Extract<Parsed, { ok: true }> | { ok: false; why: string }> {
  const read = readJson(await file.text());
  if (!read.ok) return { ok: false, why: `“${file.name}”: ${read.fault.message}. Nothing was taken in.` };
  const parsed = parse(read.value);
  if (parsed.ok) return parsed as Extract<Parsed, { ok: true }>;
  const [{ path, message }] = (parsed as { faults: readonly Fault[] }).faults as [Fault];
  return { ok: false, why: `${file.name}: ${path} ${message}. Nothing was taken in.` };
}
