import { type ForgeReport, stepsTo } from "@true-spine/core/route/forge-report.ts";
import { FORM_PLACES } from "@true-spine/core/route/forging.ts";
import { showLength } from "@true-spine/core/units/length.ts";
import { heatsAt } from "@true-spine/core/work/joined.ts";
import { useSettings } from "../../app/settings.ts";
import { useDocument, useScreen } from "../../blade/screen.ts";
import { From } from "../../parts/From.tsx";
import { record, useWorkRows } from "../../work/useWorkRows.ts";

/** Every form in the order it is made: its length, its width and thickness at named places, its turn, and what it takes at the fire. */
export function FormsTable({
  report,
  chosen,
  onChoose,
}: {
  report: ForgeReport;
  chosen: number;
  onChoose: (i: number) => void;
}) {
  const unit = useSettings((settings) => settings.unit);
  const screen = useScreen();
  const route = useDocument("route");
  const counted = heatsAt(useWorkRows());
  const stage = route.stages.find(({ kind }) => kind === "forge");
  const say = (mm: number) => showLength(mm, unit, unit === "mm" ? 1 : undefined);
  return (
    <table aria-label="Forms" className="w-full border-collapse text-sm">
      <thead className="text-left text-[11px] text-faint">
        <tr>
          <th scope="col" className="py-1 font-normal">
            form
          </th>
          <th scope="col" className="text-right font-normal">
            long, {unit}
          </th>
          {FORM_PLACES.map((name) => (
            <th key={name} scope="col" className="text-right font-normal">
              {name}
            </th>
          ))}
          <th scope="col" className="pl-2 text-right font-normal">
            turn
          </th>
          <th scope="col" className="pl-2 text-right font-normal">
            heats
          </th>
          <th scope="col" className="text-right font-normal">
            made
          </th>
        </tr>
      </thead>
      <tbody>
        {report.forms.map((form, i) => {
          const steps = stepsTo(report, form);
          const heats = steps.reduce((sum, one) => sum + one.heats, 0);
          const step = steps[0]?.step;
          const made = steps.reduce((sum, one) => sum + (counted[one.step] ?? 0), 0);
          return (
            <tr key={form.step} className={`border-t border-rule ${i === chosen ? "bg-band" : ""}`}>
              <th scope="row" className="py-1.5 pr-2 text-left">
                <button
                  type="button"
                  aria-pressed={i === chosen}
                  className="rounded text-left font-semibold hover:underline"
                  onClick={() => onChoose(i)}
                >
                  {i + 1}. {form.name}
                </button>
              </th>
              <td className="text-right font-semibold">
                <From words={`Cold; ${say(form.length * (1 + report.hot))} at the colour where work stops.`}>
                  {say(form.length)}
                </From>
              </td>
              {form.places.map(({ name, width, thickness, edge }) => (
                <td key={name} className="pl-2 text-right whitespace-nowrap">
                  {say(width)} × {say(thickness)}
                  {edge !== null && <span className="block text-xs text-faint">edge {say(edge)}</span>}
                </td>
              ))}
              <td className="pl-2 text-right">
                {Math.abs(form.turn) < 0.05 ? "0°" : `${form.turn.toFixed(1)}°`}
              </td>
              <td className="pl-2 text-right">
                {steps.length > 0 && (
                  <From
                    words={steps
                      .map(
                        (one) =>
                          `${one.step}: ${shown(one.heats)} heats, about ${one.seconds.toFixed(0)} s in hand each`,
                      )
                      .join("; ")}
                  >
                    {shown(heats)}
                  </From>
                )}
              </td>
              <td className="pl-2 text-right whitespace-nowrap">
                {step && stage && (
                  <>
                    {made > 0 && <span className="mr-1 font-semibold">{made}</span>}
                    <button
                      type="button"
                      aria-label={`One more heat: ${form.name}`}
                      className="min-h-7 rounded border border-frame px-2 text-xs font-semibold hover:bg-room"
                      onClick={() => record(screen, { stage: stage.id, what: "heat", step })}
                    >
                      + heat
                    </button>
                  </>
                )}
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

const shown = (heats: number) => (Number.isFinite(heats) ? String(heats) : "too cold");
