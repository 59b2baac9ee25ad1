import { coreLineAt } from "@true-spine/core/blade/core.ts";
import type { Field } from "@true-spine/core/blade/field.ts";
import { spansAt } from "@true-spine/core/blade/outline.ts";
import { flatBetween, secondStationAtX } from "@true-spine/core/blade/second-station.ts";
import { type Station, stationAt, thicknessAbove } from "@true-spine/core/blade/station.ts";
import { read } from "@true-spine/core/blade/table.ts";
import { asThickAs } from "@true-spine/core/edge/compare.ts";
import type { Purpose } from "@true-spine/core/findings/purposes.ts";
import { edgeBeforeSharpening } from "@true-spine/core/grind/relations.ts";
import { showAngle } from "@true-spine/core/units/angle.ts";
import { type LengthUnit, showLength } from "@true-spine/core/units/length.ts";

/** One line of the numbers at the scribe. `from` is the relation behind it with this blade's figures put in. */
export interface NumberRow {
  readonly name: string;
  readonly left: string | null;
  readonly right: string | null;
  readonly both: string | null;
  readonly wanted: string | null;
  readonly isOut: boolean;
  readonly from: string;
}

/** Every number at the scribe, in words and figures of the unit on show. */
export function numbersAt(
  field: Field,
  x: number,
  station: Station | null,
  unit: LengthUnit,
  purpose: Purpose | undefined,
  ghost: Field | null = null,
): NumberRow[] {
  const say = (mm: number) => showLength(mm, unit);
  const flats = read(field.thickness, x);
  const spans = spansAt(field.ring, x);
  const tall = spans.reduce((sum, [bottom, top]) => sum + top - bottom, 0);
  const row = (name: string, from: string, values: Partial<NumberRow>): NumberRow => ({
    name,
    left: null,
    right: null,
    both: null,
    wanted: null,
    isOut: false,
    from,
    ...values,
  });
  const stock = row("Over the flats", `T at ${say(x)}, from the thickness table`, { both: say(flats) });
  if (!station)
    return [stock, row("Height", "outline at the scribe, square to the datum", { both: say(tall) })];
  const { right, left } = station;
  const length = (value: number | null) => (value === null ? null : say(value));
  const angle = (value: number | null) => (value === null ? null : showAngle(value));
  const { angle: edge } = field.blade.edge;
  const rows: NumberRow[] = [
    row("Behind the edge", behindFrom(station, edge, say), {
      left: length(left.behind),
      right: length(right.behind),
      both: length(station.behind),
      wanted:
        purpose && Number.isFinite(purpose.behind[1])
          ? `${say(purpose.behind[0])}–${say(purpose.behind[1])}`
          : null,
      isOut: !!purpose && station.behind !== null && outside(station.behind, purpose.behind),
    }),
    row("Edge bevel", `d = e ÷ tan α = ${length(right.behind) ?? "–"} ÷ tan ${edge.right}°`, {
      left: length(left.edgeBevel),
      right: length(right.edgeBevel),
    }),
    ...(right.edgeAtApex !== null || left.edgeAtApex !== null
      ? [
          row("Edge, at apex", "α + asin(c ÷ 2R): the arc's tangent at the apex", {
            left: angle(left.edgeAtApex),
            right: angle(right.edgeAtApex),
          }),
          row("Edge, at shoulder", "α − asin(c ÷ 2R): its tangent at the shoulder", {
            left: angle(left.edgeAtShoulder),
            right: angle(right.edgeAtShoulder),
          }),
          ...EDGE_SHARES.map(([share, name]) => {
            const up = share * Math.max(right.edgeBevel ?? 0, left.edgeBevel ?? 0);
            const thick = thicknessAbove(field, station, up);
            return row(`Edge, ${name} up`, `thickness ${say(up)} above the apex, across the arcs`, {
              both: thick === null ? null : showLength(thick, unit, unit === "mm" ? 3 : undefined),
            });
          }),
        ]
      : []),
    ...(right.relief || left.relief
      ? [
          row("Relief, a side", "the second slope above the shoulder", {
            left: angle(left.relief?.angle ?? null),
            right: angle(right.relief?.angle ?? null),
          }),
          row("Relief, up to", "square to the edge, edge bevel included", {
            left: length(left.relief?.height ?? null),
            right: length(right.relief?.height ?? null),
          }),
        ]
      : []),
    row("Bevel, a side", angleFrom(station, say), {
      left: angle(left.primaryAngle),
      right: angle(right.primaryAngle),
    }),
    ...(isArc(right) || isArc(left)
      ? [
          row("Bevel, at edge", "the face's tangent where it begins", {
            left: angle(left.angleAtShoulder),
            right: angle(right.angleAtShoulder),
          }),
          row("Bevel, at line", "its tangent at the grind line", {
            left: angle(left.angleAtGrindLine),
            right: angle(right.angleAtGrindLine),
          }),
        ]
      : []),
    ...(field.blade.core ? [coreRow(field, station, row, say)] : []),
    row("Grind line", "upper end of the bevel, square to the edge, edge bevel included", {
      left: length(left.grindLine),
      right: length(right.grindLine),
    }),
  ];
  const beside = ghost && besideRow(field, station, ghost, say);
  if (beside) rows.push(row(beside.name, beside.from, beside));
  for (const height of [2, 5, 10] as const) {
    const thick = thicknessAbove(field, station, height);
    if (thick === null) continue;
    const most = height === 5 ? purpose?.at5 : height === 10 ? purpose?.at10 : null;
    rows.push(
      row(
        `${showLength(height, unit, unit === "mm" ? 0 : undefined)} above`,
        "the field, read square to the edge",
        {
          both: say(thick),
          wanted: most ? `≤ ${say(most)}` : null,
          isOut: !!most && station.height >= 2 * height && thick > most + 0.01,
        },
      ),
    );
  }
  const ground = beforeSharpening(station, edge.right);
  if (ground !== null) {
    const { behind } = station;
    const beta = right.primaryAngle!;
    rows.push(
      row(
        "Grind edge to",
        `e₀ = e(1 − tan β ÷ tan α) = ${say(behind!)} × (1 − tan ${showAngle(beta)} ÷ tan ${edge.right}°)`,
        { both: say(ground) },
      ),
    );
  }
  return [
    ...rows,
    ...secondRows(field, x, station, row, length, angle),
    stock,
    row("Height", "from the edge to the spine, square to the edge", { both: say(station.height) }),
  ];
}

/** Shares of a convex edge bevel that its thickness is told at. */
const EDGE_SHARES = [
  [0.25, "a quarter"],
  [0.5, "half"],
  [0.75, "three quarters"],
] as const;

/** What the second edge is across the scribe, where it passes there. */
function secondRows(
  field: Field,
  x: number,
  first: Station,
  row: (name: string, from: string, values: Partial<NumberRow>) => NumberRow,
  length: (mm: number | null) => string | null,
  angle: (degrees: number | null) => string | null,
): NumberRow[] {
  const station = secondStationAtX(field, x);
  if (!station) return [];
  const { right, left, behind } = station;
  return [
    row("Second, behind", "thickness behind the second edge, square to it", {
      left: length(left.behind),
      right: length(right.behind),
      both: length(behind),
    }),
    row("Second, bevel", "its bevel's angle a side, at the middle of the face", {
      left: angle(left.primaryAngle),
      right: angle(right.primaryAngle),
    }),
    row("Second, line", "how far down from it its bevel ends, edge bevel included", {
      left: length(left.grindLine),
      right: length(right.grindLine),
    }),
    row("Flat between", "between both edges' bevels, square to the first; 0 where they meet in a ridge", {
      left: length(flatBetween(first, "left")),
      right: length(flatBetween(first, "right")),
    }),
  ];
}

/** How unlike a face's two ends are before they are told apart, degrees. */
const TOLD_APART = 0.3;

const isArc = ({ angleAtShoulder, angleAtGrindLine }: Station["right"]) =>
  angleAtShoulder !== null && Math.abs(angleAtShoulder - angleAtGrindLine!) > TOLD_APART;

/** Where the core comes out of the faces, how far that is below the grind line, and how it moves when a face is taken down. */
function coreRow(
  field: Field,
  station: Station,
  row: (name: string, from: string, values: Partial<NumberRow>) => NumberRow,
  say: (mm: number) => string,
): NumberRow {
  const on = (side: "left" | "right") => coreLineAt(field, station, side);
  const [left, right] = [on("left"), on("right")];
  const told = (mm: number | null) => (mm === null ? null : say(mm));
  const { grindLine, primaryAngle } = station.right;
  const below =
    right !== null && grindLine !== null ? `; ${say(grindLine - right)} below the grind line` : "";
  const moves =
    primaryAngle && primaryAngle > 0
      ? `; ${say(TAKEN)} off a face lifts it by ${say(TAKEN / Math.sin((primaryAngle * Math.PI) / 180))}`
      : "";
  return row("Core's line", `from the edge, where a face stands at half the core${below}${moves}`, {
    left: told(left),
    right: told(right),
  });
}

/** What a light finishing takes off a face, mm. */
const TAKEN = 0.05;

function outside(value: number, [least, most]: readonly [number, number]): boolean {
  return value < least - 0.005 || value > most + 0.005;
}

/** The very edge before sharpening: only where both sides are alike and flat there, as the relation asks. */
function beforeSharpening({ behind, right, left }: Station, edgeAngle: number): number | null {
  if (behind === null || right.primaryAngle === null || left.primaryAngle === null || edgeAngle === 0)
    return null;
  if (Math.abs(right.primaryAngle - left.primaryAngle) > 0.01) return null;
  if (isArc(right)) return null;
  return edgeBeforeSharpening(behind, right.primaryAngle, edgeAngle);
}

function behindFrom({ right }: Station, edge: { right: number }, say: (mm: number) => string): string {
  if (right.edgeBevel === null) return "no edge bevel meets a primary bevel here";
  return `where the edge bevel meets the bevel: ${say(right.edgeBevel)} × tan ${edge.right}° a side`;
}

function angleFrom({ right, flats }: Station, say: (mm: number) => string): string {
  const { grindLine, edgeBevel, behind } = right;
  if (grindLine === null || edgeBevel === null || behind === null) return "no bevel here";
  return `tan β = (T/2 − e) ÷ (b − d) = (${say(flats / 2)} − ${say(behind)}) ÷ (${say(grindLine)} − ${say(edgeBevel)})`;
}

/** This blade where the other's edge bevel ends, at the same share of the edge: what it would be called there. */
function besideRow(field: Field, station: Station, ghost: Field, say: (mm: number) => string) {
  const there = stationAt(ghost, station.u);
  const height = there.right.edgeBevel ?? there.left.edgeBevel;
  const here = asThickAs(field, station, there);
  if (height === null || here === null || there.behind === null) return null;
  return {
    name: "As thick as",
    from: `${say(height)} up, where the edge bevel of ${ghost.blade.name} ends at ${say(there.behind)}: ${(here / there.behind).toFixed(2)} times`,
    both: say(here),
    wanted: `beside ${say(there.behind)}`,
  };
}
