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

/** A closed path, y turned down, to a hundredth of a millimetre, of as few points as show it on a rack. */
function pathOf(points: readonly Point[]): string {
  // Between the two points that lie farthest apart, or a ring would be a line to itself.
  const far = points.reduce(
    (most, point, i) => (apart(point, points[0]!) > apart(points[most]!, points[0]!) ? i : most),
    0,
  );
  const kept = [
    ...fewer(points.slice(0, far + 1)),
    ...fewer([...points.slice(far), points[0]!]).slice(1, -1),
  ];
  return `M${kept.map(([x, y]) => `${x.toFixed(2)} ${(-y).toFixed(2)}`).join("L")}Z`;
}

type Point = readonly [number, number];
/** What a drawing may be off by that is a hand wide on the rack, mm. */
const OFF = 0.08;
const apart = (a: Point, b: Point) => Math.hypot(a[0] - b[0], a[1] - b[1]);

/** A line through fewer of its points, none that is left out farther from it than `OFF`. Source: Douglas and Peucker, 1973. */
function fewer(line: readonly Point[]): readonly Point[] {
  if (line.length < 3) return line;
  const [first, last] = [line[0]!, line[line.length - 1]!];
  const long = apart(first, last);
  const off = ([x, y]: Point) =>
    long === 0
      ? apart([x, y], first)
      : Math.abs((last[0] - first[0]) * (first[1] - y) - (first[0] - x) * (last[1] - first[1])) / long;
  const most = line.reduce((at, point, i) => (off(point) > off(line[at]!) ? i : at), 0);
  if (off(line[most]!) <= OFF) return [first, last];
  return [...fewer(line.slice(0, most + 1)), ...fewer(line.slice(most)).slice(1)];
}
