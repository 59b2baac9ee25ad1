import type { BenchReport } from "@true-spine/core/findings/bench-report.ts";
import type { Derived } from "@true-spine/core/inspect/together.ts";
import { type LengthUnit, showLength } from "@true-spine/core/units/length.ts";
import { useSettings } from "../../app/settings.ts";
import { Group } from "../../parts/Group.tsx";

interface Row {
  readonly name: string;
  readonly value: string;
  readonly within: string;
}

/** What the readings come to together: figures of the blade rather than of one place, each with what covers 95 of 100. */
export function SummaryGroup({ together }: { together: BenchReport["together"] }) {
  const unit = useSettings((settings) => settings.unit);
  const rows = rowsOf(together, unit);
  if (rows.length === 0) return null;
  return (
    <Group title="Summary">
      <table className="w-full border-collapse text-sm">
        <tbody>
          {rows.map(({ name, value, within }) => (
            <tr key={name} className="border-b border-rule">
              <th scope="row" className="py-0.5 text-left font-normal text-faint">
                {name}
              </th>
              <td className="text-right font-semibold">{value}</td>
              <td className="w-14 text-right text-xs text-faint">{within && `± ${within}`}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </Group>
  );
}

function rowsOf(
  { edge, centre, plunges, taper, angles, edgeAngles, bow, twist }: BenchReport["together"],
  unit: LengthUnit,
): Row[] {
  const say = (mm: number) => showLength(mm, unit);
  const place = (x: number) => showLength(x, unit, unit === "mm" ? 0 : undefined);
  const long = (name: string, one: Derived | null): Row[] =>
    one ? [{ name, value: signed(one.value, say), within: say(one.expanded) }] : [];
  const turn = (name: string, one: Derived | null): Row[] =>
    one
      ? [
          {
            name,
            value: signed(one.value, (value) => `${value.toFixed(1)}°`),
            within: `${one.expanded.toFixed(1)}°`,
          },
        ]
      : [];
  const worst = centre.toSorted((a, b) => Math.abs(b.value) - Math.abs(a.value))[0];
  return [
    ...(edge
      ? [
          { name: `edge thinnest, at ${place(edge.least.x)}`, value: say(edge.least.value), within: "" },
          { name: `edge thickest, at ${place(edge.most.x)}`, value: say(edge.most.value), within: "" },
          {
            name: "between them beyond the plan",
            value: say(edge.range.value),
            within: say(edge.range.expanded),
          },
        ]
      : []),
    ...(worst ? long(`off centre at most, + left, at ${place(worst.x)}`, worst) : []),
    ...long("plunges apart, + right back", plunges.place),
    ...turn("plunges lean apart", plunges.lean),
    ...long("taper off, + tip thick", taper),
    ...angles.map(({ value, expanded, x, side, by }) => ({
      name: `angle, ${side === "both" ? "both sides" : side}, at ${place(x)}, by ${by}`,
      value: `${value.toFixed(1)}°`,
      within: `${expanded.toFixed(1)}°`,
    })),
    ...edgeAngles.map(({ value, ends, x, side, leansOn }) => ({
      name: `edge angle, ${side}, at ${place(x)}${leansOn === "behind" ? "" : `, mostly by its ${leansOn}`}`,
      value: `${value.toFixed(1)}°`,
      within: `${((ends[1] - ends[0]) / 2).toFixed(1)}°`,
    })),
    ...long("bow, + left hollow", bow),
    ...turn("twist", twist),
  ];
}

const signed = (value: number, say: (value: number) => string) =>
  `${value < 0 ? "−" : "+"}${say(Math.abs(value))}`;
