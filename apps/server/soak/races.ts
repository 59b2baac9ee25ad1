import { randomUUID } from "node:crypto";
import type { Stand, Wrongs } from "./stand.ts";
import { freshThings } from "./things.ts";

/**
 * Two writers at once on one base, over every kind of thing that is kept by revisions: one stands, the other is told and shown what
 * stands. Every fifth time both send the same save: both are answered alike. Answers with how many races were run.
 */
export async function races(stand: Stand, count: number, wrongs: Wrongs): Promise<number> {
  const things = await freshThings(stand);
  const bases = new Map<string, number>();
  for (const thing of things)
    bases.set(thing.name, (await stand.send("GET", thing.path))?.body?.revision ?? 0);
  for (let i = 0; i < count; i++) {
    const thing = things[i % things.length]!;
    const base = bases.get(thing.name) ?? 0;
    const isSame = Math.floor(i / things.length) % 5 === 4;
    const numbers = isSame ? [2 * i + 1, 2 * i + 1] : [2 * i + 1, 2 * i + 2];
    const key = randomUUID();
    const answers = await Promise.all(
      numbers.map((number) =>
        stand.send("PUT", thing.path, {
          file: thing.file(number),
          base,
          saveKey: isSame ? key : randomUUID(),
        }),
      ),
    );
    const statuses = answers.map((answer) => answer?.status ?? 0);
    const won = answers.findIndex((answer) => answer?.status === 200);
    if (isSame) {
      if (statuses.some((status) => status !== 200))
        wrongs.add(`${thing.name}: one save sent twice: ${statuses}`);
      else if (answers.some((answer) => answer?.body.revision !== base + 1))
        wrongs.add(`${thing.name}: one save sent twice is two`);
    } else if (statuses.toSorted().join() !== "200,409")
      wrongs.add(`${thing.name}: a race ended ${statuses}`);
    else {
      const lost = answers[1 - won]!.body;
      if (lost.revision !== base + 1 || thing.numberIn(lost.file) !== numbers[won])
        wrongs.add(`${thing.name}: the one that lost was not shown what stands`);
    }
    const stands = await stand.send("GET", thing.path);
    if (won >= 0 && thing.numberIn(stands?.body.file) !== numbers[won])
      wrongs.add(`${thing.name}: what stands is not what was acknowledged`);
    bases.set(thing.name, stands?.body.revision ?? base);
  }
  return count;
}
