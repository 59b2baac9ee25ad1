import type { Blow, StraightSet } from "@true-spine/core/straight/schema.ts";
import { showLength } from "@true-spine/core/units/length.ts";
import { useSettings } from "../../app/settings.ts";
import { useScreen } from "../../blade/screen.ts";
import { SmallButton } from "../../parts/Group.tsx";

/** What was read and struck, the last first: each can be struck out. */
export function StraightLog({ sets, blows }: { sets: readonly StraightSet[]; blows: readonly Blow[] }) {
  const screen = useScreen();
  const unit = useSettings((settings) => settings.unit);
  const lines = [
    ...sets.map(({ id, when, kind, face, rows }) => ({
      id,
      when,
      what: kind as string,
      face,
      words: rows.map(({ v }) => (kind === "roll" ? `${v.toFixed(1)}°` : showLength(v, unit))).join("  "),
    })),
    ...blows.map(({ id, when, face, count, tool, from, to }) => ({
      id,
      when,
      what: "struck",
      face,
      words: `${count} × ${tool}, at ${showLength((from[0]! + to[0]!) / 2, unit, unit === "mm" ? 0 : undefined)}`,
    })),
  ].sort((a, b) => Date.parse(b.when) - Date.parse(a.when));
  if (lines.length === 0) return null;
  return (
    <table aria-label="Readings and blows" className="mt-2 w-full border-collapse text-sm">
      <thead className="text-left text-[11px] text-faint">
        <tr>
          {["what", "face up", `read, ${unit}; or struck`].map((name) => (
            <th key={name} scope="col" className="py-1 font-normal">
              {name}
            </th>
          ))}
          <th scope="col" className="w-24 py-1 font-normal">
            <span className="sr-only">strike out</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {lines.map(({ id, what, face, words }) => (
          <tr key={id} className="border-t border-rule">
            <td className="py-1 pr-3 whitespace-nowrap">{what}</td>
            <td className="pr-3">{face}</td>
            <td className="py-1">{words}</td>
            <td className="text-right">
              <SmallButton onClick={() => screen.work.strike(id, true)}>Strike out</SmallButton>
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
