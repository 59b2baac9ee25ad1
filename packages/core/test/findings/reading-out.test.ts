import { expect, test } from "vitest";
import { benchReport } from "../../src/findings/bench-report.ts";
import { benchOf } from "../../src/inspect/bench.ts";
import type { Reading } from "../../src/inspect/schema.ts";
import { firstRoute } from "../../src/route/first.ts";
import { changed, example } from "../examples.ts";
import { askedAt, roundAt } from "../inspect/asked.ts";

const field = example("field");
/** At 18.4° a side a line hardly moves for what comes off: its band is half a millimetre or little more. */
const steep = changed(example("prism"), (blade) => {
  blade.edge.angle = { left: 25, right: 25 };
  Object.assign(blade.bevels.right, { height: [{ u: 0, h: 6 }] });
});

/** How a reading in the middle is told that is so much off, mm, all others of its kind as planned; null where it is not. */
function told(stage: string, what: Reading["what"], off: number, blade = field) {
  const route = firstRoute(blade);
  const lines = benchOf(askedAt(blade, route, stage)).lines.filter(({ spot }) => spot.what === what);
  const at = lines[Math.floor(lines.length / 2)]!.spot.u;
  const readings = roundAt(blade, route, stage, (spot) =>
    spot.what !== what ? null : spot.u === at ? off : 0,
  );
  const { findings } = benchReport(askedAt(blade, route, stage, readings), "mm");
  const found = findings.find(({ id }) => id === "reading-out");
  return found ? `${found.severity}: ${found.advice}` : null;
}

const [GO_ON, AGAIN] = [/^watch: The finished blade is still in it/, /^fix: Read it once more/];

test("too thin for its stage with the finished blade still in it is gone on with, until that is not", () => {
  expect(told("true", "edge", -0.4)).toMatch(GO_ON);
  expect(told("finish", "edge", -0.4)).toMatch(AGAIN);
  expect(told("rough", "edge", -0.5)).toMatch(GO_ON);
  expect(told("rough", "edge", -0.8)).toMatch(AGAIN);
});

test("a line is thinner where it stands higher", () => {
  expect(told("rough", "line", 3)).toBeNull();
  expect(told("true", "line", 4)).toMatch(GO_ON);
  expect(told("finish", "line", 4)).toMatch(AGAIN);
  expect(told("true", "line", 0.98, steep)).toMatch(GO_ON);
  expect(told("true", "line", -0.98, steep)).toMatch(AGAIN);
});

test("too thick is never gone on with", () => {
  for (const off of [0.9, 1.5]) expect(told("rough", "edge", off)).toMatch(AGAIN);
  expect(told("true", "edge", 0.3)).toMatch(AGAIN);
  expect(told("sharpen", "line", -3)).toMatch(AGAIN);
});
