import { amplitudeIn, betweenEnds, curveOf, fitBends, highest } from "../straight/fit.ts";
import { effectOf, staysOf } from "../straight/log.ts";
import type { Blow, StraightSet } from "../straight/schema.ts";
import { isSameLine, type Reads } from "./straight-rows.ts";

/** What blows and clampings did, by what was read before and after them. */
interface Logged {
  readonly sets: readonly StraightSet[];
  readonly blows: readonly Blow[];
}

/** What blows did: the turn before and after, by the shape that was found before. */
export function effectsOf({ sets, blows }: Logged, thick: number, read: Reads): number[] {
  const groups = new Map<string, { before: StraightSet; after: StraightSet; count: number }>();
  for (const blow of blows) {
    const at = Date.parse(blow.when);
    const after = sets.find(({ when, kind }) => Date.parse(when) > at && kind !== "roll");
    const before = after && sets.findLast((set) => Date.parse(set.when) < at && isSameLine(set, after));
    if (!before || !after) continue;
    const key = `${before.id} ${after.id}`;
    groups.set(key, { before, after, count: (groups.get(key)?.count ?? 0) + blow.count });
  }
  return [...groups.values()].flatMap(({ before, after, count }) => {
    const [was] = fitBends(read(before)).bends;
    if (!was) return [];
    const turn = (set: StraightSet) => amplitudeIn(was.shape, read(set)[0] ?? []);
    const [a, b] = [turn(before), turn(after)];
    return a === null || b === null
      ? []
      : [effectOf({ turned: Math.abs(a) - Math.sign(a) * b, thick, blows: count })];
  });
}

/** What stayed of each clamping: the height that went, of what it was bent back by in all. */
export function sharesOf({ sets, blows }: Logged, read: Reads): number | null {
  const lines = sets.filter(({ kind }) => kind !== "roll");
  const shares = blows.flatMap(({ when, tool, past }) => {
    const at = Date.parse(when);
    const before = lines.findLast((set) => Date.parse(set.when) < at);
    const after = lines.find((set) => Date.parse(set.when) > at);
    if (tool !== "clamp" || past === undefined || !before || !after) return [];
    const [was, is] = [heightOf(before, read), heightOf(after, read)];
    const bentBack = Math.abs(was) + past;
    return bentBack > 0 ? [(Math.abs(was) - Math.sign(was) * is) / bentBack] : [];
  });
  return staysOf(shares.filter((share) => share > 0 && share < 1));
}

/** Heights as they were read, set after set of lines along it. */
export function historyOf({ sets }: Logged, read: Reads): number[] {
  return sets.flatMap((set) => (set.kind === "roll" ? [] : [heightOf(set, read)]));
}

/** How high one set says that it stands, by the bend that fits it best. */
function heightOf(set: StraightSet, read: Reads): number {
  const rows = read(set);
  const [best] = fitBends(rows).bends;
  const xs = rows.flat().map(({ x }) => x);
  const [from, to] = [Math.min(...xs), Math.max(...xs)];
  return best ? highest(betweenEnds(curveOf(best), from, to), from, to).z : 0;
}
