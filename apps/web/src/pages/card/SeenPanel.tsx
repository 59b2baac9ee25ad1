import { FORGE_FAULTS, type ForgeFault } from "@true-spine/core/forge/schema.ts";
import { SEEN_FAULTS } from "@true-spine/core/forge/seen.ts";
import { useState } from "react";
import { LengthBox } from "../../parts/Box.tsx";
import { PlainButton } from "../../parts/PlainButton.tsx";
import { Question } from "../../parts/Question.tsx";

/** A fault seen at the fire: which, from where to where, how deep. */
export function SeenPanel({
  onSee,
  onClose,
}: {
  onSee: (seen: { fault: ForgeFault; x: [number, number]; depth: number }) => void;
  onClose: () => void;
}) {
  const [fault, setFault] = useState<ForgeFault>("cold-shut");
  const [[from, to], setX] = useState<[number, number]>([0, 0]);
  const [depth, setDepth] = useState(0);
  return (
    <Question title="What is seen?" isOpen onClose={onClose}>
      <div className="flex flex-col gap-3">
        <div className="flex flex-wrap gap-2">
          {FORGE_FAULTS.map((one) => (
            <button
              key={one}
              type="button"
              aria-pressed={fault === one}
              className={`min-h-16 rounded border px-4 text-lg font-semibold ${fault === one ? "border-deep bg-band" : "border-frame bg-sheet"}`}
              onClick={() => setFault(one)}
            >
              {SEEN_FAULTS[one].name}
            </button>
          ))}
        </div>
        <p>{SEEN_FAULTS[fault].does}</p>
        <LengthBox
          label="From, from the junction"
          value={from}
          onCommit={(x) => {
            setX([x, Math.max(x, to)]);
            return null;
          }}
        />
        <LengthBox
          label="To"
          value={to}
          onCommit={(x) => {
            setX([Math.min(from, x), x]);
            return null;
          }}
        />
        <LengthBox
          label="Deep, about"
          value={depth}
          onCommit={(mm) => {
            if (mm < 0 || mm > 25) return "From 0 to 25 mm.";
            setDepth(mm);
            return null;
          }}
        />
        <div className="flex justify-end gap-2">
          <PlainButton onClick={onClose}>Cancel</PlainButton>
          <PlainButton onClick={() => onSee({ fault, x: [from, to], depth })}>Write it down</PlainButton>
        </div>
      </div>
    </Question>
  );
}
