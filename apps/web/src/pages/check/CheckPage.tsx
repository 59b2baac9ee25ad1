import type { Line } from "@true-spine/core/inspect/bench.ts";
import { QUANTITY } from "@true-spine/core/inspect/quantity.ts";
import { type Reading, type Spot, spotKey, spotOf } from "@true-spine/core/inspect/schema.ts";
import { type BenchEvent, MOST_PRESS, valueIn } from "@true-spine/core/inspect/wire.ts";
import type { LengthUnit } from "@true-spine/core/units/length.ts";
import { useCallback, useRef, useState } from "react";
import { type BladeScreen, useScreen } from "../../blade/screen.ts";
import { useNotices } from "../../parts/Notices.tsx";
import { StraightLink } from "../../parts/StraightLink.tsx";
import { Workspace } from "../../parts/Workspace.tsx";
import { press, useInstruments } from "../../readings/instruments.ts";
import { newId } from "../../saving/id.ts";
import { useRoute } from "../../work/useWorkRows.ts";
import { useAsked, useBench } from "../../workers/bench.ts";
import { WorkTrouble } from "../../workers/WorkTrouble.tsx";
import { CheckRail } from "./CheckRail.tsx";
import { CorrectionsGroup } from "./CorrectionsGroup.tsx";
import { DoubtsGroup } from "./DoubtsGroup.tsx";
import { FilesGroup } from "./FilesGroup.tsx";
import { FindingsList } from "./FindingsList.tsx";
import { InstrumentsGroup } from "./InstrumentsGroup.tsx";
import { LooksLikeGroup } from "./LooksLikeGroup.tsx";
import { OffersGroup } from "./OffersGroup.tsx";
import { PlacesGroup } from "./PlacesGroup.tsx";
import { ReadGroup } from "./ReadGroup.tsx";
import { ReadingsTable } from "./ReadingsTable.tsx";
import { StruckOut } from "./StruckOut.tsx";
import { SummaryGroup } from "./SummaryGroup.tsx";
import { stageToCheck } from "./stage.ts";
import { BAND_WORDS } from "./words.ts";

/** Readings against the blade at one stage: where to read next, what it says, and what to do about it. */
export function CheckPage() {
  const screen = useScreen();
  const route = useRoute();
  const [picked, setPicked] = useState<string | null>(null);
  const stage = picked ?? stageToCheck(route);
  const asked = useAsked(stage);
  const { report, isBehind, trouble, tryAgain } = useBench(asked);
  const [at, setAt] = useState<string | null>(null);
  /** Counts what sends the hands back to the box that readings are typed in. */
  const [toBox, setToBox] = useState(0);
  const lines = report?.lines ?? [];
  const current = lines.find(({ key }) => key === at) ?? nextUnread(lines, null);
  const now = useRef({ current, lines, stage });
  now.current = { current, lines, stage };
  const repeats = useRef<number[]>([]);

  const goTo = useCallback(
    (spot: Spot) => {
      setAt(spotKey(spot));
      const line = now.current.lines.find(({ key }) => key === spotKey(spot));
      setToBox((times) => times + 1);
      if (line && QUANTITY[spot.what].at !== "whole") screen.rail.setState({ scribe: line.target.x });
    },
    [screen],
  );
  const step = useCallback(
    (by: 1 | -1) => {
      const { current: one, lines: all } = now.current;
      const i = all.findIndex(({ key }) => key === one?.key);
      const next = all[Math.max(0, Math.min(all.length - 1, i + by))];
      if (next) goTo(next.spot);
    },
    [goTo],
  );
  /** Which spots an instrument was pressed for, by the press's number: its answer belongs there, however late it comes. */
  const pressed = useRef(new Map<number, { key: string; at: number }>());
  const take = useCallback(
    (value: number, by: Reading["by"], { key, typed }: { key?: string; typed?: LengthUnit } = {}) => {
      const { current: next, lines: all, stage: of } = now.current;
      const one = key === undefined ? next : all.find((line) => line.key === key);
      if (!one) return;
      keep(screen, { stage: of, spot: one.spot, value, by, ...(typed && typed !== "mm" ? { typed } : {}) });
      const after = nextUnread(all, one.key);
      if (after) goTo(after.spot);
    },
    [screen, goTo],
  );
  const { instruments, port } = useInstruments((event) => {
    if (document.visibilityState !== "visible") return;
    const tell = useNotices.getState().tell;
    const mine = event.press === undefined ? null : pressed.current.get(event.press);
    // Another page's press, or one of before this page was opened.
    if (mine === undefined) return;
    if (event.press !== undefined) pressed.current.delete(event.press);
    const one = mine ? now.current.lines.find(({ key }) => key === mine.key) : now.current.current;
    const read = one ? heard(one, event) : null;
    if (!one || read === null) {
      tell(`The ${event.kind} read ${event.value} ${event.unit}, which is not what is wanted next.`);
      return;
    }
    repeats.current = [...repeats.current.slice(-STUCK_AFTER + 1), event.value];
    const isStuck =
      repeats.current.length === STUCK_AFTER && repeats.current.every((value) => value === event.value);
    if (isStuck) repeats.current = [];
    if (isStuck) tell(`The ${event.kind} has read ${event.value} ${STUCK_AFTER} times running: is it stuck?`);
    take(read, "instrument", { key: one.key });
  });
  // The hidden piece of the simulated ones is ground steel: of a blank they read nothing.
  const isBlank = route.stages.find((one) => one.id === stage)?.kind === "forge";
  const instrument = current
    ? (instruments.find(
        ({ kind, state, isSimulated }) =>
          kind === QUANTITY[current.spot.what].instrument && state !== "away" && !(isSimulated && isBlank),
      ) ?? null)
    : null;

  const pressIt = () => {
    if (!current || !instrument) return;
    // One press, one answer: a second before it came would be a second reading of a place already left.
    const waits = [...pressed.current.values()].some(
      ({ key, at: since }) => key === current.key && Date.now() - since < ANSWER_WITHIN_MS,
    );
    if (waits) return;
    const number = Math.ceil(Math.random() * MOST_PRESS);
    pressed.current.set(number, { key: current.key, at: Date.now() });
    press(instrument.id, { blade: screen.id, stage, spot: current.spot, press: number }).catch(() => {
      pressed.current.delete(number);
      useNotices.getState().tell("The instrument does not answer.");
    });
  };

  return (
    <Workspace
      isBusy={isBehind}
      asideLabel="The next reading, and what they say"
      aside={
        <>
          <ReadGroup
            stage={stage}
            onStage={(next) => {
              setPicked(next);
              setAt(null);
            }}
            line={current}
            lines={lines}
            onPress={instrument ? pressIt : null}
            toBox={toBox}
            onTake={(value, typed) => take(value, "hand", typed ? { typed } : {})}
            onStep={step}
          />
          {report && <DoubtsGroup doubts={report.doubts} onGo={goTo} />}
          {report && <LooksLikeGroup report={report} onGo={goTo} />}
          {report && <CorrectionsGroup report={report} stage={stage} isOld={isBehind || trouble !== null} />}
          {report && report.faces.length > 0 && <OffersGroup asked={asked} spare={report.spare} />}
          {report && <SummaryGroup together={report.together} />}
          <InstrumentsGroup
            instruments={instruments}
            port={port}
            onPut={() => setToBox((times) => times + 1)}
          />
          <StraightLink words="Bow and twist by a straightedge, and where to work:" />
          <PlacesGroup stage={stage} />
          <FilesGroup stage={stage} />
        </>
      }
    >
      <div className="h-[62%] shrink-0">
        {report ? (
          <CheckRail report={report} asked={asked} currentKey={current?.key ?? null} onGo={goTo} />
        ) : (
          <div className="p-6">
            {!trouble && <p className="text-faint">Working out what should be read …</p>}
          </div>
        )}
      </div>
      <div className="min-h-0 flex-1 overflow-y-auto border-t border-rule bg-sheet px-3">
        <WorkTrouble what="What the readings say" trouble={trouble} onTry={tryAgain} />
        {report && !trouble && <FindingsList report={report} stage={stage} />}
        <ReadingsTable lines={lines} currentKey={current?.key ?? null} onGo={goTo} />
        <StruckOut stage={stage} />
        <p className="py-2 text-xs text-faint">{BAND_WORDS}</p>
      </div>
    </Workspace>
  );
}

const STUCK_AFTER = 4;
const ANSWER_WITHIN_MS = 3000;

/** A reading that arrived, in its quantity's own unit; null where it is not of what is wanted now. */
function heard(line: Line, event: Extract<BenchEvent, { event: "reading" }>): number | null {
  const { instrument, unit } = QUANTITY[line.spot.what];
  return instrument === event.kind ? valueIn(event.unit, event.value, unit) : null;
}

/**
 * The next spot after this one that has no reading yet, else the first that has none: those that tell the most before the rest of the
 * round. All read, whatever stands after it.
 */
function nextUnread(lines: readonly Line[], key: string | null): Line | null {
  const i = lines.findIndex((line) => line.key === key);
  const inTurn = [...lines.slice(i + 1), ...lines.slice(0, i + 1)];
  const unread = inTurn.filter((line) => !line.figure && line.key !== key);
  // What is doubted is offered again by its doubt; the round comes back to it last.
  const open = unread.filter(({ isDoubted }) => !isDoubted);
  const next = open.find(({ isFirst }) => isFirst) ?? open[0] ?? unread[0];
  return next ?? (key === null ? null : (lines[i + 1] ?? null));
}

function keep(
  { readings }: BladeScreen,
  { stage, spot, ...more }: { stage: string; spot: Spot } & Pick<Reading, "value" | "by" | "typed">,
): void {
  readings.take({
    id: newId(),
    when: new Date().toISOString(),
    stage,
    ...spotOf(spot),
    ...more,
  });
}
