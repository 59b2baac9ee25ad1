import { showLength } from "@true-spine/core/units/length.ts";
import { useSettings } from "../../app/settings.ts";
import type { Measured } from "./measured.ts";

/** The same in figures, and as ratios to the one that they are held against. */
export function KnivesTable({
  all,
  height,
  against,
  chosen,
  onPick,
}: {
  all: readonly Measured[];
  height: number;
  against: Measured | null;
  chosen: string | null;
  onPick: (key: string) => void;
}) {
  const unit = useSettings((settings) => settings.unit);
  const names = [
    "knife",
    `long, ${unit}`,
    "behind the edge",
    "its bevel",
    "a side",
    `${showLength(height, unit)} up`,
    ...(against ? ["as thick", "wedge", "apex", "mass"] : []),
  ];
  const ratio = (a: number | null, b: number | null) =>
    a === null || b === null || b === 0 ? "–" : `${(a / b).toFixed(2)}`;
  return (
    <table aria-label="Knives, measured and drawn" className="w-full border-collapse text-sm">
      {against && (
        <caption className="pb-1 text-left text-xs text-faint">
          Ratios to {against.name}: above 1, the knife has more of it. Apex: a side load, for comparing alone.
        </caption>
      )}
      <thead className="text-left text-[11px] text-faint">
        <tr>
          {names.map((name, i) => (
            <th key={name} scope="col" className={`py-1 font-normal ${i > 0 ? "text-right" : "pl-2"}`}>
              {name}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {all.map((one) => {
          const t = one.thick(height);
          const other = against?.thick(height) ?? null;
          return (
            <tr key={one.key} className={`border-t border-rule ${one.key === chosen ? "bg-band" : ""}`}>
              <th scope="row" className="py-1 pl-2 text-left font-semibold">
                {one.isRack ? (
                  <span>
                    {one.name} <span className="text-xs font-normal text-faint">drawn</span>
                  </span>
                ) : (
                  <button
                    type="button"
                    className="rounded text-left hover:underline"
                    aria-pressed={one.key === chosen}
                    onClick={() => onPick(one.key)}
                  >
                    {one.name}
                  </button>
                )}
              </th>
              <td className="text-right">{showLength(one.length, unit, unit === "mm" ? 0 : undefined)}</td>
              <td className="text-right">{showLength(one.behind, unit)}</td>
              <td className="text-right">{showLength(one.high, unit)}</td>
              <td className="text-right">{one.angle.toFixed(1)}°</td>
              <td className="text-right font-semibold">{t === null ? "–" : showLength(t, unit)}</td>
              {against && (
                <>
                  <td className="text-right font-semibold">{asThick(one, against, height, t, other)}</td>
                  <td className="text-right">{ratio(one.wedge, against.wedge)}</td>
                  <td className="text-right">{ratio(one.apex, against.apex)}</td>
                  <td className="text-right">{ratio(one.mass, against.mass)}</td>
                </>
              )}
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

/** How many times as thick, with what covers 95 of 100 of that. */
function asThick(one: Measured, other: Measured, y: number, t: number | null, u: number | null): string {
  if (t === null || u === null || u === 0) return "–";
  const within = one === other ? 0 : 1.96 * (t / u) * Math.hypot(one.within(y) / t, other.within(y) / u);
  return `${(t / u).toFixed(2)}${within >= 0.005 ? ` ± ${within.toFixed(2)}` : ""}`;
}
