import { useId, useState } from "react";

/** A plain number: what is typed stays until it reads as one within its range, and says why not meanwhile. */
export function NumberBox({
  label,
  value,
  least,
  most,
  isWhole = false,
  onChange,
}: {
  label: string;
  value: number;
  least: number;
  most: number;
  isWhole?: boolean;
  onChange: (value: number) => void;
}) {
  const id = useId();
  const [text, setText] = useState<string | null>(null);
  const typed = text === null ? value : Number(text.trim().replace(",", "."));
  const isSound =
    text === null ||
    (text.trim() !== "" &&
      Number.isFinite(typed) &&
      typed >= least &&
      typed <= most &&
      (!isWhole || Number.isInteger(typed)));
  return (
    <>
      <input
        aria-label={label}
        inputMode="decimal"
        autoComplete="off"
        aria-invalid={!isSound}
        aria-describedby={isSound ? undefined : id}
        className={`h-8 w-16 rounded border bg-sheet px-1.5 text-right font-semibold ${isSound ? "border-frame" : "border-2 border-fix"}`}
        value={text ?? String(value)}
        onChange={(event) => {
          const next = event.currentTarget.value;
          setText(next);
          const number = Number(next.trim().replace(",", "."));
          const isFine =
            next.trim() !== "" && number >= least && number <= most && (!isWhole || Number.isInteger(number));
          if (isFine) onChange(number);
        }}
        onBlur={() => {
          if (isSound) setText(null);
        }}
      />
      {!isSound && (
        <span id={id} role="alert" className="block text-xs text-fix">
          {isWhole ? "a whole number" : "a number"} from {least} to {most}
        </span>
      )}
    </>
  );
}
