import {
  LIMIT_NAMES,
  LIMITS,
  type Limit,
  type Limits,
  purposeLearned,
} from "@true-spine/core/findings/limits.ts";
import { type Purpose, purposeOf } from "@true-spine/core/findings/purposes.ts";
import { type LengthUnit, showLengthWithUnit } from "@true-spine/core/units/length.ts";
import { useState } from "react";
import { useSettings } from "../../app/settings.ts";
import { useDocument, useFilePart, useRail, useScreen } from "../../blade/screen.ts";
import { whyNot } from "../../blade/store.ts";
import { AngleBox, LengthBox } from "../../parts/Box.tsx";
import { SmallButton } from "../../parts/Group.tsx";
import { PlainButton } from "../../parts/PlainButton.tsx";
import { Question } from "../../parts/Question.tsx";
import { refusedWords, useRefused, WithRefusals } from "../../parts/refusals.tsx";
import { TextBox } from "../../parts/TextBox.tsx";
import { useLearned } from "../../shop/useLearned.ts";

type Bounds = { least: number | null; most: number | null };

/** What this blade is held to: its purpose's limits, each of which can be changed for it with a reason that stays. */
export function LimitsPanel() {
  const { rail } = useScreen();
  const isOpen = useRail((state) => state.panel === "limits");
  const use = useFilePart((file) => file.use);
  const learned = useLearned();
  const usual = purposeOf(use);
  const purpose = usual && purposeLearned(usual, learned);
  return (
    <Question
      title="Limits of this blade"
      isOpen={isOpen}
      onClose={() => rail.setState({ panel: null })}
      wide
    >
      {purpose ? (
        <>
          <p className="text-sm text-faint">
            The limits of {purpose.name} are starting values, without a published source, but for what this
            shop's trials moved. Change one for this blade where you know better: your reason is kept, and
            said wherever it is judged by.
          </p>
          <ul className="mt-3">
            {LIMITS.map((limit) => (
              <LimitItem key={`${limit} ${isOpen}`} limit={limit} purpose={purpose} />
            ))}
          </ul>
        </>
      ) : (
        <p>Say what it is for first, on the Shape page: then there are limits.</p>
      )}
      <div className="mt-5 flex justify-end">
        <PlainButton onClick={() => rail.setState({ panel: null })}>Close</PlainButton>
      </div>
    </Question>
  );
}

function LimitItem({ limit, purpose }: { limit: Limit; purpose: Purpose }) {
  const { open } = useScreen();
  const limits = useDocument("limits");
  const unit = useSettings((settings) => settings.unit);
  const [isEditing, setIsEditing] = useState(false);
  const own = boundsOf(purpose, limit);
  const changed = limits[limit];
  const say = (bounds: Bounds) => inWords(limit, bounds, unit);
  const backToPurpose = () => {
    const { [limit]: _, ...rest } = limits;
    open.end();
    open.put({ limits: rest });
  };
  return (
    <li className="border-b border-rule py-2.5">
      <div className="flex items-center gap-3">
        <span className="min-w-0 flex-1">
          <span className="block font-semibold first-letter:uppercase">{LIMIT_NAMES[limit]}</span>
          <span className="block text-sm text-faint">
            {changed
              ? `${say({ least: null, most: null, ...changed })}, instead of ${say(own)}: ${changed.reason}`
              : say(own)}
          </span>
        </span>
        {!isEditing && (
          <SmallButton label={`Change ${LIMIT_NAMES[limit]}`} onClick={() => setIsEditing(true)}>
            Change …
          </SmallButton>
        )}
        {changed && !isEditing && (
          <SmallButton label={`${LIMIT_NAMES[limit]} back to the purpose`} onClick={backToPurpose}>
            Back to the purpose
          </SmallButton>
        )}
      </div>
      {isEditing && (
        <WithRefusals>
          <LimitForm
            limit={limit}
            start={{ ...own, ...changed }}
            reason={changed?.reason ?? ""}
            onDone={() => setIsEditing(false)}
          />
        </WithRefusals>
      )}
    </li>
  );
}

function LimitForm({
  limit,
  start,
  reason: before,
  onDone,
}: {
  limit: Limit;
  start: Bounds;
  reason: string;
  onDone: () => void;
}) {
  const { open } = useScreen();
  const limits = useDocument("limits");
  const [bounds, setBounds] = useState(start);
  const [reason, setReason] = useState(before);
  const [why, setWhy] = useState<string | null>(null);
  const refused = refusedWords(useRefused());
  const Box = limit === "edgeAngle" ? AngleBox : LengthBox;
  const asks = ASKS[limit];
  const put = () => {
    if (reason.trim().length < 3) {
      setWhy("Say why, in a few words: whoever reads it later will want to know.");
      return;
    }
    const value = Object.fromEntries(asks.map((key) => [key, finite(bounds[key]) ?? USUAL[key]]));
    open.end();
    const refused = whyNot(
      open.put({ limits: { ...limits, [limit]: { ...value, reason: reason.trim() } } as Limits }),
    );
    setWhy(refused);
    if (!refused) onDone();
  };
  return (
    <form
      className="mt-2 flex flex-wrap items-end gap-3 rounded bg-room p-3"
      onSubmit={(event) => {
        event.preventDefault();
        put();
      }}
    >
      {asks.map((key) => (
        <Box
          key={key}
          label={key === "least" ? "no less than" : "no more than"}
          value={finite(bounds[key]) ?? USUAL[key]}
          onCommit={(value) => {
            setBounds((was) => ({ ...was, [key]: value }));
            return null;
          }}
        />
      ))}
      <TextBox
        label="Reason"
        labelled="above"
        className="min-w-56 flex-1"
        maxLength={300}
        text={reason}
        why={why}
        onText={(typed) => {
          setReason(typed);
          setWhy(null);
        }}
      />
      <PlainButton type="submit" kind="main" disabled={refused !== null}>
        Change the limit
      </PlainButton>
      <PlainButton onClick={onDone}>Cancel</PlainButton>
      {refused && (
        <p role="status" className="w-full text-sm">
          {refused}
        </p>
      )}
    </form>
  );
}

const ASKS: Readonly<Record<Limit, readonly ("least" | "most")[]>> = {
  behind: ["least", "most"],
  edgeAngle: ["least", "most"],
  at5: ["most"],
  at10: ["most"],
  tip: ["least"],
  flex: ["most"],
};
/** What stands in a box before anything has ever been asked. */
const USUAL = { least: 0, most: 1 };

function boundsOf(purpose: Purpose, limit: Limit): Bounds {
  const value = purpose[limit];
  if (Array.isArray(value)) return { least: value[0], most: value[1] };
  return limit === "tip"
    ? { least: value as number | null, most: null }
    : { least: null, most: value as number | null };
}

function finite(value: number | null): number | null {
  return value !== null && Number.isFinite(value) ? value : null;
}

function inWords(limit: Limit, bounds: Bounds, unit: LengthUnit): string {
  const say = (value: number) => (limit === "edgeAngle" ? `${value}°` : showLengthWithUnit(value, unit));
  const [least, most] = [finite(bounds.least), finite(bounds.most)];
  if (ASKS[limit].length === 2) return most === null ? "nothing asked" : `${say(least ?? 0)} to ${say(most)}`;
  if (least === null && most === null) return "nothing asked";
  return least !== null ? `${say(least)} or more` : `${say(most!)} or less`;
}
