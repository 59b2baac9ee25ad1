import type { Blade } from "@true-spine/core/blade/schema.ts";
import type { Asked } from "@true-spine/core/inspect/bench.ts";
import type { ChartedPlace } from "@true-spine/core/inspect/run-schema.ts";
import { NO_CHECK, type Reading, type Spot, spotKey } from "@true-spine/core/inspect/schema.ts";
import { placeName } from "@true-spine/core/record/run-report.ts";
import { NO_ROUTE, type Route } from "@true-spine/core/route/schema.ts";
import { stageName } from "@true-spine/core/route/stages.ts";
import { inUnit } from "@true-spine/core/units/sentence.ts";
import type { Remote } from "comlink";
import { useEffect, useMemo, useState } from "react";
import { readDocument } from "../../api/blades.ts";
import { useSettings } from "../../app/settings.ts";
import { Alert } from "../../parts/Alert.tsx";
import { Choice } from "../../parts/Group.tsx";
import { PlainButton } from "../../parts/PlainButton.tsx";
import { Question } from "../../parts/Question.tsx";
import { fetchReadings } from "../../readings/kept.ts";
import { useShop } from "../../shop/shop.ts";
import { useWork } from "../../workers/useWork.ts";
import { WorkTrouble } from "../../workers/WorkTrouble.tsx";
import type { Workers } from "../../workers/workers.ts";
import { stagesToCheck } from "../check/stage.ts";

interface Choosable {
  readonly spot: Spot;
  readonly x: number;
  readonly isRead: boolean;
}

/** A place to chart: after which stage, and what is read where; as the run's specification has it. */
export function PickPlace({
  specification,
  known,
  onPick,
  onClose,
}: {
  specification: { readonly id: string; readonly file: Blade };
  known: readonly ChartedPlace[];
  onPick: (place: ChartedPlace) => void;
  onClose: () => void;
}) {
  const { shop } = useShop();
  const unit = useSettings((settings) => settings.unit);
  const [route, setRoute] = useState<Route | null>(null);
  const [stage, setStage] = useState("sharpen");
  const [readings, setReadings] = useState<readonly Reading[]>([]);
  const [isAway, setIsAway] = useState(false);
  const { id, file } = specification;
  useEffect(() => {
    Promise.all([readDocument(id, "route"), fetchReadings(id)]).then(
      ([standing, { taken }]) => {
        setRoute(standing.file ?? NO_ROUTE);
        setReadings(taken);
      },
      () => setIsAway(true),
    );
  }, [id]);
  const question = useMemo(
    () => route && { blade: file, route, shop, stage, check: { ...NO_CHECK, hardness: 60 }, readings },
    [route, stage, file, shop, readings],
  );
  const { answer, trouble, tryAgain } = useWork("bench", question, spotsOf);
  // A shop that is changed elsewhere asks anew; what is about to be pressed must not go while that is worked out.
  const spots = answer?.to.stage === stage ? answer.value : null;
  const taken = new Set(known.filter((one) => one.stage === stage).map(({ spot }) => spotKey(spot)));
  return (
    <Question title="A place to chart" isOpen onClose={onClose}>
      <Choice
        label="After"
        value={stage}
        options={(route ? stagesToCheck(route) : [stage]).map((id) => ({
          value: id,
          name: stageName(route, id),
        }))}
        onChange={setStage}
      />
      <ul aria-label="Places" className="mt-3 flex max-h-96 flex-col gap-1 overflow-y-auto">
        {isAway && (
          <li>
            <Alert>The server does not answer, so it is not known what was read. Nothing is lost.</Alert>
          </li>
        )}
        {trouble && (
          <li>
            <WorkTrouble what="What can be read" trouble={trouble} onTry={tryAgain} />
          </li>
        )}
        {spots === null && !trouble && !isAway && (
          <li className="text-sm text-faint">Working out what can be read …</li>
        )}
        {spots
          ?.filter(({ spot }) => !taken.has(spotKey(spot)))
          .toSorted((a, b) => Number(b.isRead) - Number(a.isRead))
          .map(({ spot, x, isRead }) => (
            <li key={spotKey(spot)}>
              <button
                type="button"
                className="w-full rounded border border-rule bg-sheet px-3 py-1.5 text-left text-sm hover:bg-room"
                onClick={() => onPick({ stage, spot })}
              >
                {inUnit(placeName(stageName(route, stage), spot, x), unit)}
                {isRead && <span className="text-faint"> · read</span>}
              </button>
            </li>
          ))}
      </ul>
      <div className="mt-4 flex justify-end">
        <PlainButton onClick={onClose}>Cancel</PlainButton>
      </div>
    </Question>
  );
}

async function spotsOf(
  remote: Remote<Workers["bench"]>,
  question: Asked,
  tell: (spots: readonly Choosable[]) => void,
): Promise<void> {
  tell(await remote.spots(question));
}
