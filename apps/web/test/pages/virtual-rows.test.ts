import { expect, test } from "vitest";
import { drawn } from "../../src/pages/rack/VirtualRows.tsx";

const inSight = { startIndex: 10, endIndex: 14, overscan: 2, count: 60 };

test("without the keys: those in sight and a few beside them", () => {
  expect(drawn(inSight, null)).toEqual([8, 9, 10, 11, 12, 13, 14, 15, 16]);
});

test("with the keys: the rows about theirs too, each once and in order, wherever the page is scrolled", () => {
  expect(drawn(inSight, 16)).toEqual([8, 9, 10, 11, 12, 13, 14, 15, 16, 17, 18, 19]);
  expect(drawn(inSight, 40)).toEqual([8, 9, 10, 11, 12, 13, 14, 15, 16, 37, 38, 39, 40, 41, 42, 43]);
  expect(drawn(inSight, 1)).toEqual([0, 1, 2, 3, 4, 8, 9, 10, 11, 12, 13, 14, 15, 16]);
});

test("none beyond the last row, nor a row that is gone", () => {
  expect(drawn(inSight, 59).at(-1)).toBe(59);
  expect(drawn({ ...inSight, count: 17 }, 40)).toEqual(drawn(inSight, null));
});
