import type { BenchReport } from "@true-spine/core/findings/bench-report.ts";
import type { Finding } from "@true-spine/core/findings/finding.ts";
import { useState } from "react";
import { useDocument, useScreen } from "../../blade/screen.ts";
import { SmallButton } from "../../parts/Group.tsx";
import { findingNames } from "../../parts/rowNames.ts";
import { Sign } from "../../parts/Sign.tsx";
import { TextBox } from "../../parts/TextBox.tsx";

/** Is the work true: what the readings say, worst first; each leads to its place, and can be let stand with a reason. */
export function FindingsList({ report, stage }: { report: BenchReport; stage: string }) {
  const { rail, open } = useScreen();
  const check = useDocument("check");
  const [asking, setAsking] = useState<Asking | null>(null);
  const { findings, notJudged, astray, isUnexplained } = report;
  const isRead = report.lines.some(({ figure }) => figure);
  const accepted = check.accepted.filter((one) => one.stage === stage);
  const names = findingNames(findings);
  const named = findings.map((finding, i) => ({ name: names[i]!, finding }));
  const isGone = asking !== null && named.every(({ name }) => name !== asking.name);
  const letStand = (finding: Finding, reason: string) => {
    const now = open.store.getState().check;
    open.end();
    open.put({
      check: {
        ...now,
        accepted: [
          ...now.accepted,
          {
            when: new Date().toISOString(),
            stage,
            finding: finding.id,
            words: finding.message.slice(0, 500),
            reason,
          },
        ],
      },
    });
    setAsking(null);
  };
  const takeBack = (when: string) => {
    const now = open.store.getState().check;
    open.end();
    open.put({ check: { ...now, accepted: now.accepted.filter((one) => one.when !== when) } });
  };
  const isLet = (finding: Finding) => accepted.some((one) => one.finding === finding.id);
  return (
    <section aria-label="Is the work true">
      {!isRead && findings.length === 0 && (
        <p className="py-2 text-sm text-faint">
          Nothing is read yet. Go round in the order of the list: type and Enter, or press the instrument.
        </p>
      )}
      {isRead && findings.length === 0 && (
        <p className="flex items-center gap-2 py-2 text-sm">
          <Sign of="well" /> What was read is within its bands.
        </p>
      )}
      <ul>
        {named.map(({ name, finding }) => (
          <li key={name} className="flex items-start gap-2 border-b border-rule py-1.5 text-sm">
            <Sign of={finding.severity} className="mt-1 size-3.5" />
            <div className="min-w-0 flex-1">
              <button
                type="button"
                className="text-left font-semibold first-letter:uppercase hover:underline"
                onClick={() => finding.where.x && rail.setState({ scribe: finding.where.x[0] })}
              >
                {finding.message}
              </button>{" "}
              {finding.advice} <span className="text-xs text-faint">Basis: {finding.basis}.</span>
              {asking?.name === name && (
                <Reason
                  text={asking.reason}
                  onText={(reason) => setAsking({ ...asking, reason })}
                  onKeep={(reason) => letStand(finding, reason)}
                  onClose={() => setAsking(null)}
                />
              )}
            </div>
            {finding.id !== "fault-pattern" && !isLet(finding) && asking?.name !== name && (
              <SmallButton
                label={`Accept as it is: ${finding.message}`}
                onClick={() => setAsking({ name, of: finding.message, reason: "" })}
              >
                Accept as it is
              </SmallButton>
            )}
          </li>
        ))}
        {asking && isGone && (
          <li className="border-b border-rule py-1.5 text-sm">
            As things are read now this is not found: {asking.of}
            <Reason
              text={asking.reason}
              onText={(reason) => setAsking({ ...asking, reason })}
              onKeep={null}
              onClose={() => setAsking(null)}
            />
          </li>
        )}
      </ul>
      {isUnexplained && (
        <p className="py-1.5 text-sm">
          Something is off that no fault known here explains: read the worst of them again.
        </p>
      )}
      {accepted.map((one) => (
        <p key={one.when} className="flex items-center gap-2 border-b border-rule py-1 text-xs">
          <span className="min-w-0 flex-1">
            Accepted: {one.words} <em>{one.reason}</em>
          </span>
          <SmallButton onClick={() => takeBack(one.when)}>Undo</SmallButton>
        </p>
      ))}
      {isRead && (notJudged.length > 0 || astray > 0) && (
        <p className="py-1.5 text-xs text-faint">
          Not judged: {notJudged.map(({ why }) => why).join(" ")}
          {astray > 0 && ` ${astray} readings lie where this blade now has nothing to read; they are kept.`}
        </p>
      )}
    </section>
  );
}

/** A reason that is being typed, and what of. */
interface Asking {
  readonly name: string;
  readonly of: string;
  readonly reason: string;
}

function Reason({
  text,
  onText,
  onKeep,
  onClose,
}: {
  text: string;
  onText: (text: string) => void;
  /** Null while there is nothing to accept. */
  onKeep: ((reason: string) => void) | null;
  onClose: () => void;
}) {
  const isSaid = text.trim().length >= 3 && onKeep !== null;
  return (
    <form
      className="mt-1 flex gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        if (isSaid) onKeep(text.trim().slice(0, 500));
      }}
    >
      <TextBox
        label="Why it is accepted; the spec sheet says so"
        labelled="hidden"
        placeholder="why it is accepted; the spec sheet says so"
        className="min-w-0 flex-1"
        autoFocus
        text={text}
        onText={onText}
        onEscape={onClose}
      />
      <button
        type="submit"
        disabled={!isSaid}
        className="rounded border border-frame px-2 text-xs font-semibold disabled:opacity-50"
      >
        Keep
      </button>
    </form>
  );
}
