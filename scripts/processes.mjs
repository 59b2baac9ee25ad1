import { readdirSync, readFileSync } from "node:fs";
import { createServer } from "node:net";

/** What the command line of a living process says; null when it is dead, a zombie, or not ours to see. */
export function commandOf(pid) {
  const facts = factsOf(pid);
  if (!facts || facts.state === "Z" || facts.state === "X") return null;
  try {
    return readFileSync(`/proc/${pid}/cmdline`, "utf8").replaceAll("\0", " ");
  } catch {
    return null;
  }
}

/** When a living process was started, in the system's own count: with its pid it names one process for good. Null when dead. */
export function startOf(pid) {
  return commandOf(pid) === null ? null : (factsOf(pid)?.start ?? null);
}

/** Whether a process that was noted with its start still lives: a pid alone may have been given to another since. */
export function isSameProcess({ pid, start }) {
  const now = startOf(pid);
  return now !== null && now === start;
}

/** pid of the process that started one; null when it is dead. */
export function parentOf(pid) {
  return factsOf(pid)?.parent ?? null;
}

/** Living processes that a process has started. */
export function childrenOf(pid) {
  return readdirSync("/proc")
    .filter((name) => /^\d+$/.test(name) && factsOf(name)?.parent === pid)
    .map(Number);
}

/** Source: proc(5), /proc/pid/stat. */
function factsOf(pid) {
  try {
    const stat = readFileSync(`/proc/${pid}/stat`, "utf8");
    // The name stands in brackets and may hold any sign.
    const fields = stat.slice(stat.lastIndexOf(")") + 2).split(" ");
    return { state: fields[0], parent: Number(fields[1]), start: fields[19] };
  } catch {
    return null;
  }
}

/** A port that is free now on an address: the wanted one if it is, else the next free one the system offers. */
export async function freePort(wanted, host = "127.0.0.1") {
  if (wanted && (await canListen(wanted, host))) return wanted;
  return new Promise((resolve, reject) => {
    const probe = createServer();
    probe.once("error", reject);
    probe.listen(0, host, () => {
      const { port } = probe.address();
      probe.close(() => resolve(port));
    });
  });
}

function canListen(port, host) {
  return new Promise((resolve) => {
    const probe = createServer();
    probe.once("error", () => resolve(false));
    probe.listen(port, host, () => probe.close(() => resolve(true)));
  });
}

export function sleep(ms) {
  return new Promise((resolve) => setTimeout(resolve, ms));
}
