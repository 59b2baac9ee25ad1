import type { HeatReport } from "@true-spine/core/route/heat-report.ts";
import { showLength } from "@true-spine/core/units/length.ts";
import { showTemperature } from "@true-spine/core/units/temperature.ts";
import { useSettings } from "../../app/settings.ts";
import { inMinutes } from "../../work/useHeatClock.ts";
import { useRoute } from "../../work/useWorkRows.ts";

/** Every heat in order: how hot, how long until it is through and held, into what, and what it costs in skin. */
export function HeatsTable({
  report,
  chosen,
  onChoose,
}: {
  report: HeatReport;
  chosen: string | null;
  onChoose: (id: string) => void;
}) {
  const unit = useSettings((settings) => settings.unit);
  const route = useRoute();
  const isDone = (id: string) => route.stages.some((stage) => stage.id === id && stage.done);
  return (
    <table aria-label="Heats" className="w-full border-collapse text-sm">
      <thead className="text-left text-[11px] text-faint">
        <tr>
          {["heat", "how hot", "through after", "held", "into", `skin, ${unit}`, "done"].map((title, i) => (
            <th
              key={title}
              scope="col"
              className={`py-1 font-normal ${i > 0 && i !== 4 ? "text-right" : "pl-2"}`}
            >
              {title}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {report.ops.map(({ op, name, through, skin }) => (
          <tr key={op.id} className={`border-t border-rule ${op.id === chosen ? "bg-band" : ""}`}>
            <th scope="row" className="py-1.5 pr-2 pl-2 text-left">
              <button
                type="button"
                aria-pressed={op.id === chosen}
                className="rounded text-left font-semibold hover:underline"
                onClick={() => onChoose(op.id)}
              >
                {name}
              </button>
            </th>
            <td className="text-right font-semibold whitespace-nowrap">{showTemperature(op.T, op.said)}</td>
            <td className="text-right">{inMinutes(through)}</td>
            <td className="text-right">{inMinutes(op.minutes)}</td>
            <td className="pl-2">{op.medium ?? ""}</td>
            <td className="text-right">{showLength(skin.depth, unit)}</td>
            <td className="pl-2 text-right">{isDone(op.id) ? "done" : ""}</td>
          </tr>
        ))}
        <tr className="border-t border-frame">
          <th scope="row" className="py-1.5 pl-2 text-left font-normal text-faint">
            in all, cooling with it
          </th>
          <td />
          <td colSpan={2} className="text-right font-semibold">
            {inMinutes(report.minutes)}
          </td>
          <td colSpan={3} />
        </tr>
      </tbody>
    </table>
  );
}
