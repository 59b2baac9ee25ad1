import type { Forge } from "@true-spine/core/forge/schema.ts";
import type { Route } from "@true-spine/core/route/schema.ts";
import { useDocument, useScreen } from "../../blade/screen.ts";
import { whyNot } from "../../blade/store.ts";
import { useEdit } from "../../blade/useEdit.ts";

/** What is chosen at the fire, and how it is changed: each answers with why not, or null. */
export function useForge() {
  const { open } = useScreen();
  const { visit } = useEdit();
  const forge = useDocument("forge");
  const route = useDocument("route");
  const put = (change: (now: Forge) => Forge) =>
    whyNot(open.put({ forge: change(open.store.getState().forge) }));
  return {
    forge,
    route,
    visit,
    put,
    /** A single press: always a step of its own. */
    press: (change: (now: Forge) => Forge) => {
      open.end();
      return put(change);
    },
    putBar: (change: Partial<NonNullable<Route["bar"]>> & { stock?: number }) => {
      const now = open.store.getState().route;
      const { stock = now.stock, ...rest } = change;
      const bar = Object.fromEntries(
        Object.entries({ surface: "rolled" as const, ...now.bar, ...rest }).filter(
          ([, value]) => value !== undefined,
        ),
      ) as NonNullable<Route["bar"]>;
      return whyNot(open.put({ route: { ...now, stock, bar } }));
    },
  };
}
