import { bandAt } from "@true-spine/core/findings/knife-bands.ts";
import { purposeOf } from "@true-spine/core/findings/purposes.ts";
import { showLength, showLengthWithUnit } from "@true-spine/core/units/length.ts";
import type { ApexOptions } from "apexcharts";
import { useMemo } from "react";
import { useSettings } from "../../app/settings.ts";
import { Plot } from "../../parts/Plot.tsx";
import type { Measured } from "./measured.ts";

const CHART = 240;

/** Length against thickness at one height, measured knives and the rack's blades, with a purpose's band. */
export function SizesChart({ all, height, use }: { all: readonly Measured[]; height: number; use: string }) {
  const unit = useSettings((settings) => settings.unit);
  const options = useMemo<ApexOptions>(() => {
    const points = (isRack: boolean) =>
      all.flatMap((one) => {
        const t = one.thick(height);
        return one.isRack === isRack && t !== null ? [{ x: one.length, y: t, name: one.name }] : [];
      });
    const purpose = purposeOf(use);
    const band = purpose && bandAt(purpose, height);
    const tallest = Math.max(0.5, band?.[1] ?? 0, ...all.flatMap((one) => one.thick(height) ?? []));
    // A round top, and room beside the shortest and the longest.
    const most = Math.ceil(tallest * 1.1 * 5) / 5;
    const lengths = all.map(({ length }) => length);
    const [shortest, longest] = [Math.min(...lengths), Math.max(...lengths)];
    return {
      chart: { type: "scatter" },
      series: [
        { name: "measured", data: points(false) },
        { name: "on the rack", data: points(true) },
      ],
      colors: ["#c2410c", "#14335f"],
      markers: { size: 7, shape: ["circle", "square"] },
      xaxis: {
        type: "numeric",
        min: Math.max(0, Math.floor((shortest - 10) / 20) * 20),
        max: Math.ceil((longest + 10) / 20) * 20,
        title: { text: `length, ${unit}` },
        labels: { formatter: (mm: string) => showLength(Number(mm), unit, unit === "mm" ? 0 : undefined) },
      },
      yaxis: {
        min: 0,
        max: most,
        tickAmount: 4,
        title: { text: `${showLengthWithUnit(height, unit)} up, thick` },
        labels: { formatter: (mm: number) => showLength(mm, unit) },
      },
      annotations: band
        ? {
            yaxis: [
              {
                y: band[0],
                y2: band[1],
                fillColor: "#b7d6b9",
                opacity: 0.45,
                label: { text: purpose.name, position: "left", textAnchor: "start" },
              },
            ],
          }
        : {},
      legend: { position: "top" },
      tooltip: {
        custom: ({ seriesIndex, dataPointIndex, w }) => {
          const point = w.config.series[seriesIndex].data[dataPointIndex];
          const box = document.createElement("div");
          box.textContent = `${point.name}: ${showLengthWithUnit(point.y, unit)}`;
          return box.innerHTML;
        },
      },
    };
  }, [all, height, use, unit]);
  return (
    <Plot
      options={options}
      height={CHART}
      label={`Length against thickness ${showLengthWithUnit(height, unit)} up`}
    />
  );
}
