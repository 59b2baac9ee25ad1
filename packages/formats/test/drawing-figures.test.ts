import { execFileSync, spawnSync } from "node:child_process";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, expect, test } from "vitest";
import { figuresOf } from "../src/drawing-figures.ts";

const folder = mkdtempSync(join(tmpdir(), "true-spine-drawing-"));
afterAll(() => rmSync(folder, { recursive: true }));
const PROJECT = new URL("../../..", import.meta.url).pathname;
const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="10in" height="2in" viewBox="0 0 10 2">
  <path d="M1 0.5H7V1.5H1Z"/><circle cx="2" cy="1" r="0.125"/></svg>`;
const run = (name: string, text: string | Uint8Array) => {
  const file = join(folder, name);
  writeFileSync(file, text);
  return spawnSync(process.execPath, ["--import", "tsx", "packages/formats/src/cli.ts", file], {
    cwd: PROJECT,
    encoding: "utf8",
  });
};

test("a drawing's figures: in mm where it says its unit, its own where it does not", () => {
  const read = figuresOf("knife.svg", svg);
  expect(read).toMatchObject({
    ok: true,
    figures: {
      unit: "mm",
      width: 152.4,
      height: 25.4,
      area: 152.4 * 25.4,
      holes: [{ diameter: expect.closeTo(6.35, 3) }],
    },
  });
  const round = figuresOf(
    "round.SVG",
    svg
      .replace(/ width.*viewBox/, " viewBox")
      .replace(/<path.*?\/>/, '<path d="M0 1A1 1 0 0 1 2 1A1 1 0 0 1 0 1Z"/>'),
  );
  if (!round.ok) throw new Error(round.why);
  expect(round.figures).toMatchObject({ unit: "not said", mmPerUnit: null });
  expect(round.figures.area).toBeCloseTo(Math.PI, 2);
});

test("one JSON document and nothing else, or status 2 and the reason in words", () => {
  const good = run("good.svg", svg);
  expect(good.status).toBe(0);
  expect(JSON.parse(good.stdout)).toMatchObject({
    format: "true-spine/drawing-figures",
    runs: [{ width: 152.4 }, { width: expect.closeTo(6.35, 3) }],
  });
  // As some programs on Windows write it: two bytes a sign, after a mark.
  const wide = run("wide.svg", Buffer.from(`\ufeff${svg}`, "utf16le"));
  expect(JSON.parse(wide.stdout)).toEqual(JSON.parse(good.stdout));
  const bad = run("bad.dxf", "once upon a time\n".repeat(20));
  expect(bad).toMatchObject({ status: 2, stdout: "", stderr: expect.stringMatching(/not readable|Nothing/) });
  expect(run("bad.txt", svg)).toMatchObject({
    status: 2,
    stderr: expect.stringContaining("neither an SVG nor a DXF"),
  });
  expect(() =>
    execFileSync("node", ["--import", "tsx", "packages/formats/src/cli.ts", "nowhere.svg"], {
      cwd: PROJECT,
      stdio: "pipe",
    }),
  ).toThrow(/cannot be read/);
});
