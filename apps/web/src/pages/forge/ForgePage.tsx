import { barWords } from "@true-spine/core/forge/bar.ts";
import type { ForgeReport } from "@true-spine/core/route/forge-report.ts";
import { colourAt } from "@true-spine/core/units/colours.ts";
import { showLength, showLengthWithUnit } from "@true-spine/core/units/length.ts";
import { useState } from "react";
import { useSettings } from "../../app/settings.ts";
import { useScreen } from "../../blade/screen.ts";
import { whyNot } from "../../blade/store.ts";
import { Caution } from "../../parts/Caution.tsx";
import { FoundList } from "../../parts/FoundList.tsx";
import { Workspace } from "../../parts/Workspace.tsx";
import { useForging } from "../../workers/forge.ts";
import { WorkTrouble } from "../../workers/WorkTrouble.tsx";
import { BarGroup, BlankGroup, BolsterGroup, FireGroup, OrderGroup } from "./ForgeControls.tsx";
import { ForgeRail } from "./ForgeRail.tsx";
import { ForgeSection } from "./ForgeSection.tsx";
import { FormsTable } from "./FormsTable.tsx";
import { LearnedGroup } from "./LearnedGroup.tsx";
import { SchoolsGroup } from "./SchoolsGroup.tsx";
import { TemplatesGroup } from "./TemplatesGroup.tsx";
import { useForge } from "./useForge.ts";

/** The cautions of the fire, in a line each. */
const CAUTIONS =
  "Hot steel looks cold. Eyes: scale flies; hearing at the anvil. Indoors a forge makes carbon monoxide: ventilate. Never swing at a hot-cut. Hammer and press pinch: both hands on the tongs, ease in. Coated scrap fumes: strip it first. Too hot it crumbles, too cold it cracks: stop at the colour.";

/** From the bar to the blank: how much of the bar, which part of it becomes what, and every form on the way, worked out backwards. */
export function ForgePage() {
  const { open } = useScreen();
  const { answer, isBehind, trouble, tryAgain } = useForging();
  const [picked, setPicked] = useState<number | null>(null);
  const value = answer?.value ?? null;
  const report = value?.report ?? null;
  const chosen = Math.min(picked ?? 2, (report?.forms.length ?? 5) - 1);
  const isAsked = answer !== null && value === null;
  return (
    <Workspace
      isBusy={isBehind}
      asideLabel="The form, and what is chosen at the fire"
      aside={
        <>
          {report && <ForgeSection report={report} chosen={chosen} />}
          <BarGroup isAsked={isAsked} />
          <Caution>{CAUTIONS}</Caution>
          <BlankGroup />
          <OrderGroup />
          {report && <SchoolsGroup schools={report.schools} />}
          <FireGroup />
          <BolsterGroup
            beside={report?.forms.at(-1)?.places.find(({ name }) => name === "heel")?.thickness ?? null}
          />
          {report && <LearnedGroup report={report} />}
          {report && <TemplatesGroup step={report.forms[chosen]!.step} name={report.forms[chosen]!.name} />}
        </>
      }
    >
      <div className="h-[60%] shrink-0 max-lg:portrait:h-[50%]">
        {report ? (
          <ForgeRail report={report} chosen={chosen} />
        ) : (
          <div className="p-6">
            {isAsked ? (
              <p>
                Say which bar it is forged from, at the right: its width, or across it where it is round. The
                blank, the forms and the length of bar follow.
              </p>
            ) : (
              !trouble && <p className="text-faint">Working the forging out …</p>
            )}
          </div>
        )}
      </div>
      <div className="min-h-0 flex-1 overflow-y-auto border-t border-rule bg-sheet px-3">
        <WorkTrouble what="The forging" trouble={trouble} onTry={tryAgain} />
        {report && <Summary report={report} />}
        <FoundList
          label="Does the bar hold it"
          findings={value?.findings ?? []}
          isOld={isBehind || trouble !== null}
          onTake={({ route, forge }) => {
            open.end();
            return whyNot(open.put({ ...(route ? { route } : {}), ...(forge ? { forge } : {}) }));
          }}
        />
        {report && <FormsTable report={report} chosen={chosen} onChoose={setPicked} />}
      </div>
    </Workspace>
  );
}

/** What is wanted first: how much to cut, and what the fire will do with it. */
function Summary({ report }: { report: ForgeReport }) {
  const unit = useSettings((settings) => settings.unit);
  const { forge } = useForge();
  const { bar, total, needed, spare, kerf, heats, sweep, grams } = report;
  const isTangFirst = forge.order.indexOf("tang") === 0;
  const ends = isTangFirst ? ["butt"] : ["tip"];
  const marks = (isTangFirst ? report.marks.toReversed() : report.marks).filter(
    ({ name }) => !ends.includes(name),
  );
  const say = (mm: number) => showLengthWithUnit(mm, unit, unit === "mm" ? 1 : undefined);
  const count = heats.blade + heats.tang;
  const each = count > 0 && Number.isFinite(count) ? `, ${(grams.scale / count).toFixed(1)} g a heat` : "";
  return (
    <p className="py-2 text-sm" aria-label="In short" role="note">
      Cut <strong>{say(total)}</strong> of {barWords(bar, (mm) => showLength(mm, unit))} {unit}: {say(needed)}{" "}
      for the blank, {say(spare)} spare, {say(kerf)} for the cut. Blank {grams.blank.toFixed(0)} g, about{" "}
      {grams.scale.toFixed(0)} g of scale{each}.{" "}
      {Number.isFinite(count)
        ? `About ${count} heats, half to twice that`
        : "It is too cold before it is struck"}
      , from {forge.heat.said?.from ?? colourAt(forge.heat.from)?.name} down to{" "}
      {forge.heat.said?.stop ?? colourAt(forge.heat.stop)?.name}.{" "}
      {Math.abs(sweep.turn) >= 0.5 && (
        <>
          The bevels sweep it up <strong>{sweep.turn.toFixed(1)}°</strong>, the tip {say(sweep.lift)}: to be
          straightened while the edge is over 3.
        </>
      )}{" "}
      Mark the bar from its {isTangFirst ? "butt's" : "tip's"} end:{" "}
      {marks.map(({ name, s }, i) => (
        <span key={name}>
          {i > 0 && " · "}
          {name} <strong>{say(isTangFirst ? needed - s : s).replace(/ [a-z]+$/, "")}</strong>
        </span>
      ))}
      .
    </p>
  );
}
