import { randomUUID } from "node:crypto";
import type { Stand, Wrongs } from "./stand.ts";
import { freshThings, type Thing } from "./things.ts";

const MB = 1024 * 1024;
type Json = unknown;

/** Values that stand where something else should. */
const ODD: readonly Json[] = [
  null,
  true,
  -1,
  1e308,
  -0,
  1e-320,
  "",
  "a\u0000b",
  "\ud800",
  "'; drop table blades; --",
  "2026-02-30T10:00:00Z",
  "0000-01-01T00:00:00Z",
  [],
  {},
  [[[[[[]]]]]],
  { __proto__: null, constructor: 1 },
  Array.from({ length: 300 }, (_, i) => i),
  "x".repeat(5000),
  Number.MAX_SAFE_INTEGER + 2,
];

/** A copy of a value with one thing of it turned into something else, taken out, doubled, or given company. */
function damaged(value: Json, random: () => number): Json {
  const copy = structuredClone(value);
  const places: [Record<string, Json>, string][] = [];
  const collect = (one: Json): void => {
    if (typeof one !== "object" || one === null) return;
    for (const key of Object.keys(one)) {
      places.push([one as Record<string, Json>, key]);
      collect((one as Record<string, Json>)[key]);
    }
  };
  collect(copy);
  if (places.length === 0) return pick(ODD, random);
  const [holder, key] = pick(places, random);
  switch (Math.floor(random() * 4)) {
    case 0:
      holder[key] = pick(ODD, random);
      break;
    case 1:
      delete holder[key];
      break;
    case 2:
      holder[`${key}${random() < 0.5 ? "" : "\u202e"}x`] = holder[key];
      break;
    default:
      holder[key] = [holder[key], holder[key]];
  }
  return copy;
}

/** A text with a few of its characters changed, cut off or repeated. */
function garbled(text: string, random: () => number): string {
  const at = Math.floor(random() * text.length);
  switch (Math.floor(random() * 4)) {
    case 0:
      return text.slice(0, at);
    case 1:
      return (
        text.slice(0, at) + pick(["\u0000", "{", "]", '"', "\\", "9e999", "\ufeff"], random) + text.slice(at)
      );
    case 2:
      return text + text;
    default:
      return text.slice(0, at) + text.slice(at + 1 + Math.floor(random() * 20));
  }
}

const LARGE: readonly (() => string)[] = [
  () => `{"file":${"[".repeat(MB)}`,
  () => `{"file":[${new Array(900_000).fill("1").join(",")}]}`,
  () =>
    `{"file":{"outline":{"spine":[${new Array(90_000).fill('{"at":[]}').join(",")}]}},"base":1,"saveKey":"x"}`,
  () => `{"file":"${"a".repeat(1.9 * MB)}"}`,
  () => "x".repeat(3 * MB),
];

const pick = <T>(from: readonly T[], random: () => number): T => from[Math.floor(random() * from.length)]!;

/**
 * Sends bodies that were damaged, garbled or made to hurt to every address that takes one. Every answer must be a plain yes or no; in
 * between a small request must be answered, its longest time is what comes back, ms.
 */
export async function hostileBodies(
  stand: Stand,
  count: number,
  random: () => number,
  wrongs: Wrongs,
): Promise<{ refused: number; taken: number; longest: number }> {
  const things = await freshThings(stand);
  const blade = things[0]!.path;
  const reading = {
    id: randomUUID(),
    when: "2026-11-20T10:00:00Z",
    stage: "rough",
    what: "edge",
    u: 0.5,
    value: 1,
    by: "hand",
  };
  const others: [string, string, Json][] = [
    ["POST", "/blades", { id: randomUUID(), file: things[0]!.file(1) }],
    ["PATCH", blade, { state: "in work", archived: false }],
    ["POST", `${blade}/copy`, { id: randomUUID() }],
    ["POST", `${blade}/readings`, { readings: [reading, { ...reading, id: randomUUID(), value: 2 }] }],
    ["POST", `${blade}/readings/strike`, { ids: [reading.id], struck: true }],
    ["PATCH", `${blade}/revisions/1`, { label: "named" }],
    ["POST", `${blade}/revisions/1/restore`, { base: 1, saveKey: randomUUID() }],
    [
      "POST",
      "/instruments/none/press",
      { blade: blade.slice(8), stage: "rough", spot: { what: "edge", u: 0.5 } },
    ],
    ["POST", "/instruments/none/behave", { how: "well" }],
  ];
  const targets = [
    ...things.map(({ path, file }: Thing): [string, string, Json] => [
      "PUT",
      path,
      { file: file(1), base: 0, saveKey: randomUUID() },
    ]),
    ...others,
  ];
  let refused = 0;
  let taken = 0;
  let longest = 0;
  const one = async (i: number) => {
    const [method, path, sound] = targets[i % targets.length]!;
    const isLarge = i % 50 === 49;
    const body = isLarge
      ? pick(LARGE, random)()
      : random() < 0.7
        ? JSON.stringify(damaged(sound, random))
        : garbled(JSON.stringify(sound), random);
    // A connection that a refused body was cut off on may have been handed to the next: that one asks again.
    const answer = (await stand.send(method, path, body)) ?? (await stand.send(method, path, body));
    // A body beyond the limit may be cut off before it was sent in full.
    if (!answer && isLarge) refused++;
    else if (!answer) wrongs.add(`${method} ${path.replace(/[0-9a-f-]{36}/, "ID")}: no answer`);
    else if (answer.status >= 500)
      wrongs.add(
        `${method} ${path.replace(/[0-9a-f-]{36}/, "ID")}: ${answer.status} to ${body.slice(0, 300)}`,
      );
    else if (answer.status >= 400) {
      refused++;
      if (typeof answer.body?.title !== "string")
        wrongs.add(`${method} ${path}: ${answer.status} without a reason`);
    } else taken++;
  };
  const PARALLEL = 4;
  for (let i = 0; i < count; i += PARALLEL) {
    const from = performance.now();
    const sent = Array.from({ length: Math.min(PARALLEL, count - i) }, (_, k) => one(i + k));
    const asked = async () => (await stand.send("GET", "/shop")) ?? (await stand.send("GET", "/shop"));
    const small = asked().then((answer) => {
      longest = Math.max(longest, performance.now() - from);
      if (answer?.status !== 200) wrongs.add(`a small request beside it: ${answer?.status ?? "no answer"}`);
    });
    await Promise.all([...sent, small]);
  }
  return { refused, taken, longest };
}
