import { useStore } from "zustand";
import { SavedElsewhere } from "../../parts/SavedElsewhere.tsx";
import { useShop, useShopState } from "../../shop/shop.ts";

/** Two hands on the stores: nothing is thrown away before somebody has chosen. */
export function Conflict() {
  const { saving } = useShop();
  return saving ? <Asked saving={saving} /> : null;
}

function Asked({ saving }: { saving: NonNullable<ReturnType<typeof useShop>["saving"]> }) {
  const theirs = useStore(saving.state, (state) => state.theirs);
  if (!theirs) return null;
  return (
    <SavedElsewhere
      title="The stores were saved elsewhere while you worked on them"
      onTake={() => {
        saving.takeTheirs();
        useShopState.setState({ shop: theirs.file });
      }}
      onKeep={() => saving.keepMine()}
    >
      Another tab or another person saved them as number {theirs.revision}. Choose which one stands.
    </SavedElsewhere>
  );
}
