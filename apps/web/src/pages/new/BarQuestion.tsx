import { thicknessFrom } from "@true-spine/core/route/bar.ts";
import type { Bar, BarSurface } from "@true-spine/core/route/schema.ts";
import { showLengthWithUnit } from "@true-spine/core/units/length.ts";
import { useSettings } from "../../app/settings.ts";
import { LengthBox } from "../../parts/Box.tsx";
import { Choice } from "../../parts/Group.tsx";
import { Segmented } from "../../parts/Segmented.tsx";
import { rangeInWords } from "./questions.tsx";

/** The bar in hand; a round one with what it is forged to. */
export type InHand = Bar & { readonly thick: number };

const STOCK = [0.8, 10] as const;
/** Across a round bar at first, mm. */
const ROUND = 25;

/** The thickness of blade that a bar gives, mm: a round one's as it is forged. */
export function bladeFrom({ thick, surface, diameter }: InHand): number {
  return diameter === undefined ? thicknessFrom(thick, surface) : thick;
}

/** The bar in hand: flat or round, how thick, how it comes, how wide and how long. */
export function BarQuestion({ bar, onBar }: { bar: InHand; onBar: (next: (was: InHand) => InHand) => void }) {
  const unit = useSettings((settings) => settings.unit);
  const isRound = bar.diameter !== undefined;
  const stock = bladeFrom(bar);
  return (
    <>
      <Segmented
        label="Section of the bar"
        options={["flat", "round"]}
        value={isRound ? "round" : "flat"}
        onChange={(section) =>
          onBar(({ diameter: _, width: __, ...was }) =>
            section === "round" ? { ...was, diameter: ROUND } : was,
          )
        }
      />
      {bar.diameter !== undefined && (
        <LengthBox
          label="Bar, across"
          value={bar.diameter}
          onCommit={(diameter) => {
            if (diameter < 3 || diameter > 100) return rangeInWords(3, 100, "mm", unit);
            onBar((was) => ({ ...was, diameter }));
            return null;
          }}
        />
      )}
      <LengthBox
        label={isRound ? "Forged to a blade, thick" : "Bar, thick"}
        value={bar.thick}
        onCommit={(thick) => {
          if (thick < STOCK[0] || thick > STOCK[1]) return rangeInWords(STOCK[0], STOCK[1], "mm", unit);
          onBar((was) => ({ ...was, thick }));
          return null;
        }}
      />
      <Choice
        label="It comes"
        value={bar.surface}
        options={[
          { value: "ground", name: "ground: nothing is lost" },
          { value: "descaled", name: "descaled" },
          { value: "rolled", name: "as rolled" },
        ]}
        onChange={(surface) => onBar((was) => ({ ...was, surface: surface as BarSurface }))}
      />
      {bar.surface !== "ground" && !isRound && (
        <p className="text-sm text-faint">
          Clean-up and the oven's skin leave a blade of {showLengthWithUnit(stock, unit)} from it: a starting
          value.
        </p>
      )}
      {!isRound && (
        <LengthBox
          label="Bar, wide, 0 if it does not matter"
          value={bar.width ?? 0}
          onCommit={(width) => {
            if (width !== 0 && (width < 3 || width > 500)) return rangeInWords(3, 500, "mm", unit);
            onBar(({ width: _, ...was }) => (width > 0 ? { ...was, width } : was));
            return null;
          }}
        />
      )}
      <LengthBox
        label="Bar, long, 0 if it does not matter"
        value={bar.length ?? 0}
        onCommit={(length) => {
          if (length !== 0 && (length < 10 || length > 6000)) return rangeInWords(10, 6000, "mm", unit);
          onBar(({ length: _, ...was }) => (length > 0 ? { ...was, length } : was));
          return null;
        }}
      />
    </>
  );
}
