import type { Blade } from "@true-spine/core/blade/schema.ts";
import { useScreen } from "./screen.ts";
import { whyNot } from "./store.ts";

/** How controls change the open blade: each answers with why not, or null. */
export function useEdit() {
  const { open } = useScreen();
  return {
    /** Puts a change in, as part of the visit or drag in hand. */
    edit: (change: (copy: Blade) => void) => whyNot(open.edit(change)),
    /** A single press: always a step of its own. */
    press: (change: (copy: Blade) => void) => {
      open.end();
      return whyNot(open.edit(change));
    },
    visit: (isTyping: boolean) => (isTyping ? open.begin() : open.end()),
  };
}
