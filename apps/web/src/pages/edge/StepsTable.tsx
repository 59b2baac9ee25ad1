import type { EdgeStep } from "@true-spine/core/edge/schema.ts";
import { MOST_STEPS, STEP_KINDS } from "@true-spine/core/edge/schema.ts";
import type { EdgeReport } from "@true-spine/core/route/edge-report.ts";
import { showLength } from "@true-spine/core/units/length.ts";
import { useSettings } from "../../app/settings.ts";
import { SmallButton } from "../../parts/Group.tsx";
import { angleWords, fine, STEP_NAMES, settingWords } from "./words.ts";

/** The steps of an edge in order: angle, what to set, stones, minutes, and what each takes off the blade's height. */
export function StepsTable({
  report,
  chosen,
  onChoose,
  onMore,
}: {
  report: EdgeReport;
  chosen: number;
  onChoose: (i: number) => void;
  onMore: (kind: EdgeStep["kind"]) => void;
}) {
  const unit = useSettings((settings) => settings.unit);
  return (
    <>
      <table aria-label="Sharpening, step by step" className="w-full border-collapse text-sm">
        <thead className="text-left text-[11px] text-faint">
          <tr>
            {[
              "step",
              "angle",
              "held by",
              "set in the middle",
              "stones",
              "min",
              `off the height, ${unit}`,
            ].map((title, i) => (
              <th key={title} scope="col" className={`py-1 font-normal ${i > 4 ? "text-right" : "pl-2"}`}>
                {title}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {report.steps.map(({ step, tool, settings, ladder, takes }, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: a step is its place in the order
            <tr key={i} className={`border-t border-rule ${i === chosen ? "bg-band" : ""}`}>
              <th scope="row" className="py-1.5 pr-2 pl-2 text-left">
                <button
                  type="button"
                  aria-pressed={i === chosen}
                  className="rounded text-left font-semibold hover:underline"
                  onClick={() => onChoose(i)}
                >
                  {STEP_NAMES[step.kind]}
                </button>
              </th>
              <td className="pl-2">{angleWords(step.angle)}</td>
              <td className="pl-2">{tool.name}</td>
              <td className="pl-2 font-semibold">
                {settingWords(settings[step.angle.right > 0 ? "right" : "left"][1]!, unit)}
              </td>
              <td className="pl-2">
                {ladder?.ok
                  ? `${ladder.sequence.steps.map(({ belt }) => Math.round(belt.microns)).join(" → ")} µm`
                  : step.kind === "strop"
                    ? `${step.to} µm`
                    : "none on hand"}
              </td>
              <td className="text-right">{ladder?.ok ? Math.round(ladder.sequence.minutes) : ""}</td>
              <td className="pr-2 text-right">{takes > 0 ? showLength(takes, unit, fine(unit)) : ""}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="flex flex-wrap items-center gap-2 border-t border-rule py-2 text-sm text-faint">
        {report.isUsual ? "As usual: a finish bevel, then the strop. " : ""}Begins no coarser than{" "}
        {Math.round(report.bevelAt)} µm, as its bevel is left. One more:
        {report.steps.length < MOST_STEPS &&
          STEP_KINDS.map((kind) => (
            <SmallButton
              key={kind}
              label={`Add a ${STEP_NAMES[kind].toLowerCase()}`}
              onClick={() => onMore(kind)}
            >
              {STEP_NAMES[kind]}
            </SmallButton>
          ))}
      </p>
    </>
  );
}
