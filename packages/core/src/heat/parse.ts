import { faultsOf, fewEnough } from "../document/explain.ts";
import { type Fault, pathOf } from "../document/fault.ts";
import { validatorOf } from "../document/validator.ts";
import { type Heat, HeatSchema } from "./schema.ts";

const shape = validatorOf(HeatSchema);

/** A sound heat document, or every fault found with its path. Never throws. */
export function parseHeat(
  value: unknown,
): { ok: true; heat: Heat } | { ok: false; faults: readonly Fault[] } {
  const wrong = faultsOf(shape, value);
  if (wrong.length > 0) return { ok: false, faults: fewEnough(wrong) };
  const heat = value as Heat;
  const ids = heat.ops.map(({ id }) => id);
  const faults = heat.ops.flatMap(({ id, H, expect }, i): Fault[] => [
    ...(ids.indexOf(id) < i
      ? [{ path: pathOf("ops", i, "id"), message: `“${id}” stands in the list already` }]
      : []),
    ...(H && H[0]! > H[1]! ? [{ path: pathOf("ops", i, "H"), message: "the least stands first" }] : []),
    ...(expect && expect[0]! > expect[1]!
      ? [{ path: pathOf("ops", i, "expect"), message: "the least stands first" }]
      : []),
  ]);
  if (heat.steel.from === "certificate" && !heat.steel.mass)
    faults.push({ path: pathOf("steel", "mass"), message: "a certificate says what is in the steel" });
  return faults.length > 0 ? { ok: false, faults } : { ok: true, heat };
}
