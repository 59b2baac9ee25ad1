import type { Dimension } from "@true-spine/core/design/family.ts";
import { type LengthUnit, showLengthWithUnit } from "@true-spine/core/units/length.ts";
import type { ReactNode } from "react";
import { LengthBox, ShareBox } from "../../parts/Box.tsx";

/** One thing that is asked, with its heading. */
export function Question({ title, aside, children }: { title: string; aside?: string; children: ReactNode }) {
  return (
    <section aria-label={title} className="bg-sheet px-4 py-3">
      <h2 className="text-[13px] font-bold">{title}</h2>
      {aside && <p className="mt-0.5 text-xs text-faint">{aside}</p>}
      <div className="mt-2 flex flex-col gap-2">{children}</div>
    </section>
  );
}

/** One of several, each with its picture where it has one. */
export function Cards({
  label,
  options,
  value,
  onChange,
}: {
  label: string;
  options: readonly { key: string; name: string; picture?: ReactNode }[];
  value: string;
  onChange: (key: string) => void;
}) {
  return (
    <fieldset className="grid grid-cols-3 gap-1.5">
      <legend className="sr-only">{label}</legend>
      {options.map(({ key, name, picture }) => (
        <label
          key={key}
          className="flex min-h-10 cursor-pointer flex-col items-center justify-center gap-1 rounded border border-frame bg-sheet px-1.5 py-1.5 text-center text-xs leading-4 hover:bg-room has-checked:border-deep has-checked:bg-deep has-checked:font-semibold has-checked:text-on-deep has-focus-visible:outline-2 has-focus-visible:outline-offset-2"
        >
          <input
            type="radio"
            className="sr-only"
            name={label}
            checked={key === value}
            onChange={() => onChange(key)}
          />
          {picture}
          {name}
        </label>
      ))}
    </fieldset>
  );
}

/** A dimension by slider and by box. */
export function DimensionRow({
  dimension,
  value,
  onCommit,
}: {
  dimension: Dimension;
  value: number;
  onCommit: (value: number) => string | null;
}) {
  const Box = dimension.unit === "mm" ? LengthBox : ShareBox;
  const steps = 100;
  const { low, high, name } = dimension;
  return (
    <div className="flex items-center gap-3">
      <input
        type="range"
        aria-label={name}
        className="w-24 shrink-0 accent-(--color-deep)"
        min={0}
        max={steps}
        value={Math.round(((value - low) / (high - low)) * steps)}
        onChange={(event) => {
          const next = low + (event.currentTarget.valueAsNumber / steps) * (high - low);
          onCommit(dimension.unit === "mm" ? Math.round(next * 2) / 2 : Math.round(next * 100) / 100);
        }}
      />
      <Box
        className="min-w-0 flex-1"
        label={name.charAt(0).toUpperCase() + name.slice(1)}
        value={value}
        onCommit={onCommit}
      />
    </div>
  );
}

/** What a value must be, in the unit on show. */
export function rangeInWords(low: number, high: number, kind: Dimension["unit"], unit: LengthUnit): string {
  if (kind === "share") return `Must be ${Math.round(low * 100)} to ${Math.round(high * 100)} %.`;
  return `Must be ${showLengthWithUnit(low, unit)} to ${showLengthWithUnit(high, unit)}.`;
}
