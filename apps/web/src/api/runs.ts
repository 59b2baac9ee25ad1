import { useQuery } from "@tanstack/react-query";
import type { Run } from "@true-spine/core/inspect/run-schema.ts";
import type { DeletedRow, RunReadings, RunRow } from "@true-spine/core/registry/contract.ts";
import { newId } from "../saving/id.ts";
import { send } from "./client.ts";

export function useRuns() {
  return useQuery({ queryKey: ["runs"], queryFn: () => send<RunRow[]>("GET", "/runs") });
}

/** Runs deleted within the last 30 days. */
export function useDeletedRuns() {
  return useQuery({
    queryKey: ["runs", "deleted"],
    queryFn: () => send<DeletedRow[]>("GET", "/runs/deleted"),
  });
}

/** What was read at a run's places, as the run stands at a revision. */
export function useRunReadings(id: string, revision: number) {
  return useQuery({
    queryKey: ["runs", id, revision],
    queryFn: () => send<RunReadings>("GET", `/runs/${id}/readings`),
    placeholderData: (before) => before,
  });
}

export const readRun = (id: string) => send<RunRow>("GET", `/runs/${id}`);
export const saveRun = (id: string, save: { file: Run; base: number; saveKey: string }) =>
  send<{ revision: number }>("PUT", `/runs/${id}`, save);
export const createRun = (id: string, file: Run) => saveRun(id, { file, base: 0, saveKey: newId() });
export const deleteRun = (id: string) => send<void>("DELETE", `/runs/${id}`);
export const takeBackRun = (id: string) => send<void>("POST", `/runs/${id}/take-back`);
