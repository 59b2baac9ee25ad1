import { fileURLToPath } from "node:url";

/** Where the server's parts lie: its own folder is one up from here, in the sources as in what is built of them. */
const HERE = new URL(".", import.meta.url);
const PROJECT = new URL("../../../", HERE);
const isBuilt = HERE.pathname.endsWith("/dist/");

export const PROJECT_FOLDER = fileURLToPath(PROJECT);
export const MIGRATIONS = fileURLToPath(new URL("../migrations", HERE));
export const COPY_SCRIPT = fileURLToPath(new URL("scripts/copy.mjs", PROJECT));
/** Copies go here until another folder is named: TRUE_SPINE_COPIES, else the program's own folder. */
export const OWN_COPIES =
  process.env.TRUE_SPINE_COPIES ?? fileURLToPath(new URL(".true-spine/copies", PROJECT));
/** What a thread runs: exports `perform`. */
export const THREAD = fileURLToPath(new URL(isBuilt ? "thread.mjs" : "judging/thread.mjs", HERE));

/** What Node is given to run a simulated instrument. */
export function instrumentProgram(name: string): string[] {
  if (isBuilt) return [fileURLToPath(new URL(`programs/${name}.mjs`, HERE))];
  return ["--import", "tsx", fileURLToPath(new URL(`apps/instruments/src/programs/${name}.ts`, PROJECT))];
}
