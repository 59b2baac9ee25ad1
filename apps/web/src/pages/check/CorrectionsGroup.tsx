import type { BenchReport } from "@true-spine/core/findings/bench-report.ts";
import { CAUTION, type Correction } from "@true-spine/core/inspect/correct.ts";
import type { AcceptedCorrection } from "@true-spine/core/inspect/schema.ts";
import { STAGES } from "@true-spine/core/route/stages.ts";
import { showLength, showLengthWithUnit } from "@true-spine/core/units/length.ts";
import { inUnit } from "@true-spine/core/units/sentence.ts";
import { useState } from "react";
import { useSettings } from "../../app/settings.ts";
import { useScreen } from "../../blade/screen.ts";
import { Group, SmallButton } from "../../parts/Group.tsx";
import { useTakenOnceKnown } from "../../parts/useTakenOnceKnown.ts";
import { dropCorrections, putCorrections } from "../../readings/corrections.ts";
import { carriedOut, useCheck } from "../../work/useWorkRows.ts";

/** What to take off which face: proposed from the readings, put on the route, done. */
export function CorrectionsGroup({
  report,
  stage,
  isOld,
}: {
  report: BenchReport;
  stage: string;
  /** Whether the report is of how things stood a moment ago. */
  isOld: boolean;
}) {
  const screen = useScreen();
  const { open } = screen;
  const unit = useSettings((settings) => settings.unit);
  const [isMeant, setIsMeant] = useState(false);
  const check = useCheck();
  const standing = check.corrections.filter((one) => one.stage === stage && !one.done);
  const { corrections } = report;
  const beyond = Math.max(0, ...corrections.map((one) => (one.beyond > NOTHING ? one.beyond : 0)));
  const isAsked = beyond > 0 && !isMeant;
  const words =
    isMeant && beyond > 0
      ? "Below the line is meant: put it on the route"
      : `Put ${corrections.length === 1 ? "it" : `all ${corrections.length}`} on the route`;
  // What the reading that was just typed makes of them is known in a moment.
  const { press, waiting } = useTakenOnceKnown(
    new Map(corrections.length > 0 ? [[words, isAsked] as const] : []),
    isOld,
    (isFirst) => {
      setIsMeant(isFirst);
      if (!isFirst) putCorrections(open, stage, corrections);
    },
  );
  if (corrections.length === 0 && standing.length === 0) return null;
  return (
    <Group title="Corrections">
      {standing.length > 0 && (
        <ul className="flex flex-col gap-1.5">
          {standing.map((one) => (
            <li key={one.id} className="text-sm">
              <Standing one={one} />
            </li>
          ))}
        </ul>
      )}
      {standing.length === 0 &&
        corrections.map((one) => <Proposed key={`${one.edge ?? ""} ${one.side} ${one.from}`} one={one} />)}
      {standing.length === 0 && corrections.length > 0 && (
        <>
          {beyond > 0 && (
            <p className="text-xs">
              It goes {showLengthWithUnit(beyond, unit)} below this stage's own line at its most, into what
              was left for later.
            </p>
          )}
          <SmallButton isWaiting={waiting === words} onClick={() => press(words)}>
            {words}
          </SmallButton>
        </>
      )}
      {standing.length > 1 && (
        <SmallButton onClick={() => carriedOut(screen, standing)}>All done: read again</SmallButton>
      )}
      <p className="border-l-4 border-watch bg-room px-2 py-1 text-xs">{STAGES.finish.caution}</p>
    </Group>
  );
}

/** Less below a line than this is no more than a reading is worth, mm. */
const NOTHING = 0.02;

function Proposed({ one }: { one: Correction }) {
  const unit = useSettings((settings) => settings.unit);
  const say = (mm: number) => showLengthWithUnit(mm, unit);
  const isEnough = one.spare >= one.needed;
  return (
    <div className="text-sm">
      <p className="font-semibold">
        <span className="capitalize">{one.side}</span> face{one.edge && " of the second edge"},{" "}
        {place(one.from, unit)}–{place(one.to, unit)} {unit}: take {say(one.most)} off at its most
      </p>
      <p className="text-xs text-faint">
        About {one.passes} passes{one.belt && ` with ${one.belt}`}
        {one.passes > 3 && `; look after ${Math.ceil(one.passes * CAUTION)}`}. The line climbs{" "}
        {say(one.lineClimbs)}, the edge thins {say(one.edgeThins)}, {one.grams.toFixed(1)} g come off.
        {one.plungeBack !== null &&
          ` At the plunge its sweep comes out ${say(one.plungeBack)} further back: take the other side with it.`}{" "}
        {isEnough
          ? `${say(one.spare)} stays above the finished blade there.`
          : `Only ${say(Math.max(0, one.spare))} stays there; ${say(one.needed)} is needed.`}
      </p>
    </div>
  );
}

const place = (x: number, unit: Parameters<typeof showLength>[1]) =>
  showLength(x, unit, unit === "mm" ? 0 : undefined);

function Standing({ one }: { one: AcceptedCorrection }) {
  const screen = useScreen();
  const unit = useSettings((settings) => settings.unit);
  return (
    <>
      <p>{inUnit(one.why, unit)}</p>
      <p className="mt-1 flex gap-2">
        <SmallButton onClick={() => carriedOut(screen, [one])}>Done</SmallButton>
        <SmallButton onClick={() => dropCorrections(screen.open, [one.id])}>
          Remove from the route
        </SmallButton>
      </p>
    </>
  );
}
