import type { TakenWork } from "@true-spine/core/registry/contract.ts";
import { parseWorkRow, type WorkRow } from "@true-spine/core/work/schema.ts";
import { send } from "../api/client.ts";
import { type KeptRows, keepRows, type RowKind } from "../saving/kept-rows.ts";

export type KeptWork = KeptRows<WorkRow>;

export const fetchWork = (id: string) => send<TakenWork>("GET", `/blades/${id}/work`);

const WORK: RowKind<WorkRow> = {
  name: "work",
  of: (bladeId) => `${bladeId}:work`,
  fetch: fetchWork,
  isSound: (value): value is WorkRow => parseWorkRow(value).ok,
};

/** What was recorded at a blade's work, in this browser: what the server has, and what is still owed to it. */
export const keepWork = (bladeId: string, taken: TakenWork): Promise<KeptWork> =>
  keepRows(WORK, bladeId, taken);
