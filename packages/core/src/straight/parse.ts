import { faultsOf, fewEnough } from "../document/explain.ts";
import { type Fault, pathOf } from "../document/fault.ts";
import { validatorOf } from "../document/validator.ts";
import { type Straight, StraightSchema, type StraightSet } from "./schema.ts";

const shape = validatorOf(StraightSchema);

/** A sound straight document, or every fault found with its path. Never throws. */
export function parseStraight(
  value: unknown,
): { ok: true; straight: Straight } | { ok: false; faults: readonly Fault[] } {
  const wrong = faultsOf(shape, value);
  if (wrong.length > 0) return { ok: false, faults: fewEnough(wrong) };
  const straight = value as Straight;
  const faults = (straight.sets ?? []).flatMap(({ rows }, i) => rowFaults(rows, ["sets", i, "rows"]));
  return faults.length > 0 ? { ok: false, faults: fewEnough(faults) } : { ok: true, straight };
}

/** Along each line of a set, places follow one another. */
export function rowFaults(rows: StraightSet["rows"], path: readonly (string | number)[]): Fault[] {
  return rows.flatMap(({ x, y }, i): Fault[] => {
    const before = rows.slice(0, i).findLast((row) => row.y === y);
    return before && before.x >= x
      ? [{ path: pathOf(...path, i, "x"), message: `${x} does not lie beyond ${before.x}, read before it` }]
      : [];
  });
}
