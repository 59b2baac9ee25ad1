import { faultsOf, fewEnough } from "../document/explain.ts";
import { type Fault, pathOf } from "../document/fault.ts";
import { validatorOf } from "../document/validator.ts";
import { type Forge, ForgeSchema } from "./schema.ts";

const shape = validatorOf(ForgeSchema);

/** A sound forge document, or every fault found with its path. Never throws. */
export function parseForge(
  value: unknown,
): { ok: true; forge: Forge } | { ok: false; faults: readonly Fault[] } {
  const wrong = faultsOf(shape, value);
  if (wrong.length > 0) return { ok: false, faults: fewEnough(wrong) };
  const forge = value as Forge;
  const faults: Fault[] = [];
  const { turn, heat, bolster, taper, blank } = forge;
  for (const [i, row] of (blank.height ?? []).entries()) {
    const before = blank.height![i - 1];
    if (before && row.u <= before.u)
      faults.push({
        path: pathOf("blank", "height", i, "u"),
        message: `must be more than the one before, ${before.u}`,
      });
  }
  if (turn.before + turn.after > 1 + 1e-9)
    faults.push({
      path: pathOf("turn", "after"),
      message: "with what is bent beforehand it must be no more than the whole turn",
    });
  if (heat.stop >= heat.from)
    faults.push({ path: pathOf("heat", "stop"), message: `must be cooler than from, ${heat.from}` });
  if (bolster && bolster.from >= bolster.to)
    faults.push({ path: pathOf("bolster", "to"), message: `must lie ahead of from, ${bolster.from}` });
  if (taper.spread === "held" && taper.bite !== undefined)
    faults.push({ path: pathOf("taper", "bite"), message: "only where the width is left to spread" });
  return faults.length > 0 ? { ok: false, faults } : { ok: true, forge };
}
