import type { Asked } from "@true-spine/core/inspect/bench.ts";
import { QUANTITY } from "@true-spine/core/inspect/quantity.ts";
import { type Spot, sideWords, spotKey } from "@true-spine/core/inspect/schema.ts";
import { showLengthWithUnit } from "@true-spine/core/units/length.ts";
import type { Remote } from "comlink";
import { useEffect, useState } from "react";
import { useSettings } from "../../app/settings.ts";
import { useScreen } from "../../blade/screen.ts";
import { PlainButton } from "../../parts/PlainButton.tsx";
import { Question } from "../../parts/Question.tsx";
import { useWork } from "../../workers/useWork.ts";
import { WorkTrouble } from "../../workers/WorkTrouble.tsx";
import type { Workers } from "../../workers/workers.ts";

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
  // What was asked for stays the same while the place is chosen: readings that arrive meanwhile change nothing of it.
  const [question, setQuestion] = useState<Near | null>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: asked once for each place pointed at
  useEffect(() => setQuestion(at && { asked, u: at.u, height: Math.max(0.5, at.height) }), [at]);
  const { answer, isBehind, trouble, tryAgain } = useWork("bench", question, near);
  const spots = isBehind || !answer ? null : answer.value;
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
      <WorkTrouble what="What can be read there" trouble={trouble} onTry={tryAgain} />
      {spots === null && !trouble && <p className="text-sm text-faint">Looking what there is to read …</p>}
      {spots?.length === 0 && <p className="text-sm">Nothing of this stage can be read there.</p>}
      <div className="flex flex-col gap-2">
        {spots?.map((spot) => (
          <PlainButton key={spotKey(spot)} onClick={() => add(spot)}>
            {QUANTITY[spot.what].name}
            {sideWords(spot)}
            {spot.height !== undefined &&
              ` ${showLengthWithUnit(spot.height, unit, unit === "mm" ? 1 : undefined)} up`}
          </PlainButton>
        ))}
      </div>
    </Question>
  );
}

interface Near {
  readonly asked: Asked;
  readonly u: number;
  readonly height: number;
}

async function near(
  remote: Remote<Workers["bench"]>,
  { asked, u, height }: Near,
  tell: (spots: readonly Spot[]) => void,
): Promise<void> {
  tell(await remote.near(asked, u, height));
}
