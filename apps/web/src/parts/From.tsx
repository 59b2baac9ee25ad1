import { type ReactNode, useId, useState } from "react";
import { createPortal } from "react-dom";

/**
 * A figure that tells where it comes from: the relation behind it with this blade's figures put in, on hover, on a tap, and with the
 * focus on it.
 */
export function From({
  words,
  children,
  className = "",
}: {
  words: string;
  children: ReactNode;
  className?: string;
}) {
  const id = useId();
  const [at, setAt] = useState<{ left: number; top: number } | null>(null);
  const show = (element: Element) => {
    const { left, bottom } = element.getBoundingClientRect();
    setAt({ left: Math.max(8, Math.min(left, window.innerWidth - WIDTH - 8)), top: bottom + 4 });
  };
  return (
    <>
      <button
        type="button"
        aria-describedby={at ? id : undefined}
        className={`min-h-6 cursor-help rounded text-inherit [font:inherit] ${className}`}
        onMouseEnter={(event) => show(event.currentTarget)}
        onMouseLeave={() => setAt(null)}
        onFocus={(event) => show(event.currentTarget)}
        onClick={(event) => show(event.currentTarget)}
        onBlur={() => setAt(null)}
        onKeyDown={(event) => {
          if (event.key !== "Escape" || !at) return;
          event.stopPropagation();
          setAt(null);
        }}
      >
        {children}
      </button>
      {at &&
        createPortal(
          <span
            id={id}
            role="tooltip"
            className="pointer-events-none fixed z-60 rounded bg-ink px-2 py-1 text-left text-xs font-normal text-room shadow-lg"
            style={{ ...at, maxWidth: WIDTH }}
          >
            {words}
          </span>,
          document.body,
        )}
    </>
  );
}

const WIDTH = 300;
