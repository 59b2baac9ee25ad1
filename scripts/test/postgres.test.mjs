import { execFileSync } from "node:child_process";
import { chmodSync, mkdirSync, mkdtempSync, rmSync, symlinkSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { fileURLToPath } from "node:url";
import { afterEach, beforeEach, describe, expect, test } from "vitest";
import { serverBinaries } from "../database.mjs";

const DATABASE = fileURLToPath(new URL("../database.mjs", import.meta.url));
const newest = serverBinaries();
const major = Number(newest.split("/").at(-2));

let folder;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), "packages-"));
  chmodSync(folder, 0o755);
});
afterEach(() => rmSync(folder, { recursive: true, force: true }));

/** A machine whose packages have put PostgreSQL of some versions: those not really here are empty shells. */
function machine(...majors) {
  rmSync(join(folder, "packages"), { recursive: true, force: true });
  for (const one of majors) {
    const bin = join(folder, "packages", String(one), "bin");
    mkdirSync(join(bin, ".."), { recursive: true });
    if (one === major) symlinkSync(newest, bin);
    else {
      mkdirSync(bin);
      for (const name of ["initdb", "postgres"])
        writeFileSync(join(bin, name), "#!/bin/sh\nexit 9\n", { mode: 0o755 });
    }
  }
}

/** Runs a few lines against the scripts, as a project of its own on that machine. */
function run(lines) {
  const program = `import { openProjectCluster, serverBinaries } from ${JSON.stringify(DATABASE)};\n${lines}`;
  const env = {
    ...process.env,
    TRUE_SPINE_STATE: join(folder, "state"),
    TRUE_SPINE_POSTGRES: join(folder, "packages"),
  };
  return execFileSync(process.execPath, ["--input-type=module", "-e", program], {
    env,
    encoding: "utf8",
    stdio: "pipe",
  });
}

const OPEN = "const c = await openProjectCluster(); console.log(c.port); await c.stop();";

describe("PostgreSQL as packages put it", () => {
  test("another major version installed beside the cluster's changes nothing; taken away, it is said which is wanted", () => {
    machine(major);
    const port = run(OPEN);
    machine(major, major + 1);
    expect(run(OPEN)).toBe(port);
    machine(major + 1);
    expect(() => run(OPEN)).toThrow(
      new RegExp(`database of PostgreSQL ${major}, which is not installed here[^]*postgresql-${major}`),
    );
  });

  test("the newest is taken for a new cluster; too old ones and empty folders are none", () => {
    machine(9, 16, 17);
    mkdirSync(join(folder, "packages", "18"));
    expect(run("console.log(serverBinaries(), serverBinaries(16), serverBinaries(9));").trim()).toBe(
      `${folder}/packages/17/bin ${folder}/packages/16/bin null`,
    );
  });
});
