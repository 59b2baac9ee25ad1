import { type Batch, isSeed } from "@true-spine/core/edge/trials.ts";
import { type LengthUnit, showLengthWithUnit } from "@true-spine/core/units/length.ts";
import { SmallButton } from "../../parts/Group.tsx";
import { behindWords, DAMAGE_NAMES } from "./words.ts";

/** Every batch that counts, the last first; those of common practice cannot be struck out. */
export function BatchesTable({
  batches,
  unit,
  onStrike,
}: {
  batches: readonly Batch[];
  unit: LengthUnit;
  onStrike: (id: string) => void;
}) {
  if (batches.length === 0) return null;
  return (
    <table aria-label="Batches" className="w-full text-sm">
      <thead className="text-left text-[11px] text-faint">
        <tr>
          {["when", "in", "cuts", "behind the edge", "a side", "what went", "strike"].map((name) => (
            <th key={name} scope="col" className="py-1 font-normal">
              <span className={name === "strike" ? "sr-only" : ""}>{name}</span>
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {batches.toReversed().map((one) => (
          <tr key={one.id} className="border-t border-rule">
            <td className="py-1">{isSeed(one) ? "common practice" : one.when.slice(0, 10)}</td>
            <td>{one.material}</td>
            <td>
              {one.cuts}{" "}
              {one.drop ? `dropped, ${one.drop.kg} kg from ${one.drop.m} m` : `at ${one.force ?? "?"} N`}
            </td>
            <td>{behindWords(one.least, one.most, unit)}</td>
            <td>{one.angle}°</td>
            <td>
              {DAMAGE_NAMES[one.damage]}
              {one.depth ? `, ${showLengthWithUnit(one.depth, unit)}` : ""}
            </td>
            <td className="text-right">
              {!isSeed(one) && (
                <SmallButton
                  label={`Strike out ${one.material}, ${one.angle}°`}
                  onClick={() => onStrike(one.id)}
                >
                  Strike out
                </SmallButton>
              )}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
