import { Search } from "lucide-react";

/** A box to look for something by. */
export function SearchBox({
  label,
  placeholder,
  text,
  onText,
  className = "",
}: {
  label: string;
  placeholder: string;
  text: string;
  onText: (text: string) => void;
  className?: string;
}) {
  return (
    <span className={`relative block ${className}`}>
      <Search className="pointer-events-none absolute top-2 left-2.5 size-4 text-faint" aria-hidden />
      <input
        type="search"
        aria-label={label}
        placeholder={placeholder}
        className="h-8 w-full rounded border border-frame bg-sheet pr-2 pl-8 text-sm"
        value={text}
        onChange={(event) => onText(event.currentTarget.value)}
        onKeyDown={(event) => {
          if (event.key === "Escape" && text === "") event.currentTarget.blur();
        }}
      />
    </span>
  );
}
