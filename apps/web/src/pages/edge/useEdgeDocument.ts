import type { Edge, EdgeStep, Wear } from "@true-spine/core/edge/schema.ts";
import { USUAL_WEAR } from "@true-spine/core/edge/schema.ts";
import { withMoreStep, withStep } from "@true-spine/core/edge/steps.ts";
import { useDocument, useScreen } from "../../blade/screen.ts";
import { whyNot } from "../../blade/store.ts";
import { useEdit } from "../../blade/useEdit.ts";

/** How its edge is kept, and how that is changed: each answers with why not, or null. `steps` are one edge's as they stand. */
export function useEdgeDocument(which: EdgeStep["edge"], steps: readonly EdgeStep[]) {
  const { open } = useScreen();
  const { visit } = useEdit();
  const edge = useDocument("edge");
  const put = (change: (now: Edge) => Edge) => whyNot(open.put({ edge: change(open.store.getState().edge) }));
  const press = (change: (now: Edge) => Edge) => {
    open.end();
    return put(change);
  };
  return {
    edge,
    visit,
    put,
    /** A single press: always a step of its own. */
    press,
    change: (i: number, change: Partial<EdgeStep>) => put((now) => withStep(now, which, steps, i, change)),
    pressStep: (i: number, change: Partial<EdgeStep> | null) =>
      press((now) => withStep(now, which, steps, i, change)),
    more: (kind: EdgeStep["kind"]) => press((now) => withMoreStep(now, which, steps, kind)),
    wear: (change: Partial<Wear>) =>
      put((now) => ({ ...now, wear: { ...(now.wear ?? USUAL_WEAR), ...change } })),
  };
}
