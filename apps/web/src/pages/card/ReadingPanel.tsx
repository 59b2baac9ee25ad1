import type { StageReport } from "@true-spine/core/route/report.ts";
import type { TakenReading } from "@true-spine/core/route/schema.ts";
import { parseLength, showLengthWithUnit } from "@true-spine/core/units/length.ts";
import { useState } from "react";
import { useSettings } from "../../app/settings.ts";
import { Question } from "../../parts/Question.tsx";
import { Segmented } from "../../parts/Segmented.tsx";
import { TextBox } from "../../parts/TextBox.tsx";

const PLACES = ["heel", "middle", "tip"] as const;
const KEYS = ["7", "8", "9", "4", "5", "6", "1", "2", "3", ".", "0", "⌫"] as const;

/** A reading by large keys: where, what, and the number; it takes what a maker says, as every box does. */
export function ReadingPanel({
  isPast,
  stage,
  onTake,
  onClose,
}: {
  isPast: boolean;
  stage: StageReport;
  onTake: (reading: TakenReading) => void;
  onClose: () => void;
}) {
  const unit = useSettings((settings) => settings.unit);
  const [place, setPlace] = useState<(typeof PLACES)[number]>("middle");
  const [what, setWhat] = useState<"edge" | "line">("edge");
  const [text, setText] = useState("");
  const [why, setWhy] = useState<string | null>(null);
  const planned = stage.targets[PLACES.indexOf(place)]!;
  const wanted = what === "edge" ? planned.edge : (planned.grindLine.right ?? planned.grindLine.left);
  const take = () => {
    const read = parseLength(text, unit);
    if (!read.ok) {
      setWhy(read.why);
      return;
    }
    if (read.mm < 0 || read.mm > 300) {
      setWhy(`A reading lies between 0 and ${showLengthWithUnit(300, unit, 0)}.`);
      return;
    }
    onTake({
      when: new Date().toISOString(),
      what,
      place,
      value: Math.round(read.mm * 10_000) / 10_000,
      ...(isPast ? { past: true } : {}),
    });
  };
  return (
    <Question
      title={isPast ? "Past the line: what does it read now?" : "Enter a reading"}
      isOpen
      onClose={onClose}
      wide
    >
      <div className="flex flex-wrap gap-6 text-lg">
        <div className="min-w-64 flex-1">
          <p className="mb-1 text-base text-faint">where</p>
          <div className="*:*:min-h-16 *:*:text-lg">
            <Segmented label="Where" options={PLACES} value={place} onChange={setPlace} />
          </div>
          <p className="mt-3 mb-1 text-base text-faint">what</p>
          <div className="*:*:min-h-16 *:*:text-lg">
            <Segmented
              label="What"
              options={["edge", "line"]}
              names={{ edge: "the very edge", line: "the grind line" }}
              value={what}
              onChange={setWhat}
            />
          </div>
          <TextBox
            label={`reads, ${unit}${wanted === null ? "" : `; planned ${showLengthWithUnit(wanted, unit)}`}`}
            labelled="above"
            className="mt-4"
            size="huge"
            align="right"
            inputMode="none"
            autoFocus
            text={text}
            why={why}
            onText={(typed) => {
              setText(typed);
              setWhy(null);
            }}
            onEnter={take}
          />
        </div>
        <div className="grid grid-cols-3 gap-2">
          {KEYS.map((key) => (
            <button
              key={key}
              type="button"
              aria-label={key === "⌫" ? "Delete the last figure" : key}
              className="size-20 rounded border border-frame bg-sheet text-2xl font-semibold hover:bg-room"
              onClick={() => {
                setWhy(null);
                setText(key === "⌫" ? text.slice(0, -1) : text + key);
              }}
            >
              {key}
            </button>
          ))}
        </div>
      </div>
      <div className="mt-5 grid grid-cols-2 gap-3">
        <button
          type="button"
          onClick={onClose}
          className="min-h-20 rounded border border-frame bg-sheet text-xl font-semibold"
        >
          Cancel
        </button>
        <button
          type="button"
          onClick={take}
          className="min-h-20 rounded bg-deep text-xl font-semibold text-on-deep"
        >
          Keep it
        </button>
      </div>
    </Question>
  );
}
