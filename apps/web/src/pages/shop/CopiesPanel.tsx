import { useQueryClient } from "@tanstack/react-query";
import type { CopyRow, CopyState } from "@true-spine/core/registry/contract.ts";
import { useState } from "react";
import { whyOf } from "../../api/client.ts";
import { copyNow, nameFolder, useCopies } from "../../api/house.ts";
import { PlainButton } from "../../parts/PlainButton.tsx";
import { Sign } from "../../parts/Sign.tsx";
import { TextBox } from "../../parts/TextBox.tsx";
import { agoInWords, whenInWords } from "../../parts/when.ts";

/** Copies of everything: where they go, when the last good one was, and what came of those before it. */
export function CopiesPanel() {
  const { data, isError } = useCopies();
  return (
    <section aria-labelledby="copies" className="mt-5 rounded-md border border-rule bg-sheet p-5">
      <h2 id="copies" className="text-lg font-bold">
        Copies
      </h2>
      {isError && (
        <p role="alert">The server does not answer. Nothing is lost; it is tried again by itself.</p>
      )}
      {data && <Copies state={data} />}
    </section>
  );
}

function Copies({ state }: { state: CopyState }) {
  const [text, setText] = useState<string | null>(null);
  const [why, setWhy] = useState<string | null>(null);
  const queries = useQueryClient();
  const folder = text ?? state.folder;
  const act = async (work: () => Promise<CopyState>) => {
    setWhy(null);
    try {
      queries.setQueryData(["copies"], await work());
      return true;
    } catch (error) {
      setWhy(whyOf(error));
      return false;
    }
  };
  const keep = async () => {
    const named = folder.trim();
    if (named === state.folder) return true;
    if (!/^\/./.test(named)) {
      setWhy("Name the folder whole, from the root, as /media/disk/copies.");
      return false;
    }
    return act(() => nameFolder(named));
  };
  return (
    <>
      <p role="status" aria-label="Last good copy" className="mt-2 flex items-start gap-2">
        <span className="pt-0.5">
          <Sign of={state.isLate ? "watch" : "well"} />
        </span>
        {lastInWords(state)}
      </p>
      {state.isOwn && (
        <p className="mt-1 flex items-start gap-2">
          <span className="pt-0.5">
            <Sign of="watch" />
          </span>
          The copies lie on the same disk as the program. If this disk fails, the copies are lost too: name a
          folder on another disk.
        </p>
      )}
      <p className="mt-1 max-w-prose text-sm text-faint">
        Once a night everything is copied, restored elsewhere and compared; only what is the same there counts
        as good. Of the copies seven days, four weeks and twelve months stay. A folder on another disk
        outlives this one. One is put back with <code>npm run restore -- FILE</code>, while True Spine is
        stopped.
      </p>
      <form
        className="mt-3 flex flex-wrap items-end gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          void keep().then((isNamed) => isNamed && act(copyNow));
        }}
      >
        <TextBox
          label="Folder for copies"
          labelled="above"
          text={folder}
          onText={(next) => {
            setText(next);
            setWhy(null);
          }}
          onBlur={() => {
            if (text !== null) void keep();
          }}
          why={why}
          maxLength={500}
          width="w-96"
          placeholder="/media/disk/copies"
        />
        <PlainButton kind="main" type="submit" disabled={state.isRunning}>
          {state.isRunning ? "Copying, and checking the copy …" : "Copy now"}
        </PlainButton>
      </form>
      {state.rows.length > 0 && (
        <table aria-label="Copies" className="mt-4 w-full border-collapse text-sm">
          <thead>
            <tr className="text-left text-faint">
              {["begun", "came of it", "size", "file"].map((head) => (
                <th key={head} className="border-b border-rule py-1 pr-4 font-semibold">
                  {head}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {state.rows.map((row) => (
              <tr key={row.startedAt}>
                <th
                  scope="row"
                  className="border-b border-rule py-1.5 pr-4 text-left font-semibold whitespace-nowrap"
                >
                  {whenInWords(Date.parse(row.startedAt))}
                </th>
                <td className="border-b border-rule pr-4">{cameOf(row, state.isRunning)}</td>
                <td className="border-b border-rule pr-4 whitespace-nowrap">
                  {row.bytes === null ? "" : `${(row.bytes / 1e6).toFixed(1)} MB`}
                </td>
                <td className="border-b border-rule break-all">{row.file}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </>
  );
}

function lastInWords({ lastGood, isLate }: CopyState): string {
  if (!lastGood) return "No good copy yet. The program makes one about a minute after it starts.";
  const ago = `The last good copy was made ${agoInWords(Date.parse(lastGood))}.`;
  return isLate ? `${ago} There is none of the last seven days: see below why.` : ago;
}

function cameOf({ isGood, endedAt, why }: CopyRow, isRunning: boolean): string {
  if (isGood) return "good: restored elsewhere, the same there";
  if (why) return why;
  if (!endedAt) return isRunning ? "being made …" : "was stopped";
  return "no copy";
}
