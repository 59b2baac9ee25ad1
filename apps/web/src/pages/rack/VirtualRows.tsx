import { defaultRangeExtractor, type Range, useVirtualizer } from "@tanstack/react-virtual";
import type { BladeRow, Me } from "@true-spine/core/registry/contract.ts";
import type { LengthUnit } from "@true-spine/core/units/length.ts";
import { useCallback, useEffect, useState } from "react";
import { RackRow, ROW_CLASS } from "./RackRow.tsx";

/** Rows that are looked at from the end before the next page is fetched. */
const NEAR_END = 15;
const USUAL_HEIGHT = 122;

/** Rows kept on either side of the one that has the keys, so that the next Tab finds one. */
const BESIDE_KEYS = 3;

/** The rows in sight and a few beside them, and those about the one that has the keys; the others are room. */
export function VirtualRows({
  rows,
  total,
  scroller,
  unit,
  longest,
  role,
  onDone,
  onNearEnd,
}: {
  rows: readonly BladeRow[];
  total: number | null;
  scroller: HTMLElement;
  unit: LengthUnit;
  longest: number;
  role: Me["role"];
  onDone: () => void;
  onNearEnd: () => void;
}) {
  // Keys go faster than a slow machine scrolls: what is drawn follows them, not only what is in sight.
  const [keysAt, setKeysAt] = useState<number | null>(null);
  const rangeExtractor = useCallback((range: Range) => drawn(range, keysAt), [keysAt]);
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller,
    estimateSize: () => USUAL_HEIGHT,
    getItemKey: (index) => rows[index]!.id,
    gap: 12,
    overscan: 6,
    rangeExtractor,
  });
  const items = virtual.getVirtualItems();
  const isNearEnd = (items.at(-1)?.index ?? 0) > rows.length - NEAR_END;
  useEffect(() => {
    if (isNearEnd) onNearEnd();
  }, [isNearEnd, onNearEnd]);
  return (
    <ul
      className="relative"
      style={{ height: virtual.getTotalSize() }}
      onBlur={({ currentTarget, relatedTarget }) => {
        if (!currentTarget.contains(relatedTarget)) setKeysAt(null);
      }}
    >
      {items.map(({ index, key, start }) => (
        <li
          key={key}
          ref={virtual.measureElement}
          data-index={index}
          onFocus={() => setKeysAt(index)}
          aria-setsize={total ?? rows.length}
          aria-posinset={index + 1}
          className={`absolute top-0 left-0 w-full ${ROW_CLASS}`}
          style={{ transform: `translateY(${start}px)` }}
        >
          <RackRow row={rows[index]!} unit={unit} longest={longest} role={role} onDone={onDone} />
        </li>
      ))}
    </ul>
  );
}

/** Indices of the rows to draw, in order, when the row at `keysAt` (none: null) has the keys. */
export function drawn(range: Range, keysAt: number | null): number[] {
  const seen = defaultRangeExtractor(range);
  if (keysAt === null) return seen;
  const from = Math.max(0, keysAt - BESIDE_KEYS);
  const to = Math.min(range.count - 1, keysAt + BESIDE_KEYS);
  const beside = Array.from({ length: Math.max(0, to - from + 1) }, (_, i) => from + i);
  return [...new Set([...seen, ...beside])].sort((a, b) => a - b);
}
