import { expect, test } from "vitest";
import { randomBlade, seeded } from "../../bench/random-blade.ts";
import { parseBlade } from "../../src/blade/parse.ts";
import { firstHandle } from "../../src/design/first-handle.ts";
import { judgePlan } from "../../src/findings/plan.ts";
import { firstRoute } from "../../src/route/first.ts";
import { parseRoute } from "../../src/route/parse.ts";
import { reportOf } from "../../src/route/report.ts";
import { SCHOOLS } from "../../src/route/stages.ts";
import { USUAL_SHOP } from "../../src/shop/schema.ts";

const SEED = 8_100_000;
const COUNT = 20;

test(`routes of ${COUNT} made-up blades (seed ${SEED}): nothing throws, every figure is a number, no stage adds steel`, {
  timeout: 120_000,
}, () => {
  const wrong: string[] = [];
  let taken = 0;
  for (let n = 0; taken < COUNT; n++) {
    const random = seeded(SEED + n);
    const parsed = parseBlade(randomBlade(random));
    if (!parsed.ok) continue;
    taken++;
    const { blade } = parsed;
    const route = firstRoute(blade, SCHOOLS[n % SCHOOLS.length]);
    if (n % 4 === 0) route.stages.splice(Math.floor(random() * route.stages.length), 3);
    if (n % 5 === 0) route.roughAngle = 1 + 20 * random();
    try {
      const checked = parseRoute(route);
      if (!checked.ok) wrong.push(`${n}: ${JSON.stringify(checked.faults)}`);
      const x = -100 + 300 * random();
      const report = reportOf(blade, route, USUAL_SHOP, x);
      const findings = judgePlan(blade, route, report, USUAL_SHOP, { handle: firstHandle(blade, "full") });
      JSON.stringify({ report, findings }, (key, value) => {
        if (typeof value === "number" && !Number.isFinite(value)) wrong.push(`${n}: ${key} is ${value}`);
        return value;
      });
      for (const { kind, removed } of report.stages) {
        if (removed < -1e-6) wrong.push(`${n}: ${kind} adds ${-removed} g`);
      }
    } catch (error) {
      wrong.push(
        `${n}: ${error instanceof Error ? error.stack?.split("\n").slice(0, 3).join(" | ") : error}`,
      );
    }
  }
  expect(wrong).toEqual([]);
});
