import { parseAngle } from "@true-spine/core/units/angle.ts";
import {
  type LengthUnit,
  parseLength,
  showForTyping,
  showFraction,
  showLengthWithUnit,
} from "@true-spine/core/units/length.ts";
import { parseTemperature, showTemperature } from "@true-spine/core/units/temperature.ts";
import { tidy } from "@true-spine/core/units/tidy.ts";
import { useEffect, useRef, useState } from "react";
import { useSettings } from "../app/settings.ts";
import { TextBox } from "./TextBox.tsx";

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
  /** How near to what was typed the value comes back, where it is rounded or solved for. */
  echo?: number;
  /** What is refused is said once the hand rests: half of what is being typed may be in another's way. */
  isJudgedAtRest?: boolean;
}

/** How long a hand that types has to rest, ms. */
const REST_MS = 900;
/** What comes back this near to a value that was typed is that value. */
const USUAL_ECHO = 1e-3;

/** A box for a length. It takes what a maker says, shows the other unit on hover, and keeps what was typed. */
export function LengthBox({
  named,
  ...props
}: BoxProps & {
  /** A length by another name, mm; null where it is none. */ named?: (text: string) => number | null;
}) {
  const unit = useSettings((settings) => settings.unit);
  const other = (mm: number) => otherUnits(mm, unit);
  return (
    <ValueBox
      {...props}
      shown={showForTyping(props.value, unit)}
      hint={other(props.value)}
      read={(text) => {
        const other = named?.(text) ?? null;
        if (other !== null) return { ok: true, value: other };
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
    <ValueBox
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

/** A box for a temperature: °C, °F, or a colour by its name. A bare number above `plainUpTo` may be either, and is asked about. */
export function TemperatureBox({
  plainUpTo,
  said,
  onCommit,
  ...props
}: Omit<BoxProps, "onCommit"> & {
  plainUpTo?: number;
  /** The colour it was said as, which is shown in its place. */
  said?: string | undefined;
  onCommit: (celsius: number, colour?: string) => string | null;
}) {
  const typed = useRef<string | undefined>(undefined);
  return (
    <ValueBox
      {...props}
      onCommit={(value) => onCommit(value, typed.current)}
      shown={said ?? String(Math.round(props.value * 10) / 10)}
      hint={showTemperature(props.value, said)}
      read={(text) => {
        const read = parseTemperature(text);
        typed.current = read.ok ? read.colour : undefined;
        if (plainUpTo !== undefined && read.ok && !/[a-z]/i.test(text) && read.celsius > plainUpTo)
          return { ok: false, why: `Which is it? Write ${text.trim()} C or ${text.trim()} F.` };
        return read.ok ? { ok: true, value: tidy(read.celsius) } : read;
      }}
      suffix="°C"
      mode="celsius"
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
    <ValueBox
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
export function CountBox({ most, onCommit, ...props }: BoxProps & { most: number }) {
  return <PlainBox {...props} onCommit={onCommit} least={1} most={most} isWhole unit="×" />;
}

/** A box for minutes, up to a hundred hours. */
export function MinutesBox(props: BoxProps) {
  return <PlainBox {...props} least={0} most={6000} unit="min" />;
}

/** A box for a percentage, kept as one. */
export function PercentBox({ most, ...props }: BoxProps & { most: number }) {
  return <PlainBox {...props} least={0} most={most} unit="%" />;
}

/** A box for a plain number within a range, in a column that has a heading. */
export function NumberBox({
  label,
  value,
  least,
  most,
  isWhole,
  onChange,
  unit,
}: {
  label: string;
  value: number;
  least: number;
  most: number;
  isWhole?: boolean;
  onChange: (value: number) => void;
  unit?: string;
}) {
  const put = (next: number) => {
    onChange(next);
    return null;
  };
  return (
    <PlainBox
      label={label}
      value={value}
      least={least}
      most={most}
      isWhole={isWhole}
      unit={unit}
      onCommit={put}
      hideLabel
      className="w-18"
    />
  );
}

/** The same with its name before it, in a group of controls. */
export function NumberRow(props: Parameters<typeof NumberBox>[0]) {
  return (
    <div className="flex items-center justify-between gap-2 text-sm text-faint">
      <span aria-hidden>{props.label}</span>
      <NumberBox {...props} />
    </div>
  );
}

/** A box for a length within a range, in a column that has a heading. */
export function RangedLength({
  label,
  value,
  least,
  most,
  onChange,
}: {
  label: string;
  value: number;
  least: number;
  most: number;
  /** Of no matter here: lengths are in the unit on show. */
  unit?: string;
  onChange: (value: number) => void;
}) {
  const unit = useSettings((settings) => settings.unit);
  return (
    <LengthBox
      label={label}
      value={value}
      hideLabel
      className="w-22"
      onCommit={(mm) => {
        if (mm < least - 1e-9 || mm > most + 1e-9)
          return `Must be ${showLengthWithUnit(least, unit)} to ${showLengthWithUnit(most, unit)}.`;
        onChange(mm);
        return null;
      }}
    />
  );
}

function PlainBox({
  least,
  most,
  isWhole = false,
  unit = "",
  ...props
}: BoxProps & { least: number; most: number; isWhole?: boolean; unit?: string }) {
  return (
    <ValueBox
      {...props}
      shown={trim(props.value)}
      hint={`${least} to ${most}`}
      read={(text) => {
        const value = Number(text.trim().replace(",", "."));
        const isSound =
          text.trim() !== "" && value >= least && value <= most && (!isWhole || Number.isInteger(value));
        const what = isWhole ? "a whole number" : "a number";
        return isSound ? { ok: true, value } : { ok: false, why: `Write ${what} from ${least} to ${most}.` };
      }}
      suffix={unit}
      mode="number"
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
function ValueBox({
  label,
  value,
  onCommit,
  onVisit,
  hideLabel,
  className = "",
  isJudgedAtRest = false,
  echo = USUAL_ECHO,
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
  const [text, setText] = useState<string | null>(null);
  const [why, setWhy] = useState<string | null>(null);
  const lastMode = useRef(mode);
  /** What was put in by this visit to the box: any of it may come back late, when more has been typed. */
  const putIn = useRef([value]);
  const atRest = useRef<{ timer: ReturnType<typeof setTimeout>; refused: string } | null>(null);
  const told = (refused: string | null) => {
    clearTimeout(atRest.current?.timer);
    atRest.current = null;
    setWhy(refused);
  };
  const refuse = (refused: string | null) => {
    told(null);
    if (!refused || !isJudgedAtRest) return setWhy(refused);
    atRest.current = { refused, timer: setTimeout(() => told(refused), REST_MS) };
  };
  useEffect(() => {
    const isForeign = putIn.current.every((one) => Math.abs(value - one) > echo);
    if (lastMode.current === mode && !isForeign) return;
    lastMode.current = mode;
    putIn.current = [value];
    setText(null);
    setWhy(null);
  }, [mode, value, echo]);

  const accept = (typed: string) => {
    setText(typed);
    const result = read(typed);
    if (!result.ok) {
      told(result.why);
      return;
    }
    const before = putIn.current;
    putIn.current = text === null ? [result.value] : [...before, result.value];
    const refused = onCommit(result.value);
    if (refused) putIn.current = before;
    refuse(refused);
  };

  return (
    <TextBox
      label={label}
      labelled={hideLabel ? "hidden" : "beside"}
      className={className}
      width={hideLabel ? "w-full" : "w-26 shrink-0"}
      align="right"
      suffix={suffix}
      hint={hint}
      // Not a number pad: fractions, signs and units are typed too.
      inputMode="text"
      text={text ?? shown}
      why={why}
      onText={accept}
      onFocus={(input) => {
        onVisit?.(true);
        input.select();
      }}
      onBlur={() => {
        if (atRest.current) told(atRest.current.refused);
        else if (why === null) setText(null);
        onVisit?.(false);
      }}
      onEnter={(input) => {
        if (atRest.current) return told(atRest.current.refused);
        if (why !== null) return;
        setText(null);
        input.select();
      }}
      onEscape={() => {
        setText(null);
        told(null);
      }}
    />
  );
}
