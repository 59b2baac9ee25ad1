import { useQuery } from "@tanstack/react-query";
import type { RunReadings, RunRow } from "@true-spine/core/contract.ts";
import type { Run } from "@true-spine/core/inspect/run-schema.ts";
import { send } from "./client.ts";

export function useRuns() {
  return useQuery({ queryKey: ["runs"], queryFn: () => send<RunRow[]>("GET", "/runs") });
}

export function useRunReadings(id: string) {
  return useQuery({
    queryKey: ["runs", id],
    queryFn: () => send<RunReadings>("GET", `/runs/${id}/readings`),
    placeholderData: (before) => before,
  });
}

/** Saves a run as the one after `base`; null throws it away. Throws Refused with 409 where another stands. */
export const saveRun = (id: string, base: number, file: Run | null) =>
  send<{ revision: number }>("PUT", `/runs/${id}`, { file, base, saveKey: crypto.randomUUID() });
