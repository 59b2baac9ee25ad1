import type { BladeWithFile } from "@true-spine/core/registry/contract.ts";
import { memo, Suspense, useEffect, useLayoutEffect } from "react";
import { Navigate, useParams } from "react-router";
import { useFile, useFilePart, useRail, useSaveStatus, useScreen } from "../../blade/screen.ts";
import { EDIT_MARK } from "../../blade/store.ts";
import { fetchAhead, later } from "../../parts/later.ts";
import { useTitle } from "../../parts/useTitle.ts";
import { SaveTrouble } from "../../saving/SaveTrouble.tsx";
import { useJudging } from "../../workers/judge.ts";
import { BladeConflict } from "./BladeConflict.tsx";
import { BladeHeader } from "./BladeHeader.tsx";
import { Commands } from "./Commands.tsx";
import { HistoryPanel } from "./HistoryPanel.tsx";
import { LimitsPanel } from "./LimitsPanel.tsx";
import { BLADE_PAGES, type BladePage, PAGES_UNDER, usePages } from "./pages.ts";
import { TakeIn } from "./TakeIn.tsx";
import { Tray } from "./Tray.tsx";
import { useKeys } from "./useKeys.ts";

const EDIT_MEASURE = "true-spine-edit-drawn";
const ExportPanel = later(async () => (await import("./ExportPanel.tsx")).ExportPanel);
const Solid = later(async () => (await import("../../solid/Solid.tsx")).Solid);
const AHEAD = [...BLADE_PAGES.map(({ Page }) => Page.load), ExportPanel.load];

/** A blade's screen: header, the page, findings. */
export function BladeScreenView({ row }: { row: BladeWithFile }) {
  const { page } = useParams();
  const standing = usePages();
  const current = [...standing, ...PAGES_UNDER].find((one) => one.path === page);
  const name = useFilePart((file) => file.name);
  useKeys();
  useTitle(current?.name, name);
  useEffect(() => fetchAhead(AHEAD), []);
  if (!current) return <Navigate to="../grind" relative="path" replace />;
  return (
    <div className="flex h-full flex-col">
      <BladeHeader row={row} page={current.under ?? current.path} />
      <Refusal />
      <Working page={current} />
      <TakeIn />
      <BladeConflict />
      <Commands />
      <HistoryPanel />
      <LimitsPanel />
      <Exporting />
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
      <Suspense fallback={<p className="flex-1 p-6 text-faint">Loading the page …</p>}>
        <page.Page />
      </Suspense>
      {!page.isOfWork && <Tray />}
      <SolidView />
    </>
  );
});

function SolidView() {
  const { rail } = useScreen();
  const isOpen = useRail((state) => state.isSolidOpen);
  if (!isOpen) return null;
  return (
    <Suspense fallback={null}>
      <Solid onClose={() => rail.setState({ isSolidOpen: false })} />
    </Suspense>
  );
}

function Exporting() {
  const isOpen = useRail((state) => state.panel === "export");
  if (!isOpen) return null;
  return (
    <Suspense fallback={null}>
      <ExportPanel />
    </Suspense>
  );
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
