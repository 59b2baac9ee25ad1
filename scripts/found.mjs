import { spawnSync } from "node:child_process";
import { existsSync, readdirSync, readFileSync } from "node:fs";
import { dirname, join } from "node:path";

/**
 * @typedef {object} Machine What is asked of a machine to find what others installed on it.
 * @property {string} platform As Node names it.
 * @property {Record<string, string | undefined>} env
 * @property {(path: string) => boolean} has
 * @property {(folder: string) => string[]} list Names in a folder, none where there is no such folder.
 * @property {(command: string, ...args: string[]) => string | null} ask What a command says; null where there is none or it fails.
 * @property {string} system What the system says of itself, as in os-release(5).
 */

/** @type {Machine} */
export const THIS_MACHINE = {
  platform: process.platform,
  env: process.env,
  has: existsSync,
  list: (folder) => (existsSync(folder) ? readdirSync(folder) : []),
  ask: (command, ...args) => {
    const { status, stdout } = spawnSync(command, args, { encoding: "utf8" });
    return status === 0 ? stdout.trim() : null;
  },
  system: existsSync("/etc/os-release") ? readFileSync("/etc/os-release", "utf8") : "",
};

const OLDEST = 13;
/**
 * Where packages put PostgreSQL, a folder for each major version: Debian and Ubuntu; Red Hat and its kin; Homebrew on either kind of processor.
 * @type {readonly (readonly [folder: string, name: RegExp])[]}
 */
const BY_VERSION = [
  ["/usr/lib/postgresql", /^(\d+)$/],
  ["/usr", /^pgsql-(\d+)$/],
  ["/opt/homebrew/opt", /^postgresql@(\d+)$/],
  ["/usr/local/opt", /^postgresql@(\d+)$/],
];

/**
 * PostgreSQL's server binaries on a machine, the newest first, each with its major version: where its packages put them, where `pg_config` says,
 * and what the path leads to. `TRUE_SPINE_POSTGRES` names the one place to look in instead.
 * @param {Machine} machine
 * @returns {{ major: number, bin: string }[]}
 */
export function postgresOn(machine) {
  const named = machine.env.TRUE_SPINE_POSTGRES;
  /** @type {typeof BY_VERSION} */
  const places = named ? [[named, /^(\d+)$/]] : BY_VERSION;
  const found = places.flatMap(([folder, name]) =>
    machine.list(folder).flatMap((one) => {
      const major = Number(name.exec(one)?.[1] ?? Number.NaN);
      return major >= OLDEST ? [{ major, bin: join(folder, one, "bin") }] : [];
    }),
  );
  if (!named) {
    const bins = [machine.ask("pg_config", "--bindir"), folderOf(machine.ask("which", "initdb"))];
    for (const bin of bins) {
      if (!bin || found.some((one) => one.bin === bin)) continue;
      const major = Number(
        /(\d+)/.exec(machine.ask(join(bin, "initdb"), "--version") ?? "")?.[1] ?? Number.NaN,
      );
      if (major >= OLDEST) found.push({ major, bin });
    }
  }
  return found
    .filter(({ bin }) => machine.has(join(bin, "initdb")) && machine.has(join(bin, "postgres")))
    .sort((a, b) => b.major - a.major);
}

const folderOf = (path) => (path ? dirname(path) : null);

const BROWSERS = {
  linux: [
    // The one that has no window to draw comes first: a test takes a third less with it.
    "/usr/bin/chromium-headless-shell",
    "/usr/bin/chromium",
    "/usr/bin/chromium-browser",
    "/snap/bin/chromium",
    "/usr/bin/google-chrome-stable",
    "/usr/bin/google-chrome",
  ],
  darwin: [
    "/Applications/Chromium.app/Contents/MacOS/Chromium",
    "/Applications/Google Chrome.app/Contents/MacOS/Google Chrome",
  ],
};
const BROWSER_NAMES = [
  "chromium-headless-shell",
  "chromium",
  "chromium-browser",
  "google-chrome-stable",
  "google-chrome",
];

/**
 * A browser for the tests; `TRUE_SPINE_BROWSER` names another. Null where there is none.
 * @param {Machine} machine
 * @returns {string | null}
 */
export function browserOn(machine) {
  const named = machine.env.TRUE_SPINE_BROWSER;
  if (named) return machine.has(named) ? named : null;
  const usual = (BROWSERS[machine.platform] ?? []).find(machine.has);
  if (usual) return usual;
  return BROWSER_NAMES.map((name) => machine.ask("which", name)).find(Boolean) ?? null;
}

/**
 * How what is missing is installed on a machine: by its own packages where they are Debian's or Homebrew's, else in words.
 * @param {Machine} machine
 * @param {"postgres" | "browser" | "certificates"} what
 * @param {number} [major] Of PostgreSQL, where it must be that one.
 * @returns {{ by: "apt" | "brew" | null, name: string, instead?: string, words: string }} `instead` does as well where there is no such package.
 */
export function installOn(machine, what, major) {
  if (machine.platform === "darwin") {
    const name = { postgres: `postgresql@${major ?? 17}`, browser: "chromium", certificates: "nss" }[what];
    return { by: "brew", name, words: `brew install ${what === "browser" ? "--cask " : ""}${name}` };
  }
  const isDebian = /^ID(_LIKE)?=.*(debian|ubuntu)/m.test(machine.system);
  const isUbuntu = /^ID="?ubuntu/m.test(machine.system);
  const name = {
    // Which major version it is is the system's own choice: 14 to 17, all of them new enough.
    postgres: major ? `postgresql-${major}` : "postgresql",
    browser: isUbuntu ? "chromium-browser" : "chromium",
    certificates: "libnss3-tools",
  }[what];
  const shell = what === "browser" && !isUbuntu ? "chromium-headless-shell" : null;
  if (isDebian && shell)
    return { by: "apt", name: shell, instead: name, words: `sudo apt-get install ${name}` };
  if (isDebian) return { by: "apt", name, words: `sudo apt-get install ${name}` };
  return { by: null, name, words: `Install ${name}, or what your system calls it, by its own packages.` };
}
