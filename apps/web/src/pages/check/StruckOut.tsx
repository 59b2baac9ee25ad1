import { QUANTITY } from "@true-spine/core/inspect/quantity.ts";
import { sideWords } from "@true-spine/core/inspect/schema.ts";
import { useStore } from "zustand";
import { useSettings } from "../../app/settings.ts";
import { useScreen } from "../../blade/screen.ts";
import { SmallButton } from "../../parts/Group.tsx";
import { showFigure, unitOf } from "../../readings/figures.ts";

/** Readings of the stage that were struck out: they are kept, and each can be put back. */
export function StruckOut({ stage }: { stage: string }) {
  const { readings } = useScreen();
  const unit = useSettings((settings) => settings.unit);
  const taken = useStore(readings.state, (state) => state.taken);
  const struck = useStore(readings.state, (state) => state.struck);
  const out = taken.filter((one) => one.stage === stage && struck.has(one.id));
  if (out.length === 0) return null;
  return (
    <details className="py-1.5 text-xs">
      <summary className="text-faint">{out.length} struck out</summary>
      <ul>
        {out.map((one) => (
          <li key={one.id} className="flex items-center gap-2 border-b border-rule py-1">
            <span className="min-w-0 flex-1 line-through">
              {QUANTITY[one.what].name}
              {sideWords(one)}: {showFigure(one.what, one.value, unit)} {unitOf(one.what, unit)}
            </span>
            <SmallButton
              label={`Restore: ${QUANTITY[one.what].name} ${showFigure(one.what, one.value, unit)}`}
              onClick={() => readings.strike(one.id, false)}
            >
              Restore
            </SmallButton>
          </li>
        ))}
      </ul>
    </details>
  );
}
