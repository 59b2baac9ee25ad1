import { existsSync, readFileSync, writeFileSync } from "node:fs";
import { parseArgs } from "node:util";
import { Plain, say } from "./plain.mjs";
import { run } from "./setup.mjs";

const USUAL = "http://127.0.0.1:4570";
const USAGE = `npm run -s bundle -- out BLADE FILE.zip [--history] [--at ADDRESS]
npm run -s bundle -- in FILE.zip [--onto | --beside] [--at ADDRESS]
  BLADE is its id, or its name where only one has it; ADDRESS is where True Spine runs, ${USUAL} unless said.`;

/** Takes a blade out of a running True Spine as a bundle, or into it. */
run(async () => {
  const { values, positionals } = read();
  const ask = asker(values.at ?? USUAL);
  const [way, ...rest] = positionals;
  if (way === "out" && rest.length === 2) return takeOut(ask, rest[0], rest[1], values.history);
  if (way === "in" && rest.length === 1 && !(values.onto && values.beside)) {
    return takeIn(ask, rest[0], values.onto ? "onto" : values.beside ? "beside" : "ask");
  }
  throw new Plain(USAGE);
});

function read() {
  const flag = { type: /** @type {const} */ ("boolean"), default: false };
  try {
    return parseArgs({
      allowPositionals: true,
      options: { at: { type: "string" }, history: flag, onto: flag, beside: flag },
    });
  } catch (error) {
    throw new Plain(`${error.message}\n${USAGE}`);
  }
}

async function takeOut(ask, blade, file, withHistory) {
  if (existsSync(file)) throw new Plain(`${file} is there already; nothing was written over.`);
  const id = /^[0-9a-f-]{36}$/.test(blade) ? blade : await idOf(ask, blade);
  const answer = await ask(`/api/bundles/${id}?history=${withHistory}`);
  writeFileSync(file, Buffer.from(await answer.arrayBuffer()));
  say(`${file} holds the blade whole.`);
}

async function idOf(ask, name) {
  const rows = await (await ask(`/api/blades?search=${encodeURIComponent(name)}`)).json();
  const found = (rows.rows ?? rows).filter((row) => row.name === name);
  if (found.length === 1) return found[0].id;
  throw new Plain(
    found.length === 0
      ? `No blade on the rack is named “${name}”.`
      : `${found.length} blades are named “${name}”: use the id.`,
  );
}

async function takeIn(ask, file, way) {
  if (!existsSync(file)) throw new Plain(`There is no ${file}.`);
  const answer = await ask(`/api/bundles?standing=${way}`, {
    method: "POST",
    headers: { "content-type": "application/zip" },
    body: readFileSync(file),
  });
  const { id, name, added, notes } = await answer.json();
  const counts = Object.entries(added).filter(([, count]) => count > 0);
  const what = counts.map(([kind, count]) => `${kind} ${count}`).join(", ") || "nothing in it is new";
  say([`“${name}” (${id}): ${what}.`, ...notes].join("\n"));
}

/** Asks the server; a no becomes its words. */
function asker(at) {
  return async (path, request) => {
    let answer;
    try {
      answer = await fetch(new URL(path, at), request);
    } catch {
      throw new Plain(`True Spine does not answer at ${at}. Start it, or say where it is with --at.`);
    }
    if (answer.ok) return answer;
    const { title, faults = [], standing } = await answer.json().catch(() => ({ title: "It was refused." }));
    const where = faults.slice(0, 5).map(({ path: at, message }) => `\n  ${at} ${message}`);
    const choose = standing
      ? "\nPut it onto that one with --onto, or beside it as another blade with --beside."
      : "";
    throw new Plain(`${title}${where.join("")}${choose}`);
  };
}
