import { randomUUID } from "node:crypto";
import type { Stand, Wrongs } from "./stand.ts";
import { freshThings, type Thing } from "./things.ts";

const PAUSE_MS = 20;
const PATIENCE_MS = 120_000;

interface Written {
  /** The number that each acknowledged revision was told to say. */
  readonly acknowledged: Map<number, number>;
  /** The revision that stood before the first save. */
  readonly first: number;
  base: number;
  number: number;
}

/**
 * Writes as pages do, until told to stop: a save is sent under its key until it is answered, then the next; readings under their ids.
 * Whatever the server answers that a page could not go on from is a wrong.
 */
export async function startWriter(stand: Stand, things: readonly Thing[], wrongs: Wrongs) {
  const written = new Map<Thing, Written>();
  for (const thing of things) {
    const first: number = (await stand.send("GET", thing.path))?.body.revision ?? 0;
    written.set(thing, { acknowledged: new Map(), first, base: first, number: 0 });
  }
  const bladePath = things.find(({ name }) => name === "blade")!.path;
  const readings = new Set<string>();
  let isStopping = false;
  let answers = 0;

  async function until(what: string, method: string, path: string, body: unknown): Promise<number | null> {
    for (const end = Date.now() + PATIENCE_MS; Date.now() < end; ) {
      const answer = await stand.send(method, path, body);
      if (answer?.status === 200) {
        answers++;
        return answer.body.revision ?? 0;
      }
      if (answer && answer.status !== 503) {
        wrongs.add(`${what}: ${answer.status} ${answer.body?.title ?? ""}`);
        return null;
      }
      if (answer && !answer.retryAfter) wrongs.add(`${what}: 503 without Retry-After`);
      await new Promise((resolve) => setTimeout(resolve, PAUSE_MS));
    }
    wrongs.add(`${what}: not answered in ${PATIENCE_MS / 1000} s`);
    return null;
  }

  async function turn(thing: Thing): Promise<void> {
    const one = written.get(thing)!;
    const number = one.number + 1;
    const body = { file: thing.file(number), base: one.base, saveKey: randomUUID() };
    const revision = await until(`saving ${thing.name}`, "PUT", thing.path, body);
    if (revision === null) return;
    if (revision !== one.base + 1) wrongs.add(`${thing.name}: revision ${revision} after ${one.base}`);
    one.acknowledged.set(revision, number);
    one.base = revision;
    one.number = number;
  }

  async function read(): Promise<void> {
    const id = randomUUID();
    const reading = {
      id,
      when: new Date().toISOString(),
      stage: "rough",
      what: "edge",
      u: 0.5,
      value: 1.2,
      by: "hand",
    };
    const kept = await until("taking a reading", "POST", `${bladePath}/readings`, { readings: [reading] });
    if (kept !== null) readings.add(id);
  }

  const working = (async () => {
    for (let i = 0; !isStopping; i++) {
      await turn(things[i % things.length]!);
      if (i % 3 === 0) await read();
    }
  })();

  return {
    answers: () => answers,
    /** Stops it, and looks whether everything that was acknowledged is there, once. */
    async stop(): Promise<void> {
      isStopping = true;
      await working;
      for (const thing of things) {
        const { acknowledged, first, base, number } = written.get(thing)!;
        const stands = await stand.send("GET", thing.path);
        if (base > first) {
          if (stands?.body.revision !== base)
            wrongs.add(`${thing.name}: stands at ${stands?.body.revision}, acknowledged ${base}`);
          else if (thing.numberIn(stands.body.file) !== number)
            wrongs.add(`${thing.name}: says ${thing.numberIn(stands.body.file)}, acknowledged ${number}`);
        }
        if (thing.name !== "blade") continue;
        for (const [revision, said] of acknowledged) {
          const was = await stand.send("GET", `${thing.path}/revisions/${revision}`);
          if (!was?.body.file || thing.numberIn(was.body.file) !== said)
            wrongs.add(`blade: revision ${revision} does not say ${said}`);
        }
      }
      const { body } = (await stand.send("GET", `${bladePath}/readings`))!;
      const there = body.taken.map(({ id }: { id: string }) => id) as string[];
      if (new Set(there).size !== there.length) wrongs.add("a reading is there twice");
      for (const id of readings) if (!there.includes(id)) wrongs.add("an acknowledged reading is gone");
    },
  };
}

/** Kills under four writers: the server so many times, PostgreSQL so many. Answers with how many writes were acknowledged. */
export async function killsUnderWriters(
  stand: Stand,
  { servers, databases, random }: { servers: number; databases: number; random: () => number },
  wrongs: Wrongs,
  say: (words: string) => void,
): Promise<number> {
  const writers = [];
  for (let i = 0; i < 4; i++) {
    const things = await freshThings(stand);
    // The shop is one for all: only one of them writes it.
    writers.push(
      await startWriter(stand, i === 0 ? things : things.filter(({ name }) => name !== "shop"), wrongs),
    );
  }
  const total = servers + databases;
  for (let i = 0; i < total; i++) {
    const before = writers.reduce((sum, one) => sum + one.answers(), 0);
    // Something has to be written between two kills, or nothing could be lost.
    const end = Date.now() + PATIENCE_MS;
    while (writers.reduce((sum, one) => sum + one.answers(), 0) < before + 4 && Date.now() < end)
      await new Promise((resolve) => setTimeout(resolve, 5));
    await new Promise((resolve) => setTimeout(resolve, random() * 150));
    const isDatabase = databases > 0 && i % Math.ceil(total / databases) === 0;
    if (isDatabase) await stand.killPostgres();
    else await stand.killServer();
    if (i % 10 === 9) say(`  ${i + 1} kills`);
  }
  const answers = writers.reduce((sum, one) => sum + one.answers(), 0);
  for (const writer of writers) await writer.stop();
  return answers;
}
