import { useQuery, useQueryClient } from "@tanstack/react-query";
import { ENOUGH_BLADES } from "@true-spine/core/inspect/runs.ts";
import { spotKey } from "@true-spine/core/inspect/schema.ts";
import type { PlaceReport, RunReport } from "@true-spine/core/record/run-report.ts";
import type { RunReadings } from "@true-spine/core/registry/contract.ts";
import type { Route } from "@true-spine/core/route/schema.ts";
import type { Shop } from "@true-spine/core/shop/schema.ts";
import { inUnit } from "@true-spine/core/units/sentence.ts";
import { writeRun } from "@true-spine/formats/write-run.ts";
import type { Remote } from "comlink";
import { X } from "lucide-react";
import { useEffect, useMemo, useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { useStore } from "zustand";
import { readDocument } from "../../api/blades.ts";
import { Refused, whyOf } from "../../api/client.ts";
import { deleteRun, takeBackRun, useRunReadings } from "../../api/runs.ts";
import { useSettings } from "../../app/settings.ts";
import { download } from "../../parts/download.ts";
import { NameBox } from "../../parts/NameBox.tsx";
import { useNotices } from "../../parts/Notices.tsx";
import { PlainButton } from "../../parts/PlainButton.tsx";
import { SavedElsewhere } from "../../parts/SavedElsewhere.tsx";
import { Sign } from "../../parts/Sign.tsx";
import { useTakenOnceKnown } from "../../parts/useTakenOnceKnown.ts";
import { useTitle } from "../../parts/useTitle.ts";
import { savedNow } from "../../saving/held.ts";
import { LeftWorkDialog } from "../../saving/LeftWorkDialog.tsx";
import { SaveTrouble } from "../../saving/SaveTrouble.tsx";
import { useHeld } from "../../saving/useHeld.ts";
import { saveWords } from "../../saving/words.ts";
import { useShop } from "../../shop/shop.ts";
import { useWork } from "../../workers/useWork.ts";
import { WorkTrouble } from "../../workers/WorkTrouble.tsx";
import type { Workers } from "../../workers/workers.ts";
import { PickBlades } from "./PickBlades.tsx";
import { PickPlace } from "./PickPlace.tsx";
import { PlaceCharts } from "./PlaceCharts.tsx";
import { holdRun, type RunSession } from "./run-session.ts";

/** One run: its blades in the order they were made, its places, and a chart of each. */
export function RunPage() {
  const { id = "" } = useParams();
  const { kept, trouble } = useHeld(holdRun, id);
  if (kept) return <OpenRun key={id} id={id} session={kept} />;
  return (
    <p role={trouble ? "alert" : undefined} className={`p-10 ${trouble ? "" : "text-faint"}`}>
      {trouble === null && "Fetching the run …"}
      {trouble === "away" && "The server does not answer. Trying again by itself; nothing is lost."}
      {trouble instanceof Refused &&
        (trouble.status === 404
          ? "There is no such run. It may have been deleted: deleted runs can be taken back from Runs for 30 days."
          : `The run cannot be shown: ${trouble.message}`)}
    </p>
  );
}

function OpenRun({ id, session }: { id: string; session: RunSession }) {
  const { file, left } = useStore(session.state);
  useTitle(file.name, "Runs");
  const { status, revision, theirs, why, isKept } = useStore(session.saving.state);
  const { data } = useRunReadings(id, revision);
  const { shop } = useShop();
  const unit = useSettings((settings) => settings.unit);
  const queries = useQueryClient();
  const navigate = useNavigate();
  const [chosen, setChosen] = useState(0);
  const [isPicking, setIsPicking] = useState<"blades" | "place" | null>(null);
  const specification = data?.specification?.id;
  const route = useQuery({
    queryKey: ["document", specification, "route"],
    queryFn: () => readDocument(specification!, "route"),
    enabled: specification !== undefined,
  });
  const isReady = data && (specification === undefined || route.data);
  const question = useMemo(
    () => (isReady ? { data, route: route.data?.file ?? null, shop } : null),
    [isReady, data, route.data, shop],
  );
  const { answer, isBehind, trouble, tryAgain } = useWork("bench", question, reportOf);
  const report = answer?.value ?? null;
  useEffect(() => {
    if (status === "saved") void queries.invalidateQueries({ queryKey: ["runs"], exact: true });
  }, [status, queries]);
  const change = session.put;
  const refresh = () => queries.invalidateQueries({ queryKey: ["runs"] });
  const { tell } = useNotices.getState();
  const remove = async () => {
    try {
      // What was typed last is part of what can be taken back.
      if (!(await savedNow(session))) {
        tell("The run was not deleted: what was typed last is not saved yet.");
        return;
      }
      await deleteRun(id);
      navigate("/runs");
      void refresh();
      tell(`Deleted ${file.name}. It can be taken back from Runs for 30 days.`, () => {
        takeBackRun(id).then(refresh, (error: unknown) => tell(`${whyOf(error)} The run stays deleted.`));
      });
    } catch (error) {
      tell(`${whyOf(error)} The run was not deleted.`);
    }
  };
  const { press, waiting } = useTakenOnceKnown(
    new Map(report && data ? [["sheet", { report, data }]] : []),
    trouble === null && (!data || !report || isBehind),
    (of) => download(file.name, "-batch.csv", writeRun(of.data, of.report), "text/csv"),
  );
  const pickPlace = () => {
    if (file.blades.length === 0) tell("Add a blade to this run first: the places to chart are the blade's.");
    else setIsPicking("place");
  };
  const blades = data?.blades ?? [];
  const place = report?.places[Math.min(chosen, (report?.places.length ?? 1) - 1)] ?? null;
  return (
    <div className="flex h-full flex-col">
      <header className="flex h-13 shrink-0 items-center gap-3 border-b border-rule bg-paper px-5">
        <Link to="/runs" className="text-sm text-faint hover:underline">
          Runs
        </Link>
        <h1 className="sr-only">{file.name}</h1>
        <NameBox
          label="Name of the run"
          labelled="hidden"
          className="w-72"
          maxLength={120}
          name={file.name}
          onName={(name) => change({ ...file, name })}
        />
        <span className="text-sm text-faint" role="status">
          {file.blades.length} blades
          {report &&
            !isBehind &&
            !report.drifts &&
            report.places.some(({ chart }) => chart) &&
            "; no place drifts"}{" "}
          · {saveWords(status, isKept)}
        </span>
        <span className="ml-auto flex gap-2">
          <PlainButton onClick={() => setIsPicking("blades")}>Blades</PlainButton>
          <PlainButton isBusy={isPicking === "place" && !data?.specification} onClick={pickPlace}>
            Add a place
          </PlainButton>
          <PlainButton isBusy={waiting !== null} onClick={() => press("sheet")}>
            {waiting === null ? "Batch sheet" : "Batch sheet …"}
          </PlainButton>
          <PlainButton onClick={() => void remove()}>Delete</PlainButton>
        </span>
      </header>
      <SaveTrouble trouble={{ status, why, isKept }} onTry={session.tryNow} />
      {trouble && (
        <div className="border-b border-rule bg-sheet px-5 py-2">
          <WorkTrouble what="The charts" trouble={trouble} onTry={tryAgain} />
        </div>
      )}
      {!trouble && question && isBehind && !report && (
        <p className="border-b border-rule bg-sheet px-5 py-2 text-sm text-faint">Working the charts out …</p>
      )}
      {report?.drifts && (
        <p className="flex items-center gap-2 border-b border-rule bg-sheet px-5 py-2 text-sm font-semibold">
          <Sign of="watch" /> {inUnit(report.drifts, unit)}
        </p>
      )}
      <div className="flex min-h-0 flex-1">
        <ul aria-label="Places" className="w-72 shrink-0 overflow-y-auto border-r border-rule bg-room">
          {file.blades.length === 0 && (
            <li className="p-4 text-sm text-faint">
              No blades yet. Pick those that were made to one specification, in the order they were made.
            </li>
          )}
          {file.blades.length > 0 && file.places.length === 0 && (
            <li className="p-4 text-sm text-faint">No places yet. Add one that was read on every blade.</li>
          )}
          {report?.places.map((one, i) => (
            <li
              key={`${one.place.stage} ${spotKey(one.place.spot)}`}
              className="flex items-start border-b border-rule"
            >
              <button
                type="button"
                aria-pressed={i === chosen}
                onClick={() => setChosen(i)}
                className={`min-w-0 flex-1 px-4 py-2 text-left text-sm ${i === chosen ? "bg-band" : "hover:bg-rule"}`}
              >
                <span className="flex items-center gap-2 font-semibold">
                  <Sign of={signOf(one)} />
                  {inUnit(one.name, unit)}
                </span>
                <span className="text-xs text-faint">
                  {one.points.length} of {blades.length} read
                  {one.chart && one.chart.signals.length > 0 && `, ${one.chart.signals.length} signals`}
                </span>
              </button>
              <button
                type="button"
                aria-label={`Remove ${one.name}`}
                className="m-1 rounded p-1.5 text-faint hover:bg-rule"
                onClick={() => change({ ...file, places: file.places.filter((_, k) => k !== i) })}
              >
                <X className="size-4" aria-hidden />
              </button>
            </li>
          ))}
        </ul>
        <div className="min-w-0 flex-1 overflow-y-auto p-5">
          {place && <PlaceCharts place={place} blades={blades} />}
          {place && !place.capability && (
            <p className="mt-3 max-w-prose text-xs text-faint">
              Capability is not given below {ENOUGH_BLADES} blades: it would say nothing.
            </p>
          )}
        </div>
      </div>
      {isPicking === "blades" && (
        <PickBlades
          picked={file.blades}
          onKeep={(blades) => {
            setIsPicking(null);
            change({ ...file, blades });
          }}
          onClose={() => setIsPicking(null)}
        />
      )}
      {isPicking === "place" && data?.specification && (
        <PickPlace
          specification={data.specification}
          known={file.places}
          onPick={(next) => {
            setIsPicking(null);
            change({ ...file, places: [...file.places, next] });
          }}
          onClose={() => setIsPicking(null)}
        />
      )}
      {theirs && (
        <SavedElsewhere
          title="This run was saved elsewhere while you worked on it"
          onTake={session.saving.takeTheirs}
          onKeep={session.saving.keepMine}
        >
          Another tab or another person saved it as number {theirs.revision}. Choose which one stands.
        </SavedElsewhere>
      )}
      <LeftWorkDialog
        works={left}
        name={file.name}
        partName={() => "this run"}
        isSound={session.isSound}
        isBusy={status !== "saved"}
        onOpen={session.takeUp}
        onGone={(gone) => session.state.setState({ left: left.filter((work) => work !== gone) })}
      />
    </div>
  );
}

interface Question {
  readonly data: RunReadings;
  readonly route: Route | null;
  readonly shop: Shop;
}

async function reportOf(
  remote: Remote<Workers["bench"]>,
  { data, route, shop }: Question,
  tell: (report: RunReport) => void,
): Promise<void> {
  tell(await remote.run(data, route, shop));
}

/** Out of its limits to fix, in need of a look to watch, steady otherwise. */
function signOf({ chart, capability }: PlaceReport): "fix" | "watch" | "well" | "note" {
  if (!chart) return "note";
  if (capability && capability.cpk < 1) return "fix";
  return chart.signals.length > 0 ? "watch" : "well";
}
