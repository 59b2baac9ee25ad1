import { createServer } from "node:net";
import { ofThisMachine } from "./process-facts.mjs";

const { factsOf, pids } = ofThisMachine;

/** What the command line of a living process says; null when it is dead, a zombie, or not ours to see. */
export function commandOf(pid) {
  const facts = factsOf(pid);
  return !facts || /^[ZX]/.test(facts.state) ? null : facts.command;
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
export const childrenOf = (pid) => pids().filter((one) => factsOf(one)?.parent === pid);

/**
 * A port that is free now on an address: the wanted one if it is, else the next free one the system offers.
 * @param {number} [wanted]
 * @returns {Promise<number>}
 */
export async function freePort(wanted, host = "127.0.0.1") {
  if (wanted && (await canListen(wanted, host))) return wanted;
  return new Promise((resolve, reject) => {
    const probe = createServer();
    probe.once("error", reject);
    probe.listen(0, host, () => {
      const { port } = /** @type {import("node:net").AddressInfo} */ (probe.address());
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
