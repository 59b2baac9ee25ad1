import { useQueryClient } from "@tanstack/react-query";
import type { Blade } from "@true-spine/core/blade/schema.ts";
import type { RevisionRow } from "@true-spine/core/registry/contract.ts";
import { useState } from "react";
import { useStore } from "zustand";
import { labelRevision, readRevision, useRevisions } from "../../api/blades.ts";
import { useFile, useRail, useScreen } from "../../blade/screen.ts";
import { SmallButton } from "../../parts/Group.tsx";
import { useNotices } from "../../parts/Notices.tsx";
import { PlainButton } from "../../parts/PlainButton.tsx";
import { Question } from "../../parts/Question.tsx";
import { TextBox } from "../../parts/TextBox.tsx";
import { whenInWords } from "../../parts/when.ts";
import { Compare } from "./Compare.tsx";

/**
 * Every revision this blade has been, newest first: given names, laid beside what stands, and brought back as one
 * step that can be undone.
 */
export function HistoryPanel() {
  const { rail } = useScreen();
  const isOpen = useRail((state) => state.panel === "history");
  return (
    <Question title="Revisions" isOpen={isOpen} onClose={() => rail.setState({ panel: null })} wide>
      {isOpen && <Revisions onClose={() => rail.setState({ panel: null })} />}
    </Question>
  );
}

function Revisions({ onClose }: { onClose: () => void }) {
  const { id, open, savings } = useScreen();
  const current = useFile();
  const standing = useStore(savings.blade.state, (state) => state.revision);
  const { data, isError, isPending } = useRevisions(id, standing, true);
  const [busy, setBusy] = useState<number | null>(null);
  const [beside, setBeside] = useState<{ number: number; file: Blade } | null>(null);
  const tell = useNotices((board) => board.tell);
  const fetched = async (number: number, use: (file: Blade) => void) => {
    setBusy(number);
    try {
      use((await readRevision(id, number)).file);
    } catch {
      tell("That revision could not be fetched; the blade is as it was.");
    } finally {
      setBusy(null);
    }
  };
  const bringBack = (number: number) =>
    fetched(number, (file) => {
      open.end();
      open.replace(file);
      tell(`Revision ${number} stands again.`, () => open.undo());
      onClose();
    });
  return (
    <>
      {isPending && <p className="text-faint">Fetching the history …</p>}
      {isError && <p role="alert">The history could not be fetched. The blade itself is safe.</p>}
      {beside && (
        <Compare earlier={beside.file} current={current} earlierName={`revision ${beside.number}`} />
      )}
      <ul className={`mt-2 overflow-auto ${beside ? "max-h-[28vh]" : "max-h-[60vh]"}`}>
        {data?.map((row) => (
          <li key={row.number} className="flex items-center gap-2 border-b border-rule py-2">
            <span className="w-10 text-right font-bold">{row.number}</span>
            <RevisionName row={row} />
            {row.number === standing ? (
              <span className="text-sm text-faint">current</span>
            ) : (
              <>
                <PlainButton
                  disabled={busy !== null}
                  onClick={() => void fetched(row.number, (file) => setBeside({ number: row.number, file }))}
                >
                  What changed
                </PlainButton>
                <PlainButton disabled={busy !== null} onClick={() => void bringBack(row.number)}>
                  {busy === row.number ? "Fetching …" : "Restore"}
                </PlainButton>
              </>
            )}
          </li>
        ))}
      </ul>
      <div className="mt-4 flex justify-end">
        <PlainButton onClick={onClose}>Close</PlainButton>
      </div>
    </>
  );
}

/** What a revision is called, and when it was; its name can be given and taken away. */
function RevisionName({ row: { number, label, createdAt } }: { row: RevisionRow }) {
  const { id } = useScreen();
  const queries = useQueryClient();
  const tell = useNotices((board) => board.tell);
  const [typed, setTyped] = useState<string | null>(null);
  const put = async () => {
    try {
      await labelRevision(id, number, typed?.trim() || null);
      await queries.invalidateQueries({ queryKey: ["revisions", id] });
      setTyped(null);
    } catch {
      tell("The name could not be kept: the server is away. It still stands in its box.");
    }
  };
  if (typed !== null) {
    return (
      <form
        className="flex min-w-0 flex-1 gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          void put();
        }}
      >
        <TextBox
          label={`Name of revision ${number}`}
          labelled="hidden"
          className="min-w-0 flex-1"
          maxLength={120}
          autoFocus
          text={typed}
          onText={setTyped}
        />
        <SmallButton onClick={() => void put()}>Keep</SmallButton>
        <SmallButton onClick={() => setTyped(null)}>Cancel</SmallButton>
      </form>
    );
  }
  return (
    <span className="flex min-w-0 flex-1 items-center gap-2">
      <span className="min-w-0">
        <span className="block truncate">{label ?? "saved by itself"}</span>
        <span className="text-xs text-faint">{whenInWords(Date.parse(createdAt))}</span>
      </span>
      <SmallButton label={`Name revision ${number}`} onClick={() => setTyped(label ?? "")}>
        Name …
      </SmallButton>
    </span>
  );
}
