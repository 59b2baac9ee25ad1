import { compileField } from "@true-spine/core/blade/field.ts";
import { drawnLines } from "@true-spine/core/blade/lines.ts";
import { compileRing, ringPoints } from "@true-spine/core/blade/outline.ts";
import type { Blade } from "@true-spine/core/blade/schema.ts";
import { FAMILIES, valuesOf } from "@true-spine/core/design/families.ts";
import type { Family } from "@true-spine/core/design/family.ts";
import type { Answers } from "@true-spine/core/design/first.ts";
import { type LengthUnit, showLengthWithUnit } from "@true-spine/core/units/length.ts";
import { pathThrough } from "../../rail/scale.ts";

/** A family at its usual dimensions, as a silhouette. */
export function Thumbnail({ family: key }: { family: string }) {
  const family = FAMILIES.find((one) => one.key === key)!;
  const ring = compileRing(family.outline(valuesOf(family), family.tangs[0]!));
  const wide = ring.right - ring.left;
  return (
    <svg
      viewBox={`${ring.left} ${-ring.top} ${wide} ${ring.top - ring.bottom}`}
      className="h-6 w-full"
      aria-hidden
    >
      <path d={svgPath(ring)} fill="currentColor" opacity={0.75} />
    </svg>
  );
}

function svgPath(ring: ReturnType<typeof compileRing>): string {
  return pathThrough(
    ringPoints(ring),
    (x) => x,
    (y) => -y,
    true,
  );
}

const PLACES = 40;

/** Grind line, shoulder and plunge of the ground side. */
function grindPath(blade: Blade): string {
  const lines = drawnLines(compileField(blade), PLACES);
  const { plunge } = lines;
  const all = [...lines.grindLine.right, ...lines.shoulder.right, ...(plunge.right ? [plunge.right] : [])];
  return all
    .map((line) =>
      pathThrough(
        line,
        (x) => x,
        (y) => -y,
      ),
    )
    .join("");
}

/** The outline so far, true to shape, with its two chief dimensions on it. */
export function Preview({
  family,
  answers,
  blade,
  unit,
}: {
  family: Family;
  answers: Answers;
  /** With its grind lines, once it is found. */
  blade: Blade | null;
  unit: LengthUnit;
}) {
  const values = valuesOf(family, answers.values);
  const ring = compileRing(family.outline(values, answers.tang));
  const { length = 0, height = 0 } = values;
  const pad = 16;
  const box = [
    ring.left - pad,
    -ring.top - pad,
    ring.right - ring.left + 2 * pad,
    ring.top - ring.bottom + 2.2 * pad,
  ];
  const below = -ring.bottom + pad * 0.6;
  const size = Math.max(box[2]! / 70, 2.6);
  return (
    <svg
      viewBox={box.join(" ")}
      className="h-[46%] w-full shrink-0 bg-layout"
      role="img"
      aria-label={`Outline: ${family.name}, ${showLengthWithUnit(length, unit)} of blade`}
    >
      <path
        d={svgPath(ring)}
        fill="var(--color-layout-steel)"
        stroke="var(--color-scribed)"
        strokeWidth={size / 7}
      />
      {blade && <path d={grindPath(blade)} fill="none" stroke="var(--color-grind)" strokeWidth={size / 6} />}
      <g stroke="var(--color-scribed)" strokeWidth={size / 10} fill="none">
        <path d={`M0 ${below - 2}v4M${length} ${below - 2}v4M0 ${below}H${length}`} />
        <path d={`M${-2} 0h4`} />
      </g>
      <text
        x={length / 2}
        y={below - size * 0.4}
        textAnchor="middle"
        fontSize={size}
        fill="var(--color-scribed)"
      >
        {showLengthWithUnit(length, unit)}
      </text>
      <text x={ring.left} y={below - size * 0.4} fontSize={size} fill="var(--color-scribed-faint)">
        {`${showLengthWithUnit(height, unit)} tall at the heel`}
      </text>
    </svg>
  );
}
