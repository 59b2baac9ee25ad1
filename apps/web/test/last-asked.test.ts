import { expect, test, vi } from "vitest";
import { lastAsked } from "../src/workers/last-asked.ts";

/** A worker that is never spoken to: what answers is the function under test's own. */
const worker = () => {
  const made = {
    terminate: vi.fn(),
    addEventListener: vi.fn(),
    removeEventListener: vi.fn(),
    postMessage: vi.fn(),
  };
  return made as unknown as Worker & typeof made;
};
const soon = () => new Promise((resolve) => setTimeout(resolve, 0));

test("of questions that come while one is answered only the last is asked", async () => {
  const asked: number[] = [];
  let go = () => {};
  const { ask } = lastAsked<object, number>(worker, (_, question) => {
    asked.push(question);
    return new Promise((resolve) => (go = resolve));
  });
  for (const question of [1, 2, 3, 4]) ask(question);
  expect(asked).toEqual([1]);
  go();
  await soon();
  expect(asked).toEqual([1, 4]);
});

test("a failure ends the worker, and the next question makes another", async () => {
  const told = vi.spyOn(console, "error").mockImplementation(() => {});
  const made: ReturnType<typeof worker>[] = [];
  const answered: number[] = [];
  const { ask } = lastAsked<object, number>(
    () => {
      made.push(worker());
      return made.at(-1)!;
    },
    async (_, question) => {
      if (question === 1) throw new Error("a defect");
      answered.push(question);
    },
  );
  ask(1);
  await soon();
  expect(made[0]!.terminate).toHaveBeenCalledOnce();
  ask(2);
  await soon();
  expect(made).toHaveLength(2);
  expect(answered).toEqual([2]);
  expect(told).toHaveBeenCalledOnce();
  told.mockRestore();
});

test("ended, whatever was under way is for nobody", async () => {
  let isOver = false;
  let go = () => {};
  const { ask, end } = lastAsked<object, number>(worker, async (_, __, standing) => {
    await new Promise<void>((resolve) => (go = resolve));
    isOver = standing.isOver();
  });
  ask(1);
  end();
  go();
  await soon();
  expect(isOver).toBe(true);
});
