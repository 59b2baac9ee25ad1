import { stationAtX } from "@true-spine/core/blade/station.ts";
import type { BladeWithFile } from "@true-spine/core/contract.ts";
import { memo, useCallback, useLayoutEffect } from "react";
import { Navigate, useParams } from "react-router";
import { useSettings } from "../../app/settings.ts";
import { fieldOf } from "../../blade/derived.ts";
import { useFile, usePurpose, useRail, useSaveStatus, useScreen } from "../../blade/screen.ts";
import { EDIT_MARK } from "../../blade/store.ts";
import { Numbers } from "../../rail/Numbers.tsx";
import { Rail } from "../../rail/Rail.tsx";
import { Section } from "../../rail/Section.tsx";
import type { SidePlace } from "../../rail/SideView.tsx";
import { numbersAt } from "../../rail/scribe-numbers.ts";
import { SaveTrouble } from "../../saving/SaveTrouble.tsx";
import { Solid } from "../../solid/Solid.tsx";
import { useJudging } from "../../workers/judge.ts";
import { Conflict } from "./BladeConflict.tsx";
import { BladeHeader } from "./BladeHeader.tsx";
import { Commands } from "./Commands.tsx";
import { ExportPanel } from "./ExportPanel.tsx";
import { HistoryPanel } from "./HistoryPanel.tsx";
import { LimitsPanel } from "./LimitsPanel.tsx";
import { BLADE_PAGES, type BladePage } from "./pages.ts";
import { Tray } from "./Tray.tsx";
import { useKeys } from "./useKeys.ts";
import { WholeFigures } from "./WholeFigures.tsx";

const EDIT_MEASURE = "true-spine-edit-drawn";

/** A blade's screen: header, strips, section and numbers, the page's controls, findings. */
export function BladeScreenView({ row }: { row: BladeWithFile }) {
  const { page } = useParams();
  const current = BLADE_PAGES.find((one) => one.path === page);
  useKeys();
  if (!current) return <Navigate to="../grind" relative="path" replace />;
  return (
    <div className="flex h-full flex-col">
      <BladeHeader row={row} page={current.path} />
      <Refusal />
      <Working page={current} />
      <Conflict />
      <Commands />
      <HistoryPanel />
      <LimitsPanel />
      <ExportPanel />
    </div>
  );
}

function Refusal() {
  return <SaveTrouble trouble={useSaveStatus()} onTry={useScreen().tryNow} />;
}

/** Everything below the header. It takes nothing from the blade itself, so that each part redraws on its own. */
const Working = memo(function Working({ page }: { page: BladePage }) {
  return (
    <>
      <Judging />
      {"Page" in page ? <page.Page /> : <Stripped page={page} />}
      {/* What is wrong with the work is told on its own page: the tray tells of the blade as it is drawn. */}
      {!("isOfWork" in page) && <Tray />}
      <SolidView />
    </>
  );
});

/** The strips, with the page's own handles on them and its controls beside them. */
function Stripped({ page }: { page: Extract<BladePage, { Controls: unknown }> }) {
  const { Controls, Handles } = page;
  const handles = useCallback((place: SidePlace) => <Handles place={place} />, [Handles]);
  return (
    // A tablet held upright has the drawing above and the controls below it, in two columns.
    <div className="flex min-h-0 flex-1 max-lg:portrait:flex-col">
      <div className="min-w-0 flex-1 max-lg:portrait:min-h-[55%]">
        <Rail handles={handles} />
      </div>
      <aside
        aria-label="At the scribe, and controls"
        className="w-84 shrink-0 overflow-y-auto border-l border-rule bg-room max-lg:portrait:w-full max-lg:portrait:shrink"
      >
        <div className="flex flex-col gap-1.5 max-lg:portrait:block max-lg:portrait:columns-2 max-lg:portrait:gap-1.5 max-lg:portrait:*:mb-1.5 max-lg:portrait:*:break-inside-avoid">
          <AtScribe />
          <WholeFigures />
          <Controls />
        </div>
      </aside>
    </div>
  );
}

function SolidView() {
  const { rail } = useScreen();
  const isOpen = useRail((state) => state.isSolidOpen);
  return isOpen ? <Solid onClose={() => rail.setState({ isSolidOpen: false })} /> : null;
}

/** Asks the worker about every edit, and leaves a performance measure of it: from its start to the drawing laid out. */
function Judging() {
  const file = useFile();
  useJudging();
  useLayoutEffect(() => {
    if (!file || performance.getEntriesByName(EDIT_MARK).length === 0) return;
    performance.clearMeasures(EDIT_MEASURE);
    performance.measure(EDIT_MEASURE, EDIT_MARK);
    performance.clearMarks(EDIT_MARK);
  }, [file]);
  return null;
}

function AtScribe() {
  const file = useFile();
  const scribe = useRail((state) => state.scribe);
  const unit = useSettings((settings) => settings.unit);
  const purpose = usePurpose();
  const ghost = useRail((state) => state.ghost);
  const field = fieldOf(file);
  const station = stationAtX(field, scribe);
  return (
    <>
      <Section file={file} x={scribe} station={station} />
      <Numbers rows={numbersAt(field, scribe, station, unit, purpose, ghost && fieldOf(ghost.file))} />
    </>
  );
}
