import ApexCharts, { type ApexOptions } from "apexcharts";
import { useEffect, useRef } from "react";
import { useSettings } from "../app/settings.ts";

/** A chart drawn by ApexCharts, redrawn when its options change. What it says stands in a table beside it: `label` names it. */
export function Plot({ options, height, label }: { options: ApexOptions; height: number; label: string }) {
  const holder = useRef<HTMLDivElement>(null);
  const chart = useRef<ApexCharts | null>(null);
  const theme = useSettings((settings) => settings.theme);
  useEffect(() => {
    const ink = (name: string) =>
      getComputedStyle(document.documentElement).getPropertyValue(`--color-${name}`).trim();
    const whole: ApexOptions = {
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
      theme: { mode: theme === "dark" ? "dark" : "light" },
      grid: { borderColor: ink("rule") },
    };
    if (chart.current) void chart.current.updateOptions(whole, true, false);
    else if (holder.current) {
      chart.current = new ApexCharts(holder.current, whole);
      void chart.current.render();
    }
  }, [options, height, theme]);
  useEffect(
    () => () => {
      chart.current?.destroy();
      chart.current = null;
    },
    [],
  );
  return <div ref={holder} role="img" aria-label={label} style={{ minHeight: height }} />;
}
