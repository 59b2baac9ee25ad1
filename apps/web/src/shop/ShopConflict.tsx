import { useStore } from "zustand";
import { SavedElsewhere } from "../parts/SavedElsewhere.tsx";
import { LeftWorkDialog } from "../saving/LeftWorkDialog.tsx";
import { isSoundShop, takeUpShop, useShop, useShopState } from "./shop.ts";

/** Two hands on the stores, or work that closed tabs left of them: nothing is deleted before somebody has chosen. */
export function ShopConflict() {
  const { saving } = useShop();
  if (!saving) return null;
  return (
    <>
      <TwoHands saving={saving} />
      <LeftWork saving={saving} />
    </>
  );
}

type ShopSaving = { saving: NonNullable<ReturnType<typeof useShop>["saving"]> };

function LeftWork({ saving }: ShopSaving) {
  const { left } = useShop();
  const isBusy = useStore(saving.state, ({ status }) => status !== "saved");
  return (
    <LeftWorkDialog
      works={left}
      name="stores"
      partName={() => "the stores"}
      isSound={isSoundShop}
      isBusy={isBusy}
      onOpen={takeUpShop}
      onGone={(gone) => useShopState.setState({ left: left.filter((work) => work !== gone) })}
    />
  );
}

function TwoHands({ saving }: ShopSaving) {
  const theirs = useStore(saving.state, (state) => state.theirs);
  if (!theirs) return null;
  return (
    <SavedElsewhere
      title="The stores were saved elsewhere while you worked on them"
      onTake={() => saving.takeTheirs()}
      onKeep={() => saving.keepMine()}
    >
      Another tab or another person saved them as number {theirs.revision}. Choose which one stands.
    </SavedElsewhere>
  );
}
