import { parseArgs } from "node:util";
import { share, summed, tally } from "../test/tally.ts";

/** Over a thousand rounds of readings put to the bench, on every kind of blade at three stages; prints how each was answered. */
const { values } = parseArgs({ options: { seed: { type: "string" }, times: { type: "string" } } });
const seed = Number(values.seed ?? 20_260_301);
process.stdout.write(`rounds of readings, seed ${seed}\n`);
const all = tally(["rough", "true", "finish"], Number(values.times ?? 4), seed, (line) =>
  process.stdout.write(`${line}\n`),
);
process.stdout.write(`${summed(all)}\n`);
const isGood =
  share(all.faults.right, all.faults.of) >= 0.95 &&
  share(all.unground.kept, all.unground.of) >= 0.99 &&
  share(all.slips.named, all.slips.of) >= 0.95;
process.exitCode = isGood ? 0 : 1;
