import type { Blade } from "@true-spine/core/blade/schema.ts";
import { bevelOn } from "@true-spine/core/blade/schema.ts";
import type { Station } from "@true-spine/core/blade/station.ts";
import { isStraight, otherPull, type Thickening, thickening } from "@true-spine/core/grind/pull.ts";
import { fieldOf, linesOf } from "./derived.ts";

/** Stations worth a curve: in the run-in of a plunge the bevel is only on its way to what was asked for. */
export function clearStations(file: Blade): Station[] {
  const { stations, clear } = linesOf(file);
  return stations.filter((_, i) => clear[i]);
}

const others = new WeakMap<Blade, Blade | null>();

/** The same blade ground the other way, following or straight; null where neither way is open to it. */
export function groundOtherWay(file: Blade): Blade | null {
  let other = others.get(file);
  if (other === undefined) {
    const [first] = clearStations(file);
    other = first ? otherPull(file, first) : null;
    others.set(file, other);
  }
  return other;
}

/** What a straight pull does to this blade's edge, as it is or as it would be ground; null where nothing. */
export function straightPull(file: Blade): Thickening | null {
  const straight = isStraight(bevelOn(file, "right")) ? file : groundOtherWay(file);
  if (!straight) return null;
  const bevel = bevelOn(straight, "right");
  const rest = bevel.kind === "flat" && bevel.pull === "straight" ? (bevel.restAngle ?? 0) : 0;
  return thickening(fieldOf(straight), clearStations(straight), rest);
}
