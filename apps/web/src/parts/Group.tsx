import type { ComponentProps, ReactNode } from "react";
import { Alert } from "./Alert.tsx";
import { useGuard, WithRefusals } from "./refusals.tsx";

/** A short group of controls with its heading. Its boxes make one form: a refused entry in one of them blocks the RecordButtons of the group. */
export function Group({ title, children, aside }: { title: string; children: ReactNode; aside?: ReactNode }) {
  return (
    <section aria-label={title} className="bg-sheet px-3 py-2.5 contain-layout">
      <div className="mb-2 flex items-center justify-between">
        <h3 className="text-[13px] font-bold">{title}</h3>
        {aside}
      </div>
      <div className="flex flex-col gap-2">
        <WithRefusals>{children}</WithRefusals>
      </div>
    </section>
  );
}

export function SmallButton({
  onClick,
  children,
  label,
  isOff,
  isPressed,
  isWaiting = false,
}: {
  onClick: () => void;
  children: ReactNode;
  label?: string;
  isOff?: boolean;
  /** Pressed, and done in a moment. */
  isWaiting?: boolean;
  /** For one that stays pressed till it is pressed again. */
  isPressed?: boolean;
}) {
  return (
    <button
      type="button"
      aria-label={label}
      aria-pressed={isPressed}
      disabled={isOff}
      onClick={onClick}
      className={`min-h-7 rounded border border-frame px-2 text-xs font-semibold disabled:opacity-40 ${isPressed ? "bg-deep text-on-deep" : "bg-sheet hover:bg-room"}`}
    >
      {children}
      {isWaiting && " …"}
    </button>
  );
}

/** Records what the boxes of its group hold. While one of them holds a refused entry it records nothing and names the box. */
export function RecordButton({ onClick, ...props }: ComponentProps<typeof SmallButton>) {
  const { guard, why } = useGuard();
  return (
    <>
      <SmallButton {...props} onClick={() => guard(onClick)} />
      {why && <Alert>Not recorded. {why}</Alert>}
    </>
  );
}

export function Choice({
  label,
  value,
  options,
  onChange,
  onFigure,
}: {
  label: string;
  value: string;
  options: readonly { value: string; name: string }[];
  onChange: (value: string) => void;
  /** A digit or Enter pressed while the list has the cursor: the figure that is typed belongs in a box. */
  onFigure?: () => void;
}) {
  return (
    <label className="flex items-center justify-between gap-2 text-sm text-faint">
      {label}
      <select
        className="h-8 w-44 rounded border border-frame bg-sheet px-2 font-semibold text-ink"
        value={value}
        onChange={(event) => onChange(event.currentTarget.value)}
        onKeyDown={(event) => {
          if (onFigure && /^([\d.,-]|Enter)$/.test(event.key)) onFigure();
        }}
      >
        {options.map((option) => (
          <option key={option.value} value={option.value}>
            {option.name}
          </option>
        ))}
      </select>
    </label>
  );
}
