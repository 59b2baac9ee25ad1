import { isSameJson as same } from "../document/same.ts";
import { parseShop } from "./parse.ts";
import type { Shop } from "./schema.ts";

type Fields = Readonly<Record<string, unknown>>;
interface Item {
  readonly id: string;
}

const APART = Symbol("changed by both");
const isItems = (list: readonly unknown[]): list is readonly Item[] =>
  list.every((item) => typeof (item as Partial<Item> | null)?.id === "string");

/**
 * What two hands made of one shop, put together: each part, and in a list each thing with an id, as whoever touched it left it; what was only written further is written by both.
 * Null where both changed the same thing unlike, or where it is no sound shop together.
 */
export function shopTogether(base: Shop, mine: Shop, theirs: Shop): Shop | null {
  const made: Record<string, unknown> = {};
  const [was, one, other]: Fields[] = [{ ...base }, { ...mine }, { ...theirs }];
  for (const key of new Set([...Object.keys(other!), ...Object.keys(one!)])) {
    const value = valueTogether(was![key], one![key], other![key]);
    if (value === APART) return null;
    if (value !== undefined) made[key] = value;
  }
  const parsed = parseShop(made);
  return parsed.ok ? parsed.shop : null;
}

function valueTogether(base: unknown, mine: unknown, theirs: unknown): unknown {
  if (same(mine, base) || same(mine, theirs)) return theirs;
  if (same(theirs, base)) return mine;
  const [was = [], one = [], other = []] = [base, mine, theirs];
  if (!Array.isArray(was) || !Array.isArray(one) || !Array.isArray(other)) return APART;
  if (isGrown(was, one) && isGrown(was, other)) return [...other, ...one.slice(was.length)];
  if (!isItems(was) || !isItems(one) || !isItems(other)) return APART;
  return itemsTogether(was, one, other);
}

/** Whether a list was only written further. */
const isGrown = (was: readonly unknown[], now: readonly unknown[]) => same(was, now.slice(0, was.length));

/** In their order; what is new here comes after. */
function itemsTogether(base: readonly Item[], mine: readonly Item[], theirs: readonly Item[]): unknown {
  const [was, one, other] = [base, mine, theirs].map((list) => new Map(list.map((item) => [item.id, item])));
  const made: unknown[] = [];
  for (const id of new Set([...other!.keys(), ...one!.keys()])) {
    const item = itemTogether(was!.get(id), one!.get(id), other!.get(id));
    if (item === APART) return APART;
    if (item !== undefined) made.push(item);
  }
  return made;
}

function itemTogether(base?: Item, mine?: Item, theirs?: Item): unknown {
  if (same(mine, base) || same(mine, theirs)) return theirs;
  return same(theirs, base) ? mine : APART;
}
