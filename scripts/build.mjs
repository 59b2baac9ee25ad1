import { spawnSync } from "node:child_process";
import { createHash } from "node:crypto";
import { existsSync, readdirSync, readFileSync, statSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { PROJECT } from "./database.mjs";
import { Plain, say } from "./plain.mjs";

const SHARED = ["packages/core/src", "packages/formats/src", "scripts/validators"];

/** Builds what has changed since it was last built: pages, server, simulated instruments. Answers with the folder of the pages. */
export function buildProgram() {
  buildOnce("server", ["apps/server", "apps/instruments/src", ...SHARED]);
  return buildOnce("web", ["apps/web", ...SHARED]);
}

/** One build for each state of its sources: what it was built from is written beside it, last. Answers with its folder. */
function buildOnce(app, folders) {
  const dist = join(PROJECT, "apps", app, "dist");
  const stamp = join(dist, ".built-from");
  const sources = folders.flatMap((folder) => filesIn(join(PROJECT, folder)));
  const wanted = hashOf([...sources, join(PROJECT, "package-lock.json")]);
  if (existsSync(stamp) && readFileSync(stamp, "utf8") === wanted) return dist;
  const what = app === "web" ? "pages" : app;
  say(`Building the ${what} …`);
  const built = spawnSync("npx", ["vite", "build", "--logLevel", "warn"], {
    cwd: join(PROJECT, "apps", app),
    stdio: "inherit",
    // Whatever the shell that starts it is set to: what is served is what is meant for use.
    env: { ...process.env, NODE_ENV: "production" },
  });
  if (built.status !== 0) throw new Plain(`The ${what} could not be built; the reason stands above.`);
  writeFileSync(stamp, wanted);
  return dist;
}

function filesIn(folder) {
  return readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    if (["node_modules", "dist", "test", "bench", "soak"].includes(entry.name)) return [];
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
