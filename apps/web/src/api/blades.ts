import { useQuery } from "@tanstack/react-query";
import type { Blade } from "@true-spine/core/blade/schema.ts";
import type { BladeRow, BladeState, BladeWithFile, RevisionRow } from "@true-spine/core/contract.ts";
import { send } from "./client.ts";

export function useRack(search: string, archived: boolean) {
  return useQuery({
    queryKey: ["blades", search, archived],
    queryFn: () =>
      send<BladeRow[]>("GET", `/blades?search=${encodeURIComponent(search)}&archived=${archived}`),
    placeholderData: (before) => before,
  });
}

export function useRevisions(id: string, standing: number, isOpen: boolean) {
  return useQuery({
    queryKey: ["revisions", id, standing],
    queryFn: () => send<RevisionRow[]>("GET", `/blades/${id}/revisions`),
    enabled: isOpen,
  });
}

export const readBlade = (id: string) => send<BladeWithFile>("GET", `/blades/${id}`);
export const readRevision = (id: string, number: number) =>
  send<RevisionRow & { file: Blade }>("GET", `/blades/${id}/revisions/${number}`);
export const createBlade = (id: string, file: Blade) => send<BladeWithFile>("POST", "/blades", { id, file });
export const copyBlade = (from: string, id: string) =>
  send<BladeWithFile>("POST", `/blades/${from}/copy`, { id });
export const markBlade = (id: string, marks: { state?: BladeState; archived?: boolean }) =>
  send<BladeWithFile>("PATCH", `/blades/${id}`, marks);
export const throwAway = (id: string) => send<void>("DELETE", `/blades/${id}`);
export const takeBack = (id: string) => send<BladeWithFile>("POST", `/blades/${id}/take-back`);
export const labelRevision = (id: string, number: number, label: string | null) =>
  send<void>("PATCH", `/blades/${id}/revisions/${number}`, { label });
export const saveBlade = (id: string, save: { file: Blade; base: number; saveKey: string; label?: string }) =>
  send<{ revision: number }>("PUT", `/blades/${id}`, save);
