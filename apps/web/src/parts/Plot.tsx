import type ApexCharts from "apexcharts";
import type { ApexOptions } from "apexcharts";
import { useEffect, useRef, useState } from "react";
import { useSettings } from "../app/settings.ts";

/**
 * A chart drawn by ApexCharts, which is fetched with the first chart, and redrawn when its options change. What it says stands in a
 * table beside it: `label` names it.
 */
export function Plot({ options, height, label }: { options: ApexOptions; height: number; label: string }) {
  const holder = useRef<HTMLDivElement>(null);
  const [chart, setChart] = useState<ApexCharts | "not fetched" | null>(null);
  const theme = useSettings((settings) => settings.theme);
  useEffect(() => {
    let isGone = false;
    let made: ApexCharts | null = null;
    const make = async () => {
      const { default: Charts } = await import("apexcharts");
      if (isGone || !holder.current) return;
      made = new Charts(holder.current, { chart: { type: "line", height }, series: [] });
      await made.render();
      if (!isGone) setChart(made);
    };
    make().catch(() => !isGone && setChart("not fetched"));
    return () => {
      isGone = true;
      made?.destroy();
      setChart(null);
    };
  }, [height]);
  useEffect(() => {
    if (chart && chart !== "not fetched")
      void chart.updateOptions(dressed(options, height, theme), true, false);
  }, [chart, options, height, theme]);
  return (
    <>
      <div ref={holder} role="img" aria-label={label} style={{ minHeight: height }} />
      {chart === "not fetched" && (
        <p className="text-xs text-faint">The chart could not be fetched. Its figures stand in the table.</p>
      )}
    </>
  );
}

function dressed(options: ApexOptions, height: number, theme: "light" | "dark"): ApexOptions {
  const ink = (name: string) =>
    getComputedStyle(document.documentElement).getPropertyValue(`--color-${name}`).trim();
  return {
    ...options,
    chart: {
      ...options.chart,
      height,
      animations: { enabled: false },
      toolbar: { show: false },
      zoom: { enabled: false },
      fontFamily: "Archivo, system-ui, sans-serif",
      foreColor: ink("faint"),
      background: "transparent",
    },
    theme: { mode: theme },
    grid: { borderColor: ink("rule") },
  };
}
