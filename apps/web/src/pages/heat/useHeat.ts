import type { Heat, HeatOp } from "@true-spine/core/heat/schema.ts";
import { opsOf, withOp } from "@true-spine/core/route/heats.ts";
import { useDocument, useFile, useScreen } from "../../blade/screen.ts";
import { whyNot } from "../../blade/store.ts";
import { useEdit } from "../../blade/useEdit.ts";

/** What is chosen of the steel and its heats, and how it is changed: each answers with why not, or null. */
export function useHeat() {
  const { open } = useScreen();
  const { visit } = useEdit();
  const heat = useDocument("heat");
  const route = useDocument("route");
  const blade = useFile();
  const put = (change: (now: Heat) => Heat) => whyNot(open.put({ heat: change(open.store.getState().heat) }));
  const changed = (id: string, change: Partial<HeatOp>) => {
    const now = open.store.getState();
    return put((heat) => withOp(opsOf(now.route, heat, now.file), heat, id, change));
  };
  return {
    heat,
    route,
    blade,
    visit,
    put,
    /** A heat as it is chosen. */
    opOf: (id: string) => opsOf(route, heat, blade).find((op) => op.id === id),
    changeOp: changed,
    /** A single press: always a step of its own. */
    press: (change: (now: Heat) => Heat) => {
      open.end();
      return put(change);
    },
    pressOp: (id: string, change: Partial<HeatOp>) => {
      open.end();
      return changed(id, change);
    },
  };
}
