import { type Stage, WORKED_ON, type WorkedOn } from "@true-spine/core/route/schema.ts";
import { STAGES, workedOn } from "@true-spine/core/route/stages.ts";
import { useState } from "react";
import { useEdit } from "../../blade/useEdit.ts";
import { LengthBox } from "../../parts/Box.tsx";
import { Choice, Group } from "../../parts/Group.tsx";
import { TextBox } from "../../parts/TextBox.tsx";

/** The most that one stage takes off a face, mm. */
const MOST = 3;

/** What may be said of any stage: its name, what one of the maker's own works on, and what it takes. */
export function StageChoices({ plan, onPlan }: { plan: Stage; onPlan: (change: Partial<Stage>) => void }) {
  const { visit } = useEdit();
  const on = workedOn(plan);
  return (
    <Group title="This stage">
      <Called key={`${plan.id} ${plan.name ?? ""}`} plan={plan} onPlan={onPlan} />
      {plan.kind === "own" && (
        <Choice
          label="Works on"
          value={on}
          options={WORKED_ON.map((one) => ({ value: one, name: one }))}
          onChange={(one) => onPlan({ on: one as WorkedOn })}
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

/** What the stage is called: kept when the box is left. */
function Called({ plan, onPlan }: Parameters<typeof StageChoices>[0]) {
  const [text, setText] = useState(plan.name ?? "");
  const keep = () => {
    const name = text.replace(/\s+/g, " ").trim();
    if (name !== (plan.name ?? "")) onPlan({ name: name || undefined });
  };
  return (
    <TextBox
      label="Called"
      width="w-44"
      placeholder={STAGES[plan.kind].name}
      maxLength={60}
      text={text}
      onText={setText}
      onBlur={keep}
      onEnter={keep}
    />
  );
}
