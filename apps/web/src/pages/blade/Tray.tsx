import { type Finding, type Remedy, type Severity, withChanges } from "@true-spine/core/findings/finding.ts";
import { type FindingGroup, groupFindings } from "@true-spine/core/findings/groups.ts";
import { MAY_BE_MEANT } from "@true-spine/core/findings/meant.ts";
import { ChevronDown, ChevronUp } from "lucide-react";
import { useEffect, useMemo, useRef, useState } from "react";
import { Link } from "react-router";
import { useStore } from "zustand";
import type { Judged } from "../../blade/judged.ts";
import { useFile, useRail, useScreen } from "../../blade/screen.ts";
import { whyNot } from "../../blade/store.ts";
import { useNotices } from "../../parts/Notices.tsx";
import { findingNames } from "../../parts/rowNames.ts";
import { Sign } from "../../parts/Sign.tsx";
import { useTakenOnceKnown } from "../../parts/useTakenOnceKnown.ts";
import { useRoute } from "../../work/useWorkRows.ts";
import { WorkTrouble } from "../../workers/WorkTrouble.tsx";
import { useWorkJudged, type WorkJudged } from "../../workers/work-judged.ts";
import { stageToCheck } from "../check/stage.ts";
import { MeantForm } from "./MeantForm.tsx";

const NONE: readonly Finding[] = [];

/** Findings, at the foot of the page: one line while all is well, opened upward to read them all. What is above makes room. */
export function Tray() {
  const { open, rail, judging } = useScreen();
  const file = useFile();
  const { judged, trouble, tryAgain } = useStore(judging);
  const work = useWorkJudged(stageToCheck(useRoute()));
  const isOpen = useRail((state) => state.isTrayOpen);
  const known = useLastTried(judged);
  const findings = known ?? NONE;
  const groups = useMemo(() => groupFindings(findings), [findings]);
  const names = findingNames(groups.map(({ finding }) => finding));
  const isSettled = judged?.isConfirmed ?? false;
  const remedies = groups.flatMap(({ finding }) =>
    finding.remedies.slice(0, 1).map((remedy) => [remedyName(finding, remedy), remedy] as const),
  );
  const { press, waiting } = useTakenOnceKnown(
    new Map(isSettled ? remedies : []),
    !isSettled || judged?.file !== file || trouble !== null,
    ({ words, changes }) => {
      open.end();
      const why = whyNot(open.replace(withChanges(open.store.getState().file, changes)));
      if (why !== null) useNotices.getState().tell(`“${words}” was not applied. ${why}`);
    },
  );
  const toggle = () => rail.setState({ isTrayOpen: !isOpen });
  return (
    <section
      aria-label="Findings"
      aria-busy={!trouble && !judged?.isConfirmed}
      className="shrink-0 border-t border-rule bg-paper"
    >
      {isOpen && (
        <div className="max-h-[46vh] overflow-auto border-b border-rule">
          <ul>
            {groups.map((group, i) => (
              <GroupItem key={names[i]} group={group} onRemedy={press} waiting={waiting} />
            ))}
            {known && !trouble && findings.length === 0 && (
              <li className="px-4 py-3 text-faint">Nothing found, as far as the blade was judged.</li>
            )}
            {judged?.notJudged.map((item) => (
              <li key={item.id} className="border-t border-rule px-4 py-2 text-sm text-faint">
                <strong className="font-semibold">Not judged, {item.id.replaceAll("-", " ")}.</strong>{" "}
                {item.why}
              </li>
            ))}
          </ul>
        </div>
      )}
      {trouble && (
        <div className="border-b border-rule px-4 py-2">
          <WorkTrouble what="The findings" trouble={trouble} onTry={tryAgain} />
        </div>
      )}
      <div className="flex items-stretch">
        <button
          type="button"
          aria-expanded={isOpen}
          onClick={toggle}
          className="flex h-12 min-w-0 flex-1 items-center gap-3 px-4 text-left hover:bg-room"
        >
          {trouble ? (
            <span className="flex-1 text-faint">Not judged.</span>
          ) : known ? (
            <Line groups={groups} work={work} />
          ) : (
            <span className="flex-1 text-faint">Judging the blade …</span>
          )}
          <kbd className="rounded border border-frame px-1.5 text-xs text-faint">F</kbd>
          {isOpen ? (
            <ChevronDown className="size-4" aria-hidden />
          ) : (
            <ChevronUp className="size-4" aria-hidden />
          )}
        </button>
        {judged && !trouble && <OfWork work={work} />}
      </div>
      <Announced findings={trouble || !judged?.isConfirmed ? null : findings} />
    </section>
  );
}

/**
 * What is found, each with what its remedy was last seen to do: what stands under what, and where the buttons are, is not another thing
 * for the moment until remedies are tried again. Null until they were once.
 */
function useLastTried(judged: Judged | null): readonly Finding[] | null {
  const [tried, setTried] = useState<readonly Finding[] | null>(null);
  if (judged?.isConfirmed && tried !== judged.findings) setTried(judged.findings);
  return useMemo(() => {
    if (!judged) return null;
    if (judged.isConfirmed) return judged.findings;
    if (!tried) return null;
    const names = findingNames(tried);
    const known = new Map(tried.map((finding, i) => [names[i]!, finding]));
    const now = findingNames(judged.findings);
    return judged.findings.map((finding, i) => {
      const { remedies = [], clears } = known.get(now[i]!) ?? {};
      return { ...finding, remedies, ...(clears ? { clears } : {}) };
    });
  }, [judged, tried]);
}

/**
 * The worst finding of the drawing in a line, with one mark: the drawing's own. Route, readings and heats have marks of their own beside
 * it; that all is well is only said where they have nothing to fix or to watch either.
 */
function Line({ groups, work }: { groups: readonly FindingGroup[]; work: WorkJudged | null }) {
  const count = (severity: Severity) => groups.filter(({ finding }) => finding.severity === severity).length;
  const [fix, watch, note] = [count("fix"), count("watch"), count("note")];
  const [first] = groups;
  const worst = first && first.finding.severity !== "note" ? first.finding : null;
  const ofWork = troubled(work);
  return (
    <>
      <Sign of={worst?.severity ?? "well"} />
      <span className="min-w-0 flex-1 truncate font-semibold">
        {worst && (
          <>
            {worst.message}
            <span className="ml-2 font-normal text-faint">{worst.advice}</span>
          </>
        )}
        {!worst &&
          (ofWork.length > 0 ? "Sound as drawn." : work?.isBehind ? "Sound as drawn …" : "All well.")}
      </span>
      <span className="flex shrink-0 items-center gap-4 text-sm">
        {fix > 0 && <Count of="fix" n={fix} words="to fix" />}
        {watch > 0 && <Count of="watch" n={watch} words="to watch" />}
        {note > 0 && <Count of="note" n={note} words={note === 1 ? "note" : "notes"} />}
      </span>
    </>
  );
}

function troubled(work: WorkJudged | null) {
  return [
    { path: "forge", name: "Forge", counts: work?.forge },
    { path: "heat", name: "Heat", counts: work?.heat },
    { path: "route", name: "Route", counts: work?.route },
    { path: "check", name: "Check", counts: work?.check },
  ].flatMap(({ counts, ...page }) => (counts && counts.fix + counts.watch > 0 ? [{ ...page, counts }] : []));
}

/** Where the work has something to fix or to watch, and the way there. */
function OfWork({ work }: { work: WorkJudged | null }) {
  const { id } = useScreen();
  return troubled(work).map(({ path, name, counts }) => (
    <Link
      key={path}
      to={`/blades/${id}/${path}`}
      className="flex items-center gap-1.5 border-l border-rule px-4 text-sm underline hover:bg-room"
    >
      <Sign of={counts.fix > 0 ? "fix" : "watch"} className="size-3" />
      {name}: {counts.fix + counts.watch}
    </Link>
  ));
}

function Count({ of, n, words }: { of: Severity; n: number; words: string }) {
  return (
    <span className="flex items-center gap-1.5">
      <Sign of={of} className="size-3" />
      {n} {words}
    </span>
  );
}

/** Tells those who do not see the tray what came and what went, once things have settled. */
function Announced({ findings }: { findings: readonly Finding[] | null }) {
  const before = useRef<readonly Finding[] | null>(null);
  const [words, setWords] = useState("");
  useEffect(() => {
    if (!findings) return;
    const was = before.current;
    before.current = findings;
    if (!was) return;
    const isIn = (list: readonly Finding[], { id }: Finding) => list.some((other) => other.id === id);
    const came = findings.filter((one) => one.severity !== "note" && !isIn(was, one));
    const went = was.filter((one) => one.severity !== "note" && !isIn(findings, one));
    if (came.length + went.length === 0) return;
    const said = came.slice(0, 2).map(({ message }) => message);
    const more = came.length > 2 ? [`And ${came.length - 2} more.`] : [];
    const gone =
      went.length > 0 ? [went.length === 1 ? "One finding less." : `${went.length} findings less.`] : [];
    setWords([...said, ...more, ...gone].join(" "));
  }, [findings]);
  return (
    <p role="status" className="sr-only">
      {words}
    </p>
  );
}

/** A finding, and folded under it what goes with it. */
function GroupItem({
  group: { finding, consequences },
  onRemedy,
  waiting,
}: {
  group: FindingGroup;
  onRemedy: (name: string) => void;
  waiting: string | null;
}) {
  const names = findingNames(consequences);
  return (
    <li className="border-b border-rule px-4 py-2.5">
      <FindingItem finding={finding} onRemedy={onRemedy} waiting={waiting} />
      {consequences.length > 0 && (
        <details className="mt-1 ml-6.5 text-sm">
          <summary className="w-fit cursor-pointer rounded py-1 font-semibold text-deep">
            {consequences.length === 1
              ? "One more follows from it"
              : `${consequences.length} more follow from it`}
          </summary>
          <ul className="mt-1 flex flex-col gap-1.5">
            {consequences.map((one, i) => (
              <li key={names[i]}>
                <FindingItem finding={one} onRemedy={null} waiting={null} />
              </li>
            ))}
          </ul>
        </details>
      )}
    </li>
  );
}

const remedyName = ({ id, where }: Finding, { words }: Remedy) => `${id} ${where.side ?? ""} ${words}`;

function FindingItem({
  finding,
  onRemedy,
  waiting,
}: {
  finding: Finding;
  onRemedy: ((name: string) => void) | null;
  waiting: string | null;
}) {
  const { rail } = useScreen();
  const { x, side } = finding.where;
  const remedy = finding.remedies[0];
  return (
    <div className="flex items-start gap-3">
      <Sign of={finding.severity} className="mt-1 size-3.5" />
      <div className="min-w-0 flex-1">
        <p>
          <strong className="font-semibold">
            {side ? `${side === "left" ? "Left" : "Right"} side: ` : ""}
            {finding.message}
          </strong>{" "}
          {finding.advice}
        </p>
        <p className="mt-0.5 text-xs text-faint">
          Basis: {finding.basis}.
          {finding.limit && (
            <button
              type="button"
              className="ml-2 min-h-6 font-semibold text-deep underline"
              onClick={() => rail.setState({ panel: "limits" })}
            >
              Change this limit for the blade …
            </button>
          )}
        </p>
        {MAY_BE_MEANT.includes(finding.id) && <MeantForm finding={finding} />}
      </div>
      {x && (
        <button
          type="button"
          className="min-h-8 shrink-0 rounded border border-frame bg-sheet px-2 text-sm font-semibold hover:bg-room"
          onClick={() => rail.setState({ scribe: Math.round(((x[0] + x[1]) / 2) * 10) / 10 })}
        >
          Go there
        </button>
      )}
      {remedy && onRemedy && (
        <button
          type="button"
          title="Tried on the model: this finding clears and nothing new needs fixing."
          className="min-h-8 shrink-0 rounded bg-deep px-3 text-sm font-semibold text-on-deep"
          onClick={() => onRemedy(remedyName(finding, remedy))}
        >
          {remedy.words.replace(/\.$/, "")}
          {waiting === remedyName(finding, remedy) && " …"}
        </button>
      )}
    </div>
  );
}
