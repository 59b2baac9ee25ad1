import { parseBlade } from "@true-spine/core/blade/parse.ts";
import type { Fault } from "@true-spine/core/document/fault.ts";
import { parseReadings } from "@true-spine/core/inspect/parse.ts";
import { parseRun } from "@true-spine/core/inspect/run-schema.ts";
import type { Reading } from "@true-spine/core/inspect/schema.ts";
import {
  type BladeStateOf,
  type Bundle,
  type BundleFile,
  type BundleList,
  type DocumentStateOf,
  MOST_FILES,
  MOST_ROWS,
  parseBundleList,
} from "@true-spine/core/registry/bundle.ts";
import { parseDocument } from "@true-spine/core/registry/documents.ts";
import { parseWork, type WorkRow } from "@true-spine/core/work/schema.ts";
import { unzipSync, zipSync } from "fflate";

/** A bundle and what it unpacks to, bytes: past these it is refused before it is read. */
export const LARGEST_BUNDLE = 32 * 1024 * 1024;
const LARGEST_UNPACKED = 128 * 1024 * 1024;
const LIST = "bundle.json";
/** A zip keeps times from 1980 on; this one makes the same bundle the same bytes. */
const NO_TIME = new Date(1980, 0, 1);

type Unlisted<T> = T extends unknown ? Omit<T, "path" | "sha256"> : never;

/** The bundle as a zip. The same bundle made at the same time is the same bytes. */
export async function writeBundle(bundle: Bundle, made: string): Promise<Uint8Array> {
  const files: BundleFile[] = [];
  const zipped: Record<string, Uint8Array> = {};
  const put = async (path: string, of: Unlisted<BundleFile>, content: unknown) => {
    const bytes = new TextEncoder().encode(`${JSON.stringify(content)}\n`);
    files.push({ path, sha256: await sha256(bytes), ...of } as BundleFile);
    zipped[path] = bytes;
  };
  for (const { file, ...of } of bundle.states)
    await put(`blade/${of.number}.json`, { what: "blade", ...of }, file);
  for (const { file, ...of } of bundle.documents) {
    const folder = of.kind.replace(/[A-Z]/g, (sign) => `-${sign.toLowerCase()}`);
    await put(`${folder}/${of.number}.json`, { what: "document", ...of }, file);
  }
  for (const [i, taken] of inParts(bundle.readings).entries()) {
    await put(
      `readings/${i + 1}.json`,
      { what: "readings" },
      { format: "true-spine/readings", version: 1, taken },
    );
  }
  for (const [i, rows] of inParts(bundle.work).entries()) {
    await put(`work/${i + 1}.json`, { what: "work" }, { format: "true-spine/work", version: 1, rows });
  }
  for (const { file, ...of } of bundle.runs) await put(`runs/${of.id}.json`, { what: "run", ...of }, file);
  const list: BundleList = {
    format: "true-spine/bundle",
    version: 1,
    made,
    blade: { id: bundle.id, name: bundle.name, state: bundle.state },
    struck: [...bundle.struck],
    files,
  };
  const bytes = new TextEncoder().encode(`${JSON.stringify(list, null, 2)}\n`);
  return zipSync({ [LIST]: bytes, ...zipped }, { level: 6, mtime: NO_TIME });
}

export type ReadBundle = { ok: true; bundle: Bundle } | { ok: false; why: string; faults: readonly Fault[] };

/**
 * A bundle from its bytes: every file there, whole, and sound in itself, or in words why not. Never throws; what is not in its list is
 * not read.
 */
export async function readBundle(bytes: Uint8Array): Promise<ReadBundle> {
  if (bytes.length > LARGEST_BUNDLE) return refused("It is larger than a bundle may be, 32 MB.");
  const unzipped = unzip(bytes);
  if (typeof unzipped === "string") return refused(unzipped);
  const listed = unzipped[LIST];
  if (!listed) return refused("It is a zip, but no bundle of a blade: it holds no bundle.json.");
  const value = jsonOf(listed);
  if (value === undefined) return refused("Its list, bundle.json, is not readable JSON.");
  const parsed = parseBundleList(value);
  if (!parsed.ok) return refused("Its list, bundle.json, has faults.", parsed.faults);
  const { list } = parsed;
  const content = new Content();
  for (const of of list.files) {
    const file = unzipped[of.path];
    if (!file) return refused(`${of.path} is missing from it.`);
    if ((await sha256(file)) !== of.sha256)
      return refused(`${of.path} is not as it was written: its checksum differs. Take the bundle out again.`);
    const json = jsonOf(file);
    if (json === undefined) return refused(`${of.path} is not readable JSON.`);
    const faults = content.take(of, json);
    if (faults.length > 0) return refused(`${of.path} has faults.`, faults);
  }
  return content.whole(list);
}

/** What was read of a bundle so far. */
class Content {
  private readonly states: BladeStateOf[] = [];
  private readonly documents: DocumentStateOf[] = [];
  private readonly readings: Reading[] = [];
  private readonly work: WorkRow[] = [];
  private readonly runs: Bundle["runs"][number][] = [];

  /** The faults of one more file; none, and it is kept. */
  take(of: BundleFile, json: unknown): readonly Fault[] {
    switch (of.what) {
      case "blade": {
        const parsed = parseBlade(json);
        if (!parsed.ok) return parsed.faults;
        const { number, saveKey, at, label } = of;
        this.states.push({ number, saveKey, at, ...(label ? { label } : {}), file: parsed.blade });
        return [];
      }
      case "document": {
        const parsed = parseDocument(of.kind, json);
        if (!parsed.ok) return parsed.faults;
        const { kind, number, saveKey, at } = of;
        this.documents.push({ kind, number, saveKey, at, file: parsed.document });
        return [];
      }
      case "run": {
        const parsed = parseRun(json);
        if (!parsed.ok) return parsed.faults;
        this.runs.push({ id: of.id, file: parsed.run });
        return [];
      }
      case "readings": {
        const parsed = parseReadings(json);
        if (!parsed.ok) return parsed.faults;
        this.readings.push(...parsed.readings.taken);
        return [];
      }
      case "work": {
        const parsed = parseWork(json);
        if (!parsed.ok) return parsed.faults;
        this.work.push(...parsed.work.rows);
        return [];
      }
    }
  }

  whole({ blade, struck }: BundleList): ReadBundle {
    const { states, documents, readings, work, runs } = this;
    if (states.length === 0) return refused("It holds no blade.");
    const twice =
      again(states, ({ number }) => `blade/${number}`) ??
      again(documents, ({ kind, number }) => `${kind}/${number}`) ??
      again([...readings, ...work], ({ id }) => id) ??
      again(runs, ({ id }) => id);
    if (twice) return refused(`${twice} stands in it twice.`);
    states.sort((a, b) => a.number - b.number);
    documents.sort((a, b) => a.number - b.number);
    return { ok: true, bundle: { ...blade, states, documents, readings, work, struck, runs } };
  }
}

const refused = (why: string, faults: readonly Fault[] = []): ReadBundle => ({ ok: false, why, faults });

/** What is in a zip, unpacked within bounds; or why it is not. */
function unzip(bytes: Uint8Array): Record<string, Uint8Array> | string {
  let size = 0;
  let count = 0;
  try {
    const files = unzipSync(bytes, {
      filter: ({ originalSize, name }) => {
        size += originalSize;
        count++;
        return size <= LARGEST_UNPACKED && count <= MOST_FILES + 1 && name.endsWith(".json");
      },
    });
    if (size > LARGEST_UNPACKED || count > MOST_FILES + 1) return "It unpacks to more than a blade can be.";
    return files;
  } catch {
    return "It is no bundle, or it was cut off on its way: it cannot be unpacked.";
  }
}

function jsonOf(bytes: Uint8Array): unknown {
  try {
    return JSON.parse(new TextDecoder("utf-8", { fatal: true }).decode(bytes));
  } catch {
    return undefined;
  }
}

async function sha256(bytes: Uint8Array): Promise<string> {
  const hash = await crypto.subtle.digest("SHA-256", bytes as Uint8Array<ArrayBuffer>);
  return Array.from(new Uint8Array(hash), (byte) => byte.toString(16).padStart(2, "0")).join("");
}

/** Rows in parts of no more than so many. */
export function inParts<T>(rows: readonly T[], size = MOST_ROWS): T[][] {
  const parts: T[][] = [];
  for (let i = 0; i < rows.length; i += size) parts.push(rows.slice(i, i + size));
  return parts;
}

/** The first name that two of them have. */
function again<T>(all: readonly T[], nameOf: (one: T) => string): string | null {
  const seen = new Set<string>();
  for (const one of all) {
    const name = nameOf(one);
    if (seen.has(name)) return name;
    seen.add(name);
  }
  return null;
}
