import { parseAngle } from "@true-spine/core/units/angle.ts";
import {
  type LengthUnit,
  parseLength,
  showForTyping,
  showFraction,
  showLengthWithUnit,
} from "@true-spine/core/units/length.ts";
import { useEffect, useId, useRef, useState } from "react";
import { useSettings } from "../app/settings.ts";

type Reading = { ok: true; value: number } | { ok: false; why: string };

interface BoxProps {
  label: string;
  value: number;
  /** Puts the value in, and says why not where it cannot be. */
  onCommit: (value: number) => string | null;
  /** Called when typing starts and when it is over, so that one visit to a box is one step of undo. */
  onVisit?: (isTyping: boolean) => void;
  hideLabel?: boolean;
  className?: string;
}

/** A box for a length. It takes what a maker says, shows the other unit on hover, and keeps what was typed. */
export function LengthBox(props: BoxProps) {
  const unit = useSettings((settings) => settings.unit);
  const other = (mm: number) => otherUnits(mm, unit);
  return (
    <TextBox
      {...props}
      shown={showForTyping(props.value, unit)}
      hint={other(props.value)}
      read={(text) => {
        const read = parseLength(text, unit);
        return read.ok ? { ok: true, value: read.mm } : read;
      }}
      suffix={unit === "inch" ? "in" : unit}
      mode={unit}
    />
  );
}

function otherUnits(mm: number, unit: LengthUnit): string {
  if (unit !== "mm") return showLengthWithUnit(mm, "mm", 3);
  const { text, off } = showFraction(mm);
  const near = Math.abs(off) < 0.005 ? `, ${text} in` : "";
  return `${showLengthWithUnit(mm, "inch", 4)}${near}`;
}

/** A box for an angle in degrees per side; an inclusive angle may be typed as `36 incl`. */
export function AngleBox(props: BoxProps) {
  return (
    <TextBox
      {...props}
      shown={trim(props.value)}
      hint={`${trim(props.value * 2)}° inclusive`}
      read={(text) => {
        const read = parseAngle(text);
        return read.ok ? { ok: true, value: read.degrees } : read;
      }}
      suffix="°"
      mode="degrees"
    />
  );
}

/** A box for a place along the edge, 0 at the heel and 100 at the tip; kept as a fraction. */
export function AlongBox(props: BoxProps) {
  return <ShareBox {...props} hint="0 is the heel, 100 the tip" what="a place along the edge" />;
}

/** A box for a share, typed as a percentage and kept as a fraction. */
export function ShareBox({
  hint = "a percentage",
  what = "a share",
  ...props
}: BoxProps & { hint?: string; what?: string }) {
  return (
    <TextBox
      {...props}
      shown={trim(props.value * 100)}
      hint={hint}
      read={(text) => {
        const value = Number(text.trim().replace("%", "").replace(",", "."));
        if (text.trim() !== "" && Number.isFinite(value)) return { ok: true, value: value / 100 };
        return { ok: false, why: `“${text.trim()}” is not ${what}. Write it like 60.` };
      }}
      suffix="%"
      mode="share"
    />
  );
}

/** A box for how many of something, 1 and up. */
export function CountBox({ most, ...props }: BoxProps & { most: number }) {
  return (
    <TextBox
      {...props}
      shown={String(props.value)}
      hint={`1 to ${most}`}
      read={(text) => {
        const value = Number(text.trim());
        if (text.trim() !== "" && Number.isInteger(value) && value >= 1 && value <= most) {
          return { ok: true, value };
        }
        return { ok: false, why: `“${text.trim()}” is not a number from 1 to ${most}.` };
      }}
      suffix="×"
      mode="count"
    />
  );
}

function trim(value: number): string {
  return String(Number(value.toFixed(4)));
}

/**
 * The box behind all of these. While it is being typed in, what is typed stays; a value is put in as soon as
 * it reads as one. Left with something unreadable, it says why, keeps the text, and the blade keeps its value.
 */
function TextBox({
  label,
  value,
  onCommit,
  onVisit,
  hideLabel,
  className = "",
  shown,
  hint,
  read,
  suffix,
  mode,
}: BoxProps & {
  shown: string;
  hint: string;
  read: (text: string) => Reading;
  suffix: string;
  mode: string;
}) {
  const id = useId();
  const [text, setText] = useState<string | null>(null);
  const [why, setWhy] = useState<string | null>(null);
  const lastMode = useRef(mode);
  const putIn = useRef(value);
  useEffect(() => {
    const isForeign = Math.abs(value - putIn.current) > 1e-9;
    if (lastMode.current === mode && !isForeign) return;
    lastMode.current = mode;
    putIn.current = value;
    setText(null);
    setWhy(null);
  }, [mode, value]);

  const accept = (typed: string) => {
    setText(typed);
    const result = read(typed);
    if (!result.ok) {
      setWhy(result.why);
      return;
    }
    const before = putIn.current;
    putIn.current = result.value;
    const refused = onCommit(result.value);
    if (refused) putIn.current = before;
    setWhy(refused);
  };

  return (
    <div className={className}>
      <div className="flex items-center justify-between gap-2">
        <label htmlFor={id} className={hideLabel ? "sr-only" : "text-sm text-faint"}>
          {label}
        </label>
        <span className={`relative ${hideLabel ? "w-full" : "w-26 shrink-0"}`}>
          <input
            id={id}
            type="text"
            inputMode="text"
            autoComplete="off"
            spellCheck={false}
            title={hint}
            aria-invalid={why !== null}
            aria-describedby={why === null ? undefined : `${id}-why`}
            className={`h-8 w-full rounded border bg-sheet py-1 pr-8 pl-2 text-right font-semibold ${why === null ? "border-frame" : "border-2 border-fix"}`}
            value={text ?? shown}
            onFocus={(event) => {
              onVisit?.(true);
              event.currentTarget.select();
            }}
            onChange={(event) => accept(event.currentTarget.value)}
            onBlur={() => {
              if (why === null) setText(null);
              onVisit?.(false);
            }}
            onKeyDown={(event) => {
              if (event.key === "Enter" && why === null) {
                setText(null);
                event.currentTarget.select();
              }
              if (event.key === "Escape") {
                setText(null);
                setWhy(null);
              }
            }}
          />
          <span
            aria-hidden
            className="pointer-events-none absolute inset-y-0 right-2 flex items-center text-xs text-faint"
          >
            {suffix}
          </span>
        </span>
      </div>
      {why !== null && (
        <p id={`${id}-why`} role="alert" className="mt-1 text-xs text-fix">
          {why}
        </p>
      )}
    </div>
  );
}
