import { useVirtualizer } from "@tanstack/react-virtual";
import type { BladeRow, Me } from "@true-spine/core/registry/contract.ts";
import type { LengthUnit } from "@true-spine/core/units/length.ts";
import { type RefObject, useEffect } from "react";
import { RackRow, ROW_CLASS } from "./RackRow.tsx";

/** Rows that are looked at from the end before the next page is fetched. */
const NEAR_END = 15;
const USUAL_HEIGHT = 122;

/** The rows in sight and a few beside them; the others are room. */
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
  scroller: RefObject<HTMLDivElement | null>;
  unit: LengthUnit;
  longest: number;
  role: Me["role"];
  onDone: () => void;
  onNearEnd: () => void;
}) {
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => USUAL_HEIGHT,
    getItemKey: (index) => rows[index]!.id,
    gap: 12,
    overscan: 6,
  });
  const items = virtual.getVirtualItems();
  const isNearEnd = (items.at(-1)?.index ?? 0) > rows.length - NEAR_END;
  useEffect(() => {
    if (isNearEnd) onNearEnd();
  }, [isNearEnd, onNearEnd]);
  return (
    <ul className="relative" style={{ height: virtual.getTotalSize() }}>
      {items.map(({ index, key, start }) => (
        <li
          key={key}
          ref={virtual.measureElement}
          data-index={index}
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
