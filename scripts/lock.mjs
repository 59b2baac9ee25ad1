import { linkSync, lstatSync, mkdirSync, readFileSync, renameSync, rmSync, writeFileSync } from "node:fs";
import { dirname } from "node:path";
import { isSameProcess, sleep, startOf } from "./processes.mjs";

const ASK_AGAIN_MS = 100;
const SAY_AFTER_MS = 3000;

/**
 * One process at a time: a file that says whose it is, there whole or not at all. A lock whose process is dead, or whose pid is
 * another process by now, is broken; an empty one nobody holds. `say` is told whom is waited for. Answers with what lets go of it.
 */
export async function takeLock(file, what, say = /** @type {(words: string) => void} */ (() => {})) {
  mkdirSync(dirname(file), { recursive: true });
  const mine = `${file}.${process.pid}`;
  const since = new Date().toISOString();
  writeFileSync(mine, JSON.stringify({ pid: process.pid, start: startOf(process.pid), what, since }));
  try {
    for (let waited = 0; ; waited += ASK_AGAIN_MS) {
      try {
        linkSync(mine, file);
        return () => rmSync(file, { force: true });
      } catch (error) {
        if (error.code !== "EEXIST") throw error;
      }
      const held = read(file);
      if (held && !held.isLiving) breakLock(file, held.text);
      else if (waited === SAY_AFTER_MS && held)
        say(`Waiting for another run of this project: ${held.words} …`);
      await sleep(ASK_AGAIN_MS);
    }
  } finally {
    rmSync(mine, { force: true });
  }
}

/** Who holds a lock, in words; null where nobody does. */
export function holderOf(file) {
  const held = read(file);
  return held?.isLiving ? held.words : null;
}

function read(file) {
  try {
    // An earlier version made a folder of it.
    if (lstatSync(file).isDirectory()) return { text: null, isLiving: false };
    const text = readFileSync(file, "utf8");
    const { pid, start, what, since } = parsed(text);
    const words = `${what}, process ${pid}, since ${since}`;
    return { text, isLiving: isSameProcess({ pid, start }), words };
  } catch {
    return null;
  }
}

function parsed(text) {
  try {
    return JSON.parse(text) ?? {};
  } catch {
    return {};
  }
}

/** Takes a dead one's lock away. Should it be another's by now, that one gets it back. */
function breakLock(file, text) {
  const aside = `${file}.broken-${process.pid}`;
  try {
    renameSync(file, aside);
    if (text !== null && readFileSync(aside, "utf8") !== text) linkSync(aside, file);
  } catch {
    // Somebody else has broken it.
  }
  rmSync(aside, { recursive: true, force: true });
}
