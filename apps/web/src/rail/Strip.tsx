import type { ReactNode } from "react";

/** What a strip's name takes of it at its top, px. */
export const TITLE_HEIGHT = 26;

/** One strip of the rail with its name. */
export function Strip({
  title,
  note,
  height,
  isBlue,
  children,
}: {
  title: string;
  note?: ReactNode;
  height: number;
  isBlue?: boolean;
  children: ReactNode;
}) {
  return (
    <section
      aria-label={`${title} strip`}
      className={`relative border-b contain-content ${isBlue ? "border-layout-grid bg-layout" : "border-rule bg-paper"}`}
      style={{ height }}
    >
      {children}
      <h2
        className={`pointer-events-none absolute top-1.5 left-2.5 rounded text-[13px] font-semibold ${isBlue ? "bg-layout/75 text-scribed" : "text-ink"}`}
      >
        {title}
        {note && (
          <span className={`ml-1.5 text-[11px] font-normal ${isBlue ? "text-scribed-faint" : "text-faint"}`}>
            {note}
          </span>
        )}
      </h2>
    </section>
  );
}
