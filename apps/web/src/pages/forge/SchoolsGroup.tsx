import type { ForgeSchool } from "@true-spine/core/route/forge-report.ts";
import { showLengthWithUnit } from "@true-spine/core/units/length.ts";
import { useSettings } from "../../app/settings.ts";
import { Group } from "../../parts/Group.tsx";
import { useForge } from "./useForge.ts";

/** The ways of working beside one another, each with what it costs on this bar. */
export function SchoolsGroup({ schools }: { schools: readonly ForgeSchool[] }) {
  const unit = useSettings((settings) => settings.unit);
  const { press } = useForge();
  return (
    <Group title="Ways of working">
      <ul className="flex flex-col gap-1.5">
        {schools.map((school) => (
          <li key={school.name}>
            <button
              type="button"
              aria-pressed={school.isChosen}
              className={`w-full rounded border px-2.5 py-1.5 text-left text-sm ${school.isChosen ? "border-deep bg-band" : "border-frame bg-sheet hover:bg-room"}`}
              onClick={() => press((now) => ({ ...now, order: [...school.order], turn: { ...school.turn } }))}
            >
              <span className="block font-semibold">{school.name}</span>
              <span className="block text-xs text-faint">
                {school.onWood.toFixed(1)}° on wood, about{" "}
                {Number.isFinite(school.heats) ? school.heats : "too many"} heats, a bar that gives{" "}
                {showLengthWithUnit(school.widest, unit, unit === "mm" ? 1 : undefined)} of width.{" "}
                {school.words}
              </span>
            </button>
          </li>
        ))}
      </ul>
    </Group>
  );
}
