import { useState } from "react";
import { download } from "../parts/download.ts";
import { useNotices } from "../parts/Notices.tsx";
import { PlainButton } from "../parts/PlainButton.tsx";
import { Question } from "../parts/Question.tsx";
import { whenInWords } from "../parts/when.ts";
import { forgetDrafts, type LeftWork } from "./drafts.ts";

/**
 * Work that closed tabs left unsaved: each with its time, to be opened here, put on the rack as a blade of its own, saved to a file or
 * deleted. What is not decided stays and is offered again.
 */
export function LeftWorkDialog({
  works,
  name,
  partName,
  isSound,
  isBusy,
  onOpen,
  onKeepApart,
  onGone,
}: {
  works: readonly LeftWork[];
  /** Of what it is, for the file's name. */
  name: string;
  /** What a draft is of, in words. */
  partName: (what: string) => string;
  isSound: (kept: LeftWork["drafts"][number]) => boolean;
  /** What is here is not saved yet: nothing may be put in its place. */
  isBusy: boolean;
  onOpen: (work: LeftWork) => Promise<void>;
  onKeepApart?: (work: LeftWork) => Promise<void>;
  onGone: (work: LeftWork) => void;
}) {
  const [isLater, setIsLater] = useState(false);
  const [busy, setBusy] = useState(false);
  if (works.length === 0 || isLater) return null;
  const act = async (work: LeftWork, doing: () => Promise<void>) => {
    setBusy(true);
    try {
      await doing();
      onGone(work);
    } catch {
      useNotices
        .getState()
        .tell("That did not work: the server or this browser's storage does not answer. It is still there.");
    } finally {
      setBusy(false);
    }
  };
  return (
    <Question title="Unsaved work from before" isOpen wide onClose={() => setIsLater(true)}>
      <p className="text-faint">
        {works.length === 1 ? "A tab" : `${works.length} tabs`} closed before the server had everything.
        Nothing of it is lost: choose what becomes of each.
      </p>
      <ul className="mt-3 flex flex-col gap-2">
        {works.map((work) => {
          const isReadable = work.drafts.every(isSound);
          const from = work.at > 0 ? whenInWords(work.at) : "an earlier version";
          return (
            <li key={work.tab} className="flex flex-wrap items-center gap-2 border-t border-rule pt-2">
              <p className="min-w-0 flex-1">
                <strong>From {from}</strong>: {work.drafts.map(({ what }) => partName(what)).join(", ")}
                {!isReadable && (
                  <span className="block text-sm text-faint">
                    This version of the program cannot read it. Save it to a file before you delete it.
                  </span>
                )}
              </p>
              {isReadable && (
                <PlainButton
                  kind="main"
                  disabled={busy || isBusy}
                  onClick={() => void act(work, () => onOpen(work))}
                >
                  Open it here
                </PlainButton>
              )}
              {isReadable && onKeepApart && (
                <PlainButton disabled={busy} onClick={() => void act(work, () => onKeepApart(work))}>
                  Keep as a blade of its own
                </PlainButton>
              )}
              <PlainButton
                onClick={() =>
                  download(
                    name,
                    "-unsaved.json",
                    JSON.stringify(
                      work.drafts.map(({ what, at, draft }) => ({ of: partName(what), at, draft })),
                      null,
                      2,
                    ),
                    "application/json",
                  )
                }
              >
                Save to a file
              </PlainButton>
              <PlainButton disabled={busy} onClick={() => void act(work, () => forgetDrafts(work.drafts))}>
                Delete
              </PlainButton>
            </li>
          );
        })}
      </ul>
      <div className="mt-5 flex justify-end">
        <PlainButton onClick={() => setIsLater(true)}>Decide later</PlainButton>
      </div>
    </Question>
  );
}
