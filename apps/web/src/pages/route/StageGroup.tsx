import { abrasiveName } from "@true-spine/core/abrasive/schema.ts";
import type { StageReport } from "@true-spine/core/route/report.ts";
import type { Stage } from "@true-spine/core/route/schema.ts";
import { setupFor } from "@true-spine/core/route/setup-for.ts";
import { STAGES } from "@true-spine/core/route/stages.ts";
import { type LengthUnit, showLengthWithUnit } from "@true-spine/core/units/length.ts";
import { inUnit } from "@true-spine/core/units/sentence.ts";
import type { Spent } from "@true-spine/core/work/joined.ts";
import { useId, useState } from "react";
import { useSettings } from "../../app/settings.ts";
import { useDocument, useScreen } from "../../blade/screen.ts";
import { Alert } from "../../parts/Alert.tsx";
import { BeltsTable } from "../../parts/BeltsTable.tsx";
import { Caution } from "../../parts/Caution.tsx";
import { From } from "../../parts/From.tsx";
import { Group } from "../../parts/Group.tsx";
import { TextBox } from "../../parts/TextBox.tsx";
import { whenInWords } from "../../parts/when.ts";
import { useShop } from "../../shop/shop.ts";
import { setSpent, useSpent } from "../../work/useWorkRows.ts";
import { OwnOrder } from "./OwnOrder.tsx";
import { SetupGroup } from "./SetupGroup.tsx";
import { StageChoices } from "./StageChoices.tsx";

/** The stage in hand: what it is, its belts, the set-up's own reading, and what to beware of. */
export function StageGroup({
  stage,
  plan,
  onPlan,
  onNote,
}: {
  stage: StageReport;
  plan: Stage;
  onPlan: (change: Partial<Stage>) => void;
  /** What somebody else must know; nothing takes it away. */
  onNote: (words: string) => void;
}) {
  const { words, caution } = STAGES[stage.kind];
  const { shop } = useShop();
  const { stages } = useDocument("route");
  const heldBy = setupFor(
    stages,
    stages.findIndex(({ id }) => id === plan.id),
    shop,
  );
  const unit = useSettings((settings) => settings.unit);
  return (
    <>
      <Group title={stage.name}>
        <p className="text-xs text-faint">{words}</p>
        {stage.removed > 0.05 && (
          <p className="text-xs">
            Takes off {stage.removed.toFixed(1)} g
            {stage.isBevelled && `; ${leftInWords(stage.left.faces, unit)} after it`}.
          </p>
        )}
        {stage.belts && <Belts stage={stage} plan={plan} onPlan={onPlan} />}
      </Group>
      <StageChoices plan={plan} onPlan={onPlan} />
      {isHeld(stage) && <SetupGroup stage={stage} named={heldBy} onSetup={(setup) => onPlan({ setup })} />}
      <HeatGroup stage={stage} />
      <NoteGroup stage={stage} plan={plan} onPlan={onPlan} onNote={onNote} />
      <Caution>{`${caution} Training and the maker of your machine come first.`}</Caution>
    </>
  );
}

/** What is left on the bevel faces, in words: on each, or told apart where one side was worked alone. */
function leftInWords({ left, right }: StageReport["left"]["faces"], unit: LengthUnit): string {
  const say = (mm: number) => showLengthWithUnit(mm, unit, unit === "mm" ? 2 : undefined);
  return left === right
    ? `${say(right)} is left on each bevel face`
    : `${say(left)} is left on the left bevel face and ${say(right)} on the right`;
}

/** Whether a stage holds a face at an angle. */
const isHeld = ({ work }: StageReport) =>
  [...work.angle.right, ...work.angle.left].some((angle) => angle !== null);

function Belts({
  stage,
  plan,
  onPlan,
}: {
  stage: StageReport;
  plan: Stage;
  onPlan: (change: Partial<Stage>) => void;
}) {
  const { on, planned, skipped } = stage.belts!;
  const unit = useSettings((settings) => settings.unit);
  const isOwn = plan.belts !== undefined;
  return (
    <>
      {planned.ok ? (
        <BeltsTable
          sequence={planned.sequence}
          caption={isOwn ? `your own order, for the ${on}` : `cheapest belts on hand, for the ${on}`}
        />
      ) : (
        <Alert>
          Belts for the {on}: {inUnit(planned.why, unit)}
        </Alert>
      )}
      <OwnOrder
        belts={plan.belts ?? (planned.ok ? planned.sequence.steps.map(({ belt }) => belt.id) : [])}
        isOwn={isOwn}
        onChange={(belts) => onPlan({ belts })}
      />
      {!isOwn && skipped.length > 0 && (
        <p className="text-[11px] text-faint">
          Left out:{" "}
          {skipped
            .slice(0, 3)
            .map(
              ({ belt, minutes, cost }) =>
                `${abrasiveName(belt)} would add ${minutes < 0.5 ? "no" : Math.round(minutes)} min and ${cost.toFixed(2)}`,
            )
            .join("; ")}
          .
        </p>
      )}
    </>
  );
}

/** Which place warms most under the belt: it ranks, it calls none safe. */
function HeatGroup({ stage }: { stage: StageReport }) {
  const [warmest] = stage.warmth;
  if (!warmest) return null;
  const coolest = stage.warmth.at(-1)!;
  const edge = Math.min(...stage.targets.map((reading) => reading.edge));
  return (
    <Group title="Heat while grinding">
      <p className="text-xs">
        {warmest.times > 1.05
          ? `The ${warmest.place} warms ${warmest.times.toFixed(1)} times as fast as the ${coolest.place}: leave it till last, light, and dip after every pass there.`
          : "Heel, middle and tip warm alike. Dip when the water film goes."}
        {edge < 0.5 && " The edge is thin now: what is left of it comes off on a stone."}
      </p>
      <p className="text-[11px] text-faint">
        <From words="Plate heated on one face (Carslaw and Jaeger, from memory), with starting values for the belt.">
          An estimate
        </From>{" "}
        from the steel's thickness. It ranks places and calls none safe.
      </p>
    </Group>
  );
}

/** What somebody else must know to go on, and the day it is planned for. */
function NoteGroup({
  stage,
  plan,
  onPlan,
  onNote,
}: {
  stage: StageReport;
  plan: Stage;
  onPlan: (change: Partial<Stage>) => void;
  onNote: (words: string) => void;
}) {
  const id = useId();
  const unit = useSettings((settings) => settings.unit);
  const last = plan.readings?.at(-1);
  const screen = useScreen();
  const spent = useSpent(plan.id);
  return (
    <Group title="Where it stands">
      <p className="text-xs text-faint">
        {plan.done ? `Done ${whenInWords(Date.parse(plan.done))}.` : "Not done yet."}
        {last &&
          ` Last read ${showLengthWithUnit(last.value, unit)} at the ${last.place}${last.past ? ", past the line" : ""}.`}
      </p>
      <MinutesSpent
        key={`${plan.id} ${spent.isRunning} ${Math.round(spent.minutes)}`}
        spent={spent}
        planned={stage.minutes}
        onSay={(minutes) => setSpent(screen, plan.id, minutes)}
      />
      <label className="flex items-center justify-between gap-2 text-sm text-faint">
        Planned for
        <input
          type="date"
          className="h-8 w-44 rounded border border-frame bg-sheet px-2 font-semibold text-ink"
          value={plan.planned ?? ""}
          onChange={(event) => onPlan({ planned: event.currentTarget.value || undefined })}
        />
      </label>
      <label htmlFor={id} className="text-sm text-faint">
        Note for whoever goes on
      </label>
      <textarea
        id={id}
        rows={2}
        maxLength={500}
        className="rounded border border-frame bg-sheet px-2 py-1 text-sm"
        defaultValue={plan.note ?? ""}
        key={`${plan.id} ${plan.note ?? ""}`}
        onBlur={(event) => {
          const note = event.currentTarget.value.replace(/\s+/g, " ").trim();
          if (note !== (plan.note ?? "")) onNote(note);
        }}
      />
    </Group>
  );
}

/** Minutes by the card's clock beside what was planned; said otherwise when the box is left. */
function MinutesSpent({
  spent,
  planned,
  onSay,
}: {
  spent: Spent;
  planned: number;
  onSay: (minutes: number) => void;
}) {
  const shown = String(Math.round(spent.minutes));
  const [text, setText] = useState(shown);
  const minutes = Number(text.trim().replace(",", "."));
  const isSound = text.trim() !== "" && Number.isFinite(minutes) && minutes >= 0 && minutes <= MOST_MINUTES;
  const keep = () => {
    if (isSound && text.trim() !== shown) onSay(minutes);
  };
  return (
    <div className="flex flex-wrap items-center gap-2 text-sm text-faint">
      <TextBox
        label="Minutes spent"
        width="w-20"
        text={text}
        why={isSound ? null : `Write minutes from 0 to ${MOST_MINUTES}.`}
        onText={setText}
        onBlur={keep}
        onEnter={keep}
      />
      {planned > 0 && <span>about {Math.ceil(planned)} planned</span>}
      {spent.isRunning && <span>its clock runs</span>}
    </div>
  );
}

const MOST_MINUTES = 100_000;
