import { PLACES, SEEN_BY_FILE } from "@true-spine/core/heat/schema.ts";
import { isByTorch, type OpReport, TORCH_WORDS } from "@true-spine/core/route/heat-report.ts";
import { colourAt, colourInWords } from "@true-spine/core/units/colours.ts";
import { fahrenheit, showTemperature } from "@true-spine/core/units/temperature.ts";
import type { ReactNode } from "react";
import { useScreen } from "../../blade/screen.ts";
import { Question } from "../../parts/Question.tsx";
import { clock, inMinutes, leftInWords, useHeatClock } from "../../work/useHeatClock.ts";
import { SAW_NAMES, useProofs } from "../../work/useProofs.ts";
import { record } from "../../work/useWorkRows.ts";
import { Big } from "./CardButtons.tsx";

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
  const { op, through, total, window, setTo } = report;
  const looks = colourAt(op.T);
  return (
    <>
      <Figure title="How hot">
        <p className="text-6xl font-bold">
          {Math.round(setTo)} <span className="text-2xl font-normal text-faint">°C</span>
        </p>
        <p className="text-base text-faint">
          {setTo !== op.T && `on its dial, for ${Math.round(op.T)} °C; `}
          {Math.round(fahrenheit(setTo))} °F
          {op.said ? `; ${showTemperature(op.T, op.said)}` : looks && `; ${colourInWords(looks)}`}
        </p>
      </Figure>
      {isByTorch(op) ? (
        <Figure title="Stop">
          <p className="text-2xl font-bold">when straw is 5 mm from the edge</p>
          <p className="text-base text-faint">{TORCH_WORDS}</p>
        </Figure>
      ) : (
        <Figure title={ends ? "Held until" : "Through and held"}>
          <p className="text-6xl font-bold">{ends ? clock(ends.end) : inMinutes(total)}</p>
          <p className="text-base text-faint" role={ends ? "timer" : undefined}>
            {ends
              ? `${now < ends.through ? `through about ${clock(ends.through)}; ` : ""}${leftInWords(ends.end, now)}`
              : `through after ${inMinutes(through)}, held ${inMinutes(op.minutes)}`}
          </p>
        </Figure>
      )}
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

/** What a file does, place by place: buttons for a dirty thumb. */
export function FilePanel({ op, onClose }: { op: string; onClose: () => void }) {
  const screen = useScreen();
  const last = useProofs(op);
  return (
    <Question title="What the file says" isOpen onClose={onClose} wide>
      <div className="flex flex-col gap-3">
        {PLACES.map((place) => (
          <div key={place} className="grid grid-cols-[5rem_1fr_1fr_1fr] items-center gap-2">
            <span className="text-lg font-semibold">{place}</span>
            {SEEN_BY_FILE.map((saw) => (
              <button
                key={saw}
                type="button"
                aria-label={`${place}: ${SAW_NAMES[saw]}`}
                aria-pressed={last(place) === saw}
                className={`min-h-16 rounded border px-3 text-lg font-semibold ${last(place) === saw ? "border-deep bg-band" : "border-frame bg-sheet"}`}
                onClick={() => record(screen, { stage: op, what: "proof", place, saw })}
              >
                {SAW_NAMES[saw]}
              </button>
            ))}
          </div>
        ))}
        <div className="flex justify-end">
          <Big onClick={onClose} isMain>
            <span className="px-6">Back to the card</span>
          </Big>
        </div>
      </div>
    </Question>
  );
}
