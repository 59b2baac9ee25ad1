import { useSettings } from "../app/settings.ts";

/** A word to the newcomer, once: it goes when told to, on this browser for good. */
export function Hint({ name, lines }: { name: string; lines: readonly string[] }) {
  const isSeen = useSettings((settings) => settings.seen.includes(name));
  const see = useSettings((settings) => settings.see);
  if (isSeen) return null;
  return (
    <section aria-label="How to begin here" className="border-l-4 border-accent bg-sheet px-3 py-2.5 text-xs">
      <ul className="list-disc space-y-1 pl-4">
        {lines.map((line) => (
          <li key={line}>{line}</li>
        ))}
      </ul>
      <button
        type="button"
        onClick={() => see(name)}
        className="mt-2 min-h-7 rounded border border-frame bg-sheet px-2 font-semibold hover:bg-room"
      >
        Got it
      </button>
    </section>
  );
}
