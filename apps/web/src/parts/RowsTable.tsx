import type { Blade } from "@true-spine/core/blade/schema.ts";
import { Plus, X } from "lucide-react";
import { useEdit } from "../blade/useEdit.ts";
import { AlongBox, LengthBox } from "./Box.tsx";

interface RowsTableProps {
  name: string;
  placeName: string;
  valueName: string;
  by: "x" | "u";
  rows: readonly { place: number; value: number }[];
  put: (copy: Blade, rows: { place: number; value: number }[]) => void;
  most?: number;
}

/** A table of places and lengths, linear between its rows: each typed over where it stands, added to, taken from. */
export function RowsTable({ name, placeName, valueName, by, rows, put, most = 100 }: RowsTableProps) {
  const { edit, press, visit } = useEdit();
  const Place = by === "x" ? LengthBox : AlongBox;
  const change = (i: number, patch: { place?: number; value?: number }) => (copy: Blade) =>
    put(
      copy,
      rows.map((row, k) => (k === i ? { ...row, ...patch } : row)),
    );
  const add = () => {
    const last = rows[rows.length - 1]!;
    const before = rows[rows.length - 2];
    const end = by === "u" ? 1 : last.place + 10;
    const isRoom = last.place < end - 1e-6;
    const next = isRoom
      ? { place: end, value: last.value }
      : {
          place: (last.place + (before?.place ?? 0)) / 2,
          value: (last.value + (before?.value ?? last.value)) / 2,
        };
    press((copy) =>
      put(
        copy,
        [...rows, next].sort((a, b) => a.place - b.place),
      ),
    );
  };
  return (
    <div role="group" aria-label={name} className="flex flex-col gap-1">
      <div className="flex gap-2 pr-8 text-[11px] text-faint" aria-hidden>
        <span className="flex-1">{placeName}</span>
        <span className="flex-1">{valueName}</span>
      </div>
      {rows.map((row, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a row is its position; keys by value would drop the focus
        <div key={i} className="flex items-start gap-2">
          <Place
            className="min-w-0 flex-1"
            hideLabel
            label={`${name}, row ${i + 1}, ${placeName}`}
            value={row.place}
            onVisit={visit}
            onCommit={(place) => edit(change(i, { place }))}
          />
          <LengthBox
            className="min-w-0 flex-1"
            hideLabel
            label={`${name}, row ${i + 1}, ${valueName}`}
            value={row.value}
            onVisit={visit}
            onCommit={(value) => edit(change(i, { value }))}
          />
          <button
            type="button"
            aria-label={`Remove row ${i + 1} from ${name}`}
            className="mt-1 rounded p-1 text-faint hover:bg-room disabled:opacity-30"
            disabled={rows.length === 1}
            onClick={() =>
              press((copy) =>
                put(
                  copy,
                  rows.filter((_, k) => k !== i),
                ),
              )
            }
          >
            <X className="size-4" aria-hidden />
          </button>
        </div>
      ))}
      {rows.length < most && (
        <button
          type="button"
          onClick={add}
          className="flex items-center gap-1 self-start rounded px-1 py-1 text-xs font-semibold text-deep hover:bg-room"
        >
          <Plus className="size-3.5" aria-hidden /> Add a row
        </button>
      )}
    </div>
  );
}
