import { abrasiveName, isBelt } from "@true-spine/core/abrasive/schema.ts";
import type { Sequence } from "@true-spine/core/abrasive/sequence.ts";
import { showLength } from "@true-spine/core/units/length.ts";
import { useSettings } from "../app/settings.ts";

/** A sequence of belts or stones: what each takes off, its minutes, and how many it wears out. */
export function BeltsTable({ sequence, caption }: { sequence: Sequence; caption?: string }) {
  const unit = useSettings((settings) => settings.unit);
  const places = { mm: 3, inch: 4, thou: 1 }[unit];
  const areBelts = sequence.steps.every(({ belt }) => isBelt(belt));
  return (
    <table className="w-full text-xs">
      {caption && <caption className="text-left text-[11px] text-faint">{caption}</caption>}
      <thead className="text-[11px] text-faint">
        <tr>
          <th className="text-left font-normal">{areBelts ? "belt" : "with"}</th>
          <th className="text-right font-normal">off a side, {unit}</th>
          <th className="text-right font-normal">min</th>
          <th className="text-right font-normal">{areBelts ? "belts" : "worn out"}</th>
        </tr>
      </thead>
      <tbody>
        {sequence.steps.map(({ belt, depth, minutes, belts }) => (
          <tr key={belt.id}>
            <td className="font-semibold">{abrasiveName(belt)}</td>
            <td className="text-right">{showLength(depth, unit, places)}</td>
            <td className="text-right">{minutes < 1 ? "<1" : Math.round(minutes)}</td>
            <td className="text-right">{belts.toFixed(2)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
