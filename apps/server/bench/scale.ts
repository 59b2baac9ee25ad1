import { randomUUID } from "node:crypto";
import { readFileSync } from "node:fs";
import pg from "pg";
// @ts-expect-error plain JavaScript, shared with the start command
import { openThrowawayCluster } from "../../../scripts/database.mjs";
// @ts-expect-error the same
import { freePort } from "../../../scripts/processes.mjs";
// @ts-expect-error the same
import { startServer } from "../../../scripts/server.mjs";

/**
 * How the server stands up to a large shop: ten thousand blades and a million readings, fifty at once. Prints for each thing that is asked the
 * server's own time beside that of its bare SQL, the memory it took, and how long a bundle of ten thousand readings takes. Asserts nothing.
 */
const [BLADES, READINGS, AT_ONCE] = [10_000, 1_000_000, 50];
const ASKED = 1000;
/** Asked before it is measured: a server that was only just started is no server of a shop. */
const WARMED = 200;
const PLACES = 5;

const cluster = await openThrowawayCluster();
const server = await startServer({ databaseUrl: cluster.url("postgres"), port: await freePort() });
const pool = new pg.Pool({ connectionString: cluster.url("true_spine"), max: 8 });
try {
  const { ids, many, run } = await fill();
  console.log(
    `${BLADES} blades, ${READINGS} readings; ${AT_ONCE} at once, ${ASKED} times each. Milliseconds.`,
  );
  console.log(
    ["what", "server p50", "p99", "SQL p50", "p99", "p99 ratio", "MB then"]
      .map((word) => word.padStart(12))
      .join(""),
  );
  const any = () => ids[Math.floor(Math.random() * ids.length)]!;
  let saves = 0;
  const file = JSON.parse(
    readFileSync(new URL("../../../packages/core/examples/field.json", import.meta.url), "utf8"),
  );
  // What this machine takes to answer fifty at once with nothing worked out or looked up, the asking on the same cores with it.
  await compare("who I am", () => ["GET", "/me"], []);
  await compare("rack page", () => ["GET", "/blades?limit=60"], [
    "select * from blades where deleted_at is null and archived_at is null order by updated_at desc, id desc limit 61",
    "select count(*) from blades where deleted_at is null and archived_at is null",
  ]);
  await compare(
    "search",
    () => ["GET", `/blades?limit=60&search=${1000 + Math.floor(Math.random() * 9000)}`],
    [
      `select b.* from (select id from blades where deleted_at is null and archived_at is null and words like '%1234%'
      order by updated_at desc, id desc limit 61) shown join blades b using (id) order by b.updated_at desc, b.id desc`,
    ],
  );
  await compare("open", () => ["GET", `/blades/${any()}`], [
    "select b.*, r.file from blades b join revisions r on r.blade_id = b.id and r.number = b.revision where b.id = $1",
  ]);
  await compare("readings", () => ["GET", `/blades/${any()}/readings`], [
    "select deleted_at from blades where id = $1",
    "select reading, struck_at from readings where blade_id = $1 order by taken_at, id",
  ]);
  await compare("log", () => ["GET", `/blades/${any()}/revisions`], [
    "select number, label, created_at from revisions where blade_id = $1 order by number desc",
  ]);
  await compare(
    "run of 200",
    () => ["GET", `/runs/${run}/readings`],
    [
      `select r.blade_id, r.reading from readings r where r.blade_id = any(select jsonb_array_elements_text(file -> 'blades')::uuid from runs
      where id = '${run}' order by number desc limit 1) and r.stage = 'rough' and r.struck_at is null order by taken_at`,
    ],
    100,
  );
  await compare(
    "save",
    () => {
      // Each of another blade: nobody is stale.
      const id = ids[ids.length - 1 - saves++]!;
      return ["PUT", `/blades/${id}`, { file, base: 1, saveKey: randomUUID() }];
    },
    [],
    200,
  );
  await bundles(many);
  console.log(`most memory of the server: ${memoryOf(server.pid, "VmHWM")} MB`);
} finally {
  await pool.end();
  await server.stop();
  await cluster.stop();
}

/** Makes the shop: blades after the first of the demo, each with its readings, one with ten thousand, and a run of two hundred. */
async function fill() {
  const [first] = (await pool.query("select id from blades where archived_at is null limit 1")).rows;
  await pool.query(
    `insert into blades (id, name, use, steel, state, revision, summary, updated_at)
     select gen_random_uuid(), b.name || ' ' || n, b.use, b.steel, b.state, 1, b.summary, now() - n * interval '1 minute'
     from generate_series(1, $2::int) n, (select * from blades where id = $1) b`,
    [first.id, BLADES],
  );
  await pool.query(
    `insert into revisions (blade_id, number, file, save_key)
     select b.id, 1, (select file from revisions where blade_id = $1 limit 1), gen_random_uuid()
     from blades b where not exists (select 1 from revisions r where r.blade_id = b.id)`,
    [first.id],
  );
  const { rows } = await pool.query(
    "select id from blades where name ~ ' \\d+$' order by updated_at desc limit $1",
    [BLADES],
  );
  const ids: string[] = rows.map(({ id }) => id);
  const each = READINGS / BLADES;
  const add = (of: string, count: number) =>
    pool.query(
      `insert into readings (id, blade_id, taken_at, stage, spot, reading)
       select r.id, b.id, r.at, 'rough', 'edge@' || r.u, jsonb_build_object('id', r.id, 'when', to_char(r.at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS"Z"'),
         'stage', 'rough', 'what', 'edge', 'u', r.u, 'value', 1 + r.n * 0.0001, 'by', 'hand')
       from (${of}) b, lateral (select gen_random_uuid() as id, n, ((n % ${PLACES}) + 1) * 0.15 as u,
         timestamptz '2026-01-01' + n * interval '1 minute' as at from generate_series(1, ${count}) n where b.id is not null) r`,
    );
  await add("select id from blades where name ~ ' \\d+$'", each);
  const many = ids[0]!;
  await add(`select '${many}'::uuid as id`, 10_000 - each);
  const run = randomUUID();
  const places = Array.from({ length: PLACES }, (_, i) => ({
    stage: "rough",
    spot: { what: "edge", u: (i + 1) * 0.15 },
  }));
  const made = {
    format: "true-spine/run",
    version: 1,
    name: "Two hundred",
    blades: ids.slice(0, 200),
    places,
  };
  await pool.query("insert into runs (id, number, file, save_key) values ($1, 1, $2, gen_random_uuid())", [
    run,
    made,
  ]);
  await pool.query("vacuum analyze");
  return { ids, many, run };
}

type Request = readonly [method: string, path: string, body?: unknown];

async function compare(
  name: string,
  request: () => Request,
  sql: readonly string[],
  times = ASKED,
): Promise<void> {
  const ask = async () => {
    const [method, path, body] = request();
    const answer = await fetch(`${server.url}/api${path}`, {
      method,
      headers: body ? { "content-type": "application/json" } : {},
      ...(body ? { body: JSON.stringify(body) } : {}),
    });
    await answer.arrayBuffer();
    if (!answer.ok) throw new Error(`${name}: ${answer.status}`);
    return Number(/dur=([\d.]+)/.exec(answer.headers.get("server-timing") ?? "")?.[1]);
  };
  const askBare = async () => {
    const id = request()[1].split("/")[2];
    const from = performance.now();
    for (const one of sql) await pool.query(one, one.includes("$1") ? [id] : []);
    return performance.now() - from;
  };
  const isBare = sql.length > 0;
  await atOnce(WARMED, ask);
  const asked = await atOnce(times, ask);
  if (isBare) await atOnce(WARMED, askBare);
  const bare = await atOnce(isBare ? times : 0, askBare);
  const figures = [
    of(asked, 0.5),
    of(asked, 0.99),
    of(bare, 0.5),
    of(bare, 0.99),
    of(asked, 0.99) / of(bare, 0.99),
  ];
  const words = figures.map((figure) => (Number.isFinite(figure) ? figure.toFixed(1) : "–").padStart(12));
  console.log([name, ...words, memoryOf(server.pid, "VmRSS")].map((word) => `${word}`.padStart(12)).join(""));
}

/** Does it so often, never more than `AT_ONCE` of them at a time. */
async function atOnce(times: number, work: () => Promise<number>): Promise<number[]> {
  const took: number[] = [];
  let left = times;
  await Promise.all(
    Array.from({ length: AT_ONCE }, async () => {
      while (left-- > 0) took.push(await work());
    }),
  );
  return took.sort((a, b) => a - b);
}

function of(sorted: readonly number[], share: number): number {
  return sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))] ?? Number.NaN;
}

async function bundles(id: string): Promise<void> {
  const from = performance.now();
  const answer = await fetch(`${server.url}/api/bundles/${id}`);
  const bytes = await answer.arrayBuffer();
  const out = performance.now() - from;
  const taken = await fetch(`${server.url}/api/bundles?standing=beside`, {
    method: "POST",
    headers: { "content-type": "application/zip" },
    body: bytes,
  });
  const { added } = (await taken.json()) as { added: { readings: number } };
  const into = performance.now() - from - out;
  const kB = (bytes.byteLength / 1024).toFixed(0);
  console.log(
    `bundle of ${added.readings} readings, ${kB} kB: out ${out.toFixed(0)} ms, in ${into.toFixed(0)} ms`,
  );
}

/** Resident memory of a process, MB: as it is (VmRSS) or the most it was (VmHWM). */
function memoryOf(pid: number, what: "VmRSS" | "VmHWM"): number {
  const status = readFileSync(`/proc/${pid}/status`, "utf8");
  return Math.round(Number(new RegExp(`${what}:\\s+(\\d+)`).exec(status)?.[1]) / 1024);
}
