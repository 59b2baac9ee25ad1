import { TriangleAlert } from "lucide-react";

/** A caution where the work is: one line, always in sight of the controls it belongs to. */
export function Caution({ children }: { children: string }) {
  return (
    <div
      role="note"
      aria-label="Caution"
      className="flex items-start gap-2 border-l-4 border-watch bg-sheet px-3 py-2 text-xs text-ink"
    >
      <TriangleAlert className="mt-0.5 size-4 shrink-0 text-watch" aria-hidden />
      <p>{children}</p>
    </div>
  );
}
