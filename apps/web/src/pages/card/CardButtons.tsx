import type { Stage } from "@true-spine/core/route/schema.ts";
import type { ReactNode } from "react";

/** How far the route is, a mark a stage. */
export function Pips({ stages, index }: { stages: readonly Stage[]; index: number }) {
  return (
    <span aria-hidden className="flex gap-1">
      {stages.map((stage, i) => (
        <span
          key={stage.id}
          className={`h-2 w-3 rounded-full xl:w-3.5 ${i === index ? "bg-scribe" : stage.done ? "bg-deep" : "bg-rule"}`}
        />
      ))}
    </span>
  );
}

/** The keys that do the same. */
export function Keys({ children }: { children: string }) {
  return (
    <kbd aria-hidden className="block text-sm font-normal opacity-70">
      {children}
    </kbd>
  );
}

/** A button for a hand in a glove, at the foot. */
export function Big({
  onClick,
  children,
  isMain,
  isOff,
}: {
  onClick: () => void;
  children: ReactNode;
  isMain?: boolean;
  isOff?: boolean;
}) {
  return (
    <button
      type="button"
      onClick={onClick}
      disabled={isOff}
      className={`min-h-20 px-2 text-xl font-semibold disabled:opacity-40 ${isMain ? "bg-deep text-on-deep" : "bg-sheet hover:bg-room"}`}
    >
      {children}
    </button>
  );
}

/** A lesser one, still for a thumb. */
export function Small({ onClick, children }: { onClick: () => void; children: ReactNode }) {
  return (
    <button
      type="button"
      onClick={onClick}
      className="min-h-16 rounded bg-layout-steel px-4 font-semibold text-scribed outline-1 outline-scribed-faint"
    >
      {children}
    </button>
  );
}
