import { spawnSync } from "node:child_process";
import { existsSync, readdirSync, readFileSync } from "node:fs";

/**
 * @typedef {object} Facts Of a process.
 * @property {string} state As one letter first; Z for one that is dead and not fetched.
 * @property {number} parent
 * @property {string} start When it was started, in the system's own words.
 * @property {string} command
 */

/** Read where the system shows its processes as files. Source: proc(5). */
export const fromProc = {
  /** @returns {Facts | null} */
  factsOf(pid) {
    try {
      const stat = readFileSync(`/proc/${pid}/stat`, "utf8");
      // The name stands in brackets and may hold any sign.
      const fields = stat.slice(stat.lastIndexOf(")") + 2).split(" ");
      const command = readFileSync(`/proc/${pid}/cmdline`, "utf8").replaceAll("\0", " ");
      return { state: fields[0], parent: Number(fields[1]), start: fields[19], command };
    } catch {
      return null;
    }
  },
  pids: () =>
    readdirSync("/proc")
      .filter((name) => /^\d+$/.test(name))
      .map(Number),
};

/** Asked of ps where it does not, as on macOS. Source: POSIX ps, and lstart, which BSD and Linux have beside it. */
export const fromPs = {
  /** @returns {Facts | null} */
  factsOf(pid) {
    const [line] = ps(
      "-ww",
      "-o",
      "stat=",
      "-o",
      "ppid=",
      "-o",
      "lstart=",
      "-o",
      "command=",
      "-p",
      String(pid),
    );
    const found = /^\s*(\S+)\s+(\d+)\s+(\S+\s+\S+\s+\S+\s+\S+\s+\d{4})\s+(.*)$/.exec(line ?? "");
    if (!found) return null;
    const [, state, parent, start, command] = found;
    return { state, parent: Number(parent), start: start.replace(/\s+/g, " "), command };
  },
  pids: () => ps("-A", "-o", "pid=").map(Number),
};

function ps(...args) {
  const { stdout } = spawnSync("ps", args, { encoding: "utf8", env: { ...process.env, LC_ALL: "C" } });
  return (stdout ?? "").split("\n").filter((line) => line.trim() !== "");
}

export const ofThisMachine = existsSync("/proc/self/stat") ? fromProc : fromPs;
