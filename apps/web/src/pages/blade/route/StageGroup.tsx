import { abrasiveName } from "@true-spine/core/abrasive/schema.ts";
import { readingFor, type Setup } from "@true-spine/core/grind/setups.ts";
import type { StageReport } from "@true-spine/core/route/report.ts";
import { STAGES } from "@true-spine/core/route/stages.ts";
import { showLength, showLengthWithUnit } from "@true-spine/core/units/length.ts";
import { useState } from "react";
import { useSettings } from "../../../app/settings.ts";
import { AngleBox, LengthBox } from "../../../parts/Box.tsx";
import { Caution } from "../../../parts/Caution.tsx";
import { Choice, Group } from "../../../parts/Group.tsx";

/** The stage in hand: what it is, its belts, the set-up's own reading, and what to beware of. */
export function StageGroup({ stage }: { stage: StageReport }) {
  const { name, words, caution } = STAGES[stage.kind];
  const unit = useSettings((settings) => settings.unit);
  return (
    <>
      <Group title={name}>
        <p className="text-xs text-faint">{words}</p>
        {stage.removed > 0.05 && (
          <p className="text-xs">
            Takes off {stage.removed.toFixed(1)} g
            {stage.isBevelled &&
              `; ${showLengthWithUnit(stage.left.faces, unit, unit === "mm" ? 2 : undefined)} is left on each bevel face after it`}
            .
          </p>
        )}
        {stage.belts && <Belts stage={stage} />}
      </Group>
      {stage.isBevelled && stage.readings.some((reading) => reading.angle.right !== null) && (
        <SetupGroup stage={stage} />
      )}
      <Caution>{`${caution} Training and the maker of your machine come first.`}</Caution>
    </>
  );
}

function Belts({ stage }: { stage: StageReport }) {
  const unit = useSettings((settings) => settings.unit);
  const { on, planned } = stage.belts!;
  if (!planned.ok) {
    return (
      <p role="alert" className="text-xs text-fix">
        Belts for the {on}: {planned.why}
      </p>
    );
  }
  return (
    <table className="w-full text-xs">
      <caption className="text-left text-[11px] text-faint">cheapest belts on hand, for the {on}</caption>
      <thead className="text-[11px] text-faint">
        <tr>
          <th className="text-left font-normal">belt</th>
          <th className="text-right font-normal">off a side, {unit}</th>
          <th className="text-right font-normal">min</th>
          <th className="text-right font-normal">belts</th>
        </tr>
      </thead>
      <tbody>
        {planned.sequence.steps.map(({ belt, depth, minutes, belts }) => (
          <tr key={belt.id}>
            <td className="font-semibold">{abrasiveName(belt)}</td>
            <td className="text-right">
              {showLength(depth, unit, unit === "mm" ? 3 : unit === "inch" ? 4 : 1)}
            </td>
            <td className="text-right">{minutes < 1 ? "<1" : Math.round(minutes)}</td>
            <td className="text-right">{belts.toFixed(2)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

const KINDS: Readonly<Record<Setup["kind"], string>> = {
  rest: "rest against platen",
  guide: "bevel guide, square block",
  screw: "screw jig",
  arm: "tool arm with a dial",
  stone: "stone, spine lifted",
};

/** What the set-up itself reads for this stage's bevel, and what a tenth of a degree is worth. */
function SetupGroup({ stage }: { stage: StageReport }) {
  const unit = useSettings((settings) => settings.unit);
  const [kind, setKind] = useState<Setup["kind"]>("rest");
  const [pivot, setPivot] = useState(150);
  const [zero, setZero] = useState(0);
  const [by, setBy] = useState<"tangent" | "sine">("tangent");
  const setup: Setup =
    kind === "screw"
      ? { kind, pivot, by }
      : kind === "arm"
        ? { kind, zero, sense: 1 }
        : kind === "stone"
          ? { kind, width: stage.readings[1]!.grindLine.right ?? 20 }
          : { kind };
  const angles = stage.readings.map((reading) => reading.angle.right ?? reading.angle.left);
  const single = stage.angle.right ?? stage.angle.left;
  const say = (angle: number | null) => {
    if (angle === null) return "–";
    const { value, unit: of } = readingFor(setup, angle);
    return of === "°" ? `${value.toFixed(1)}°` : showLengthWithUnit(value, unit);
  };
  const { datum } = readingFor(setup, angles.find((one) => one !== null) ?? 5);
  const tenth = stage.tenth;
  return (
    <Group title="Set-up">
      <Choice
        label="Held by"
        value={kind}
        options={Object.entries(KINDS).map(([value, name]) => ({ value, name }))}
        onChange={(value) => setKind(value as Setup["kind"])}
      />
      {kind === "screw" && (
        <>
          <LengthBox
            label="Pivot to screw"
            value={pivot}
            onCommit={(mm) => {
              if (mm <= 0) return "The screw stands some way from the pivot.";
              setPivot(mm);
              return null;
            }}
          />
          <Choice
            label="Its geometry"
            value={by}
            options={[
              { value: "tangent", name: "tangent" },
              { value: "sine", name: "sine" },
            ]}
            onChange={(value) => setBy(value as "tangent" | "sine")}
          />
        </>
      )}
      {kind === "arm" && (
        <AngleBox
          label="Dial at zero"
          value={zero}
          onCommit={(degrees) => {
            setZero(degrees);
            return null;
          }}
        />
      )}
      <p className="text-sm">
        {single !== null ? (
          <>
            Set it to <strong>{say(single)}</strong>
          </>
        ) : (
          <>
            No single angle exists: <strong>{angles.map(say).join(" · ")}</strong> at heel, middle and tip
          </>
        )}
        <span className="block text-xs text-faint">{datum}</span>
      </p>
      {tenth && (
        <p className="text-xs">
          0.1° is {showLengthWithUnit(tenth.edge, unit)} at the edge with the line held, or{" "}
          {showLengthWithUnit(tenth.line, unit, unit === "mm" ? 1 : undefined)} of line with the edge held,
          both sides together.
        </p>
      )}
    </Group>
  );
}
