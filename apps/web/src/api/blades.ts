import { useInfiniteQuery, useQuery } from "@tanstack/react-query";
import type { Blade } from "@true-spine/core/blade/schema.ts";
import type { OtherBlade } from "@true-spine/core/findings/judged.ts";
import type {
  BladeName,
  BladeRow,
  BladeState,
  BladeWithFile,
  DeletedRow,
  RevisionRow,
  StandingDocument,
} from "@true-spine/core/registry/contract.ts";
import type { DocumentKind, Documents } from "@true-spine/core/registry/documents.ts";
import type { RemovedStage } from "@true-spine/core/route/removed.ts";
import { send, sendForPage } from "./client.ts";

const ROWS_OF_PAGE = 60;

/** The rack page by page, each fetched when it comes in sight. */
export function useRack(search: string, archived: boolean) {
  return useInfiniteQuery({
    queryKey: ["blades", search, archived],
    queryFn: ({ pageParam }) => sendForPage<BladeRow>(pageParam),
    initialPageParam: `/blades?${new URLSearchParams({ search, archived: String(archived), limit: String(ROWS_OF_PAGE) })}`,
    getNextPageParam: ({ next }) => next,
    placeholderData: (before) => before,
  });
}

const names = (archived: boolean) => ({
  queryKey: ["blades", "names", archived],
  queryFn: () => send<BladeName[]>("GET", `/blades/names?archived=${archived}`),
});

/** Blades to pick one from, or to hold beside one another. */
export function useBladeNames(archived = false) {
  return useQuery(names(archived));
}

/** Blades deleted within the last 30 days. */
export function useDeletedBlades() {
  return useQuery({
    queryKey: ["blades", "deleted"],
    queryFn: () => send<DeletedRow[]>("GET", "/blades/deleted"),
  });
}

const NONE: OtherBlade[] = [];

/** The rack's other blades, as far as a blade is held beside them. */
export function useOtherBlades(id: string): OtherBlade[] {
  const { data } = useQuery({
    ...names(false),
    select: (rows) =>
      rows.flatMap(({ id: other, name, use, summary: { middle } }) =>
        other === id || !middle ? [] : [{ name, use, ...middle }],
      ),
  });
  return data ?? NONE;
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
export const readRemovedStages = (id: string) => send<RemovedStage[]>("GET", `/blades/${id}/removed-stages`);
export const deleteBlade = (id: string) => send<void>("DELETE", `/blades/${id}`);
export const takeBackBlade = (id: string) => send<BladeWithFile>("POST", `/blades/${id}/take-back`);
export const labelRevision = (id: string, number: number, label: string | null) =>
  send<void>("PATCH", `/blades/${id}/revisions/${number}`, { label });
export const readDocument = <K extends DocumentKind>(id: string, kind: K) =>
  send<StandingDocument<K>>("GET", `/blades/${id}/documents/${kind}`);
export const saveDocument = <K extends DocumentKind>(
  id: string,
  kind: K,
  save: { file: Documents[K]; base: number; saveKey: string },
) => send<{ revision: number }>("PUT", `/blades/${id}/documents/${kind}`, save);
export const saveBlade = (id: string, save: { file: Blade; base: number; saveKey: string; label?: string }) =>
  send<{ revision: number }>("PUT", `/blades/${id}`, save);
