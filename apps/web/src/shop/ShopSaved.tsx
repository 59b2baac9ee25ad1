import { useStore } from "zustand";
import { SaveTrouble } from "../saving/SaveTrouble.tsx";
import { saveWords } from "../saving/words.ts";
import type { useShop } from "./shop.ts";

type Saving = NonNullable<ReturnType<typeof useShop>["saving"]>;

/** While it is not known what stands in the shop: nothing can be typed before, it would be refused, or written over. */
export function ShopAwaited({ isAway, what }: { isAway: boolean; what: string }) {
  return (
    <p className="p-10" role={isAway ? "alert" : undefined}>
      {isAway ? "The server does not answer. Trying again by itself; nothing is lost." : `Fetching ${what} …`}
    </p>
  );
}

/** Whether the shop is saved, in words. */
export function ShopSaved({ saving }: { saving: Saving }) {
  const { status, isKept } = useStore(saving.state);
  return <span role="status">{saveWords(status, isKept)}</span>;
}

/** Why it could not be saved, where it could not. */
export function ShopRefused({ saving }: { saving: Saving }) {
  return <SaveTrouble trouble={useStore(saving.state)} onTry={saving.tryNow} />;
}
