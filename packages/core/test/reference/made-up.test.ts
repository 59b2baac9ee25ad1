import { expect, test } from "vitest";
import { tryBlades } from "../../bench/trial.ts";
import { times } from "../long.ts";

const SEED = 7_400_000;
const COUNT = times(100, 300);

test(`${COUNT} made-up blades (seed ${SEED}): nothing throws, every figure is a number, no steel from nowhere`, {
  timeout: 300_000,
}, () => {
  const { taken, wrong } = tryBlades(SEED, COUNT);
  expect(wrong).toEqual([]);
  expect(taken).toBeGreaterThan(COUNT / 10);
});
