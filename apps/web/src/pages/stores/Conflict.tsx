import { useStore } from "zustand";
import { PlainButton, Question } from "../../parts/Dialog.tsx";
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
    <Question title="The stores were saved elsewhere while you worked on them" isOpen onClose={() => {}}>
      <p className="text-faint">Another tab or another person saved them as number {theirs.revision}.</p>
      <div className="mt-5 flex justify-end gap-2">
        <PlainButton
          onClick={() => {
            saving.takeTheirs();
            useShopState.setState({ shop: theirs.file });
          }}
        >
          Take theirs
        </PlainButton>
        <PlainButton kind="main" onClick={() => saving.keepMine()}>
          Keep mine
        </PlainButton>
      </div>
    </Question>
  );
}
