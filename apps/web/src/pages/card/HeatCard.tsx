import type { OpReport } from "@true-spine/core/route/heat-report.ts";
import { looksAt } from "@true-spine/core/steel/colours.ts";
import { fahrenheit } from "@true-spine/core/units/temperature.ts";
import type { ReactNode } from "react";
import { clock, inMinutes, leftInWords, useHeatClock } from "../../work/useHeatClock.ts";

/** What must be seen to before the next heat: common practice. */
const NEXT: Readonly<Record<OpReport["op"]["kind"], string>> = {
  normalize: "Still air until it is black, then the next.",
  anneal: "Leave it in the oven, or in ash, until it is cold.",
  clay: "Dry it slowly, then harden.",
  harden: "File: edge, spine, tang. Wipe the oil off. Temper within the hour.",
  plates: "Straight? Then temper it within the hour.",
  temper: "Cool, then the next; hardness on the flats, three places.",
  draw: "The edge stays cold enough to touch. Try a file on the tang.",
};

/** One heat at a time: how hot, until when by the clock, and what comes next. */
export function HeatNumbers({ report }: { report: OpReport }) {
  const { ends, now } = useHeatClock(report);
  const { op, through, total, window } = report;
  const looks = looksAt(op.T);
  return (
    <>
      <Figure title="How hot">
        <p className="text-6xl font-bold">
          {Math.round(op.T)} <span className="text-2xl font-normal text-faint">°C</span>
        </p>
        <p className="text-base text-faint">
          {Math.round(fahrenheit(op.T))} °F{looks.length > 0 && `; ${looks.join(" to ")}`}
        </p>
      </Figure>
      <Figure title={ends ? "Held until" : "Through and held"}>
        <p className="text-6xl font-bold">{ends ? clock(ends.end) : inMinutes(total)}</p>
        <p className="text-base text-faint" role={ends ? "timer" : undefined}>
          {ends
            ? `${now < ends.through ? `through about ${clock(ends.through)}; ` : ""}${leftInWords(ends.end, now)}`
            : `through after ${inMinutes(through)}, held ${inMinutes(op.minutes)}`}
        </p>
      </Figure>
      <Figure title={window === null ? "Next" : `${window.toFixed(0)} s to the quench; next`}>
        <p className="text-2xl font-bold">{NEXT[op.kind]}</p>
      </Figure>
    </>
  );
}

function Figure({ title, children }: { title: string; children: ReactNode }) {
  return (
    <div className="px-5 py-3">
      <p className="text-base text-faint">{title}</p>
      {children}
    </div>
  );
}

/** The clock's next moment, with its words. */
export function useNextMoment(report: OpReport | null) {
  const { running } = useHeatClock(report);
  if (!running) return { moment: "began", words: "Into the heat" } as const;
  if (!running.through) return { moment: "through", words: "Warm through" } as const;
  return { moment: "ended", words: "Out" } as const;
}
