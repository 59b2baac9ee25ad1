import { type HTMLAttributes, type KeyboardEvent, type Ref, useId } from "react";
import { Alert } from "./Alert.tsx";
import { useRefusal } from "./refusals.tsx";

const SIZES = {
  small: "h-8 px-2 text-sm font-semibold",
  usual: "h-10 px-3 text-base font-semibold",
  large: "h-14 px-3 text-3xl font-bold",
  huge: "h-20 px-4 text-5xl font-bold",
} as const;

export interface TextBoxProps {
  label: string;
  /** What stands in it. */
  text: string;
  onText: (text: string) => void;
  /** Why it cannot be taken: said beside it, while what was typed stays. */
  why?: string | null;
  /** Where its name stands; "hidden" is for a column that has a heading. */
  labelled?: "beside" | "above" | "hidden";
  /** Stands in the box at its end, after the figures. */
  suffix?: string;
  /** Shown on hover. */
  hint?: string;
  size?: keyof typeof SIZES;
  align?: "left" | "right" | "center";
  className?: string;
  /** Tailwind width of the box itself, where it does not fill its place. */
  width?: string;
  inputMode?: HTMLAttributes<HTMLInputElement>["inputMode"];
  maxLength?: number;
  placeholder?: string;
  autoFocus?: boolean;
  inputRef?: Ref<HTMLInputElement>;
  /** A pattern of the characters that can be part of it: others are not taken, and are left to the page as keys. */
  takes?: string;
  onFocus?: (input: HTMLInputElement) => void;
  onBlur?: () => void;
  onEnter?: (input: HTMLInputElement) => void;
  /** Before the box is left by Escape. */
  onEscape?: () => void;
  onKey?: (event: KeyboardEvent<HTMLInputElement>) => void;
}

/** The one text box: its name, what stands in it, and why that cannot be taken. Escape leaves it. */
export function TextBox({
  label,
  text,
  onText,
  why = null,
  labelled = "beside",
  suffix,
  hint,
  size = "small",
  align = "left",
  className = "",
  width = "w-full",
  takes,
  inputRef,
  onFocus,
  onBlur,
  onEnter,
  onEscape,
  onKey,
  ...input
}: TextBoxProps) {
  const id = useId();
  useRefusal(id, label, why);
  const name = { beside: "text-sm text-faint", above: "mb-1 block text-sm text-faint", hidden: "sr-only" }[
    labelled
  ];
  return (
    <div className={className}>
      <div className={labelled === "beside" ? "flex items-center justify-between gap-2" : ""}>
        <label htmlFor={id} className={name}>
          {label}
        </label>
        <span className={`relative block ${width}`}>
          <input
            {...input}
            ref={inputRef}
            id={id}
            type="text"
            autoComplete="off"
            spellCheck={false}
            title={hint}
            aria-description={hint}
            data-takes={takes}
            aria-invalid={why !== null}
            aria-describedby={why === null ? undefined : `${id}-why`}
            className={`w-full rounded border bg-sheet text-ink ${SIZES[size]} ${ALIGN[align]} ${suffix ? "pr-8" : ""} ${why === null ? "border-frame" : "border-2 border-fix"}`}
            value={text}
            onFocus={(event) => onFocus?.(event.currentTarget)}
            onBlur={onBlur}
            onChange={(event) => onText(event.currentTarget.value)}
            onKeyDown={(event) => {
              onKey?.(event);
              if (event.defaultPrevented) return;
              if (event.key === "Enter") onEnter?.(event.currentTarget);
              else if (event.key === "Escape") {
                onEscape?.();
                event.currentTarget.blur();
              } else if (!isTaken(event.currentTarget, event)) event.preventDefault();
            }}
          />
          {suffix && (
            <span
              aria-hidden
              className="pointer-events-none absolute inset-y-0 right-2 flex items-center text-xs text-faint"
            >
              {suffix}
            </span>
          )}
        </span>
      </div>
      {why !== null && (
        <Alert id={`${id}-why`} className="mt-1">
          {why}
        </Alert>
      )}
    </div>
  );
}

const ALIGN = { left: "text-left", right: "text-right", center: "text-center" } as const;

/** Keys that move within what was typed; with nothing typed they have nothing to do there. */
const MOVES = ["Home", "End", "ArrowLeft", "ArrowRight"];

/**
 * Whether a box takes a key for itself. One that says what it takes leaves other characters to the page, and moving keys too while it
 * is empty; every other box takes all.
 */
export function isTaken(
  box: HTMLElement,
  { key, ctrlKey, metaKey, altKey }: Pick<globalThis.KeyboardEvent, "key" | "ctrlKey" | "metaKey" | "altKey">,
): boolean {
  const { takes } = box.dataset;
  if (takes === undefined || ctrlKey || metaKey || altKey) return true;
  if (MOVES.includes(key)) return box instanceof HTMLInputElement && box.value !== "";
  return key.length !== 1 || new RegExp(`^[${takes}]$`, "i").test(key);
}
