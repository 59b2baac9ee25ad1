import type { ForgeFault } from "./schema.ts";

/** What is seen at the fire, and what to do about it. Source: common practice. */
export const SEEN_FAULTS: Readonly<Record<ForgeFault, { readonly name: string; readonly does: string }>> = {
  "cold-shut": {
    name: "a fold",
    does: "Grind it out, or cut the piece back behind it, never hammer it in; work behind the end first.",
  },
  burnt: { name: "burnt steel", does: "Where sparks flew it crumbles: cut back to sound steel." },
  crack: { name: "a crack", does: "Stop. Cut off beyond its end." },
};
