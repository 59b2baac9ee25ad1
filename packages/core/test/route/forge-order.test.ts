import { expect, test } from "vitest";
import { firstRoute } from "../../src/route/first.ts";
import { withUsualHeats } from "../../src/route/heats.ts";
import { withStage } from "../../src/route/stages.ts";
import { example } from "../examples.ts";

const plain = firstRoute(example("field"));
const kindsOf = (stages: typeof plain.stages) => stages.map(({ kind }) => kind);

test("forged steel is normalized and annealed after the forge, before profile and holes", () => {
  const forged = { ...plain, stages: withStage(plain.stages, "forge") };
  const heated = withStage(withUsualHeats(forged).stages, "anneal");
  expect(kindsOf(heated).slice(0, 7)).toEqual([
    "stock",
    "forge",
    "normalize",
    "normalize",
    "normalize",
    "anneal",
    "profile",
  ]);
  expect(new Set(heated.map(({ id }) => id)).size).toBe(heated.length);
});

test("without a forge they stay before the hardening", () => {
  const kinds = kindsOf(withUsualHeats(plain).stages);
  expect(kinds.indexOf("normalize")).toBeGreaterThan(kinds.indexOf("rough"));
  expect(kinds.lastIndexOf("normalize")).toBeLessThan(kinds.indexOf("harden"));
});
