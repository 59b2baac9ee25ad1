import { expect, test } from "vitest";
import type { Database } from "../src/database.ts";
import { shared } from "../src/records/answers.ts";

/** A question whose answers are given by hand, one after the other. */
function asker() {
  const put: { question: string; answer(words: string): void; fail(): void }[] = [];
  const ask = shared(
    (_: Database, question: string) =>
      new Promise<string>((answer, reject) =>
        put.push({ question, answer, fail: () => reject(new Error("away")) }),
      ),
  );
  return { put, ask: (question: string, of = DB) => ask(of, question) };
}

const DB = {} as Database;
const soon = () => new Promise((resolve) => setTimeout(resolve, 0));

test("those who ask while the same is being answered share the next answer, asked for after all of them", async () => {
  const { put, ask } = asker();
  const first = ask("rack");
  const [second, third] = [ask("rack"), ask("rack")];
  expect(put).toHaveLength(1);
  put[0]!.answer("as it stood");
  expect(await first).toBe("as it stood");
  await soon();
  expect(put).toHaveLength(2);
  // Whoever comes now comes too late for that one.
  const fourth = ask("rack");
  put[1]!.answer("as it stands");
  expect(await Promise.all([second, third])).toEqual(["as it stands", "as it stands"]);
  await soon();
  put[2]!.answer("as it stands now");
  expect(await fourth).toBe("as it stands now");
  await soon();
  expect(put).toHaveLength(3);
  void ask("rack");
  expect(put).toHaveLength(4);
});

test("another question, or another database, waits for nobody", () => {
  const { put, ask } = asker();
  void ask("rack");
  void ask("archive");
  void ask("rack", {} as Database);
  expect(put.map(({ question }) => question)).toEqual(["rack", "archive", "rack"]);
});

test("one that fails is told to who asked it; those who wait are answered by the next", async () => {
  const { put, ask } = asker();
  const first = ask("rack");
  const second = ask("rack");
  put[0]!.fail();
  await expect(first).rejects.toThrow("away");
  await soon();
  put[1]!.answer("back");
  expect(await second).toBe("back");
});
