import type { InstrumentKind } from "../../shop/instrument.ts";
import { QUANTITY } from "../quantity.ts";
import type { Spot } from "../schema.ts";
import type { Shape } from "./fault.ts";

const LEAST_OF_ONE = 3;
/** Lengths along the blade and differences, which a lost zero hardly moves beside how well a hand finds their ends. */
const ALONG_THE_BLADE: readonly Spot["what"][] = ["line", "plunge", "bow", "twist"];

/** One instrument reads all it reads off by as much: the steel is as planned. */
export function wornReference(spots: readonly Spot[]): Shape[] {
  const isBy = (kind: InstrumentKind, { what }: Spot) =>
    !ALONG_THE_BLADE.includes(what) && QUANTITY[what].instrument === kind;
  const kinds = [...new Set(spots.map(({ what }) => QUANTITY[what].instrument))];
  return kinds.flatMap((kind): Shape[] => {
    const mine = spots.filter((spot) => isBy(kind, spot));
    if (mine.length < LEAST_OF_ONE) return [];
    return [
      {
        pattern: "worn-reference",
        instrument: kind,
        unit: kind === "angle-finder" ? "°" : "mm",
        faces: [],
        responses: [(spot) => (isBy(kind, spot) ? 1 : 0)],
      },
    ];
  });
}
