import { LENGTH_UNITS, type LengthUnit } from "@true-spine/core/units/length.ts";
import { useSettings } from "../app/settings.ts";

const NAMES: Readonly<Record<LengthUnit, string>> = { mm: "mm", inch: "inch", thou: "thou" };

/** The unit that lengths are shown and typed in, everywhere. */
export function UnitMenu() {
  const { unit, setUnit } = useSettings();
  return (
    <label className="flex shrink-0 items-center">
      <span className="sr-only">Unit</span>
      <select
        className="h-8 rounded border border-frame bg-sheet px-1.5 text-sm font-semibold"
        value={unit}
        onChange={(event) => setUnit(event.currentTarget.value as LengthUnit)}
      >
        {LENGTH_UNITS.map((one) => (
          <option key={one} value={one}>
            {NAMES[one]}
          </option>
        ))}
      </select>
    </label>
  );
}
