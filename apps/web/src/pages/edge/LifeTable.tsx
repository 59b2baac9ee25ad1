import type { EdgeReport } from "@true-spine/core/route/edge-report.ts";
import { showLength, showLengthWithUnit } from "@true-spine/core/units/length.ts";
import type { ApexOptions } from "apexcharts";
import { useMemo } from "react";
import { useSettings } from "../../app/settings.ts";
import { Plot } from "../../parts/Plot.tsx";

const HEIGHT = 190;
/** Heel, middle, tip: told apart by their dashes too. */
const COLOURS = ["#c2410c", "#14335f", "#4d7c5a"];

/** Behind the edge over its sharpenings, at heel, middle and tip: a chart, and the same in a table. */
export function LifeTable({ report }: { report: EdgeReport }) {
  const unit = useSettings((settings) => settings.unit);
  const { rows, until } = report.life;
  const options = useMemo<ApexOptions>(
    () => ({
      chart: { type: "line" },
      series: report.places.map(({ place }, i) => ({
        name: place,
        data: rows.flatMap(({ n, at }) => {
          const e = at[i]!.behind;
          return e === null ? [] : [{ x: n, y: e }];
        }),
      })),
      colors: COLOURS,
      stroke: { width: [2, 3, 2], dashArray: [5, 0, 2] },
      markers: { size: 0 },
      xaxis: { type: "numeric", title: { text: "sharpenings" }, decimalsInFloat: 0 },
      yaxis: { labels: { formatter: (mm: number) => showLength(mm, unit) }, min: 0 },
      annotations: until
        ? { xaxis: [{ x: until.n, borderColor: "#c2410c", label: { text: "thin it again" } }] }
        : {},
      legend: { position: "right" },
    }),
    [report.places, rows, until, unit],
  );
  if (report.life.isZero) return null;
  const shown = rows.filter((_, i) => i % 4 === 0);
  return (
    <div className="grid grid-cols-[minmax(0,1.3fr)_minmax(0,1fr)] gap-3 max-lg:grid-cols-1">
      <Plot options={options} height={HEIGHT} label="Behind the edge over its sharpenings" />
      <table aria-label="After so many sharpenings" className="w-full self-start text-sm">
        <thead className="text-[11px] text-faint">
          <tr>
            <th scope="col" className="text-left font-normal">
              after
            </th>
            <th scope="col" className="text-right font-normal">
              lost, {unit}
            </th>
            {report.places.map(({ place }) => (
              <th key={place} scope="col" className="text-right font-normal">
                {place}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {shown.map(({ n, lost, at }) => (
            <tr key={n} className="border-t border-rule">
              <th scope="row" className="py-0.5 text-left font-semibold">
                {n}
              </th>
              <td className="text-right">{showLength(lost, unit)}</td>
              {at.map(({ behind }, i) => (
                <td key={report.places[i]!.place} className="text-right">
                  {behind === null ? "–" : showLengthWithUnit(behind, unit)}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
