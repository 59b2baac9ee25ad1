import type { Side } from "@true-spine/core/blade/schema.ts";
import { type Stage, type WhichEdge, WORKED_ON, type WorkedOn } from "@true-spine/core/route/schema.ts";
import { STAGES, workedOn } from "@true-spine/core/route/stages.ts";
import { useState } from "react";
import { useFile } from "../../blade/screen.ts";
import { useEdit } from "../../blade/useEdit.ts";
import { LengthBox } from "../../parts/Box.tsx";
import { Choice, Group } from "../../parts/Group.tsx";
import { TextBox } from "../../parts/TextBox.tsx";

/** The most that one stage takes off a face, mm. */
const MOST = 3;

/** What may be said of any stage: its name, what one of the maker's own works on, and what it takes. */
export function StageChoices({ plan, onPlan }: { plan: Stage; onPlan: (change: Partial<Stage>) => void }) {
  const { visit } = useEdit();
  const hasTwo = useFile().secondEdge !== undefined || plan.edge !== undefined;
  const on = workedOn(plan);
  return (
    <Group title="This stage">
      <Words
        key={`${plan.id} ${plan.name ?? ""}`}
        label="Called"
        placeholder={STAGES[plan.kind].name}
        said={plan.name}
        onSay={(name) => onPlan({ name })}
      />
      {plan.kind === "own" && (
        <Choice
          label="Works on"
          value={on}
          options={WORKED_ON.map((one) => ({ value: one, name: one }))}
          onChange={(one) => onPlan({ on: one as WorkedOn })}
        />
      )}
      {hasTwo && (on === "bevels" || on === "edge") && (
        <Choice
          label="Edge"
          value={plan.edge ?? ""}
          options={[
            { value: "", name: "both" },
            { value: "first", name: "the first alone" },
            { value: "second", name: "the second alone" },
          ]}
          onChange={(edge) => onPlan({ edge: edge ? (edge as WhichEdge) : undefined })}
        />
      )}
      {plan.kind === "own" && on === "bevels" && (
        <Choice
          label="Side"
          value={plan.side ?? ""}
          options={[
            { value: "", name: "both" },
            { value: "left", name: "left alone" },
            { value: "right", name: "right alone" },
          ]}
          onChange={(side) => onPlan({ side: side ? (side as Side) : undefined })}
        />
      )}
      {plan.kind === "own" && (
        <Words
          key={`${plan.id} tool ${plan.tool ?? ""}`}
          label="Done with, a belt if not said"
          placeholder="belts"
          said={plan.tool}
          onSay={(tool) => onPlan({ tool })}
        />
      )}
      {(on === "flats" || on === "bevels") && (
        <LengthBox
          label="Takes off each face, 0 as needed"
          value={plan.takes ?? 0}
          onVisit={visit}
          onCommit={(takes) => {
            if (takes < 0 || takes > MOST) return `From 0 to ${MOST} mm a side.`;
            onPlan({ takes: takes > 0 ? takes : undefined });
            return null;
          }}
        />
      )}
    </Group>
  );
}

/** A few words about the stage: kept when the box is left. */
function Words({
  label,
  placeholder,
  said = "",
  onSay,
}: {
  label: string;
  placeholder: string;
  said: string | undefined;
  onSay: (words: string | undefined) => void;
}) {
  const [text, setText] = useState(said);
  const keep = () => {
    const words = text.replace(/\s+/g, " ").trim();
    if (words !== said) onSay(words || undefined);
  };
  return (
    <TextBox
      label={label}
      width="w-44"
      placeholder={placeholder}
      maxLength={60}
      text={text}
      onText={setText}
      onBlur={keep}
      onEnter={keep}
    />
  );
}
