import { PlainButton } from "../parts/PlainButton.tsx";
import type { Trouble } from "./trouble.ts";

/** Says that the server will not have what was typed, and why; what was typed stands, and can be sent again. */
export function SaveTrouble({ trouble, onTry }: { trouble: Trouble; onTry: () => void }) {
  if (trouble.status !== "refused") return null;
  return (
    <div role="alert" className="flex items-center gap-4 border-b border-fix bg-sheet px-5 py-2">
      <p className="min-w-0 flex-1">
        <strong>Not saved.</strong> {trouble.why} What you typed still stands here and is kept in this
        browser.
      </p>
      <PlainButton onClick={onTry}>Try again</PlainButton>
    </div>
  );
}
