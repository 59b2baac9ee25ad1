import { NO_THIN } from "@true-spine/core/edge/schema.ts";
import { stepsOfEdge } from "@true-spine/core/route/edge-report.ts";
import type { WhichEdge } from "@true-spine/core/route/schema.ts";
import { useMemo, useState } from "react";
import { Link } from "react-router";
import { useDocument, useFile, useScreen } from "../../blade/screen.ts";
import { NumberBox } from "../../parts/Box.tsx";
import { Caution } from "../../parts/Caution.tsx";
import { FoundList } from "../../parts/FoundList.tsx";
import { Segmented } from "../../parts/Segmented.tsx";
import { Workspace } from "../../parts/Workspace.tsx";
import { useEdge } from "../../workers/edge.ts";
import { WorkTrouble } from "../../workers/WorkTrouble.tsx";
import { EdgeStrip } from "./EdgeStrip.tsx";
import { DoneGroup, LifeGroup } from "./LifeGroup.tsx";
import { LifeTable } from "./LifeTable.tsx";
import { StepGroup } from "./StepGroup.tsx";
import { StepsTable } from "./StepsTable.tsx";
import { ThinGroup } from "./ThinGroup.tsx";
import { useEdgeDocument } from "./useEdgeDocument.ts";

const CAUTION =
  "Sharp from the first burr. Edge trailing on belt, wheel and strop; a buffer snatches. Cut-proof gloves at hand stones only, none at a machine.";

/** How its edge is sharpened, step by step, and what years of that make of it. */
export function EdgePage() {
  const { id } = useScreen();
  const file = useFile();
  const route = useDocument("route");
  const [which, setWhich] = useState<WhichEdge>("first");
  const [picked, setPicked] = useState(0);
  const [after, setAfter] = useState<number | undefined>(undefined);
  const { answer, isBehind, trouble, tryAgain } = useEdge(which, after);
  const isOld = isBehind || trouble !== null;
  const value = answer?.to.asked.which === which ? answer.value : null;
  const report = value?.report ?? null;
  const doc = useDocument("edge");
  const steps = useMemo(
    () => stepsOfEdge(file, doc, which, route.finish.edge),
    [file, doc, which, route.finish.edge],
  );
  const chosen = Math.max(0, Math.min(picked, steps.length - 1));
  const step = report?.steps[chosen] ?? null;
  const edit = useEdgeDocument(which, steps);
  const stage =
    route.stages.findLast(({ kind, edge = which }) => kind === "sharpen" && edge === which)?.id ?? "sharpen";
  const hasNone = answer !== null && answer.to.asked.which === which && answer.value === null;
  return (
    <Workspace
      isBusy={isBehind}
      asideLabel="The step that is chosen, and the edge's life"
      aside={
        <>
          {report && step && steps[chosen] && (
            <StepGroup
              key={`${which} ${chosen}`}
              report={report}
              worked={step}
              step={steps[chosen]}
              i={chosen}
              edit={edit}
              isOld={isOld}
            />
          )}
          {report && <LifeGroup report={report} edit={edit} />}
          {report && <DoneGroup report={report} stage={stage} />}
          {report && value?.thin && (
            <ThinGroup
              report={report}
              thin={value.thin}
              chosen={doc.thin ?? NO_THIN}
              stage={stage}
              edit={edit}
              isOld={isOld}
            />
          )}
          <Caution>{CAUTION}</Caution>
        </>
      }
    >
      <div className="h-[42%] shrink-0 border-b border-rule bg-paper">
        <h2 className="sr-only">The edge along the blade</h2>
        {report ? (
          <EdgeStrip report={report} step={step} />
        ) : (
          !trouble && (
            <p className="p-6 text-faint">{hasNone ? "No edge to sharpen yet." : "Working it out …"}</p>
          )
        )}
      </div>
      <div className="min-h-0 flex-1 overflow-y-auto bg-sheet px-3">
        <WorkTrouble what="The edge" trouble={trouble} onTry={tryAgain} />
        <div className="flex flex-wrap items-center gap-3 py-2 text-sm">
          {file.secondEdge && (
            <Segmented
              label="Which edge"
              options={["first", "second"]}
              value={which}
              names={{ first: "first edge", second: "second edge" }}
              onChange={setWhich}
            />
          )}
          <Link className="font-semibold underline" to={`/card/${id}?edge=${which}`}>
            At the stone, large
          </Link>
          {report && !report.life.isZero && (
            <span className="flex items-center gap-2 text-faint">
              <span aria-hidden>Shown after</span>
              <NumberBox
                label="Shown after so many sharpenings"
                value={Math.round(report.life.after.n)}
                least={0}
                most={100_000}
                isWhole
                onChange={setAfter}
              />
              sharpenings
            </span>
          )}
        </div>
        <FoundList
          label="Will this edge do"
          findings={value?.findings ?? []}
          isOld={isOld}
          onTake={({ edge }) => edit.press(() => edge)}
        />
        {report && (
          <>
            <StepsTable report={report} chosen={chosen} onChoose={setPicked} onMore={edit.more} />
            <LifeTable report={report} />
            {(value?.notJudged ?? []).map(({ id: of, why }) => (
              <p key={`${of} ${why}`} className="py-1 text-xs text-faint">
                Not judged: {why}
              </p>
            ))}
          </>
        )}
      </div>
    </Workspace>
  );
}
