import { abrasiveName } from "@true-spine/core/abrasive/schema.ts";
import type { Side } from "@true-spine/core/blade/schema.ts";
import { HEAT_KINDS } from "@true-spine/core/heat/schema.ts";
import { type ForgeReport, stepsTo } from "@true-spine/core/route/forge-report.ts";
import { stopInWords } from "@true-spine/core/route/layout.ts";
import { replanned, standInsFor } from "@true-spine/core/route/past.ts";
import type { StageReport } from "@true-spine/core/route/report.ts";
import type { Stage, TakenReading } from "@true-spine/core/route/schema.ts";
import { nameOf, STAGES } from "@true-spine/core/route/stages.ts";
import { showLengthWithUnit } from "@true-spine/core/units/length.ts";
import { inUnit } from "@true-spine/core/units/sentence.ts";
import { heatsAt } from "@true-spine/core/work/joined.ts";
import type { WorkRow } from "@true-spine/core/work/schema.ts";
import { X } from "lucide-react";
import { useState } from "react";
import { Link, useParams, useSearchParams } from "react-router";
import { useMe } from "../../api/door.ts";
import { useSettings } from "../../app/settings.ts";
import { useFilePart, useSaveStatus, useScreen } from "../../blade/screen.ts";
import { Notices } from "../../parts/Notices.tsx";
import { useTitle } from "../../parts/useTitle.ts";
import { whenInWords } from "../../parts/when.ts";
import { useReadings } from "../../readings/useReadings.ts";
import { SaveTrouble } from "../../saving/SaveTrouble.tsx";
import { saveWords } from "../../saving/words.ts";
import {
  carriedOut,
  notDone,
  record,
  useCheck,
  usePasses,
  useRoute,
  useSpent,
  useWorkRows,
} from "../../work/useWorkRows.ts";
import { useForging } from "../../workers/forge.ts";
import { useHeats } from "../../workers/heat.ts";
import { useRouteReport } from "../../workers/route.ts";
import { WorkTrouble } from "../../workers/WorkTrouble.tsx";
import { BladeConflict } from "../blade/BladeConflict.tsx";
import { WithBlade } from "../blade/BladeRoute.tsx";
import { Big, Keys, Pips, Small } from "./CardButtons.tsx";
import { CardDrawing } from "./CardDrawing.tsx";
import { CardNumbers } from "./CardNumbers.tsx";
import { lastOnCard, toReading } from "./card-reading.ts";
import { EdgeCard } from "./EdgeCard.tsx";
import { ForgeDrawing, ForgeNumbers } from "./ForgeCard.tsx";
import { FilePanel, HeatNumbers, useNextMoment } from "./HeatCard.tsx";
import { standingOf, told } from "./last-reading.ts";
import { useOffline } from "./offline.ts";
import { ReadingPanel } from "./ReadingPanel.tsx";
import { SeenPanel } from "./SeenPanel.tsx";
import { StraightCard } from "./StraightCard.tsx";
import { useAwake } from "./useAwake.ts";
import { useCardKeys } from "./useCardKeys.ts";

/** The grinder card: one step at a time, full screen, for gloves and dust. */
export function CardRoute() {
  const { id = "" } = useParams();
  const [search] = useSearchParams();
  const [straight, edge] = [search.get("straight"), search.get("edge")];
  const view = () => {
    if (straight) return <StraightCard stage={straight} />;
    return edge ? <EdgeCard which={edge === "second" ? "second" : "first"} /> : <Card />;
  };
  return (
    <main className="h-full">
      <WithBlade key={id} id={id} view={view} />
      <Notices isLarge />
    </main>
  );
}

function Card() {
  const screen = useScreen();
  const { open, id, readings, work, tryNow } = screen;
  const taken = useReadings();
  const check = useCheck();
  const name = useFilePart((file) => file.name);
  useTitle("Card", name);
  const route = useRoute();
  const { report, trouble: workTrouble, tryAgain } = useRouteReport();
  const unit = useSettings((settings) => settings.unit);
  const { role } = useMe();
  const { hand, setHand } = useSettings();
  const trouble = useSaveStatus();
  const next = route.stages.findIndex((stage) => stage.done === undefined);
  const [at, setAt] = useState<number | null>(null);
  const [side, setSide] = useState<Side>("right");
  const [isReading, setIsReading] = useState<"reading" | "past" | null>(null);
  useAwake();
  const isKept = useOffline(id);
  const last = Math.max(0, route.stages.length - 1);
  const index = Math.min(at ?? (next < 0 ? last : next), last);
  const stage = route.stages[index];
  const rows = useWorkRows();
  const passes = usePasses(stage?.id ?? "");
  const spent = useSpent(stage?.id ?? "");
  const go = (to: number) => setAt(Math.max(0, Math.min(route.stages.length - 1, to)));
  /** The tick that was set last here, to be taken back while its stage is still in mind. */
  const [ticked, setTicked] = useState<{ readonly stage: Stage; readonly row: string } | null>(null);
  // As it stands, not as it was drawn: a foot switch may be faster than the drawing.
  const isDone = ({ id: of, done: when }: Stage) => {
    const { taken: rows, struck } = work.state.getState();
    return (
      when !== undefined || rows.some((row) => row.what === "done" && row.stage === of && !struck.has(row.id))
    );
  };
  const isForging = stage?.kind === "forge";
  const atFire = useForging(!isForging);
  const forging = atFire.answer?.value?.report ?? null;
  const heats = useHeats(!stage || !(HEAT_KINDS as readonly string[]).includes(stage.kind)).answer;
  const heat = heats?.value.report.ops.find(({ op }) => op.id === stage?.id) ?? null;
  const nextMoment = useNextMoment(heat);
  const [isFiling, setIsFiling] = useState(false);
  const [form, setForm] = useState(0);
  const [isSeeing, setIsSeeing] = useState(false);
  const lastForm = (forging?.forms.length ?? 1) - 1;
  const formNow = Math.min(form, lastForm);
  const formHeats = forging && isForging ? heatsOfForm(forging, formNow, rows) : null;
  const done = () => {
    if (!stage) return;
    // Its forms are still to be known: nobody means all of them by one press.
    if (isForging && !atFire.answer && !atFire.trouble) return;
    // The forms are steps within the stage: it is done with the last.
    if (isForging && forging && formNow < lastForm) {
      setForm(formNow + 1);
      return;
    }
    // What is done already keeps its time.
    if (!isDone(stage)) setTicked({ stage, row: record(screen, { stage: stage.id, what: "done" }) });
    go(index + 1);
  };
  const backTo = (of: Stage) => {
    setTicked(null);
    go(route.stages.findIndex((one) => one.id === of.id));
  };
  const back = () => {
    if (isForging && formNow > 0) setForm(formNow - 1);
    else go(index - 1);
  };
  /** Shows the next step and marks nothing. */
  const ahead = () => {
    if (isForging && formNow < lastForm) setForm(formNow + 1);
    else go(index + 1);
  };
  useCardKeys({
    done,
    next: ahead,
    back,
    read: () => setIsReading("reading"),
    isOff: isReading !== null || isSeeing || isFiling,
  });

  if (!stage) {
    return (
      <div className="p-10">
        <p>This blade has no route yet: choose one on its Route page.</p>
        <Link
          to={role === "card" ? "/" : `/blades/${id}/route`}
          className="mt-4 inline-block rounded bg-deep px-4 py-3 font-semibold text-on-deep"
        >
          {role === "card" ? "To the rack" : "To its route"}
        </Link>
      </div>
    );
  }
  const shown = report?.stages[index]?.id === stage.id ? report.stages[index]! : null;
  const facts = STAGES[stage.kind];
  const take = (reading: TakenReading) => {
    if (shown) readings.take(toReading(reading, shown, side));
    if (reading.past && reading.what === "edge" && shown) {
      const now = open.store.getState().route;
      const { toGo } = standingOf(reading, shown, report);
      // What is planned is the desk's where this device has the cards only: it plans anew by the same reading.
      if (role !== "card") open.put({ route: replanned(now, -toGo) });
    }
    setIsReading(null);
  };
  const reading = shown && lastOnCard(taken, shown);
  const corrections = check.corrections.filter((one) => one.stage === stage.id && !one.done);
  const outside = report?.layout && stage.kind === "rough" ? report.layout.places[1]!.outside : null;
  const stop = shown?.work.on === "bevels" ? shown.work.stop[1]! : null;
  return (
    <div className="flex h-full flex-col bg-room text-lg">
      <header className="flex min-h-14 shrink-0 flex-wrap items-center gap-x-5 gap-y-1 px-5 py-2">
        <h1 className="font-bold">{name}</h1>
        <span>{nameOf(stage, route.stages)}</span>
        <span className="text-faint">{shown?.belts?.planned.ok && beltsOf(shown)}</span>
        <span className="ml-auto flex items-center gap-3 text-base text-faint">
          <span role="status">{saveWords(trouble.status, trouble.isKept)}</span>
          {isKept && <span title="Opens again and goes on with the network gone">works offline</span>}
          {isKept === false && (
            <span title="Browsers keep a page for when the network is gone only over a secure address that they trust. What you do is kept here all the same, as long as the page stays open.">
              needs the network here
            </span>
          )}
          <Pips stages={route.stages} index={index} />
          {index + 1} of {route.stages.length}
        </span>
        <Link
          reloadDocument
          to={role === "card" ? "/" : `/blades/${id}/route`}
          aria-label="Leave the card"
          className="rounded p-3 hover:bg-rule"
        >
          <X className="size-6" aria-hidden />
        </Link>
      </header>
      <SaveTrouble trouble={trouble} onTry={tryNow} />
      <div className="relative min-h-0 flex-1">
        {shown && isForging && forging && <ForgeDrawing report={forging} at={formNow} />}
        {shown && !(isForging && forging) && <CardDrawing stage={shown} side={side} />}
        {!shown && !workTrouble && <p className="p-8 text-faint">Working the stage out …</p>}
        {workTrouble && (
          <div className="m-8 rounded bg-sheet p-4 *:text-base">
            <WorkTrouble what="The stage" trouble={workTrouble} onTry={tryAgain} />
          </div>
        )}
        <div className="absolute top-3 right-3 flex gap-2">
          <Small onClick={() => record(screen, { stage: stage.id, what: "clock", runs: !spent.isRunning })}>
            {spent.isRunning ? "Pause the clock" : "Start the clock"}
            <span className="block text-sm font-normal">
              {Math.floor(spent.minutes)} min
              {shown && shown.minutes > 0 && ` of about ${Math.ceil(shown.minutes)}`}
            </span>
          </Small>
          <Small onClick={() => setSide(side === "right" ? "left" : "right")}>Other side</Small>
          <Small onClick={() => setHand(hand === "right" ? "left" : "right")}>{hand}-handed</Small>
        </div>
      </div>
      <section
        aria-label="Numbers"
        className="grid shrink-0 grid-cols-3 divide-x divide-rule border-y border-rule bg-paper"
      >
        {shown && isForging && forging && <ForgeNumbers report={forging} at={formNow} />}
        {heat && <HeatNumbers report={heat} />}
        {shown && !heat && !(isForging && forging) && <CardNumbers stage={shown} side={side} />}
      </section>
      <div className="flex shrink-0 flex-wrap items-start gap-x-6 gap-y-2 px-5 py-3">
        <div className="min-w-0 flex-1">
          <p>
            {outside !== null && `${stopInWords(outside, unit)} `}
            {facts.words}
          </p>
          {reading && shown && <p className="font-semibold">{told(reading, shown, report, unit)}</p>}
          {ticked && (
            <p className="mt-1 flex items-center gap-4 bg-sheet px-3 py-1" role="status">
              <span className="min-w-0 flex-1">{nameOf(ticked.stage, route.stages)} is ticked as done.</span>
              <Small
                onClick={() => {
                  work.strike(ticked.row, true);
                  backTo(ticked.stage);
                }}
              >
                Undo
              </Small>
            </p>
          )}
          {stage.done && (
            <p className="mt-1 flex items-center gap-4 bg-sheet px-3 py-1">
              <span className="min-w-0 flex-1">Done {whenInWords(Date.parse(stage.done))}.</span>
              <Small
                onClick={() => {
                  notDone(screen, stage.id);
                  backTo(stage);
                }}
              >
                Not done
              </Small>
            </p>
          )}
          {corrections.map((one) => (
            <p key={one.id} className="mt-1 flex items-center gap-4 bg-sheet px-3 py-1">
              <span className="min-w-0 flex-1">Correction: {inUnit(one.why, unit)}</span>
              <Small onClick={() => carriedOut(screen, [one])}>Done</Small>
            </p>
          ))}
          {stop !== null && (
            <p className="text-base text-faint">
              {showLengthWithUnit(stop, unit)} is near{" "}
              {standInsFor(stop)
                .map((one) => inUnit(one.name, unit))
                .join(", ")}
              .
            </p>
          )}
        </div>
        <p className="max-w-md border-l-4 border-watch bg-sheet px-3 py-1.5 text-base">{facts.caution}</p>
      </div>
      <footer className="grid shrink-0 grid-cols-[0.8fr_0.8fr_1fr_1.3fr_1.3fr_1.5fr] divide-x divide-rule border-t border-rule">
        <Big onClick={back} isOff={index === 0}>
          Back
          <Keys>←</Keys>
        </Big>
        <Big onClick={ahead} isOff={index === last && !(isForging && formNow < lastForm)}>
          Next
          <Keys>→</Keys>
        </Big>
        {heat ? (
          <Big onClick={() => record(screen, { stage: stage.id, what: "run", moment: nextMoment.moment })}>
            {nextMoment.words}
          </Big>
        ) : formHeats ? (
          <Big onClick={() => record(screen, { stage: stage.id, what: "heat", step: formHeats.step })}>
            <span className="block text-base text-faint">
              heats {formHeats.made} of about {formHeats.planned}
            </span>
            + 1 heat
          </Big>
        ) : (
          <Big onClick={() => record(screen, { stage: stage.id, what: "pass", side })}>
            <span className="block text-base text-faint">
              passes {side === "right" ? "R" : "L"} {passes[side]}
            </span>
            + pass
          </Big>
        )}
        <Big onClick={() => setIsReading("reading")}>
          Enter a reading
          <Keys>R</Keys>
        </Big>
        {isForging ? (
          <Big onClick={() => setIsSeeing(true)}>A fold, sparks, a crack</Big>
        ) : heat ? (
          <Big onClick={() => setIsFiling(true)} isOff={heat.op.kind !== "harden"}>
            What the file says
          </Big>
        ) : (
          <Big onClick={() => setIsReading("past")}>I went past the line</Big>
        )}
        <Big onClick={done} isMain>
          Done
          <Keys>Space, Enter</Keys>
        </Big>
      </footer>
      {isReading && shown && (
        <ReadingPanel
          isPast={isReading === "past"}
          stage={shown}
          onTake={take}
          onClose={() => setIsReading(null)}
        />
      )}
      {isFiling && <FilePanel op={stage.id} onClose={() => setIsFiling(false)} />}
      {isSeeing && (
        <SeenPanel
          onClose={() => setIsSeeing(false)}
          onSee={(seen) => {
            record(screen, { stage: stage.id, what: "seen", ...seen });
            setIsSeeing(false);
          }}
        />
      )}
      <BladeConflict />
    </div>
  );
}

/** Heats made for a form, and how many it takes. */
function heatsOfForm(report: ForgeReport, at: number, rows: readonly WorkRow[]) {
  const steps = stepsTo(report, report.forms[at]!);
  const counted = heatsAt(rows);
  const step = steps[0]?.step;
  if (!step) return null;
  const planned = steps.reduce((sum, { heats }) => sum + heats, 0);
  return {
    step,
    made: steps.reduce((sum, one) => sum + (counted[one.step] ?? 0), 0),
    planned: Number.isFinite(planned) ? planned : "many",
  };
}

const beltsOf = (stage: StageReport) => {
  const planned = stage.belts!.planned;
  return planned.ok
    ? `belts: ${planned.sequence.steps.map(({ belt }) => abrasiveName(belt)).join(", ")}`
    : "";
};
