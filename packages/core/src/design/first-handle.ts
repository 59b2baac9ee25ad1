import type { Blade } from "../blade/schema.ts";
import { takesPin } from "../handle/holes.ts";
import type { Handle } from "../handle/schema.ts";
import type { Tang } from "./family.ts";

/** Thickness of one scale, mm: what makes a usual handle with a usual tang. Source: common practice. */
const SCALE = 6.5;

/** A plain handle for a first blade: walnut scales and brass pins on a full tang, a guard and a block on a hidden one. */
export function firstHandle(blade: Blade, tang: Tang): Handle {
  const butt = Math.min(...blade.outline.tang.map((node) => node.at[0]));
  const deep = Math.min(...blade.outline.tang.filter((node) => node.at[0] <= 0).map((node) => node.at[1]));
  if (tang === "full") {
    const pins = (blade.holes ?? []).filter(takesPin).map(({ x, y, d }) => ({
      x,
      y,
      diameter: d,
      bore: 0,
      length: 2 * SCALE + blade.thickness[0]!.t,
      material: "brass",
    }));
    const scales = {
      kind: "scales",
      material: "walnut",
      thickness: SCALE,
      front: -3,
      inset: 0,
      fullness: 0.85,
    } as const;
    return { format: "true-spine/handle", version: 1, parts: [scales], pins };
  }
  return {
    format: "true-spine/handle",
    version: 1,
    parts: [
      {
        kind: "fitting",
        name: "guard",
        material: "brass",
        from: -6,
        to: 0,
        height: -deep + 12,
        thickness: 16,
        fullness: 0.8,
      },
      { kind: "block", material: "walnut", from: butt, to: -6, height: 30, thickness: 24, fullness: 0.8 },
    ],
    pins: [],
  };
}
