import { abrasiveName } from "@true-spine/core/abrasive/schema.ts";
import type { EdgeReport, StepReport } from "@true-spine/core/route/edge-report.ts";
import type { WhichEdge } from "@true-spine/core/route/schema.ts";
import { showLengthWithUnit } from "@true-spine/core/units/length.ts";
import { useState } from "react";
import { Link } from "react-router";
import { useSettings } from "../../app/settings.ts";
import { useFilePart, useScreen } from "../../blade/screen.ts";
import { Caution } from "../../parts/Caution.tsx";
import { record, useRoute } from "../../work/useWorkRows.ts";
import { useEdge } from "../../workers/edge.ts";
import { WorkTrouble } from "../../workers/WorkTrouble.tsx";
import { angleWords, SET_WORDS, STEP_NAMES, settingWords } from "../edge/words.ts";
import { Big } from "./CardButtons.tsx";
import { useAwake } from "./useAwake.ts";

const PLACES = ["heel", "middle", "tip"] as const;
/** By hand about one stroke a second. Starting value. */
const STROKES_A_MINUTE = 60;

interface Turn {
  readonly step: StepReport;
  readonly stone: string;
  readonly strokes: number | null;
}

/** At the stone: one abrasive at a time, what to set, a burr at heel, middle and tip on both sides, then the next. */
export function EdgeCard({ which }: { which: WhichEdge }) {
  const screen = useScreen();
  const { id } = screen;
  const name = useFilePart((file) => file.name);
  const unit = useSettings((settings) => settings.unit);
  const route = useRoute();
  const { answer, trouble, tryAgain } = useEdge(which);
  const [at, setAt] = useState(0);
  const [burrs, setBurrs] = useState<ReadonlySet<string>>(new Set());
  const [isDone, setIsDone] = useState(false);
  const report = answer?.value?.report ?? null;
  const turns = report ? turnsOf(report) : [];
  const now = Math.min(at, Math.max(0, turns.length - 1));
  const turn = turns[now] ?? null;
  const own = route.stages.findLast(({ kind, edge = which }) => kind === "sharpen" && edge === which);
  // The first time it is the edge's own making: the stage of its route. What comes after takes off what is drawn.
  const isMaking = own !== undefined && own.done === undefined;
  useAwake();
  const go = (to: number) => {
    setAt(Math.max(0, Math.min(turns.length - 1, to)));
    setBurrs(new Set());
  };
  const finish = () => {
    if (isMaking) record(screen, { stage: own.id, what: "done" });
    else
      record(screen, {
        stage: own?.id ?? "sharpen",
        what: "sharpened",
        kind: "full",
        ...(which === "second" ? { edge: "second" } : {}),
      });
    setIsDone(true);
  };
  const isLast = now === turns.length - 1;
  const middle = report?.places[1];
  return (
    <div className="flex h-full flex-col bg-room">
      <header className="flex min-h-14 items-center gap-5 bg-paper px-5 py-2">
        <h1 className="text-lg font-bold">{name}: edge</h1>
        <span className="text-base text-faint" role="status">
          {turns.length > 0 && `${now + 1} of ${turns.length}`}
          {isDone && ", sharpened, written down"}
        </span>
        <Link className="ml-auto text-base font-semibold underline" to={`/blades/${id}/edge`}>
          Back to the page
        </Link>
      </header>
      <WorkTrouble what="The edge" trouble={trouble} onTry={tryAgain} />
      {turn && report && middle ? (
        <div className="grid min-h-0 flex-1 grid-cols-[1fr_1.4fr] gap-px overflow-y-auto bg-rule max-lg:portrait:grid-cols-1">
          <section aria-label="The step" className="flex flex-col gap-4 bg-paper p-6">
            <p className="text-2xl font-bold">{STEP_NAMES[turn.step.step.kind]}</p>
            <p className="text-6xl font-bold">{angleWords(turn.step.step.angle)}</p>
            <p className="text-2xl">{turn.stone}</p>
            <p className="text-xl text-faint">
              {turn.strokes !== null && `About ${turn.strokes} strokes a side. `}
              Blade {showLengthWithUnit(middle.height + turn.step.proud, unit)} high in the middle after it.
            </p>
          </section>
          <section aria-label="Set it to" className="bg-sheet p-6">
            <p className="mb-3 text-xl text-faint">{SET_WORDS[turn.step.tool.holds.kind]}</p>
            <div className="grid grid-cols-3 gap-4">
              {PLACES.map((place, i) => (
                <div key={place}>
                  <p className="text-lg text-faint">{place}</p>
                  <p className="text-4xl font-bold whitespace-nowrap">
                    {settingWords(
                      turn.step.settings[turn.step.step.angle.right > 0 ? "right" : "left"][i]!,
                      unit,
                    )}
                  </p>
                </div>
              ))}
            </div>
            {turn.step.step.kind !== "strop" && (
              <fieldset className="mt-6">
                <legend className="mb-2 text-xl">
                  {turn.step.step.burr === "finest" && !isFinest(turns, now)
                    ? "A burr at the finest alone: no need of one here"
                    : "A burr along all of it, then the other side"}
                </legend>
                <div className="grid grid-cols-3 gap-3">
                  {(["one side", "the other"] as const).flatMap((side) =>
                    PLACES.map((place) => {
                      const key = `${side} ${place}`;
                      return (
                        <label
                          key={key}
                          className="flex min-h-16 items-center gap-3 rounded border border-frame bg-paper px-3 text-lg"
                        >
                          <input
                            type="checkbox"
                            className="size-6"
                            checked={burrs.has(key)}
                            onChange={(event) => {
                              const next = new Set(burrs);
                              if (event.currentTarget.checked) next.add(key);
                              else next.delete(key);
                              setBurrs(next);
                            }}
                          />
                          {side}, {place}
                        </label>
                      );
                    }),
                  )}
                </div>
              </fieldset>
            )}
          </section>
        </div>
      ) : (
        <p className="flex-1 p-8 text-2xl">{answer ? "No edge to sharpen yet." : "Working it out …"}</p>
      )}
      <div className="bg-sheet px-5 py-3">
        <Caution>
          Sharp from the first burr. Last strokes by turns, light. Edge trailing on belt, wheel and strop;
          cut-proof gloves at hand stones only.
        </Caution>
      </div>
      <div className="grid grid-cols-2 gap-px bg-rule">
        <Big isOff={now === 0} onClick={() => go(now - 1)}>
          Back
        </Big>
        {isLast ? (
          <Big isMain isOff={isDone || turns.length === 0} onClick={finish}>
            Sharpened
          </Big>
        ) : (
          <Big isMain onClick={() => go(now + 1)}>
            Next
          </Big>
        )}
      </div>
    </div>
  );
}

function turnsOf({ steps }: EdgeReport): Turn[] {
  return steps.flatMap((step): Turn[] => {
    if (!step.ladder?.ok)
      return [
        {
          step,
          stone: step.step.kind === "strop" ? "the strop" : `down to ${step.step.to} µm`,
          strokes: null,
        },
      ];
    return step.ladder.sequence.steps.map(({ belt, minutes }) => ({
      step,
      stone: abrasiveName(belt),
      strokes: Math.max(5, 5 * Math.round((minutes * STROKES_A_MINUTE) / 2 / 5)),
    }));
  });
}

const isFinest = (turns: readonly Turn[], at: number) => turns[at + 1]?.step !== turns[at]!.step;
