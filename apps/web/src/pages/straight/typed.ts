import type { SetKind } from "@true-spine/core/straight/schema.ts";
import type { LengthUnit } from "@true-spine/core/units/length.ts";
import { useCallback, useMemo } from "react";
import { create } from "zustand";
import { persist } from "zustand/middleware";

/** What is typed at each place along a blade, as it was typed, by x in mm. */
type Places = Readonly<Record<string, string>>;

interface TypedReadings {
  readonly kept: readonly { readonly key: string; readonly places: Places }[];
  put(key: string, places: Places): void;
}

/** How many unfinished lines are kept. */
const KEPT = 30;

/** Lines of readings that were begun and not kept yet: they stand until they are, whatever page is opened meanwhile. */
const useTypedReadings = create<TypedReadings>()(
  persist(
    (set) => ({
      kept: [],
      put: (key, places) =>
        set(({ kept }) => {
          const others = kept.filter((one) => one.key !== key);
          const isBare = Object.values(places).every((text) => text.trim() === "");
          return { kept: isBare ? others : [{ key, places }, ...others].slice(0, KEPT) };
        }),
    }),
    { name: "true-spine-readings", partialize: ({ kept }) => ({ kept }) },
  ),
);

/** One line as it is typed, at a stage of a blade, with one kind of instrument, in one unit. */
export function useTyped(of: { blade: string; stage: string; kind: SetKind; unit: LengthUnit }) {
  const key = `${of.blade} ${of.stage} ${of.kind} ${of.kind === "roll" ? "°" : of.unit}`;
  const kept = useTypedReadings((state) => state.kept.find((one) => one.key === key)?.places);
  const put = useTypedReadings((state) => state.put);
  const typed = useMemo(
    () => new Map(Object.entries(kept ?? {}).map(([x, text]) => [Number(x), text] as const)),
    [kept],
  );
  const type = useCallback(
    (next: ReadonlyMap<number, string>) => put(key, Object.fromEntries(next)),
    [put, key],
  );
  return [typed, type] as const;
}
