import { afterEach, beforeEach, describe, expect, test, vi } from "vitest";
import { createStore } from "zustand";
import { heldOnce, savedNow } from "../../src/saving/held.ts";
import type { Trouble } from "../../src/saving/trouble.ts";

function pretend() {
  const trouble = createStore<Trouble>()(() => ({ status: "saved", why: null, isKept: true }));
  return { trouble, tryNow: vi.fn(), stop: vi.fn() };
}

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

describe("what is open in a tab", () => {
  test("is one for all who hold it, and ends when the last lets go of it with everything saved", async () => {
    const kept = pretend();
    const open = vi.fn(async (_: string) => kept);
    const hold = heldOnce(open);
    const [one, two] = await Promise.all([hold("a"), hold("a")]);
    expect(one.kept).toBe(two.kept);
    expect(open).toHaveBeenCalledTimes(1);
    one.release();
    one.release();
    vi.runAllTimers();
    expect(kept.stop).not.toHaveBeenCalled();
    two.release();
    vi.runAllTimers();
    expect(kept.stop).toHaveBeenCalledTimes(1);
    await hold("a");
    expect(open).toHaveBeenCalledTimes(2);
  });

  test("left with work unsaved it is sent at once, goes on, and is the same when it is opened again", async () => {
    const kept = pretend();
    const hold = heldOnce(async (_: string) => kept);
    const first = await hold("a");
    kept.trouble.setState({ status: "unsaved" });
    first.release();
    vi.runAllTimers();
    expect(kept.tryNow).toHaveBeenCalledTimes(1);
    expect(kept.stop).not.toHaveBeenCalled();
    const again = await hold("a");
    expect(again.kept).toBe(kept);
    kept.trouble.setState({ status: "saved" });
    expect(kept.stop).not.toHaveBeenCalled();
    again.release();
    vi.runAllTimers();
    expect(kept.stop).toHaveBeenCalledTimes(1);
  });

  test("saved behind the scenes it ends", async () => {
    const kept = pretend();
    const hold = heldOnce(async (_: string) => kept);
    const held = await hold("a");
    kept.trouble.setState({ status: "away" });
    held.release();
    vi.runAllTimers();
    kept.trouble.setState({ status: "saved" });
    expect(kept.stop).toHaveBeenCalledTimes(1);
  });

  test("is waited for until it is saved, or known not to be", async () => {
    const kept = pretend();
    await expect(savedNow(kept)).resolves.toBe(true);
    kept.trouble.setState({ status: "unsaved" });
    const saved = savedNow(kept);
    kept.trouble.setState({ status: "saving" });
    kept.trouble.setState({ status: "saved" });
    await expect(saved).resolves.toBe(true);
    kept.trouble.setState({ status: "unsaved" });
    const away = savedNow(kept);
    kept.trouble.setState({ status: "away" });
    await expect(away).resolves.toBe(false);
    expect(kept.tryNow).toHaveBeenCalledTimes(3);
  });

  test("opening that fails is tried anew by the next", async () => {
    let isAway = true;
    const hold = heldOnce(async (_: string) => {
      if (isAway) throw new Error("away");
      return pretend();
    });
    await expect(hold("a")).rejects.toThrow("away");
    isAway = false;
    await expect(hold("a")).resolves.toBeDefined();
  });
});
