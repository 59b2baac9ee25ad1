import type { Reading } from "@true-spine/core/inspect/schema.ts";
import { useMemo } from "react";
import { useStore } from "zustand";
import { useScreen } from "../blade/screen.ts";

/** The open blade's readings that stand, oldest first. */
export function useReadings(): readonly Reading[] {
  const { readings } = useScreen();
  const taken = useStore(readings.state, (state) => state.taken);
  const struck = useStore(readings.state, (state) => state.struck);
  return useMemo(() => taken.filter(({ id }) => !struck.has(id)), [taken, struck]);
}
