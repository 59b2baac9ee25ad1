import { micronsOf } from "../abrasive/gradings.ts";
import { faultsOf } from "../document/explain.ts";
import { type Fault, pathOf } from "../document/fault.ts";
import { validatorOf } from "../document/validator.ts";
import { knifeFaults } from "../edge/knives.ts";
import { batchFaults } from "../edge/trials.ts";
import { type Shop, ShopSchema } from "./schema.ts";

const validate = validatorOf(ShopSchema);

/** Lists whose every entry has an id of its own. */
const LISTS = [
  "instruments",
  "grinders",
  "steels",
  "heatRecipes",
  "quenchants",
  "ovens",
  "knives",
  "trials",
] as const;

/** A sound shop, or every fault found with its path. Never throws. */
export function parseShop(
  value: unknown,
): { ok: true; shop: Shop } | { ok: false; faults: readonly Fault[] } {
  const faults = faultsOf(validate, value);
  if (faults.length > 0) return { ok: false, faults };
  const shop = value as Shop;
  const ids = shop.abrasives.map(({ id }) => id);
  const wrong = shop.abrasives.flatMap(({ id, scale, grade }, i): Fault[] => [
    ...(ids.indexOf(id) < i
      ? [{ path: pathOf("abrasives", i, "id"), message: `“${id}” stands in the list already` }]
      : []),
    ...(micronsOf(scale, grade) === null
      ? [{ path: pathOf("abrasives", i, "grade"), message: `the ${scale} scale has no grade “${grade}”` }]
      : []),
  ]);
  for (const list of LISTS) {
    const named = (shop[list] ?? []).map(({ id }) => id);
    wrong.push(
      ...named.flatMap((id, i): Fault[] =>
        named.indexOf(id) < i
          ? [{ path: pathOf(list, i, "id"), message: `“${id}” stands in the list already` }]
          : [],
      ),
    );
  }
  wrong.push(
    ...(shop.quenchants ?? []).flatMap(({ H }, i): Fault[] =>
      H[0]! > H[1]! ? [{ path: pathOf("quenchants", i, "H"), message: "the least stands first" }] : [],
    ),
  );
  wrong.push(
    ...(shop.knives ?? []).flatMap((knife, i) => knifeFaults(knife, ["knives", i])),
    ...(shop.trials ?? []).flatMap((batch, i) => batchFaults(batch, ["trials", i])),
  );
  return wrong.length > 0 ? { ok: false, faults: wrong } : { ok: true, shop };
}
