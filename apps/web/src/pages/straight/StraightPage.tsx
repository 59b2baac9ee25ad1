import type { Finding } from "@true-spine/core/findings/finding.ts";
import { chosenState, statesAt } from "@true-spine/core/inspect/straightness.ts";
import { stageName } from "@true-spine/core/route/stages.ts";
import { firstFace } from "@true-spine/core/straight/advice.ts";
import type { State, StraightSet } from "@true-spine/core/straight/schema.ts";
import { showLengthWithUnit } from "@true-spine/core/units/length.ts";
import { straightAt } from "@true-spine/core/work/joined.ts";
import { useState } from "react";
import { Link, useSearchParams } from "react-router";
import { useSettings } from "../../app/settings.ts";
import { useDocument, useScreen } from "../../blade/screen.ts";
import { FoundList } from "../../parts/FoundList.tsx";
import { Choice, Group, SmallButton } from "../../parts/Group.tsx";
import { Segmented } from "../../parts/Segmented.tsx";
import { Workspace } from "../../parts/Workspace.tsx";
import { useShop } from "../../shop/shop.ts";
import { useRoute, useWorkRows } from "../../work/useWorkRows.ts";
import { useStraight } from "../../workers/straight.ts";
import { WorkTrouble } from "../../workers/WorkTrouble.tsx";
import { stagesToCheck, stageToCheck } from "../check/stage.ts";
import { AnvilGroup } from "./AnvilGroup.tsx";
import { readAnvil, useLaid } from "./anvil.ts";
import { BendStrip } from "./BendStrip.tsx";
import { HeldView } from "./HeldView.tsx";
import { ReadSetGroup } from "./ReadSetGroup.tsx";
import { StraightLog } from "./StraightLog.tsx";
import { StruckGroup } from "./StruckGroup.tsx";
import { WorkGroup } from "./WorkGroup.tsx";

const STATE_NAMES: Readonly<Record<State, string>> = {
  soft: "soft",
  hot: "at black heat",
  window: "in the oil, above martensite",
  raw: "hard, not tempered",
  temper: "in its temper",
  hard: "hard and tempered",
};

/** How straight a blade is: what was read along it, which bend that is, and where to work. */
export function StraightPage() {
  const screen = useScreen();
  const { id, open } = screen;
  const route = useRoute();
  const straight = useDocument("straight");
  const rows = useWorkRows();
  const hand = useSettings((settings) => settings.hand);
  const setHand = useSettings((settings) => settings.setHand);
  const unit = useSettings((settings) => settings.unit);
  const { shop, put: putShop } = useShop();
  const [search] = useSearchParams();
  const [after, setAfter] = useState(search.get("after"));
  const [face, setFace] = useState<StraightSet["face"] | null>(null);
  const [laid, setLaid] = useLaid(id);
  const stage = after !== null && stagesToCheck(route).includes(after) ? after : stageToCheck(route);
  const { answer, isBehind, trouble, tryAgain } = useStraight(stage);
  const allowed = statesAt(route, stage);
  const isOfStage = answer?.to.asked.stage === stage;
  const value = isOfStage ? answer.value : null;
  const report = value?.report ?? null;
  const { sets, blows } = straightAt(rows.filter((row) => row.stage === stage));
  const advised = report?.work[0]?.advice.face ?? null;
  const shown = advised ?? face ?? firstFace(hand);
  const own = shop.instruments?.find(({ kind }) => kind === "feelers");
  const rule = report?.rule ?? null;
  return (
    <Workspace
      isBusy={isBehind}
      asideLabel="What is read, and what is done"
      aside={
        <>
          <Group title="How it stands">
            <Choice
              label="After"
              value={stage}
              options={stagesToCheck(route).map((one) => ({ value: one, name: stageName(route, one) }))}
              onChange={setAfter}
            />
            <Choice
              label="The steel is"
              value={chosenState(route, straight, stage)}
              options={allowed.map((one) => ({ value: one, name: STATE_NAMES[one] }))}
              onChange={(next) => {
                const others = (straight.states ?? []).filter((one) => one.stage !== stage);
                const states = next === allowed[0] ? others : [...others, { stage, state: next as State }];
                open.end();
                open.put({ straight: { ...straight, states } });
              }}
            />
            {!allowed.includes("soft") && (
              <p className="text-xs text-faint">
                The route hardens the blade before this stage, so the steel is not worked as soft.
              </p>
            )}
            <label className="flex items-center gap-2 text-sm">
              <input
                type="checkbox"
                checked={straight.unknown}
                onChange={(event) => {
                  open.end();
                  open.put({ straight: { ...straight, unknown: event.currentTarget.checked } });
                }}
              />
              nobody knows how it is built
            </label>
            <Segmented
              label="Hand"
              options={["right", "left"]}
              value={hand}
              names={{ right: "right-handed", left: "left-handed" }}
              onChange={setHand}
            />
          </Group>
          {report && (
            <>
              <WorkGroup report={report} words={value!.work} stage={stage} lastSet={sets.at(-1)} />
              <ReadSetGroup
                key={stage}
                report={report}
                stage={stage}
                state={report.state}
                face={face ?? firstFace(hand)}
                onFace={setFace}
                instrument={own?.id}
                onAnvil={
                  laid && (async (kind, on, xs) => readAnvil(id, { stage, kind, face: on, xs, y: report.y }))
                }
              />
            </>
          )}
          <StruckGroup here={report?.here ?? null} />
          {rule && (
            <Group title="The straightedge itself">
              <p className="text-sm">
                By the last two, turned over: the straightedge is bent by{" "}
                <strong>{showLengthWithUnit(Math.abs(rule.bow.height), unit)}</strong> ±{" "}
                {showLengthWithUnit(2 * rule.bow.u, unit)}.
              </p>
              {own ? (
                <SmallButton
                  onClick={() =>
                    putShop({
                      ...shop,
                      instruments: (shop.instruments ?? []).map((one) =>
                        one === own
                          ? { ...one, shape: [...rule.own], checked: new Date().toISOString().slice(0, 10) }
                          : one,
                      ),
                    })
                  }
                >
                  Keep it with {own.name}
                </SmallButton>
              ) : (
                <p className="text-xs text-faint">Put yours into the stores to keep that with it.</p>
              )}
            </Group>
          )}
          <AnvilGroup laid={laid} onLaid={setLaid} />
        </>
      }
    >
      <div className="h-[30%] shrink-0 border-b border-rule bg-sheet">
        <h2 className="sr-only">The blade along its length</h2>
        {report ? (
          <BendStrip report={report} />
        ) : (
          !trouble && <p className="p-6 text-faint">Working it out …</p>
        )}
      </div>
      <div className="h-[24%] shrink-0 border-b border-rule bg-paper">
        {report && <HeldView face={shown} strikes={report.work.flatMap(({ strikes }) => strikes)} />}
      </div>
      <div className="min-h-0 flex-1 overflow-y-auto bg-sheet px-3">
        <WorkTrouble what="How straight it is" trouble={trouble} onTry={tryAgain} />
        <p className="flex flex-wrap items-center gap-3 py-2 text-sm">
          <Link className="font-semibold underline" to={`/blades/${id}/check`}>
            Back to Check
          </Link>
          <Link className="font-semibold underline" to={`/card/${id}?straight=${stage}`}>
            At the anvil, large
          </Link>
          {value?.words && <strong>{value.words}.</strong>}
        </p>
        <FoundList
          label="Is it straight"
          findings={offerless(value?.findings ?? [])}
          isOld={isBehind}
          onTake={() => null}
        />
        <StraightLog sets={sets} blows={blows} />
      </div>
    </Workspace>
  );
}

const offerless = (findings: readonly Finding[]) => findings.map((one) => ({ ...one, offers: [] }));
