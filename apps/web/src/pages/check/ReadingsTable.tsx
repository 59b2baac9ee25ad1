import type { Line } from "@true-spine/core/inspect/bench.ts";
import type { Figure } from "@true-spine/core/inspect/figure.ts";
import { QUANTITY } from "@true-spine/core/inspect/quantity.ts";
import { type Spot, sideWords } from "@true-spine/core/inspect/schema.ts";
import { showLength } from "@true-spine/core/units/length.ts";
import { useSettings } from "../../app/settings.ts";
import { useScreen } from "../../blade/screen.ts";
import { From } from "../../parts/From.tsx";
import { SmallButton } from "../../parts/Group.tsx";
import { Sign } from "../../parts/Sign.tsx";
import { showFigure, unitOf } from "../../readings/figures.ts";
import { SIGN_OF } from "./words.ts";

const COLUMNS = ["verdict", "what", "at", "wanted", "read", "±", "off", "times", "strike out"];
const UNNAMED = ["verdict", "strike out"];
const RANK = { out: 0, doubtful: 1, good: 2 } as const;

/** Every reading of the stage, worst first, then what is still to be read in the order of the round. */
export function ReadingsTable({
  lines,
  currentKey,
  onGo,
}: {
  lines: readonly Line[];
  currentKey: string | null;
  onGo: (spot: Spot) => void;
}) {
  const unit = useSettings((settings) => settings.unit);
  const worst = ({ off, target }: Figure) => Math.abs(off) / target.band;
  const read = lines
    .flatMap((line) => (line.figure ? [{ line, figure: line.figure }] : []))
    .sort((a, b) => RANK[a.figure.verdict] - RANK[b.figure.verdict] || worst(b.figure) - worst(a.figure));
  const rest = lines.filter(({ figure }) => !figure);
  if (lines.length === 0) return null;
  return (
    <table aria-label="Readings" className="w-full border-collapse text-sm">
      <thead className="text-left text-[11px] text-faint">
        <tr>
          {COLUMNS.map((name, i) => (
            <th
              key={name}
              scope="col"
              className={`px-1.5 py-1 font-normal ${i > 1 && i < 8 ? "text-right" : ""}`}
            >
              <span className={UNNAMED.includes(name) ? "sr-only" : ""}>{name}</span>
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {read.map(({ line, figure }) => (
          <ReadRow
            key={line.key}
            line={line}
            figure={figure}
            isCurrent={line.key === currentKey}
            onGo={onGo}
          />
        ))}
        {rest.map((line) => (
          <tr
            key={line.key}
            className={`border-t border-rule text-faint ${line.key === currentKey ? "bg-band text-ink" : ""}`}
          >
            <td className="px-1.5 py-1" title={line.isFirst ? "read first: it tells the most" : undefined}>
              {line.isFirst ? "●" : "·"}
              {line.isFirst && <span className="sr-only">read first</span>}
            </td>
            <What line={line} onGo={onGo} />
            <td className="px-1.5 text-right">{placeOf(line, unit)}</td>
            <td className="px-1.5 text-right">
              {showFigure(line.spot.what, line.target.value, unit)} {unitOf(line.spot.what, unit)}
            </td>
            <td colSpan={5} className="px-1.5 text-right text-xs">
              {line.isDoubted ? "doubted" : line.isFirst ? "first" : "not read"}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function placeOf({ spot, target }: Line, unit: Parameters<typeof showLength>[1]): string {
  return QUANTITY[spot.what].at === "whole" ? "" : showLength(target.x, unit, unit === "mm" ? 0 : undefined);
}

function What({ line, onGo }: { line: Line; onGo: (spot: Spot) => void }) {
  const unit = useSettings((settings) => settings.unit);
  const { height } = line.spot;
  return (
    <td className="px-1.5 py-1">
      <button type="button" className="rounded text-left hover:underline" onClick={() => onGo(line.spot)}>
        {QUANTITY[line.spot.what].name}
        {height !== undefined && `, ${showLength(height, unit, unit === "mm" ? 0 : undefined)} up`}
        {sideWords(line.spot)}
      </button>
    </td>
  );
}

function ReadRow({
  line,
  figure,
  isCurrent,
  onGo,
}: {
  line: Line;
  figure: Figure;
  isCurrent: boolean;
  onGo: (spot: Spot) => void;
}) {
  const unit = useSettings((settings) => settings.unit);
  const { readings } = useScreen();
  const { what } = line.spot;
  const say = (value: number) => showFigure(what, value, unit);
  const last = figure.readings.at(-1)!;
  return (
    <tr className={`border-t border-rule ${isCurrent ? "bg-band" : ""}`}>
      <td className="px-1.5 py-1">
        <Sign of={SIGN_OF[figure.verdict]} />
      </td>
      <What line={line} onGo={onGo} />
      <td className="px-1.5 text-right">{placeOf(line, unit)}</td>
      <td className="px-1.5 text-right">
        {say(line.target.value)} <span className="text-xs text-faint">± {say(line.target.band)}</span>
      </td>
      <td className="px-1.5 text-right font-semibold">
        <From words={whereFrom(figure, say)}>{say(figure.value)}</From>
      </td>
      <td className="px-1.5 text-right text-faint">
        <From words={trustOf(figure, say)}>{say(figure.uncertainty.expanded)}</From>
      </td>
      <td className="px-1.5 text-right">
        {figure.off > 0 ? "+" : "−"}
        {say(Math.abs(figure.off))} <span className="text-xs text-faint">{figure.verdict}</span>
      </td>
      <td className="px-1.5 text-right">{figure.readings.length}</td>
      <td className="px-1.5 text-right">
        <SmallButton
          label={`Strike out the last reading of ${QUANTITY[what].name} at ${placeOf(line, unit)}`}
          onClick={() => readings.strike(last.id, true)}
        >
          Strike out
        </SmallButton>
      </td>
    </tr>
  );
}

/** Where a corrected figure comes from, with what was taken off. */
function whereFrom({ readings, corrected, instrument }: Figure, say: (value: number) => string): string {
  const shown = readings.map(({ value }) => say(value)).join(", ");
  const off = [
    corrected.error ? `${say(corrected.error)} known error` : "",
    corrected.zero ? `${say(corrected.zero)} at its zero` : "",
    corrected.jaw > 0.0005 ? `${say(corrected.jaw)} for the width of its jaws` : "",
  ].filter(Boolean);
  return `${instrument.name} read ${shown}${off.length > 0 ? `; less ${off.join(", ")}` : ""}`;
}

function trustOf({ uncertainty, spread, readings }: Figure, say: (value: number) => string): string {
  const parts = uncertainty.components.map(({ from, u }) => `${from} ${say(u)}`).join("; ");
  const own = readings.length > 1 ? ` Between ${readings.length} readings: ${say(spread)}.` : "";
  return `Covers 95 of 100 (GUM). Standard uncertainties: ${parts}.${own}`;
}
