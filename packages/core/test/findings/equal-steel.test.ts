import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { compileField, thicknessAt } from "../../src/blade/field.ts";
import type { Blade } from "../../src/blade/schema.ts";
import { judge } from "../../src/findings/judge.ts";
import { PURPOSES } from "../../src/findings/purposes.ts";
import { changed, example } from "../examples.ts";

/** Two descriptions of one steel within 0.01 mm get the same judgement. */

const field = example("field");

/** A blade of one thickness, one face per side at an angle; `edge`: an edge bevel that is told beside it. */
function blade(T: number, bevel: number, edge: { angle: number; behind: number }, use: string): Blade {
  return changed(field, (copy) => {
    copy.use = use;
    copy.thickness = [{ x: 0, t: T }];
    copy.bevels = {
      right: {
        kind: "flat",
        pull: "follow",
        set: "angle",
        angle: bevel,
        plunge: { x: 12, lean: 0, radius: 4 },
      },
      left: "same",
    };
    copy.edge = {
      ...copy.edge,
      behind: [{ u: 0, t: edge.behind }],
      angle: { left: edge.angle, right: edge.angle },
    };
  });
}
const judged = (of: Blade) => {
  const { findings } = judge(of, compileField(of));
  return findings.map(({ id, severity }) => `${id} ${severity}`).sort();
};
/** Most that two blades differ in thickness on a grid past the plunge, where an edge bevel begins and a bare face does not, mm. */
function apart(a: Blade, b: Blade): number {
  const [one, other] = [compileField(a), compileField(b)];
  let most = 0;
  for (let x = 24; x < 125; x += 2.5)
    for (let y = -32; y < 0; y += 0.25)
      most = Math.max(most, Math.abs(thicknessAt(one, x, y) - thicknessAt(other, x, y)));
  return most;
}

describe("equal steel, equal judgement", () => {
  test("6.35 mm at 22° to nothing, and at 21.9° with 0.75 mm behind an edge of 22°, for a chopper", () => {
    const zero = blade(6.35, 22, { angle: 22, behind: 0 }, "chopper");
    const bevelled = blade(6.35, 21.9, { angle: 22, behind: 0.75 }, "chopper");
    expect(apart(zero, bevelled)).toBeLessThan(0.05);
    expect(judged(zero)).toEqual(judged(bevelled));
    // 22° a side is strong enough for a chopper, and 0.95 mm thick where a chopper's edge bevel ends.
    expect(judged(zero).filter((id) => /edge-body-weak|edge-apex-weak|behind-edge-thin/.test(id))).toEqual(
      [],
    );
  });

  test("whatever the angle, the stock and the purpose", () => {
    let compared = 0;
    fc.assert(
      fc.property(
        fc.double({ min: 2, max: 6.5, noNaN: true }),
        fc.double({ min: 8, max: 25, noNaN: true }),
        fc.double({ min: 0.05, max: 1.2, noNaN: true }),
        fc.constantFrom(...PURPOSES.map(({ key }) => key)),
        (T, bevel, share, use) => {
          const behind = Math.min(share, 0.5 * T);
          // An edge bevel that leaves the face by 0.004 mm at the apex: behind·(1 − tan β/tan α).
          const slope = Math.tan((bevel * Math.PI) / 180) / (1 - 0.004 / behind);
          const angle = (Math.atan(slope) * 180) / Math.PI;
          const zero = blade(T, bevel, { angle: 18, behind: 0 }, use);
          const bevelled = blade(T, bevel, { angle, behind }, use);
          if (apart(zero, bevelled) > 0.01) return;
          // Where a limit lies within this, the judgement of the steel itself is about to change.
          const near = angle - bevel + 0.1;
          const [flatter, steeper] = [-near, near].map((more) =>
            String(judged(blade(T, bevel + more, { angle: 18, behind: 0 }, use))),
          );
          if (flatter !== steeper) return;
          expect(judged(bevelled)).toEqual(judged(zero));
          compared++;
        },
      ),
      { numRuns: 150, endOnFailure: true },
    );
    expect(compared).toBeGreaterThan(20);
  });
});
