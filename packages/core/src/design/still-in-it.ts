import { compileField, type Field } from "../blade/field.ts";
import { isInside, ringPoints } from "../blade/outline.ts";
import { parseBlade } from "../blade/parse.ts";
import { type Blade, SIDES } from "../blade/schema.ts";
import { type PerSide, stationAt } from "../blade/station.ts";
import { judge } from "../findings/judge.ts";
import { PURPOSES } from "../findings/purposes.ts";
import { type AsFound, foundSteel } from "../inspect/as-found.ts";
import { clearSpan } from "../inspect/span.ts";
import type { BenchSteel } from "../inspect/target.ts";
import { tan } from "../units/angle.ts";
import { driverOf } from "./drive.ts";

/** A blade that the steel as it was found still has in it. Lengths mm. */
export interface Offer {
  readonly kind: "as drawn" | "thinner" | "shorter" | "line moved" | "another purpose";
  /** What is different, with its figures. */
  readonly by: number;
  readonly blade: Blade;
  /** Least steel left over between it and what was found, after what its finer belts take. */
  readonly spare: number;
}

/** Missing steel that no caliper sees, mm. */
const UNSEEN = 0.01;
const STATIONS = 24;
const UP = 14;

/**
 * Up to three blades still in the steel as found: each is the drawn blade changed in one way by as little as will do, sound by
 * the border's own rules, with nothing new to fix, and nowhere above what is there once the belts to come have had theirs.
 */
export function stillInIt(stage: BenchSteel, asFound: AsFound): Offer[] {
  const { blade } = stage.finished;
  const found = foundSteel(stage, asFound).steel.field;
  const { needed } = stage;
  const span = clearSpan(stage);
  const before = fixesOf(blade);
  const try_ = (kind: Offer["kind"], by: number, changed: Blade): Offer | null => {
    const parsed = parseBlade(changed);
    if (!parsed.ok) return null;
    const spare = spareOf(parsed.field, found, needed, span);
    if (spare < -UNSEEN || !isWithin(parsed.blade, blade)) return null;
    return { kind, by, blade: parsed.blade, spare };
  };
  const drawn = try_("as drawn", 0, blade);
  if (drawn) return [drawn];
  const isNoWorse = (offer: Offer | null): offer is Offer =>
    offer !== null && fixesOf(offer.blade).every((id) => before.includes(id));

  const middle = stage.finished.station(0.5);
  const angle = middle.right.primaryAngle ?? middle.left.primaryAngle ?? 5;
  const thinner = smallest(0.01, thickestOf(blade), (by) => try_("thinner", by, thinned(blade, by, angle)));
  const another = thinner && !isNoWorse(thinner) ? repurposed(thinner, before) : null;
  const shorter = smallest(0.5, 0.3 * lengthOf(blade), (by) => try_("shorter", by, shortened(blade, by)));
  const moved = [1, -1].flatMap((way) => {
    const offer = smallest(0.01, 0.35, (by) => try_("line moved", way * by, withLine(blade, 1 + way * by)));
    return offer ? [offer] : [];
  });
  return [thinner, another, shorter, ...moved]
    .filter(isNoWorse)
    .sort((a, b) => RANK[a.kind] - RANK[b.kind] || Math.abs(a.by) - Math.abs(b.by))
    .slice(0, 3);
}

const RANK = { "as drawn": 0, thinner: 1, "line moved": 2, shorter: 3, "another purpose": 4 } as const;

const lengthOf = ({ outline: { spine } }: Blade) => spine[spine.length - 1]!.at[0];
const thickestOf = ({ edge }: Blade) => Math.max(...edge.behind.map(({ t }) => t));
const fixesOf = (blade: Blade) =>
  judge(blade)
    .findings.filter(({ severity }) => severity === "fix")
    .map(({ id }) => id);

/** The smallest change that will do, by halving; null where the largest does not do either. */
function smallest(step: number, most: number, offer: (by: number) => Offer | null): Offer | null {
  let best = offer(most * 0.98);
  if (!best) return null;
  let [low, high] = [0, most * 0.98];
  while (high - low > step) {
    const middle = (low + high) / 2;
    const next = offer(middle);
    if (next) {
      best = next;
      high = middle;
    } else low = middle;
  }
  return best;
}

const tidy = (value: number) => Math.round(value * 1000) / 1000;

/** Every face let down as a whole: the edge thins by `by`, and lines set by height climb as far as their angle makes of it. */
function thinned(blade: Blade, by: number, angle: number): Blade {
  const copy = structuredClone(blade);
  for (const row of copy.edge.behind) row.t = tidy(Math.max(0.02, row.t - by));
  for (const side of SIDES) {
    const bevel = copy.bevels[side];
    if (bevel === "same" || bevel.kind === "none" || bevel.set !== "height") continue;
    for (const row of bevel.height) row.h = tidy(row.h + by / 2 / tan(angle));
  }
  return copy;
}

function shortened(blade: Blade, by: number): Blade {
  const copy = structuredClone(blade);
  driverOf("length").set(copy, lengthOf(blade) - by);
  return copy;
}

/** Grind lines by height, or a held angle, so that the line lies at so many times its height. */
function withLine(blade: Blade, times: number): Blade {
  const copy = structuredClone(blade);
  for (const side of SIDES) {
    const bevel = copy.bevels[side];
    if (bevel === "same" || bevel.kind === "none") continue;
    if (bevel.set === "height") for (const row of bevel.height) row.h = tidy(row.h * times);
    else if (bevel.set === "angle") bevel.angle = tidy(bevel.angle / times);
  }
  return copy;
}

/** The thinner blade under the first other purpose that it is nothing to fix for. */
function repurposed({ blade, by, spare }: Offer, before: readonly string[]): Offer | null {
  for (const {
    key,
    edgeAngle: [least, most],
  } of PURPOSES) {
    if (key === blade.use) continue;
    const copy = { ...structuredClone(blade), use: key };
    for (const side of SIDES) {
      const angle = copy.edge.angle[side];
      if (angle > 0) copy.edge.angle[side] = Math.min(most, Math.max(least, angle));
    }
    if (!parseBlade(copy).ok) continue;
    if (fixesOf(copy).every((id) => before.includes(id)))
      return { kind: "another purpose", by, blade: copy, spare };
  }
  return null;
}

/** Least steel between a finished blade and what was found, side by side, less what is still to be ground off its faces. */
function spareOf(
  finished: Field,
  found: Field,
  needed: PerSide<number>,
  [from, to]: readonly [number, number],
): number {
  let least = Number.POSITIVE_INFINITY;
  for (let i = 0; i <= STATIONS; i++) {
    const { cut, height, right, left } = stationAt(finished, from + ((to - from) * i) / STATIONS);
    const top = Math.max(right.grindLine ?? 0, left.grindLine ?? 0, 1);
    for (let k = 0; k <= UP; k++) {
      const s = Math.min(height * 0.98, ((k + 0.02) / UP) * top);
      const [x, y] = [cut.x + s * cut.dx, cut.y + s * cut.dy];
      finished.sampleAt(x, y);
      const wanted = { right: finished.right.lowest, left: finished.left.lowest };
      found.sampleAt(x, y);
      for (const side of SIDES) {
        const isFlat = s > (side === "right" ? right : left).grindLine!;
        const spare = found[side].lowest - wanted[side] - (isFlat ? 0 : needed[side]);
        least = Math.min(least, spare);
      }
    }
  }
  return least;
}

/** Whether a blade's outline lies within another's: nothing can be put back on. */
function isWithin(blade: Blade, drawn: Blade): boolean {
  if (blade.outline === drawn.outline) return true;
  const ring = compileField(drawn).ring;
  const middle = [lengthOf(drawn) / 3, drawn.outline.edge[0]!.at[1] / 2] as const;
  return ringPoints(compileField(blade).ring).every(([x, y]) => {
    // A hair towards the middle: points on the shared part of the outline count as within.
    const [px, py] = [x + (middle[0] - x) * 0.02, y + (middle[1] - y) * 0.02];
    return x < 1 || isInside(ring, px, py);
  });
}
