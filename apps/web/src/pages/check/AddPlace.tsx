import type { Asked } from "@true-spine/core/inspect/bench.ts";
import { QUANTITY } from "@true-spine/core/inspect/quantity.ts";
import { type Spot, spotKey } from "@true-spine/core/inspect/schema.ts";
import { showLength } from "@true-spine/core/units/length.ts";
import { useEffect, useState } from "react";
import { useSettings } from "../../app/settings.ts";
import { useScreen } from "../../blade/screen.ts";
import { PlainButton, Question } from "../../parts/Dialog.tsx";
import { askBench } from "../../workers/bench.ts";

/** What to read at a place that was pointed at: it joins the round. */
export function AddPlace({
  asked,
  at,
  onClose,
  onGo,
}: {
  asked: Asked;
  at: { readonly u: number; readonly height: number } | null;
  onClose: () => void;
  onGo: (spot: Spot) => void;
}) {
  const { open } = useScreen();
  const unit = useSettings((settings) => settings.unit);
  const [spots, setSpots] = useState<readonly Spot[] | null>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: asked once for each place pointed at
  useEffect(() => {
    setSpots(null);
    if (!at) return;
    let isGone = false;
    askBench((bench) => bench.near(asked, at.u, Math.max(0.5, at.height))).then(
      (found) => !isGone && setSpots(found),
      () => !isGone && onClose(),
    );
    return () => {
      isGone = true;
    };
  }, [at]);
  const add = (spot: Spot) => {
    const now = open.store.getState().check;
    if (!now.places.some((one) => spotKey(one) === spotKey(spot))) {
      open.end();
      open.put({ check: { ...now, places: [...now.places, spot] } });
    }
    onGo(spot);
    onClose();
  };
  return (
    <Question title="What to read there?" isOpen={at !== null} onClose={onClose}>
      {spots === null && <p className="text-sm text-faint">Looking what there is to read …</p>}
      {spots?.length === 0 && <p className="text-sm">Nothing of this stage can be read there.</p>}
      <div className="flex flex-col gap-2">
        {spots?.map((spot) => (
          <PlainButton key={spotKey(spot)} onClick={() => add(spot)}>
            {QUANTITY[spot.what].name}
            {spot.side && `, ${spot.side}`}
            {spot.height !== undefined && ` ${showLength(spot.height, unit, 1)} ${unit} up`}
          </PlainButton>
        ))}
      </div>
    </Question>
  );
}
