import { type Finding, withChanges } from "@true-spine/core/findings/finding.ts";
import { ChevronDown, ChevronUp } from "lucide-react";
import { useJudged, useRail, useScreen } from "../../blade/screen.ts";
import { Sign } from "../../parts/Sign.tsx";

/** Findings, at the foot of the page: one line while all is well, opened upward to read them all. */
export function Tray() {
  const judged = useJudged();
  const { rail } = useScreen();
  const isOpen = useRail((state) => state.isTrayOpen);
  const findings = judged?.findings ?? [];
  const count = (severity: Finding["severity"]) =>
    findings.filter((finding) => finding.severity === severity).length;
  const [fix, watch, note] = [count("fix"), count("watch"), count("note")];
  const worst = findings[0];
  const toggle = () => rail.setState({ isTrayOpen: !isOpen });
  return (
    <section
      aria-label="Findings"
      aria-busy={!judged?.isConfirmed}
      className="relative border-t border-rule bg-paper"
    >
      {isOpen && (
        <div className="absolute inset-x-0 bottom-full max-h-[46vh] overflow-auto border-t border-rule bg-paper shadow-[0_-6px_16px_rgb(0_0_0/0.14)]">
          <ul>
            {findings.map((finding) => (
              <FindingItem
                key={keyOf(finding)}
                finding={finding}
                isConfirmed={judged?.isConfirmed ?? false}
              />
            ))}
            {findings.length === 0 && (
              <li className="px-4 py-3 text-faint">Nothing found: all is well as far as it was judged.</li>
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
      <button
        type="button"
        aria-expanded={isOpen}
        onClick={toggle}
        className="flex h-12 w-full items-center gap-3 px-4 text-left hover:bg-room"
      >
        {!judged && <span className="text-faint">Looking the blade over …</span>}
        {judged && (
          <>
            <Sign of={worst && worst.severity !== "note" ? worst.severity : "well"} />
            <span className="min-w-0 flex-1 truncate font-semibold">
              {worst && worst.severity !== "note" ? worst.message : "All well."}
              {worst && worst.severity !== "note" && (
                <span className="ml-2 font-normal text-faint">{worst.advice}</span>
              )}
            </span>
            <span className="flex shrink-0 items-center gap-4 text-sm">
              {fix > 0 && <Count of="fix" n={fix} words="to fix" />}
              {watch > 0 && <Count of="watch" n={watch} words="to watch" />}
              {note > 0 && <Count of="note" n={note} words={note === 1 ? "note" : "notes"} />}
            </span>
          </>
        )}
        <kbd className="rounded border border-frame px-1.5 text-xs text-faint">F</kbd>
        {isOpen ? (
          <ChevronDown className="size-4" aria-hidden />
        ) : (
          <ChevronUp className="size-4" aria-hidden />
        )}
      </button>
    </section>
  );
}

function Count({ of, n, words }: { of: Finding["severity"]; n: number; words: string }) {
  return (
    <span className="flex items-center gap-1.5">
      <Sign of={of} className="size-3" />
      {n} {words}
    </span>
  );
}

function keyOf(finding: Finding): string {
  return `${finding.id} ${finding.where.side ?? ""} ${finding.where.x?.join() ?? ""}`;
}

function FindingItem({ finding, isConfirmed }: { finding: Finding; isConfirmed: boolean }) {
  const { open, rail } = useScreen();
  const { x, side } = finding.where;
  const remedy = finding.remedies[0];
  return (
    <li className="flex items-start gap-3 border-b border-rule px-4 py-2.5">
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
              className="ml-2 font-semibold text-deep underline"
              onClick={() => rail.setState({ panel: "limits" })}
            >
              Hold this blade to another limit …
            </button>
          )}
        </p>
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
      {remedy && isConfirmed && (
        <button
          type="button"
          title="Tried on the model: this finding clears and nothing new needs fixing."
          className="min-h-8 shrink-0 rounded bg-deep px-3 text-sm font-semibold text-on-deep"
          onClick={() => {
            open.end();
            open.replace(withChanges(open.store.getState().file, remedy.changes));
          }}
        >
          {remedy.words.replace(/\.$/, "")}
        </button>
      )}
    </li>
  );
}
