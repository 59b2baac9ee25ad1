/** One of a few: a row of buttons of which one is pressed. */
export function Segmented<T extends string>({
  label,
  options,
  value,
  onChange,
  names,
}: {
  label: string;
  options: readonly T[];
  value: T;
  onChange: (value: T) => void;
  names?: Readonly<Partial<Record<T, string>>>;
}) {
  return (
    <div
      role="radiogroup"
      aria-label={label}
      className="flex overflow-hidden rounded border border-frame bg-sheet"
    >
      {options.map((option) => {
        const isOn = option === value;
        return (
          <button
            key={option}
            type="button"
            role="radio"
            aria-checked={isOn}
            tabIndex={isOn ? 0 : -1}
            className={`min-h-8 flex-1 px-2 py-1 text-sm focus-visible:z-10 focus-visible:-outline-offset-2 ${isOn ? "bg-deep font-semibold text-on-deep" : "hover:bg-room"}`}
            onClick={() => onChange(option)}
            onKeyDown={(event) => {
              const step = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 }[event.key];
              if (!step) return;
              event.preventDefault();
              event.stopPropagation();
              const index = (options.indexOf(option) + step + options.length) % options.length;
              onChange(options[index]!);
              (event.currentTarget.parentElement?.children[index] as HTMLElement | undefined)?.focus();
            }}
          >
            {names?.[option] ?? option}
          </button>
        );
      })}
    </div>
  );
}
