import { faultsOf, fewEnough } from "../document/explain.ts";
import { type Fault, pathOf } from "../document/fault.ts";
import { validatorOf } from "../document/validator.ts";
import { type Edge, EdgeSchema, MOST_STEPS } from "./schema.ts";

const shape = validatorOf(EdgeSchema);

/** A sound edge document, or every fault found with its path. Never throws. */
export function parseEdge(
  value: unknown,
): { ok: true; edge: Edge } | { ok: false; faults: readonly Fault[] } {
  const wrong = faultsOf(shape, value);
  if (wrong.length > 0) return { ok: false, faults: fewEnough(wrong) };
  const edge = value as Edge;
  const faults: Fault[] = edge.steps.flatMap(({ kind, facet, angle, edge: which }, i): Fault[] => {
    const before = edge.steps.slice(0, i).filter((step) => step.edge === which);
    return [
      ...(kind === "micro" && facet === undefined
        ? [{ path: pathOf("steps", i, "facet"), message: "a micro-bevel says how high it is" }]
        : []),
      ...(angle.left + angle.right <= 0
        ? [{ path: pathOf("steps", i, "angle"), message: "one side at least is sharpened" }]
        : []),
      ...(before.length >= MOST_STEPS
        ? [{ path: pathOf("steps", i), message: `an edge has ${MOST_STEPS} steps at most` }]
        : []),
    ];
  });
  const rows = edge.thin?.wanted ?? [];
  for (const [i, { u }] of rows.entries())
    if (i > 0 && u <= rows[i - 1]!.u)
      faults.push({ path: pathOf("thin", "wanted", i, "u"), message: "places follow one another" });
  return faults.length > 0 ? { ok: false, faults: fewEnough(faults) } : { ok: true, edge };
}
