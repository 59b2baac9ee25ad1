import { withUsualHeats } from "@true-spine/core/route/heats.ts";
import { useState } from "react";
import { useScreen } from "../../blade/screen.ts";
import { whyNot } from "../../blade/store.ts";
import { Caution } from "../../parts/Caution.tsx";
import { FoundList } from "../../parts/FoundList.tsx";
import { SmallButton } from "../../parts/Group.tsx";
import { StraightLink } from "../../parts/StraightLink.tsx";
import { Workspace } from "../../parts/Workspace.tsx";
import { useHeats } from "../../workers/heat.ts";
import { WorkTrouble } from "../../workers/WorkTrouble.tsx";
import { ClockGroup } from "./ClockGroup.tsx";
import { HeatChart } from "./HeatChart.tsx";
import { HeatsTable } from "./HeatsTable.tsx";
import { LearnedGroup } from "./LearnedGroup.tsx";
import { OpGroup } from "./OpGroup.tsx";
import { CouponGroup, FileGroup } from "./ProofGroups.tsx";
import { QuenchView } from "./QuenchView.tsx";
import { RecipeGroup } from "./RecipeGroup.tsx";
import { SteelGroup } from "./SteelGroup.tsx";
import { useHeat } from "./useHeat.ts";

/** The cautions of the heat, in a line each. */
const CAUTIONS =
  "Oil flares: a lid and an extinguisher by it, never water. Raw hard steel shatters. Hot looks cold. Indoors a forge makes carbon monoxide: ventilate. Oil smokes in an oven: wipe it first.";

/** The steel, its heats in order, what they do to it, and how they went. */
export function HeatPage() {
  const { open } = useScreen();
  const { route } = useHeat();
  const { answer, isBehind, trouble, tryAgain } = useHeats();
  const [picked, setPicked] = useState<string | null>(null);
  const value = answer?.value ?? null;
  const report = value?.report ?? null;
  const chosen =
    report?.ops.find(({ op }) => op.id === picked) ??
    report?.ops.find(({ op }) => op.kind === "harden") ??
    report?.ops[0] ??
    null;
  const usual = withUsualHeats(route);
  const isUsual = usual.stages.length === route.stages.length;
  return (
    <Workspace
      isBusy={isBehind}
      asideLabel="The steel, and the heat that is chosen"
      aside={
        <>
          {report && chosen && <ClockGroup report={chosen} isBehind={isBehind} />}
          {report && chosen && chosen.op.kind === "harden" && <FileGroup op={chosen.op.id} />}
          {chosen && <OpGroup report={chosen} />}
          <SteelGroup steel={report?.steel ?? null} />
          {report && chosen && chosen.op.kind === "harden" && (
            <CouponGroup key={chosen.op.id} report={report} chosen={chosen} />
          )}
          {report && <LearnedGroup report={report} said={value!.said} />}
          <StraightLink words="Every fire moves it:" />
          <RecipeGroup />
          <Caution>{CAUTIONS}</Caution>
        </>
      }
    >
      <div className="flex h-[52%] shrink-0 flex-col border-b border-rule bg-sheet">
        <h2 className="sr-only">The blade as it is quenched, and its heats over time</h2>
        {report ? (
          <>
            <div className="h-24 shrink-0 border-b border-rule">
              <QuenchView report={report} />
            </div>
            <div className="min-h-0 flex-1">
              <HeatChart report={report} chosen={chosen?.op.id ?? null} onChoose={setPicked} />
            </div>
          </>
        ) : (
          !trouble && <p className="p-6 text-faint">Working the heats out …</p>
        )}
      </div>
      <div className="min-h-0 flex-1 overflow-y-auto bg-sheet px-3">
        <WorkTrouble what="The heats" trouble={trouble} onTry={tryAgain} />
        {!isUsual && (
          <p className="flex flex-wrap items-center gap-2 border-b border-rule py-2 text-sm">
            This route has {report?.ops.length === 1 ? "hardening alone" : "part of the usual recipe"}, with
            its tempers reckoned as done.
            <SmallButton
              onClick={() => {
                open.end();
                open.put({ route: usual });
              }}
            >
              Normalize three times, harden, temper twice
            </SmallButton>
          </p>
        )}
        <FoundList
          label="Do these heats do it"
          findings={value?.findings ?? []}
          isOld={isBehind || trouble !== null}
          onTake={({ route: changed, heat }) => {
            open.end();
            return whyNot(open.put({ ...(changed ? { route: changed } : {}), ...(heat ? { heat } : {}) }));
          }}
        />
        {report && <HeatsTable report={report} chosen={chosen?.op.id ?? null} onChoose={setPicked} />}
      </div>
    </Workspace>
  );
}
