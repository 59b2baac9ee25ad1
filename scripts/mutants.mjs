import { readdirSync, readFileSync } from "node:fs";
import { join, relative } from "node:path";
import { parse } from "@babel/parser";
import babelTraverse from "@babel/traverse";
import { PROJECT } from "./database.mjs";

const traverse = babelTraverse.default ?? babelTraverse;

const SOURCE = join(PROJECT, "packages/core/src");
/** What an operator becomes: its neighbour, which a hand might have written. */
const OTHER = {
  "+": "-",
  "-": "+",
  "*": "/",
  "/": "*",
  "<": "<=",
  "<=": "<",
  ">": ">=",
  ">=": ">",
  "===": "!==",
  "!==": "===",
  "&&": "||",
  "||": "&&",
};
const OTHER_CALL = {
  min: "max",
  max: "min",
  sin: "cos",
  cos: "sin",
  some: "every",
  every: "some",
  floor: "ceil",
  ceil: "floor",
};

/**
 * @typedef {object} Mutant A small slip in one place of the core.
 * @property {string} file From the project's folder on.
 * @property {number} line
 * @property {number} start
 * @property {number} end
 * @property {string} was
 * @property {string} is
 * @property {string} around The line it stands in, as it is.
 */

/** Every slip of a source that this knows how to make. Types, words and imports are left alone. @returns {Omit<Mutant, "file">[]} */
export function mutantsOf(source) {
  /** @type {Omit<Mutant, "file">[]} */
  const found = [];
  const lines = source.split("\n");
  let [line, from] = [1, 0];
  const lineAt = (start) => {
    if (start < from) [line, from] = [1, 0];
    for (; from < start; from++) if (source[from] === "\n") line++;
    return line;
  };
  const put = (start, end, is) => {
    const line = lineAt(start);
    found.push({ line, start, end, was: source.slice(start, end), is, around: lines[line - 1].trim() });
  };
  const operator = ({ node }) => {
    const other = OTHER[node.operator];
    if (!other) return;
    // Words put together are no sum.
    if ([node.left, node.right].some(({ type }) => type === "StringLiteral" || type === "TemplateLiteral"))
      return;
    const from = source.indexOf(node.operator, node.left.end);
    put(from, from + node.operator.length, other);
  };
  traverse(parse(source, { sourceType: "module", plugins: ["typescript"] }), {
    BinaryExpression: operator,
    LogicalExpression: operator,
    NumericLiteral({ node, parent }) {
      // A place in a list or a key is no figure, and neither is what a type names.
      if (
        parent.type === "MemberExpression" ||
        parent.type.startsWith("TS") ||
        (parent.type === "ObjectProperty" && parent.key === node)
      )
        return;
      // How near is near enough: a tenth more of it is nothing.
      if (node.value > 0 && node.value < 1e-3) return;
      put(node.start, node.end, node.value === 0 ? "1" : node.value === 1 ? "0" : String(node.value * 1.1));
    },
    BooleanLiteral({ node, parent }) {
      if (!parent.type.startsWith("TS")) put(node.start, node.end, String(!node.value));
    },
    UnaryExpression({ node }) {
      if (node.operator === "-" && node.argument.type !== "NumericLiteral")
        put(node.start, node.start + 1, "+");
      if (node.operator === "!") put(node.start, node.start + 1, "");
    },
    CallExpression({ node: { callee } }) {
      if (callee.type !== "MemberExpression" || callee.property.type !== "Identifier") return;
      const other = OTHER_CALL[callee.property.name];
      if (other) put(callee.property.start, callee.property.end, other);
    },
  });
  return found;
}

/**
 * The source with a mark in the function around each of the places, or at its end: `globalThis.reached` then holds the ids of those that
 * were come by. @param {readonly (readonly [id: number, start: number])[]} places
 */
export function marked(source, places) {
  const bodies = [];
  traverse(parse(source, { sourceType: "module", plugins: ["typescript"] }), {
    Function({ node }) {
      if (node.body) bodies.push(node.body);
    },
  });
  const puts = places.flatMap(([id, start]) => {
    const mark = `globalThis.reached?.add(${id})`;
    const around = bodies.filter((body) => body.start <= start && start < body.end);
    const body = around.sort((a, b) => b.start - a.start)[0];
    if (!body) return [[source.length, `\n${mark};`]];
    if (body.type === "BlockStatement") return [[body.start + 1, ` ${mark};`]];
    return [
      [body.start, `(${mark}, `],
      [body.end, ")"],
    ];
  });
  let code = source;
  for (const [at, put] of puts.sort((a, b) => b[0] - a[0])) code = code.slice(0, at) + put + code.slice(at);
  return code;
}

/** Every slip in the whole core. @returns {Mutant[]} */
export function everyMutant() {
  return filesUnder(SOURCE).flatMap((path) => {
    const file = relative(PROJECT, path);
    return mutantsOf(readFileSync(path, "utf8")).map((one) => ({ file, ...one }));
  });
}

/** So many of them, always the same for a seed. @returns {Mutant[]} */
export function chosen(every, count, seed) {
  const left = [...every];
  const random = seeded(seed);
  const picked = [];
  while (picked.length < count && left.length > 0)
    picked.push(...left.splice(Math.floor(random() * left.length), 1));
  return picked;
}

function filesUnder(folder) {
  return readdirSync(folder, { withFileTypes: true })
    .sort((a, b) => (a.name < b.name ? -1 : 1))
    .flatMap((entry) => {
      const path = join(folder, entry.name);
      if (entry.isDirectory()) return filesUnder(path);
      return entry.name.endsWith(".ts") ? [path] : [];
    });
}

/** Numbers from 0 to 1 in an order of their own for each seed. Source: mulberry32, in the public domain. */
function seeded(seed) {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = Math.imul(state ^ (state >>> 15), state | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** Those who change nothing that anybody can see, each with why: they count neither way. */
export function alikeIn(text, mutant) {
  return (
    JSON.parse(text).find(
      ({ file, around, was, is }) =>
        file === mutant.file && around === mutant.around && was === mutant.was && is === mutant.is,
    )?.why ?? null
  );
}
