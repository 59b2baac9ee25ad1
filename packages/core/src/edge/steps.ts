import type { PerSide } from "../blade/station.ts";
import { type Edge, type EdgeStep, MOST_STEPS } from "./schema.ts";

/** How an edge's steps are changed. `steps` are that edge's own as they stand: the usual ones are written down by the first change. */
function withSteps(edge: Edge, which: EdgeStep["edge"], steps: readonly EdgeStep[]): Edge {
  return { ...edge, steps: [...edge.steps.filter((step) => step.edge !== which), ...steps] };
}

/**
 * An edge's own steps, or where it has none a finish bevel at the edge's angle, down to `to` µm, and a strop at the same angle. `angle`:
 * degrees per side as ground, null where the blade has no such edge. Common practice.
 */
export function chosenSteps(
  angle: PerSide<number> | null,
  edge: Edge,
  which: EdgeStep["edge"],
  to: number,
): readonly EdgeStep[] {
  const own = edge.steps.filter((step) => step.edge === which);
  if (own.length > 0 || !angle || angle.left + angle.right <= 0) return own;
  const step = { edge: which, angle: { left: angle.left, right: angle.right } };
  return [
    { ...step, kind: "finish", to, burr: "each" },
    { ...step, kind: "strop", to: STROP },
  ];
}
const STROP = 1;

/** One of them changed, or with null taken out. */
export function withStep(
  edge: Edge,
  which: EdgeStep["edge"],
  steps: readonly EdgeStep[],
  i: number,
  change: Partial<EdgeStep> | null,
): Edge {
  const changed = change
    ? steps.map((step, k) => (k === i ? { ...step, ...change } : step))
    : steps.filter((_, k) => k !== i);
  return withSteps(edge, which, changed);
}

/** Usual: so much steeper than the edge, so high, so much finer. Common practice. */
const MICRO = { steeper: 2, facet: 0.1, to: 2 } as const;
const ROUGH = 60;

/** One more of a kind, where that kind usually stands; unchanged where there are as many as there may be. */
export function withMoreStep(
  edge: Edge,
  which: EdgeStep["edge"],
  steps: readonly EdgeStep[],
  kind: EdgeStep["kind"],
): Edge {
  if (steps.length >= MOST_STEPS) return withSteps(edge, which, steps);
  const like = steps.findLast((step) => step.kind !== "strop") ?? steps[0];
  const angle = like?.angle ?? { left: 18, right: 18 };
  const finest = Math.min(1000, ...steps.flatMap((step) => (step.kind === "strop" ? [] : [step.to])));
  const up = (degrees: number) => (degrees > 0 ? Math.min(60, degrees + MICRO.steeper) : 0);
  const tool = like?.tool ? { tool: like.tool } : {};
  const made: EdgeStep =
    kind === "micro"
      ? {
          edge: which,
          kind,
          angle: { left: up(angle.left), right: up(angle.right) },
          to: Math.min(MICRO.to, finest),
          facet: MICRO.facet,
          ...tool,
        }
      : {
          edge: which,
          kind,
          angle: { ...angle },
          to: kind === "rough" ? Math.max(ROUGH, finest) : kind === "strop" ? STROP : finest,
          ...tool,
        };
  const ORDER: readonly EdgeStep["kind"][] = ["rough", "finish", "micro", "strop"];
  const at = steps.findIndex((step) => ORDER.indexOf(step.kind) > ORDER.indexOf(kind));
  return withSteps(edge, which, at < 0 ? [...steps, made] : steps.toSpliced(at, 0, made));
}
