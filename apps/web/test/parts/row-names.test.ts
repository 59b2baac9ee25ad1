import { expect, test } from "vitest";
import { findingNames } from "../../src/parts/rowNames.ts";

test("findings keep their names while they move; alike ones are told apart by their places", () => {
  const at = (id: string, x: number, side?: "left") => ({
    id,
    where: { x: [x, x] as const, ...(side ? { side } : {}) },
  });
  expect(findingNames([at("thin", 12), at("plunge", 3, "left")])).toEqual(
    findingNames([at("thin", 14), at("plunge", 5, "left")]),
  );
  const [here, there] = findingNames([at("thin", 12), at("thin", 40)]);
  expect(findingNames([at("thin", 40), at("thin", 12)])).toEqual([there, here]);
  expect(new Set(findingNames([at("thin", 12), at("thin", 12), at("thin", 12, "left")])).size).toBe(3);
});
