import { ringPoints } from "@true-spine/core/blade/outline.ts";
import { type Blade, bevelOn } from "@true-spine/core/blade/schema.ts";
import { DRIVERS } from "@true-spine/core/design/drive.ts";
import { wholeBlade } from "@true-spine/core/evaluate/evaluation.ts";
import { type LengthUnit, showLength } from "@true-spine/core/units/length.ts";
import { useMemo } from "react";
import { useSettings } from "../../app/settings.ts";
import { fieldOf } from "../../blade/derived.ts";
import { pathThrough } from "../../rail/scale.ts";

/** Two states of one blade: their outlines over one another, and every figure that differs. */
export function Compare({
  earlier,
  current,
  earlierName,
}: {
  earlier: Blade;
  current: Blade;
  earlierName: string;
}) {
  const unit = useSettings((settings) => settings.unit);
  const rows = useMemo(() => {
    const [before, after] = [figuresOf(earlier, unit), figuresOf(current, unit)];
    return Object.keys({ ...before, ...after })
      .map((name) => ({ name, earlier: before[name] ?? "none", current: after[name] ?? "none" }))
      .filter((row) => row.earlier !== row.current);
  }, [earlier, current, unit]);
  return (
    <section aria-label={`${earlierName} beside what stands`} className="rounded bg-room p-3">
      <Overlay earlier={earlier} current={current} />
      {rows.length === 0 ? (
        <p className="mt-2 text-sm">The figures are the same in both.</p>
      ) : (
        <table className="mt-2 w-full text-sm">
          <thead>
            <tr className="text-left text-xs text-faint">
              <th scope="col" className="font-normal">
                what differs
              </th>
              <th scope="col" className="text-right font-normal">
                {earlierName}
              </th>
              <th scope="col" className="text-right font-normal">
                now
              </th>
            </tr>
          </thead>
          <tbody>
            {rows.map((row) => (
              <tr key={row.name} className="border-t border-rule">
                <th scope="row" className="text-left font-medium">
                  {row.name}
                </th>
                <td className="text-right">{row.earlier}</td>
                <td className="text-right font-semibold">{row.current}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}

function Overlay({ earlier, current }: { earlier: Blade; current: Blade }) {
  const rings = [fieldOf(earlier).ring, fieldOf(current).ring];
  const [left, right] = [Math.min(...rings.map((r) => r.left)), Math.max(...rings.map((r) => r.right))];
  const [bottom, top] = [Math.min(...rings.map((r) => r.bottom)), Math.max(...rings.map((r) => r.top))];
  const box = `${left - 4} ${-top - 4} ${right - left + 8} ${top - bottom + 8}`;
  const outline = (i: 0 | 1) =>
    pathThrough(
      ringPoints(rings[i]!),
      (x) => x,
      (y) => -y,
      true,
    );
  return (
    <svg
      viewBox={box}
      className="h-36 w-full bg-layout"
      role="img"
      aria-label="Both outlines, the earlier one dashed"
    >
      <path
        d={outline(1)}
        fill="var(--color-layout-steel)"
        stroke="var(--color-scribed)"
        strokeWidth={1.3}
        vectorEffect="non-scaling-stroke"
      />
      <path
        d={outline(0)}
        fill="none"
        stroke="var(--color-grind)"
        strokeWidth={1.3}
        strokeDasharray="6 4"
        vectorEffect="non-scaling-stroke"
      />
    </svg>
  );
}

/** A blade's figures as they are shown, by name. */
function figuresOf(file: Blade, unit: LengthUnit): Record<string, string> {
  const field = fieldOf(file);
  const say = (mm: number) => showLength(mm, unit);
  const list = (values: readonly number[]) => values.map(say).join(" / ");
  const whole = wholeBlade(field);
  const right = bevelOn(file, "right");
  return {
    name: file.name,
    ...(file.use ? { "what for": file.use } : {}),
    ...(file.steel ? { steel: file.steel } : {}),
    ...Object.fromEntries(
      DRIVERS.flatMap(({ name, measure }) => {
        const value = measure(field.ring, file);
        return value === null ? [] : [[name, say(value)]];
      }),
    ),
    "thickness over the flats": list(file.thickness.map((row) => row.t)),
    "behind the edge": list(file.edge.behind.map((row) => row.t)),
    "edge angle, left / right": `${file.edge.angle.left}° / ${file.edge.angle.right}°`,
    bevel: right.kind === "none" ? "none" : `${right.kind}, ${right.pull}`,
    ...(right.kind !== "none" && right.set === "height"
      ? { "grind line": list(right.height.map((row) => row.h)) }
      : {}),
    ...(right.kind !== "none" && right.set === "angle" ? { "bevel angle": `${right.angle}°` } : {}),
    ...(right.kind !== "none"
      ? {
          plunge: `${say(right.plunge.x)}, leaning ${right.plunge.lean}°, radius ${say(right.plunge.radius)}`,
        }
      : {}),
    "left side": file.bevels.left === "same" ? "as right" : "its own",
    "false edge": file.falseEdge
      ? `${say(file.falseEdge.from)} to ${say(file.falseEdge.to)} at ${file.falseEdge.angle}°`
      : "none",
    holes: String(file.holes?.length ?? 0),
    "steel, g": whole.blade.mass.toFixed(1),
    "balance of the steel": say(whole.blade.centreOfMass[0]),
  };
}
