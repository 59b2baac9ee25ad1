import { type KnifeEdge, thickAt } from "../edge/knives.ts";
import { tan } from "../units/angle.ts";
import type { Purpose } from "./purposes.ts";

/**
 * How thick a purpose's knives are so far above the edge, least and most, mm: by its own behind the edge, its edge angles, and what it lets stand 5
 * up. Null where its limits do not reach so high.
 */
export function bandAt({ behind, edgeAngle, at5 }: Purpose, y: number): readonly [number, number] | null {
  const ends = behind.flatMap((e) =>
    edgeAngle.map((angle): KnifeEdge => ({ e, angle, d: e / 2 / tan(angle) })),
  );
  const of = ({ e, d }: KnifeEdge, t5: number | null) => {
    // Without an edge bevel it is the bevel itself, from nothing to what stands 5 up.
    if (e <= 0 || d <= 0) return t5 === null ? null : (t5 * y) / 5;
    return thickAt({ places: [{ at: "middle", e, d }], ...(t5 === null ? {} : { t5 }) }, y);
  };
  const low = ends.flatMap((end) => of(end, Math.max(end.e, 0)) ?? []);
  const high = ends.flatMap((end) => of(end, at5) ?? []);
  return low.length > 0 && high.length > 0 && Number.isFinite(Math.max(...high))
    ? [Math.min(...low), Math.max(...high)]
    : null;
}
