import { parseBlade } from "../blade/parse.ts";
import type { Blade } from "../blade/schema.ts";
import type { Solved } from "../grind/solve.ts";
import { balanceOf } from "./balance.ts";
import type { Handle } from "./schema.ts";

const STEPS = 30;
const THINNEST_TIP = 0.3;

/**
 * The thickness at the tip whose distal taper puts the balance at a wanted place, mm from the junction. The last
 * row of the thickness table is what moves, from 0.3 mm up to the row behind it.
 */
export function taperForBalance(
  blade: Blade,
  handle: Handle | null,
  wanted: number,
): Solved<{ tip: number }> {
  const last = blade.thickness.length - 1;
  if (last < 1) return { ok: false, because: "a single thickness has no taper to change" };
  const at = (tip: number): number | null => {
    const copy = structuredClone(blade);
    copy.thickness[last]!.t = tip;
    const parsed = parseBlade(copy);
    return parsed.ok ? balanceOf(parsed.field, handle).x : null;
  };
  let low = thinnestSound(at, blade.thickness[last - 1]!.t);
  let high = blade.thickness[last - 1]!.t;
  const [behind, ahead] = [at(low), at(high)];
  if (behind === null || ahead === null)
    return { ok: false, because: "no taper of this blade is sound at both its ends" };
  if (wanted < behind || wanted > ahead) {
    return {
      ok: false,
      because: `taper alone moves the balance only from ${behind.toFixed(1)} to ${ahead.toFixed(1)} mm; lighten the tang or change the handle`,
    };
  }
  for (let i = 0; i < STEPS; i++) {
    const middle = (low + high) / 2;
    if ((at(middle) ?? ahead) < wanted) low = middle;
    else high = middle;
  }
  return { ok: true, tip: (low + high) / 2 };
}

/** The thinnest tip that still makes a sound blade: its edge needs something to stand on. */
function thinnestSound(at: (tip: number) => number | null, most: number): number {
  for (let tip = THINNEST_TIP; tip < most; tip += 0.05) if (at(tip) !== null) return tip;
  return most;
}
