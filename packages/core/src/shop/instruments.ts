import { type Instrument, USUAL_INSTRUMENTS } from "./instrument.ts";
import type { Shop } from "./schema.ts";

/** The shop's instruments, and a usual one of every kind that it has none of. */
export function instrumentsOf({ instruments = [] }: Pick<Shop, "instruments">): readonly Instrument[] {
  const kinds = new Set(instruments.map(({ kind }) => kind));
  return [...instruments, ...USUAL_INSTRUMENTS.filter(({ kind }) => !kinds.has(kind))];
}
