import { spawnSync } from "node:child_process";
import { createHash } from "node:crypto";
import { existsSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from "node:fs";
import { basename, join } from "node:path";
import { PROJECT } from "./database.mjs";
import { Plain, say } from "./plain.mjs";

const SHARED = ["packages/core/src", "packages/formats/src"];
const PAGES = join(PROJECT, "apps/web/dist");
const SERVER = join(PROJECT, "apps/server/dist");
const PROGRAMS = "apps/instruments/src/programs";

/** Builds what has changed since it was last built: pages, server, simulated instruments. Answers with the folder of the pages. */
export async function buildProgram() {
  await once(PAGES, ["apps/web", ...SHARED], "pages", buildPages);
  await once(SERVER, ["apps/server/src", "apps/instruments/src", ...SHARED], "server", buildServer);
  return PAGES;
}

/** One build for each state of its sources: what it was built from is written beside it, last. */
async function once(dist, folders, what, build) {
  const stamp = join(dist, ".built-from");
  const sources = folders.flatMap((folder) => filesIn(join(PROJECT, folder)));
  const wanted = hashOf([...sources, join(PROJECT, "package-lock.json"), join(PROJECT, "scripts/build.mjs")]);
  if (existsSync(stamp) && readFileSync(stamp, "utf8") === wanted) return;
  say(`Building the ${what} …`);
  rmSync(stamp, { force: true });
  await build();
  writeFileSync(stamp, wanted);
}

function buildPages() {
  const built = spawnSync("npx", ["vite", "build", "--logLevel", "warn"], {
    cwd: join(PROJECT, "apps/web"),
    stdio: "inherit",
  });
  if (built.status !== 0) throw new Plain("The pages could not be built; the reason stands above.");
}

/** One file for the server, one for its threads, one for each instrument: they start at once and hold no compiler in memory. */
async function buildServer() {
  // Packages may not be installed yet when this file is read.
  const { build } = await import("esbuild");
  const programs = readdirSync(join(PROJECT, PROGRAMS)).map((file) => [
    `programs/${basename(file, ".ts")}`,
    `${PROGRAMS}/${file}`,
  ]);
  await build({
    absWorkingDir: PROJECT,
    outdir: SERVER,
    entryPoints: {
      main: "apps/server/src/main.ts",
      thread: "apps/server/src/judging/tasks.ts",
      ...Object.fromEntries(programs),
    },
    outExtension: { ".js": ".mjs" },
    bundle: true,
    platform: "node",
    format: "esm",
    target: "node20.19",
    logLevel: "error",
    plugins: [{ name: "packages stay outside", setup: leavePackages }],
  });
}

/** What is written here goes into the file; what comes from the registry is found when it runs. */
function leavePackages(build) {
  build.onResolve({ filter: /^[^./]/ }, ({ kind, path }) =>
    kind === "entry-point" || path.startsWith("@true-spine/") ? undefined : { path, external: true },
  );
}

function filesIn(folder) {
  return readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    if (["node_modules", "dist", "test"].includes(entry.name)) return [];
    const path = join(folder, entry.name);
    return entry.isDirectory() ? filesIn(path) : [path];
  });
}

function hashOf(files) {
  const hash = createHash("sha256");
  for (const file of files.sort()) {
    if (!statSync(file).isFile()) continue;
    hash.update(file.slice(PROJECT.length)).update(readFileSync(file));
  }
  return hash.digest("hex");
}
