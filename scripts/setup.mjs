import { spawnSync } from "node:child_process";
import { createHash } from "node:crypto";
import { existsSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { isRoot } from "./accounts.mjs";
import { buildProgram } from "./build.mjs";
import { PROJECT, STATE, serverBinaries } from "./database.mjs";
import { browserOn, installOn, THIS_MACHINE } from "./found.mjs";
import { takeLock } from "./lock.mjs";
import { Plain, say } from "./plain.mjs";

const OLDEST_NODE = [20, 19];

/** Runs a script's main function; what it throws becomes one plain line, or a stack if it is a defect. */
export async function run(main) {
  try {
    process.exitCode = (await main()) ?? process.exitCode ?? 0;
  } catch (error) {
    console.error(error instanceof Plain ? error.message : error);
    process.exitCode = 1;
  }
}

/**
 * All set-up that a command needs, one command of this project at a time: packages, PostgreSQL, and what else is asked for. Answers
 * with the folder of the built pages where the program is wanted `built`.
 */
export async function setUp({ chromium = false, built = false } = {}) {
  checkNode();
  const release = await takeLock(join(STATE, "set-up.lock"), "packages or pages are being made ready", say);
  try {
    ensurePackages();
    ensurePostgres();
    if (chromium) ensureChromium();
    return built ? buildProgram() : null;
  } finally {
    release();
  }
}

function checkNode() {
  const [major, minor] = process.versions.node.split(".").map(Number);
  const [wantMajor, wantMinor] = OLDEST_NODE;
  if (major > wantMajor || (major === wantMajor && minor >= wantMinor)) return;
  throw new Plain(
    `True Spine needs Node ${wantMajor}.${wantMinor} or newer; this is ${process.versions.node}.`,
  );
}

/** Installs the packages of the lock file, once for each lock file and Node. */
function ensurePackages() {
  const stamp = join(PROJECT, "node_modules", ".installed-for");
  const lock = createHash("sha256")
    .update(readFileSync(join(PROJECT, "package-lock.json")))
    .digest("hex");
  const wanted = `${process.versions.node} ${lock}`;
  if (existsSync(stamp) && readFileSync(stamp, "utf8") === wanted) return;
  say("Installing packages (about a minute, the first time only) …");
  const installed = spawnSync("npm", ["ci", "--no-audit", "--no-fund", "--loglevel=error"], {
    cwd: PROJECT,
    stdio: "inherit",
  });
  if (installed.status !== 0) throw new Plain("The packages could not be installed; npm says why above.");
  writeFileSync(stamp, wanted);
}

function ensurePostgres() {
  if (serverBinaries()) return;
  install("postgres", "PostgreSQL");
  if (!serverBinaries()) throw new Plain("PostgreSQL is still not there after installing it.");
}

/** Chromium, and what puts an authority into its store: the tests trust a shop as a tablet does. */
function ensureChromium() {
  /** @type {readonly (readonly ["browser" | "certificates", string, () => boolean])[]} */
  const wanted = [
    ["browser", "Chromium", () => browserOn(THIS_MACHINE) !== null],
    ["certificates", "certutil", () => THIS_MACHINE.ask("which", "certutil") !== null],
  ];
  for (const [what, title, isThere] of wanted) {
    if (isThere()) continue;
    install(what, title);
    if (!isThere()) throw new Plain(`${title} is still not there after installing it.`);
  }
}

/**
 * By Debian's packages as root; anybody else, and any other system, is told how.
 * @param {Parameters<typeof installOn>[1]} what
 * @param {string} title
 */
function install(what, title) {
  const { by, name, instead, words } = installOn(THIS_MACHINE, what);
  if (by !== "apt" || !isRoot)
    throw new Plain(`${title} is missing. Install it, then run this again:\n  ${words}`);
  say(`Installing ${title} from Debian's packages …`);
  const env = { ...process.env, DEBIAN_FRONTEND: "noninteractive" };
  const apt = (...args) => spawnSync("apt-get", args, { env, stdio: ["ignore", "ignore", "inherit"] }).status;
  apt("update", "-qq");
  const isDone = [name, ...(instead ? [instead] : [])].some((one) => apt("install", "-y", "-qq", one) === 0);
  if (!isDone) throw new Plain(`${title} could not be installed; apt-get says why above.`);
}
