import pg from "pg";
import { fullDisk, lostConnections } from "./disturbed.ts";
import { hostileBodies } from "./hostile.ts";
import { races } from "./races.ts";
import { shutOut } from "./shut-out.ts";
import { openStand, type Stand, type StandOptions, seeded, Wrongs } from "./stand.ts";
import { killsUnderWriters } from "./writers.ts";

/**
 * The long trial of the server: kills under writers, races, hostile bodies, lost connections, a full disk. Prints what it counted, and
 * ends with 1 if anything was wrong. `npm run soak -- kills races` runs some of it, `--seed N` the same again.
 */
const args = process.argv.slice(2);
const seedAt = args.indexOf("--seed");
const seed = seedAt >= 0 ? Number(args.splice(seedAt, 2)[1]) : Date.now() % 1_000_000;
const random = seeded(seed);
const say = (words: string) => console.log(words);

const TRIALS: Record<string, (wrongs: Wrongs) => Promise<string>> = {
  kills: (wrongs) =>
    withStand(async (stand) => {
      const answers = await killsUnderWriters(stand, { servers: 100, databases: 10, random }, wrongs, say);
      return `100 servers and 10 databases killed under four writers, ${answers} writes acknowledged`;
    }),
  races: (wrongs) =>
    withStand(async (stand) => `${await races(stand, 1000, wrongs)} races of two writers over every kind`),
  hostile: (wrongs) =>
    withStand(async (stand) => {
      const { refused, taken, longest } = await hostileBodies(stand, 10_000, random, wrongs);
      return `10 000 hostile bodies, ${refused} refused, ${taken} sound after all; a small request beside them took ${longest.toFixed(0)} ms at most`;
    }),
  connections: (wrongs) =>
    withStand(async (stand) => {
      const { cut, answers } = await lostConnections(stand, 500, wrongs);
      return `${cut} connections cut, ${answers} writes acknowledged`;
    }),
  two: (wrongs) =>
    withStand(
      async (stand) => {
        const count = await races(stand, 300, wrongs);
        const answers = await killsUnderWriters(stand, { servers: 20, databases: 2, random }, wrongs, say);
        return `two servers on one database of PostgreSQL ${await versionOf(stand)}: ${count} races, 20 servers and 2 databases killed, ${answers} writes acknowledged`;
      },
      { servers: 2 },
    ),
  "shut out": (wrongs) =>
    withStand(
      async (stand) => {
        const { request, stream } = await shutOut(stand, wrongs);
        return `20 devices shut out at one server while they were at the other: each next request refused, the answer to the desk after ${request.toFixed(0)} ms at most, streams ended after ${stream.toFixed(0)} ms at most`;
      },
      { servers: 2, last: { DESK: "shut" } },
    ),
  disk: async (wrongs) => {
    const done = await fullDisk(wrongs);
    return done
      ? `disk full: ${done.refused} saves put off, ${done.answers} writes acknowledged before and after`
      : "disk full: not tried, only root may make a small file system here";
  },
};

const chosen = args.length > 0 ? args : Object.keys(TRIALS);
say(`Seed ${seed}.`);
let isWrong = false;
for (const name of chosen) {
  const trial = TRIALS[name];
  if (!trial)
    throw new Error(`There is no trial named ${name}; there are ${Object.keys(TRIALS).join(", ")}.`);
  const wrongs = new Wrongs();
  const from = Date.now();
  const words = await trial(wrongs);
  say(`${words}; ${((Date.now() - from) / 1000).toFixed(0)} s`);
  for (const wrong of wrongs.list()) say(`  WRONG ${wrong}`);
  isWrong ||= wrongs.list().length > 0;
}
say(
  isWrong
    ? "Something was wrong."
    : "Nothing lost, nothing doubled, nothing overwritten unseen, no defect answered.",
);
process.exitCode = isWrong ? 1 : 0;

async function versionOf({ databaseUrl }: Stand): Promise<string> {
  const client = new pg.Client({ connectionString: databaseUrl });
  await client.connect();
  try {
    return (await client.query("show server_version")).rows[0].server_version;
  } finally {
    await client.end();
  }
}

async function withStand<T>(work: (stand: Stand) => Promise<T>, options: StandOptions = {}): Promise<T> {
  const stand = await openStand(options);
  try {
    return await work(stand);
  } finally {
    await stand.stop();
  }
}
