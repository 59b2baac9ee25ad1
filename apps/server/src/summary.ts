import { compileField } from "@true-spine/core/blade/field.ts";
import { drawnLines, type Line } from "@true-spine/core/blade/lines.ts";
import { massOf, solidBetween } from "@true-spine/core/blade/mass.ts";
import { ringPoints } from "@true-spine/core/blade/outline.ts";
import type { Blade } from "@true-spine/core/blade/schema.ts";
import { FIXED_HEIGHTS, stationAt, thicknessAbove } from "@true-spine/core/blade/station.ts";
import { type Beside, judge } from "@true-spine/core/findings/judge.ts";
import type { Summary } from "@true-spine/core/registry/contract.ts";
import { densityOf } from "@true-spine/core/steel/steels.ts";

/** What the rack shows of a checked blade. */
export function summaryOf(blade: Blade, beside: Beside = {}): Summary {
  const field = compileField(blade);
  const { findings } = judge(blade, field, beside);
  const { left, right, top, bottom } = field.ring;
  const middle = stationAt(field, 0.5);
  const edgeBevel = middle.right.edgeBevel ?? middle.left.edgeBevel;
  const behind = blade.edge.behind.map((row) => row.t);
  const lines = drawnLines(field, LINE_PLACES);
  const shown = blade.bevels.right.kind === "none" ? "left" : "right";
  const worst = findings.find((finding) => finding.severity !== "note");
  return {
    length: blade.outline.spine[blade.outline.spine.length - 1]!.at[0],
    mass: massOf(solidBetween(field).volume, densityOf(blade.steel)),
    behind: [Math.min(...behind), Math.max(...behind)],
    ...(middle.behind !== null && edgeBevel !== null ? { middle: { behind: middle.behind, edgeBevel } } : {}),
    above: Object.fromEntries(
      FIXED_HEIGHTS.flatMap((y) => {
        const thick = thicknessAbove(field, middle, y);
        return thick === null ? [] : [[String(y), thick]];
      }),
    ),
    fix: findings.filter((finding) => finding.severity === "fix").length,
    watch: findings.filter((finding) => finding.severity === "watch").length,
    worst: worst?.message ?? null,
    outline: pathOf(ringPoints(field.ring)),
    lines: [...lines.grindLine[shown], ...(lines.plunge[shown] ? [lines.plunge[shown]] : [])]
      .map(openPath)
      .join(""),
    box: [left, -top, right - left, top - bottom],
  };
}

const LINE_PLACES = 24;

function openPath(line: Line): string {
  return `M${line.map(([x, y]) => `${x.toFixed(2)} ${(-y).toFixed(2)}`).join("L")}`;
}

/** A closed path, y turned down, to a hundredth of a millimetre; points closer than 0.3 mm are left out. */
function pathOf(points: readonly (readonly [number, number])[]): string {
  let last: readonly [number, number] | undefined;
  const kept = points.filter((point) => {
    if (last && Math.hypot(point[0] - last[0], point[1] - last[1]) < 0.3) return false;
    last = point;
    return true;
  });
  return `M${kept.map(([x, y]) => `${x.toFixed(2)} ${(-y).toFixed(2)}`).join("L")}Z`;
}
