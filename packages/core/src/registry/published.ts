import { PRINTABLE } from "../document/printable.ts";

/** Which dialect of JSON Schema the published ones are in. */
const DIALECT = "https://json-schema.org/draft/2020-12/schema";
/** The same for every dialect of regular expressions: a lone surrogate, which is refused too, no text outside of a script can hold. */
const PRINTABLE_ANYWHERE = "^[^\\x00-\\x1f\\x7f-\\x9f]*$";
/** Keywords whose values are schemas by name, and those whose values are no schemas at all. */
const MAPS = new Set(["properties", "patternProperties", "$defs"]);
const VALUES = new Set(["const", "enum", "default", "examples", "required"]);

type Node = Readonly<Record<string, unknown>>;

/**
 * A schema as others read it: it names its dialect and has an address of its own, tuples are written as that dialect writes them, and patterns
 * hold in every dialect of regular expressions. It takes what the code's own takes, and refuses what that refuses.
 */
export function published(schema: object): object {
  const { $id, ...rest } = schema as Node;
  const address = typeof $id === "string" ? { $id: `urn:${$id.replaceAll("/", ":")}` } : {};
  return { $schema: DIALECT, ...address, ...(walked(rest) as Node) };
}

function walked(node: unknown): unknown {
  if (Array.isArray(node)) return node.map(walked);
  if (typeof node !== "object" || node === null) return node;
  const { items, additionalItems, ...rest } = node as Node;
  const out: Record<string, unknown> = {};
  for (const [key, value] of Object.entries(rest)) {
    if (MAPS.has(key)) out[key] = mapped(value as Node);
    else if (key === "pattern") out[key] = anywhere(String(value));
    else out[key] = VALUES.has(key) ? value : walked(value);
  }
  if (Array.isArray(items)) {
    out.prefixItems = items.map(walked);
    if (additionalItems !== undefined) out.items = walked(additionalItems);
  } else if (items !== undefined) out.items = walked(items);
  return out;
}

const mapped = (schemas: Node) =>
  Object.fromEntries(Object.entries(schemas).map(([name, one]) => [name, walked(one)]));

const anywhere = (pattern: string) =>
  pattern === PRINTABLE ? PRINTABLE_ANYWHERE : pattern.replaceAll("\\d", "[0-9]");
