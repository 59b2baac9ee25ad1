import { describe, expect, test } from "vitest";
import { parseBlade } from "../../src/blade/parse.ts";
import { bevelOn } from "../../src/blade/schema.ts";
import { stillInIt } from "../../src/design/still-in-it.ts";
import { benchOf } from "../../src/inspect/bench.ts";
import { NO_CHECK, type Spot } from "../../src/inspect/schema.ts";
import { benchSteel } from "../../src/inspect/target.ts";
import { firstRoute } from "../../src/route/first.ts";
import { USUAL_SHOP } from "../../src/shop/schema.ts";
import { checked, example } from "../examples.ts";
import { askedAt, roundAt } from "../inspect/asked.ts";

const { falseEdge: _, ...blade } = { ...checked(example("field")), use: "field" };
const route = firstRoute(blade);
const finished = benchSteel(blade, route, USUAL_SHOP, "finish", 60);

describe("blades still in the steel", () => {
  const found = (off: (spot: Spot) => number) => {
    const stage = "finish";
    const readings = roundAt(blade, route, stage, off);
    const { stage: steel, found: asFound } = benchOf({
      ...askedAt(blade, route, stage, readings),
      check: NO_CHECK,
    });
    return stillInIt(steel, asFound!);
  };
  const low = (by: number) => (spot: Spot) => {
    const beta = (u: number) => finished.steel.station(u).left.primaryAngle! * (Math.PI / 180);
    if (spot.what === "edge" || spot.what === "above") return (-2 * by) / Math.cos(beta(spot.u!));
    if (spot.what === "over") return -by / Math.cos(beta(spot.u!));
    return spot.what === "line" ? by / Math.sin(beta(spot.u!)) : 0;
  };

  test("as planned, the drawn blade is", () => {
    expect(found(() => 0).map(({ kind }) => kind)).toEqual(["as drawn"]);
  });

  test("faces a little too far down: a thinner blade is, sound, with nothing new to fix, and no thinner than it must be", () => {
    const offers = found(low(0.06));
    expect(offers.length).toBeGreaterThan(0);
    expect(offers.length).toBeLessThanOrEqual(3);
    const thinner = offers.find(({ kind }) => kind === "thinner")!;
    expect(thinner.spare).toBeGreaterThan(-0.011);
    expect(thinner.by).toBeLessThan(0.2);
    expect(parseBlade(JSON.parse(JSON.stringify(thinner.blade))).ok).toBe(true);
    expect(thinner.blade.edge.behind[0]!.t).toBeLessThan(blade.edge.behind[0]!.t);
    expect(bevelOn(thinner.blade, "right").kind).toBe("flat");
  });

  test("too far down toward the tip alone: a shorter blade is, by the more the more is missing", () => {
    const shorterBy = (by: number) => {
      const toTip = (spot: Spot) => (spot.u !== undefined && spot.u >= 0.9 ? low(by)(spot) : 0);
      const offer = found(toTip).find(({ kind }) => kind === "shorter")!;
      const [tip, was] = [offer.blade, blade].map(({ outline }) => outline.spine.at(-1)!.at[0]);
      expect(was! - tip!).toBeCloseTo(offer.by, 3);
      return offer.by;
    };
    const [little, much] = [shorterBy(0.15), shorterBy(0.4)];
    expect(little).toBeGreaterThan(1);
    expect(little).toBeLessThan(much);
    expect(much).toBeLessThan(15);
  });

  test("far too far down there is none, and none is made up", () => {
    expect(found(low(0.6))).toEqual([]);
  });
});
