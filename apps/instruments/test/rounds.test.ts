import { expect, test } from "vitest";
import { share, summed, tally } from "./tally.ts";

test("rounds on every kind of blade: faults named, slips doubted, nothing sound ground; the long run is in the soak", () => {
  const all = tally(["finish"], 1, 41);
  process.stdout.write(`\n${all.lines.join("\n")}\n${summed(all)}\n`);
  expect(share(all.faults.right, all.faults.of)).toBeGreaterThanOrEqual(0.9);
  expect(share(all.unground.kept, all.unground.of)).toBeGreaterThanOrEqual(0.97);
  expect(share(all.slips.named, all.slips.of)).toBeGreaterThanOrEqual(0.9);
  expect(share(all.whole.named, all.whole.of)).toBeGreaterThanOrEqual(0.9);
});
