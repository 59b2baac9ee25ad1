import { beltLife, cuttingRate } from "./cutting.ts";
import { SCRATCH_SHARE, scratchDepth } from "./gradings.ts";
import { type Abrasive, abrasiveName } from "./schema.ts";

/**
 * Which belts, in which order: the cheapest way over what is on hand from the scratch there is to the finish wanted.
 * Every belt takes off at least the scratches of the one before, with a margin; what is left over comes off with the
 * first. So the sequence is part of the geometry: all that comes after a belt must still be there when it is done.
 */
export interface Job {
  /** Surface to be worked, mm². */
  readonly area: number;
  /** Mean particle of what made the surface as it is, µm; 0 for none. */
  readonly from: number;
  /** Mean particle of the finish wanted, µm: the last belt is no coarser. */
  readonly to: number;
  /** To come off in all, square to the surface, mm; null: no more than the scratches ask. */
  readonly depth: number | null;
  /** Money for an hour of the maker's time: what minutes and belts are added up in. */
  readonly hourly: number;
  /** A step is this many times in fineness at most, where what is on hand allows it; more leaves scratches that take long. */
  readonly largestStep: number;
  /** No belt coarser than this, µm, is chosen; one that is named is worked out all the same. */
  readonly coarsest?: number;
  /** Whether the steel is still soft. */
  readonly isSoft?: boolean;
  readonly scratchShare: number;
}

/** Source: common practice: a belt takes off the deepest scratch before it and a little more. */
export const MARGIN = 1.3;
/** Source: common practice: about double, two and a half at most. */
export const LARGEST_STEP = 2.5;

export const USUAL: Pick<Job, "hourly" | "largestStep" | "scratchShare"> = {
  hourly: 40,
  largestStep: LARGEST_STEP,
  scratchShare: SCRATCH_SHARE,
};

export interface Step {
  readonly belt: Abrasive;
  /** Taken off with it, mm. */
  readonly depth: number;
  readonly minutes: number;
  /** Belts worn out. */
  readonly belts: number;
  readonly cost: number;
}

export interface Sequence {
  readonly steps: readonly Step[];
  /** All of it, mm. */
  readonly depth: number;
  readonly minutes: number;
  readonly cost: number;
}

export type Planned = { ok: true; sequence: Sequence } | { ok: false; why: string };

/** Money that a mm³ costs with a belt: the maker's minutes and the belt worn. */
function costOfCubic(belt: Abrasive, { hourly, isSoft }: Pick<Job, "hourly" | "isSoft">): number {
  return hourly / 60 / cuttingRate(belt, isSoft) + belt.price / beltLife(belt, isSoft);
}

/** What a belt must take off after a particle, mm. */
export function depthAfter(microns: number, share: number): number {
  return MARGIN * scratchDepth(microns, share);
}

/** Works a given order of belts out; refused in words where it cannot be. */
export function followed(belts: readonly Abrasive[], job: Job): Planned {
  const [first, ...rest] = belts;
  if (!first) return { ok: false, why: "There is no belt in it." };
  const wrong = firstWrong(belts, job);
  if (wrong) return { ok: false, why: wrong };
  const depths = rest.map((_, i) => depthAfter(belts[i]!.microns, job.scratchShare));
  const later = depths.reduce((sum, depth) => sum + depth, 0);
  const least = depthAfter(job.from, job.scratchShare);
  const own = job.depth === null ? least : job.depth - later;
  if (own < least - 1e-9) {
    return {
      ok: false,
      why: `${mm(job.depth!)} mm is to come off, but these belts need ${mm(least + later)} to take out one another's scratches.`,
    };
  }
  const steps = belts.map((belt, i) => step(belt, i === 0 ? own : depths[i - 1]!, job));
  const short = steps.find(({ belt, belts: worn }) => worn > belt.onHand + 1e-9);
  if (short) {
    const { belt, belts: worn } = short;
    return {
      ok: false,
      why: `${abrasiveName(belt)} would be worn out ${worn.toFixed(1)} times; ${belt.onHand} on hand.`,
    };
  }
  const sum = (of: (one: Step) => number) => steps.reduce((total, one) => total + of(one), 0);
  return {
    ok: true,
    sequence: { steps, depth: sum((s) => s.depth), minutes: sum((s) => s.minutes), cost: sum((s) => s.cost) },
  };
}

function step(belt: Abrasive, depth: number, job: Job): Step {
  const volume = job.area * depth;
  return {
    belt,
    depth,
    minutes: volume / cuttingRate(belt, job.isSoft),
    belts: volume / beltLife(belt, job.isSoft),
    cost: volume * costOfCubic(belt, job),
  };
}

/** The first step that cannot be, in words; null where all can. */
function firstWrong(belts: readonly Abrasive[], { from, to }: Job): string | null {
  let before = from;
  let name = "what is there";
  for (const [i, belt] of belts.entries()) {
    if (belt.onHand < 1) return `There is no ${abrasiveName(belt)} on hand.`;
    if (i > 0 && belt.microns >= before) return `${abrasiveName(belt)} is no finer than ${name}.`;
    before = belt.microns;
    name = abrasiveName(belt);
  }
  return before > to * (1 + 1e-9) ? `It ends with ${name}, coarser than the finish wanted.` : null;
}

const mm = (value: number) => value.toFixed(3);

/** A way to a belt: what it has cost so far beside the first belt's share, and how much it takes in all. */
interface Way {
  readonly belts: readonly Abrasive[];
  readonly cost: number;
  readonly later: number;
}

/**
 * The cheapest sequence over the belts on hand, or why there is none. For every first belt the ways to each finer belt
 * are kept as long as none is both cheaper and shallower; where the first belt itself runs short a deeper way may be
 * the only one, and all are kept, in stores of up to `KEEP_ALL` belts. Source: shortest path on an acyclic graph with
 * side conditions.
 */
export function planSequence(store: readonly Abrasive[], job: Job): Planned {
  const usable = store
    .filter((belt) => belt.onHand > 0)
    .toSorted((a, b) => b.microns - a.microns || costOfCubic(a, job) - costOfCubic(b, job))
    .filter((belt) => isFineEnough(belt, job));
  // A longer step costs minutes, and is better than no finish.
  const sequence =
    cheapest(usable, job) ?? cheapest(usable, { ...job, largestStep: Number.POSITIVE_INFINITY });
  return sequence ? { ok: true, sequence } : { ok: false, why: whyNone(usable, job) };
}

/** The cheapest over belts from coarse to fine; null where there is none. The cheaper ways are worked out first. */
function cheapest(usable: readonly Abrasive[], job: Job): Sequence | null {
  const least = depthAfter(job.from, job.scratchShare);
  const ways = usable.flatMap((first, i) => {
    if (job.from > 0 && job.from / first.microns > job.largestStep) return [];
    const own = job.area * (job.depth ?? least) * costOfCubic(first, job);
    return waysFrom(usable.slice(i), job).map(({ belts, cost }) => ({ belts, cost: own + cost }));
  });
  for (const { belts } of ways.sort((a, b) => a.cost - b.cost)) {
    const planned = followed(belts, job);
    if (planned.ok) return planned.sequence;
  }
  return null;
}

/** Ways at most double with every belt more: 4096 are still quick. */
const KEEP_ALL = 12;

/** Every way worth having from the first of these belts to one that is fine enough. */
function waysFrom(belts: readonly Abrasive[], job: Job): Way[] {
  const [first] = belts;
  const base = costOfCubic(first!, job);
  const isEnough = job.depth === null || job.area * job.depth <= beltLife(first!, job.isSoft) * first!.onHand;
  const worthKeeping = isEnough || belts.length > KEEP_ALL ? undominated : (all: readonly Way[]) => [...all];
  const ways: Way[][] = belts.map(() => []);
  ways[0] = [{ belts: [first!], cost: 0, later: 0 }];
  for (let k = 1; k < belts.length; k++) {
    const belt = belts[k]!;
    const each = costOfCubic(belt, job) - (job.depth === null ? 0 : base);
    const arriving = belts.slice(0, k).flatMap((before, j) => {
      if (belt.microns >= before.microns || before.microns / belt.microns > job.largestStep) return [];
      const depth = depthAfter(before.microns, job.scratchShare);
      if ((job.area * depth) / beltLife(belt, job.isSoft) > belt.onHand) return [];
      return ways[j]!.map((way) => ({
        belts: [...way.belts, belt],
        cost: way.cost + job.area * depth * each,
        later: way.later + depth,
      }));
    });
    ways[k] = worthKeeping(arriving);
  }
  return belts.flatMap((belt, k) => (belt.microns <= job.to * (1 + 1e-9) ? ways[k]! : []));
}

function undominated(ways: readonly Way[]): Way[] {
  const kept: Way[] = [];
  for (const way of ways.toSorted((a, b) => a.cost - b.cost || a.later - b.later)) {
    if (!kept.some((other) => other.later <= way.later + 1e-12)) kept.push(way);
  }
  return kept;
}

/** Why no sequence is there: the finish, the steel, or the belts. */
function whyNone(usable: readonly Abrasive[], job: Job): string {
  if (!usable.some((belt) => belt.microns <= job.to * (1 + 1e-9))) {
    return `Nothing on hand is as fine as ${job.to} µm.`;
  }
  const endless = usable.map((belt) => ({ ...belt, onHand: Number.MAX_SAFE_INTEGER }));
  const anyStep = { ...job, largestStep: Number.POSITIVE_INFINITY };
  for (const { belt, belts } of cheapest(endless, anyStep)?.steps ?? []) {
    const has = usable.find((one) => one.id === belt.id)!;
    if (belts > has.onHand) {
      return `It would take ${belts.toFixed(1)} of ${abrasiveName(has)}; ${has.onHand} on hand.`;
    }
  }
  const least = job.depth === null ? null : cheapest(usable, { ...anyStep, depth: null });
  return least
    ? `${mm(job.depth!)} mm is to come off; the belts on hand need ${mm(least.depth)} to take out one another's scratches.`
    : "Too few belts are on hand: one would be worn out before it is done.";
}

/** A belt on hand that a sequence leaves out, and what it would cost more, or less time, to put it in. */
export interface Skipped {
  readonly belt: Abrasive;
  readonly cost: number;
  readonly minutes: number;
}

/** No coarser than a job may be begun with. */
function isFineEnough({ microns }: Abrasive, { coarsest = Number.POSITIVE_INFINITY }: Job): boolean {
  return microns <= coarsest * (1 + 1e-9);
}

/** Whether a belt helps at all where nothing but scratches is to come off: one as coarse as they are only makes new ones. */
function helps({ microns }: Abrasive, { depth, from }: Job): boolean {
  return depth !== null || from === 0 || microns < from * (1 - 1e-9);
}

/** What each belt that could stand in a sequence and does not would add to it; cheapest first. */
export function skippedBy(
  { steps, cost, minutes }: Sequence,
  store: readonly Abrasive[],
  job: Job,
): Skipped[] {
  const used = steps.map(({ belt }) => belt);
  return store
    .filter((belt) => belt.onHand > 0 && isFineEnough(belt, job) && helps(belt, job))
    .filter((belt) => !used.some(({ id }) => id === belt.id))
    .flatMap((belt) => {
      const all = [...used, belt].toSorted((a, b) => b.microns - a.microns);
      const planned = followed(all, job);
      if (!planned.ok) return [];
      return [{ belt, cost: planned.sequence.cost - cost, minutes: planned.sequence.minutes - minutes }];
    })
    .toSorted((a, b) => a.cost - b.cost);
}
