import { describe, expect, test, vi } from "vitest";
import { openBlade, whyNot } from "../../src/blade/store.ts";
import { scaleFor, ticks } from "../../src/rail/scale.ts";
import { thicknessColour } from "../../src/solid/colours.ts";
import { knife, radiusOf } from "../knife.ts";

const setRadius = (radius: number) => (copy: ReturnType<typeof knife>) => {
  if (copy.bevels.right.kind !== "none") copy.bevels.right.plunge.radius = radius;
};

describe("the open blade", () => {
  test("refuses an edit that makes no blade, says why, and stays as it was", () => {
    const open = openBlade(knife());
    const before = open.store.getState().file;
    const faults = open.edit((copy) => {
      copy.edge.behind[1]!.t = 1.7;
    });
    expect(whyNot(faults)).toMatch(/^At u .*\.$/);
    expect(open.store.getState().file).toBe(before);
    expect(whyNot([])).toBeNull();
  });

  test("puts the file and other documents in as one step, or neither if one is refused", () => {
    const open = openBlade(knife(4));
    const { file: before } = open.store.getState();
    const thinner = { ...before, thickness: before.thickness.map((row) => ({ ...row, t: row.t - 0.1 })) };
    const limits = { ...open.store.getState().limits, use: undefined };
    expect(open.put({ file: thinner })).toEqual([]);
    expect(open.store.getState().file.thickness[0]!.t).toBeCloseTo(before.thickness[0]!.t - 0.1, 9);
    open.undo();
    expect(open.store.getState().file).toEqual(before);
    expect(open.put({ file: thinner, limits: { ...limits, unknown: 1 } as never })).not.toEqual([]);
    expect(open.store.getState().file).toEqual(before);
    const broken = { ...before, thickness: [{ x: 0, t: 99 }] };
    expect(open.put({ file: broken })).not.toEqual([]);
    expect(open.store.getState().file).toEqual(before);
  });

  test("while something is dragged the boxes follow a moment later, and at once when it is let go", () => {
    vi.useFakeTimers();
    try {
      const open = openBlade(knife(4));
      const shown = () => radiusOf(open.boxes.getState().file);
      open.edit(setRadius(5));
      expect(shown()).toBe(5);
      open.begin(true);
      open.edit(setRadius(6));
      expect(shown()).toBe(5);
      vi.advanceTimersByTime(100);
      expect(shown()).toBe(6);
      open.edit(setRadius(7));
      open.end();
      expect(shown()).toBe(7);
    } finally {
      vi.useRealTimers();
    }
  });

  test("one visit to a box is one step of undo, however much is typed", () => {
    const open = openBlade(knife(4));
    open.begin();
    for (const radius of [1, 12, 12.5]) open.edit(setRadius(radius));
    open.end();
    open.begin();
    open.edit(setRadius(3));
    open.end();
    const now = () => radiusOf(open.store.getState().file);
    expect(now()).toBe(3);
    open.undo();
    expect(now()).toBe(12.5);
    open.undo();
    expect(now()).toBe(4);
    open.redo();
    expect(now()).toBe(12.5);
    open.edit(setRadius(6));
    open.redo();
    expect(now()).toBe(6);
  });

  test("parts that an edit leaves alone keep their identity", () => {
    const open = openBlade(knife());
    const before = open.store.getState().file;
    open.edit(setRadius(7));
    const after = open.store.getState().file;
    expect(after).not.toBe(before);
    expect(after.outline).toBe(before.outline);
    expect(after.thickness).toBe(before.thickness);
    expect(after.bevels).not.toBe(before.bevels);
  });
});

describe("the rail's scale", () => {
  const scale = scaleFor(-10, 125, 900, { left: 60, right: 30 });
  test("goes there and back, and fits between its margins", () => {
    for (const mm of [-10, 0, 62.5, 125]) expect(scale.mm(scale.px(mm))).toBeCloseTo(mm, 9);
    expect(scale.px(-10)).toBe(60);
    expect(scale.px(125)).toBe(870);
  });

  test("has round ticks, no nearer than asked", () => {
    const marks = ticks(scale, 70, 1);
    expect(marks).toContain(0);
    expect(new Set(marks.slice(1).map((mark, i) => mark - marks[i]!))).toEqual(new Set([20]));
  });
});

test("thin and thick differ in lightness as well as hue, and nothing falls off the ends", () => {
  const light = ([r, g, b]: [number, number, number]) => 0.2126 * r + 0.7152 * g + 0.0722 * b;
  expect(light(thicknessColour(0.5))).toBeGreaterThan(light(thicknessColour(1)) + 0.4);
  expect(thicknessColour(-1)).toEqual(thicknessColour(0));
  expect(thicknessColour(2)).toEqual(thicknessColour(1));
});
