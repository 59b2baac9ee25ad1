import type { DeletedRow } from "@true-spine/core/registry/contract.ts";
import { useState } from "react";
import { whyOf } from "../api/client.ts";
import { useNotices } from "./Notices.tsx";
import { PlainButton } from "./PlainButton.tsx";
import { whenInWords } from "./when.ts";

/** What was deleted within the last 30 days, to be taken back. */
export function DeletedList({
  rows,
  empty,
  onTakeBack,
}: {
  rows: readonly DeletedRow[];
  /** Said where there is nothing. */
  empty: string;
  onTakeBack: (id: string) => Promise<unknown>;
}) {
  const [busy, setBusy] = useState<string | null>(null);
  const takeBack = async ({ id, name }: DeletedRow) => {
    setBusy(id);
    try {
      await onTakeBack(id);
      useNotices.getState().tell(`${name} is back.`);
    } catch (error) {
      useNotices.getState().tell(`${whyOf(error)} ${name} is still among the deleted.`);
    } finally {
      setBusy(null);
    }
  };
  if (rows.length === 0) return <p className="text-faint">{empty}</p>;
  return (
    <ul aria-label="Deleted" className="flex max-w-3xl flex-col gap-2">
      {rows.map((row) => (
        <li key={row.id} className="flex items-center gap-4 rounded bg-sheet px-4 py-2">
          <span className="min-w-0 flex-1 truncate font-semibold">{row.name}</span>
          <span className="text-sm text-faint">deleted {whenInWords(Date.parse(row.deletedAt))}</span>
          <PlainButton disabled={busy !== null} onClick={() => void takeBack(row)}>
            Take back
          </PlainButton>
        </li>
      ))}
    </ul>
  );
}
