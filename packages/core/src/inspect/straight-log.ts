import type { StruckHere } from "../shop/struck.ts";
import type { Build } from "../straight/advice.ts";
import { amplitudeIn, betweenEnds, curveOf, fitBends, highest } from "../straight/fit.ts";
import { kappaOf } from "../straight/lines.ts";
import { effectOf } from "../straight/log.ts";
import { yieldBy } from "../straight/overbend.ts";
import type { Blow, State, StraightSet, Tool } from "../straight/schema.ts";
import { isSameLine, type Reads } from "./straight-rows.ts";

/** What blows and clampings did, by what was read before and after them. */
interface Logged {
  readonly sets: readonly StraightSet[];
  readonly blows: readonly Blow[];
}

/** What blows did: the turn before and after, by the shape that was found before, for one tool between one reading and the next. */
export function effectsOf({ sets, blows }: Logged, thick: number, read: Reads): StruckHere["blows"] {
  const groups = new Map<string, { before: StraightSet; after: StraightSet; blows: Blow[] }>();
  for (const blow of blows) {
    const at = Date.parse(blow.when);
    const after = sets.find(({ when, kind }) => Date.parse(when) > at && kind !== "roll");
    const before = after && sets.findLast((set) => Date.parse(set.when) < at && isSameLine(set, after));
    if (!before || !after) continue;
    const key = `${before.id} ${after.id}`;
    groups.set(key, { before, after, blows: [...(groups.get(key)?.blows ?? []), blow] });
  }
  return [...groups.values()].flatMap(({ before, after, blows: made }) => {
    const [{ state, tool }] = made as [Blow];
    // With two tools between two readings nobody knows which did what.
    if (made.some((blow) => blow.tool !== tool || blow.state !== state)) return [];
    const count = made.reduce((sum, blow) => sum + blow.count, 0);
    const [was] = fitBends(read(before)).bends;
    if (!was) return [];
    const turn = (set: StraightSet) => amplitudeIn(was.shape, read(set)[0] ?? []);
    const [a, b] = [turn(before), turn(after)];
    return a === null || b === null
      ? []
      : [{ state, tool, e: effectOf({ turned: Math.abs(a) - Math.sign(a) * b, thick, blows: count }) }];
  });
}

/** What stayed of each clamping: the height that went, of what it was bent back by in all. */
export function sharesOf({ sets, blows }: Logged, read: Reads): number[] {
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
  return shares.filter((share) => share > 0 && share < 1);
}

/** The yield by each press of one steel: how far it was bent from where it stood, and how much of that it kept. N/mm². */
export function yieldsOf({ sets, blows }: Logged, thick: number, read: Reads): StruckHere["yields"] {
  const lines = sets.filter(({ kind }) => kind !== "roll");
  return blows.flatMap(({ id, when, state, tool, sagitta: to, span }) => {
    const at = Date.parse(when);
    const before = lines.findLast((set) => Date.parse(set.when) < at);
    const after = lines.find((set) => Date.parse(set.when) > at);
    if (!before || !after || tool === "clamp" || to === undefined || span === undefined) return [];
    const made = blows.filter((one) => isBetween(one.when, before.when, after.when));
    // Pressed once at each of its lines, as far every time: that is one even press, counted by its first.
    const isOne = made.every((one) => one.count === 1 && one.sagitta === to && one.span === span);
    if (!isOne || made[0]!.id !== id) return [];
    const went = Math.abs(heightOf(before, read) - heightOf(after, read));
    const sigma = yieldBy(Math.abs(kappaOf(to, span)), Math.abs(kappaOf(went, span)), thick);
    return sigma === null ? [] : [{ state, sigma }];
  });
}

const isBetween = (when: string, from: string, to: string) =>
  Date.parse(when) > Date.parse(from) && Date.parse(when) < Date.parse(to);

/** All that this blade and the shop's others say of one tool on one build in one state. */
export function learnedOf(
  records: readonly StruckHere[],
  of: { readonly state: State; readonly build: Build; readonly tool: Tool | null },
): { blows: number[]; shares: number[]; yields: number[] } {
  const built = records.filter(({ build }) => build === of.build);
  return {
    blows: built.flatMap(({ blows }) =>
      blows.flatMap(({ state, tool, e }) => (state === of.state && tool === of.tool ? [e] : [])),
    ),
    shares: built.flatMap(({ shares }) => shares),
    yields: built.flatMap(({ yields }) =>
      yields.flatMap(({ state, sigma }) => (state === of.state ? [sigma] : [])),
    ),
  };
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
