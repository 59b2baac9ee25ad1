import { parseReading } from "@true-spine/core/inspect/parse.ts";
import type { Reading } from "@true-spine/core/inspect/schema.ts";
import type { TakenReadings } from "@true-spine/core/registry/contract.ts";
import { send } from "../api/client.ts";
import { type KeptRows, keepRows, type RowKind } from "../saving/kept-rows.ts";

export type KeptReadings = KeptRows<Reading>;

export const fetchReadings = (id: string) => send<TakenReadings>("GET", `/blades/${id}/readings`);

const READINGS: RowKind<Reading> = {
  name: "readings",
  of: (bladeId) => bladeId,
  fetch: fetchReadings,
  isSound: (value): value is Reading => parseReading(value).ok,
};

/** A blade's readings in this browser: what the server has, and what is still owed to it. */
export const keepReadings = (bladeId: string, taken: TakenReadings): Promise<KeptReadings> =>
  keepRows(READINGS, bladeId, taken);
