import { describe, expect, test } from "vitest";
import { fansAt, usesOf } from "../../src/blade/mesh.ts";

/** Which stretch each corner at place 0 is given to, in the order of the corners. */
const at0 = (...cells: number[]) => {
  const fans = fansAt(cells, usesOf(cells), Math.max(...cells) + 1);
  return cells.flatMap((place, corner) => (place === 0 ? [fans.get(corner) ?? null] : []));
};

describe("stretches of steel that touch in one place", () => {
  test("two that only touch there have it twice", () => {
    const [one, other] = at0(0, 1, 2, 0, 3, 4);
    expect(one).not.toBe(other);
  });

  test("a fan of three is one, and the stretch across from it another", () => {
    const [a, b, c, across] = at0(0, 1, 2, 0, 2, 3, 0, 3, 4, 0, 5, 6);
    expect([b, c]).toEqual([a, a]);
    expect(across).not.toBe(a);
  });

  test("in whatever order its cells come", () => {
    const [a, across, b] = at0(0, 1, 2, 0, 5, 6, 0, 2, 3);
    expect(b).toBe(a);
    expect(across).not.toBe(a);
  });

  test("three that touch there have it three times", () => {
    expect(new Set(at0(0, 1, 2, 0, 3, 4, 0, 5, 6)).size).toBe(3);
  });

  test("a side that two stretches share is inside: nothing is parted, nor where the steel goes on all round", () => {
    expect(at0(0, 1, 2, 0, 2, 3)).toEqual([null, null]);
    expect(at0(0, 1, 2, 0, 2, 3, 0, 3, 1)).toEqual([null, null, null]);
  });
});
