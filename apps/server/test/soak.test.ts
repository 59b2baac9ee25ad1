import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { fullDisk, lostConnections } from "../soak/disturbed.ts";
import { hostileBodies } from "../soak/hostile.ts";
import { races } from "../soak/races.ts";
import { openStand, type Stand, seeded, Wrongs } from "../soak/stand.ts";
import { killsUnderWriters } from "../soak/writers.ts";

/** A short one of each of the long trials: `npm run soak` runs them in full. */
let stand: Stand;
beforeAll(async () => {
  stand = await openStand();
});
afterAll(() => stand.stop());

const random = seeded(20_261_127);

describe("the server, tried for a short while", () => {
  test("killed under four writers, its database too: nothing acknowledged is lost or doubled", async () => {
    const wrongs = new Wrongs();
    const answers = await killsUnderWriters(stand, { servers: 2, databases: 1, random }, wrongs, () => {});
    expect(wrongs.list()).toEqual([]);
    expect(answers).toBeGreaterThan(15);
  });

  test("two writers at once, over every kind: one stands, the other is told", async () => {
    const wrongs = new Wrongs();
    await races(stand, 60, wrongs);
    expect(wrongs.list()).toEqual([]);
  });

  test("bodies damaged, garbled and made to hurt: each is a plain yes or no", async () => {
    const wrongs = new Wrongs();
    const { refused, taken } = await hostileBodies(stand, 300, random, wrongs);
    expect(wrongs.list()).toEqual([]);
    expect(refused + taken).toBe(300);
    expect(refused).toBeGreaterThan(150);
  });

  test("its connections cut under a writer: it goes on", async () => {
    const wrongs = new Wrongs();
    const { cut } = await lostConnections(stand, 15, wrongs);
    expect(wrongs.list()).toEqual([]);
    expect(cut).toBeGreaterThanOrEqual(15);
  });

  test("its disk full, and room made again: it goes on", async ({ skip }) => {
    const wrongs = new Wrongs();
    const done = await fullDisk(wrongs);
    if (!done) skip("only root may make a small file system here");
    expect(wrongs.list()).toEqual([]);
    expect(done!.answers).toBeGreaterThan(20);
  });
});
