import type { Severity } from "@true-spine/core/findings/finding.ts";

/** Status by shape as well as colour: filled square to fix, half-filled diamond to watch, open circle for well. */
export function Sign({ of, className = "size-3.5" }: { of: Severity | "well"; className?: string }) {
  const name = { fix: "To fix", watch: "To watch", note: "Worth knowing", well: "All well" }[of];
  return (
    <svg viewBox="0 0 14 14" className={`${className} shrink-0`} role="img" aria-label={name}>
      {of === "fix" && <rect x="1.5" y="1.5" width="11" height="11" fill="var(--color-fix)" />}
      {of === "watch" && (
        <>
          <path d="M7 0.8 13.2 7 7 13.2 0.8 7z" fill="none" stroke="var(--color-watch)" strokeWidth="1.6" />
          <path d="M7 0.8V13.2L0.8 7z" fill="var(--color-watch)" />
        </>
      )}
      {of === "note" && <path d="M2 7h10" stroke="var(--color-faint)" strokeWidth="2" />}
      {of === "well" && (
        <circle cx="7" cy="7" r="5" fill="none" stroke="var(--color-well)" strokeWidth="1.8" />
      )}
    </svg>
  );
}
