import type { StandingShop } from "@true-spine/core/contract.ts";
import { parseShop } from "@true-spine/core/shop/parse.ts";
import { type Shop, USUAL_SHOP } from "@true-spine/core/shop/schema.ts";
import { useEffect } from "react";
import { create } from "zustand";
import { send } from "../api/client.ts";
import { takeDraftPlace } from "../blade/drafts.ts";
import { type Saving, startSaving } from "../blade/saving.ts";
import { whyNot } from "../blade/store.ts";

/** The shop as every page of this tab sees it; opened once, saved by itself. */
interface ShopState {
  readonly shop: Shop;
  readonly saving: Saving<Shop> | null;
  readonly isAway: boolean;
}

const RETRY_MS = 1500;

export const useShopState = create<ShopState>()(() => ({ shop: USUAL_SHOP, saving: null, isAway: false }));

const isShop = (value: unknown): value is Shop => parseShop(value).ok;
let opening: Promise<void> | null = null;

async function open(): Promise<void> {
  const { place, left } = await takeDraftPlace("shop", isShop);
  for (;;) {
    try {
      const { revision, file } = await send<StandingShop>("GET", "/shop");
      const channel = new BroadcastChannel("true-spine:shop");
      const saving = startSaving<Shop>({
        send: (save) => send<{ revision: number }>("PUT", "/shop", save),
        revision,
        place,
        left,
        onSaved: () => channel.postMessage("saved"),
      });
      // Another tab has saved: with nothing unsaved here, follow it; otherwise the next save will say so.
      channel.onmessage = async () => {
        if (saving.state.getState().status !== "saved") return;
        const fresh = await send<StandingShop>("GET", "/shop").catch(() => null);
        if (!fresh?.file || saving.state.getState().status !== "saved") return;
        useShopState.setState({ shop: fresh.file });
        saving.follow(fresh.revision);
      };
      useShopState.setState({ shop: left?.latest ?? file ?? USUAL_SHOP, saving, isAway: false });
      return;
    } catch {
      useShopState.setState({ isAway: true });
      await new Promise((resolve) => setTimeout(resolve, RETRY_MS));
    }
  }
}

/** The shop, and a way to change it that answers with why not, or null. */
export function useShop(): ShopState & { put(next: Shop): string | null } {
  const state = useShopState();
  useEffect(() => {
    if (!opening) opening = open();
  }, []);
  return { ...state, put };
}

function put(next: Shop): string | null {
  const { saving } = useShopState.getState();
  if (!saving) return "The shop is still being fetched.";
  const parsed = parseShop(next);
  if (!parsed.ok) return whyNot(parsed.faults);
  useShopState.setState({ shop: parsed.shop });
  saving.changed(parsed.shop);
  return null;
}
