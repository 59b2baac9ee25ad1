import { format } from "date-fns/format";
import { useState } from "react";
import { useStore } from "zustand";
import { readRevision, useRevisions } from "../../api/blades.ts";
import { useRail, useScreen } from "../../blade/context.ts";
import { PlainButton, Question } from "../../parts/Dialog.tsx";
import { useNotices } from "../../parts/Notices.tsx";

/** Every revision this blade has been, newest first; any can be brought back as one step that can be undone. */
export function HistoryPanel() {
  const { id, open, savings, rail } = useScreen();
  const isOpen = useRail((state) => state.panel === "history");
  const onClose = () => rail.setState({ panel: null });
  const standing = useStore(savings.blade.state, (state) => state.revision);
  const { data, isError, isPending } = useRevisions(id, standing, isOpen);
  const [busy, setBusy] = useState<number | null>(null);
  const tell = useNotices((board) => board.tell);
  const bringBack = async (number: number) => {
    setBusy(number);
    try {
      const { file } = await readRevision(id, number);
      open.end();
      open.replace(file);
      tell(`Revision ${number} stands again.`, () => open.undo());
      onClose();
    } catch {
      tell("That revision could not be fetched; the blade is as it was.");
    } finally {
      setBusy(null);
    }
  };
  return (
    <Question title="Revisions" isOpen={isOpen} onClose={onClose}>
      {isPending && <p className="text-faint">Fetching the history …</p>}
      {isError && <p role="alert">The history could not be fetched. The blade itself is safe.</p>}
      <ul className="max-h-[60vh] overflow-auto">
        {data?.map(({ number, label, createdAt }) => (
          <li key={number} className="flex items-center gap-3 border-b border-rule py-2">
            <span className="w-10 text-right font-bold">{number}</span>
            <span className="min-w-0 flex-1">
              <span className="block truncate">{label ?? "saved by itself"}</span>
              <span className="text-xs text-faint">{format(new Date(createdAt), "d MMM yyyy, HH:mm")}</span>
            </span>
            {number === standing ? (
              <span className="text-sm text-faint">stands now</span>
            ) : (
              <PlainButton disabled={busy !== null} onClick={() => void bringBack(number)}>
                {busy === number ? "Fetching …" : "Bring back"}
              </PlainButton>
            )}
          </li>
        ))}
      </ul>
      <div className="mt-4 flex justify-end">
        <PlainButton onClick={onClose}>Close</PlainButton>
      </div>
    </Question>
  );
}
