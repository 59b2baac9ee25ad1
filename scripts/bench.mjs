import { spawnSync } from "node:child_process";
import { PROJECT } from "./database.mjs";
import { run, setUp } from "./setup.mjs";

/** Speed: of the core as ratios, or with `--scale` of the server with a large shop. */
run(async () => {
  const isOfServer = process.argv.includes("--scale");
  await setUp({ built: isOfServer });
  const node = (...args) => spawnSync(process.execPath, args, { cwd: PROJECT, stdio: "inherit" }).status ?? 1;
  if (isOfServer) return node("--import", "tsx", "apps/server/bench/scale.ts");
  const out = ".true-spine/bench.mjs";
  const bundle = [
    "packages/core/bench/run.ts",
    "--bundle",
    "--platform=node",
    "--format=esm",
    "--log-level=error",
  ];
  const { status } = spawnSync("npx", ["esbuild", ...bundle, `--outfile=${out}`], {
    cwd: PROJECT,
    stdio: "inherit",
  });
  return status === 0 ? node("--expose-gc", out, ...process.argv.slice(2)) : 1;
});
