import { describe, expect, test, vi } from "vitest";
import type { WorkFailed } from "../../src/workers/asking.ts";
import { type Answering, lastAsked } from "../../src/workers/last-asked.ts";

/** A worker that is never spoken to: what answers is the function under test's own. */
const worker = () => {
  const made = Object.assign(new EventTarget(), { terminate: vi.fn(), postMessage: vi.fn() });
  return made as unknown as Worker & typeof made;
};
const soon = () => new Promise((resolve) => setTimeout(resolve, 0));

/** An asker whose workers do as `answer` says; what it made and what it told of. */
function asker(answer: Answering<"judge", number>) {
  const made: ReturnType<typeof worker>[] = [];
  const told: { why: WorkFailed["why"]; of: number }[] = [];
  const start = () => {
    made.push(worker());
    return made.at(-1)!;
  };
  const tell = ({ why }: WorkFailed, of: number) => told.push({ why, of });
  return { ...lastAsked<"judge", number>("judge", answer, tell, start), made, told };
}

test("of questions that come while one is answered only the last is asked", async () => {
  const asked: number[] = [];
  let go = () => {};
  const { ask, made, told } = asker((_, question) => {
    asked.push(question);
    return new Promise((resolve) => (go = resolve));
  });
  for (const question of [1, 2, 3, 4]) ask(question);
  expect(asked).toEqual([1]);
  go();
  await soon();
  expect(asked).toEqual([1, 4]);
  expect(made).toHaveLength(1);
  expect(told).toEqual([]);
});

describe("a worker in trouble", () => {
  const quietly = async (body: () => Promise<void>) => {
    const said = vi.spyOn(console, "error").mockImplementation(() => {});
    await body();
    expect(said).toHaveBeenCalled();
    said.mockRestore();
  };

  test("that fails is ended and told of, and the next question makes another", () =>
    quietly(async () => {
      const answered: number[] = [];
      const { ask, made, told } = asker(async (_, question) => {
        if (question === 1) throw new Error("a defect");
        answered.push(question);
      });
      ask(1);
      await soon();
      expect(made[0]!.terminate).toHaveBeenCalledOnce();
      expect(told).toEqual([{ why: "failed", of: 1 }]);
      ask(2);
      await soon();
      expect(made).toHaveLength(2);
      expect(answered).toEqual([2]);
      expect(told).toHaveLength(1);
    }));

  test("that cannot be loaded, and so never answers, is told of too", () =>
    quietly(async () => {
      const { ask, made, told } = asker(() => new Promise(() => {}));
      ask(7);
      made[0]!.dispatchEvent(new Event("error"));
      await soon();
      expect(told).toEqual([{ why: "failed", of: 7 }]);
    }));

  test("that hangs is stopped after a time, and what was asked meanwhile goes to another", () =>
    quietly(async () => {
      vi.useFakeTimers();
      const answered: number[] = [];
      const { ask, made, told } = asker(async (_, question) => {
        if (question === 1) await new Promise(() => {});
        answered.push(question);
      });
      ask(1);
      ask(2);
      await vi.advanceTimersByTimeAsync(89_000);
      expect(told).toEqual([]);
      await vi.advanceTimersByTimeAsync(2_000);
      vi.useRealTimers();
      expect(told).toEqual([{ why: "hangs", of: 1 }]);
      expect(made).toHaveLength(2);
      expect(answered).toEqual([2]);
    }));
});

test("ended, whatever was under way is for nobody", async () => {
  let isOver = false;
  let go = () => {};
  const { ask, end } = asker(async (_, __, standing) => {
    await new Promise<void>((resolve) => (go = resolve));
    isOver = standing.isOver();
  });
  ask(1);
  end();
  go();
  await soon();
  expect(isOver).toBe(true);
});
