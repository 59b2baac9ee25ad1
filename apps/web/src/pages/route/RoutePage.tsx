import { firstRoute } from "@true-spine/core/route/first.ts";
import type { Stage, StageKind } from "@true-spine/core/route/schema.ts";
import { nameOf, SCHOOLS, type School, stageName } from "@true-spine/core/route/stages.ts";
import { inUnit } from "@true-spine/core/units/sentence.ts";
import { useState } from "react";
import { Link } from "react-router";
import { useSettings } from "../../app/settings.ts";
import { useScreen } from "../../blade/screen.ts";
import { whyNot } from "../../blade/store.ts";
import { FoundList } from "../../parts/FoundList.tsx";
import { Choice, SmallButton } from "../../parts/Group.tsx";
import { Sign } from "../../parts/Sign.tsx";
import { StraightLink } from "../../parts/StraightLink.tsx";
import { Workspace } from "../../parts/Workspace.tsx";
import {
  carriedOut,
  notDone,
  record,
  tick,
  useCheck,
  useRoute,
  useWorkRows,
} from "../../work/useWorkRows.ts";
import { useRouteReport } from "../../workers/route.ts";
import { WorkTrouble } from "../../workers/WorkTrouble.tsx";
import { LadderRail } from "./LadderRail.tsx";
import { LayoutGroup } from "./LayoutGroup.tsx";
import { RemovedStages } from "./RemovedStages.tsx";
import { RouteControls } from "./RouteControls.tsx";
import { StageGroup } from "./StageGroup.tsx";
import { StageSection } from "./StageSection.tsx";
import { StageTable } from "./StageTable.tsx";

/** From bar to finished edge: the ladder of stages, what each leaves, its belts, its layout and its set-up. */
export function RoutePage() {
  const screen = useScreen();
  const { open, id } = screen;
  const route = useRoute();
  const rows = useWorkRows();
  const { report, findings, isBehind, trouble, tryAgain } = useRouteReport();
  const [picked, setPicked] = useState<number | null>(null);
  if (route.stages.length === 0) return <NoRoute />;
  const next = route.stages.findIndex((stage) => stage.done === undefined);
  const chosen = Math.min(picked ?? Math.max(0, next), route.stages.length - 1);
  const plan = route.stages[chosen]!;
  const stage = report?.stages.find((one) => one.id === plan.id);
  /** A note is written down as it is; one that is cleared is struck out. */
  const note = (words: string) => {
    for (const row of rows)
      if (row.what === "note" && row.stage === plan.id) screen.work.strike(row.id, true);
    if (words) record(screen, { stage: plan.id, what: "note", words });
    else if (plan.note)
      change((all) => all.map((one) => (one.id === plan.id ? withPart(one, { note: undefined }) : one)));
  };
  // From the route as it stands, not as it was drawn: two changes may come before the next drawing.
  const change = (of: (stages: readonly Stage[]) => Stage[]) => {
    const now = open.store.getState().route;
    open.end();
    open.put({ route: { ...now, stages: of(now.stages) } });
  };
  return (
    <Workspace
      isBusy={isBehind}
      asideLabel="The stage, and what is chosen"
      aside={
        <>
          {report && <StageSection stages={report.stages} chosen={chosen} />}
          {stage && (
            <StageGroup
              key={plan.id}
              stage={stage}
              plan={plan}
              onNote={note}
              onPlan={(part) =>
                change((all) => all.map((one) => (one.id === plan.id ? withPart(one, part) : one)))
              }
            />
          )}
          {report?.layout && <LayoutGroup layout={report.layout} />}
          {report && <StraightLink words="Every fire and every grind moves it:" />}
          <RouteControls report={report ?? NOT_YET} />
          <RemovedStages />
        </>
      }
    >
      <div className="h-[52%] shrink-0 max-lg:portrait:h-[46%]">
        {report ? (
          <LadderRail stages={report.stages} chosen={chosen} />
        ) : (
          <div className="p-6">{!trouble && <p className="text-faint">Working the stages out …</p>}</div>
        )}
      </div>
      <div className="min-h-0 flex-1 overflow-y-auto border-t border-rule bg-sheet px-2">
        <WorkTrouble what="The route" trouble={trouble} onTry={tryAgain} />
        <p className="flex items-center gap-3 py-1.5 text-xs text-faint">
          {/* Loaded anew: only a page that was is looked after when the network goes. */}
          <Link
            reloadDocument
            to={`/card/${id}`}
            className="rounded bg-deep px-3 py-1.5 text-sm font-semibold text-on-deep"
          >
            To the grinder card
          </Link>
          {next < 0
            ? "Every stage is done."
            : `${route.stages.filter((one) => one.done).length} of ${route.stages.length} done.`}
          {report && report.minutes > 0 && ` About ${report.minutes} minutes at the belts still to come.`}
        </p>
        <FoundList
          label="Is the plan sound"
          findings={findings}
          isOld={isBehind || trouble !== null}
          onTake={({ blade, route: changed }) => {
            open.end();
            return whyNot(
              open.put({ ...(blade ? { file: blade } : {}), ...(changed ? { route: changed } : {}) }),
            );
          }}
        />
        <StandingCorrections />
        <StageTable
          route={route}
          stages={report?.stages ?? null}
          chosen={chosen}
          onChoose={setPicked}
          onDone={(one, isDone) =>
            isDone ? tick(screen, one, nameOf(one, route.stages)) : notDone(screen, one.id)
          }
          onChange={change}
        />
      </div>
    </Workspace>
  );
}

/** Corrections that were accepted at the bench and are still to be done: steps of the route like any other. */
function StandingCorrections() {
  const unit = useSettings((settings) => settings.unit);
  const screen = useScreen();
  const route = useRoute();
  const { corrections } = useCheck();
  const standing = corrections.filter(({ done }) => !done);
  if (standing.length === 0) return null;
  return (
    <ul aria-label="Corrections" className="border-t border-rule">
      {standing.map((one) => (
        <li key={one.id} className="flex items-center gap-2 border-b border-rule py-1.5 text-sm">
          <Sign of="fix" className="size-3.5" />
          <span className="min-w-0 flex-1">
            Correction after {stageName(route, one.stage).toLowerCase()}: {inUnit(one.why, unit)}
          </span>
          <SmallButton onClick={() => carriedOut(screen, [one])}>Done</SmallButton>
        </li>
      ))}
    </ul>
  );
}

/** A stage with a part of it changed; what is undefined is removed. */
function withPart(stage: Stage, part: Partial<Stage>): Stage {
  return Object.fromEntries(
    Object.entries({ ...stage, ...part }).filter(([, value]) => value !== undefined),
  ) as Stage;
}

function NoRoute() {
  const screen = useScreen();
  const { open } = screen;
  const [from, setFrom] = useState<StageKind>("stock");
  const begin = (school: School) => {
    const { file, route } = open.store.getState();
    const made = firstRoute(file, school, route);
    open.end();
    open.put({ route: made });
    // A blade that is ground so far has been through what comes before.
    const standsAt = made.stages.findIndex(({ kind }) => kind === from);
    for (const stage of made.stages.slice(0, Math.max(0, standsAt)))
      record(screen, { stage: stage.id, what: "done" });
  };
  return (
    <div className="min-h-0 flex-1 overflow-y-auto p-8">
      <h2 className="text-lg font-bold">No route yet</h2>
      <p className="mt-1 max-w-prose text-sm text-faint">
        Choose how you work. Every stage is worked out backwards from the finished blade: the edge to stop at,
        the line to scribe, the belts. All of it can be changed.
      </p>
      <div className="mt-4 max-w-sm">
        <Choice
          label="In hand is"
          value={from}
          options={BEGINNINGS.map(([value, name]) => ({ value, name }))}
          onChange={(value) => setFrom(value as StageKind)}
        />
      </div>
      {from !== "stock" && (
        <p className="mt-1 max-w-prose text-sm text-faint">
          What comes before is ticked as done. Read it at Check, and the readings say what is left.
        </p>
      )}
      <ul className="mt-4 flex max-w-prose flex-col gap-2">
        {SCHOOLS.map((school) => (
          <li key={school.key}>
            <button
              type="button"
              className="w-full rounded border border-frame bg-sheet px-4 py-3 text-left hover:bg-room"
              onClick={() => begin(school)}
            >
              <span className="block font-semibold first-letter:uppercase">{school.name}</span>
              <span className="block text-sm text-faint">{school.words}</span>
            </button>
          </li>
        ))}
      </ul>
    </div>
  );
}

const NOT_YET = { stages: [] };

/** The stage that is next, by what lies on the bench. */
const BEGINNINGS: readonly (readonly [StageKind, string])[] = [
  ["stock", "the bar"],
  ["layout", "a profiled blank, its flats clean"],
  ["harden", "a blade ground soft"],
  ["true", "a hardened blade"],
  ["grits", "a blade with its finish bevels"],
  ["sharpen", "a finished blade, not sharp yet"],
];
