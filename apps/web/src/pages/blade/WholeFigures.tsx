import { showLength } from "@true-spine/core/units/length.ts";
import { useSettings } from "../../app/settings.ts";
import { useDocument, useJudged } from "../../blade/screen.ts";
import { From } from "../../parts/From.tsx";

/** The whole blade's own figures: steel only. From the worker, so a moment behind the drawing. */
export function WholeFigures() {
  const judged = useJudged();
  const isHandled = useDocument("handle").parts.length > 0;
  const unit = useSettings((settings) => settings.unit);
  const say = (mm: number) => showLength(mm, unit, unit === "mm" ? 1 : undefined);
  const figures = judged
    ? ([
        ["Steel", `${judged.whole.blade.mass.toFixed(1)} g`, "volume of the field × density of the steel"],
        ["Blade only", `${judged.whole.forward.mass.toFixed(1)} g`, "the same, ahead of the junction"],
        [
          "Balance, steel",
          say(judged.whole.blade.centreOfMass[0]),
          "centre of mass along the blade, from the junction, + toward the tip",
        ],
        ...(isHandled
          ? [
              ["Knife", `${judged.balance.mass.toFixed(1)} g`, "the steel with what is on the tang"],
              [
                "Balance, knife",
                say(judged.balance.x),
                judged.balance.fromPlunge === null
                  ? "balance point with the handle on, from the junction, + toward the tip"
                  : `balance point with the handle on, from the junction; ${say(Math.abs(judged.balance.fromPlunge))} ${judged.balance.fromPlunge < 0 ? "behind" : "ahead of"} the plunge`,
              ],
            ]
          : []),
        ["Edge", say(judged.whole.blade.edgeLength), "arc length, heel to tip"],
        ["Overall", say(judged.whole.blade.overall), "butt to tip"],
      ] as [string, string, string][])
    : [];
  return (
    <section aria-label="Whole blade" aria-busy={!judged} className="min-h-12 bg-sheet px-3 py-2">
      <dl className="grid grid-cols-3 gap-x-3 gap-y-1">
        {figures.map(([name, value, from]) => (
          <div key={name}>
            <dt className="text-[11px] text-faint">{name}</dt>
            <dd className="font-semibold">
              <From words={from}>{value}</From>
            </dd>
          </div>
        ))}
      </dl>
    </section>
  );
}
