import type { StandingShop } from "@true-spine/core/registry/contract.ts";
import { parseShop } from "@true-spine/core/shop/parse.ts";
import { type Shop, USUAL_SHOP } from "@true-spine/core/shop/schema.ts";
import { shopTogether } from "@true-spine/core/shop/together.ts";
import { useEffect } from "react";
import { create } from "zustand";
import { send } from "../api/client.ts";
import { whyNot } from "../blade/store.ts";
import type { KeptDraft } from "../saving/browser-store.ts";
import { claimDrafts, findDrafts, type LeftWork, readDraft, takeUpDrafts } from "../saving/drafts.ts";
import { keepSaved } from "../saving/kept.ts";
import type { Saving } from "../saving/saving.ts";

/** The shop as every page of this tab sees it; opened once, saved by itself. */
interface ShopState {
  readonly shop: Shop;
  readonly saving: Saving<Shop> | null;
  readonly isAway: boolean;
  /** What tabs that are gone left of it, for the maker to decide. */
  readonly left: readonly LeftWork[];
}

const RETRY_MS = 1500;
const WHAT = "shop";

export const useShopState = create<ShopState>()(() => ({
  shop: USUAL_SHOP,
  saving: null,
  isAway: false,
  left: [],
}));

const isShop = (value: unknown) => parseShop(value).ok;
const draftOf = (kept: KeptDraft) => readDraft<Shop>(kept, isShop);
let opening: Promise<void> | null = null;

const read = () => send<StandingShop>("GET", "/shop");
const show = (shop: Shop) => useShopState.setState({ shop });

async function open(): Promise<void> {
  for (;;) {
    try {
      const { revision, file } = await read();
      const { resumed, left } = await takeUpDrafts(await findDrafts([WHAT]), isSoundShop);
      const draft = resumed && draftOf(resumed.drafts[0]!);
      const saving = await keepSaved<Shop>({
        what: WHAT,
        revision,
        standing: file ?? USUAL_SHOP,
        together: shopTogether,
        left: draft,
        read,
        write: (save) => send<{ revision: number }>("PUT", "/shop", save),
        show,
      });
      useShopState.setState({ shop: draft?.latest ?? file ?? USUAL_SHOP, saving, isAway: false, left });
      return;
    } catch {
      useShopState.setState({ isAway: true });
      await new Promise((resolve) => setTimeout(resolve, RETRY_MS));
    }
  }
}

export const isSoundShop = (kept: KeptDraft) => draftOf(kept) !== null;

/** Takes up what a tab left of the shop, where it is sound, in place of what stands here. */
export async function takeUpShop(work: LeftWork): Promise<void> {
  await claimDrafts(work.drafts).catch(() => {});
  useShopState.getState().saving?.adopt(draftOf(work.drafts[0]!)!);
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
  show(parsed.shop);
  saving.changed(parsed.shop);
  return null;
}
