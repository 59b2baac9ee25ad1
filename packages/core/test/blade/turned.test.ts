import { describe, expect, test } from "vitest";
import { thicknessAt } from "../../src/blade/field.ts";
import type { Blade } from "../../src/blade/schema.ts";
import { secondStationAt } from "../../src/blade/second-station.ts";
import { turnedBack, turnedFile } from "../../src/blade/turned.ts";
import { firstRoute } from "../../src/route/first.ts";
import { ladderOf, onSecondEdge } from "../../src/route/ladder.ts";
import type { Route } from "../../src/route/schema.ts";
import { finishedSteel } from "../../src/route/steel.ts";
import { USUAL_SHOP } from "../../src/shop/schema.ts";
import { checked, example } from "../examples.ts";
import { KINDS } from "../kinds.ts";

const found = KINDS.map(([name, raw]): [string, Blade] => [name, checked(raw)]).filter(
  ([, blade]) => blade.secondEdge,
);
const two: [string, Blade][] = [
  ...found,
  ...found.map(([name, blade]): [string, Blade] => [`${name}, unlike sides, ending early`, unlike(blade)]),
];

/** Flat by its angle on the one side and by its height on the other, leaning where it begins, short of the tip. */
function unlike(blade: Blade): Blade {
  const runIn = { lean: 12, radius: 5 };
  return checked({
    ...blade,
    secondEdge: {
      ...blade.secondEdge!,
      from: 62.5,
      to: 171.3,
      behind: [
        { v: 0, t: 0.6 },
        { v: 1, t: 0.4 },
      ],
      angle: { left: 22, right: 27 },
      bevels: {
        right: { kind: "flat", set: "angle", angle: 10, runIn },
        left: {
          kind: "flat",
          set: "height",
          height: [
            { v: 0, h: 9 },
            { v: 1, h: 7 },
          ],
          runIn,
        },
      },
    },
  });
}

describe("a blade turned edge for spine", () => {
  test("there are such blades among the kinds", () => {
    expect(two.length).toBeGreaterThan(1);
  });

  test.each(two)("%s: what its second edge says is what the edge of the turned blade says", (_, blade) => {
    const steel = finishedSteel(blade);
    const turned = steel.onSecond!;
    for (const v of [0.15, 0.3, 0.5, 0.77, 0.95]) {
      const [one, other] = [secondStationAt(steel.field, v)!, turned.station(v)];
      expect(other.x).toBeCloseTo(one.x, 4);
      expect(other.y).toBeCloseTo(-one.y, 4);
      expect(other.height).toBeCloseTo(one.height, 3);
      for (const side of ["left", "right"] as const) {
        expect(other[side].grindLine).toBeCloseTo(one[side].grindLine!, 3);
        expect(other[side].edgeBevel).toBeCloseTo(one[side].edgeBevel!, 4);
        expect(other[side].behind).toBeCloseTo(one[side].behind!, 4);
        expect(other[side].primaryAngle).toBeCloseTo(one[side].primaryAngle!, 3);
      }
    }
  });

  test.each(two)("%s: the steel is the same steel", (_, blade) => {
    const steel = finishedSteel(blade);
    const turned = steel.onSecond!;
    for (const x of [15, 40, 90, 130, 165]) {
      for (const y of [-24, -15, -12, -6, 0, 2])
        expect(thicknessAt(turned.field, x, -y)).toBeCloseTo(thicknessAt(steel.field, x, y), 9);
    }
  });

  test("a blade of one edge has no such side", () => {
    expect(finishedSteel(example("field")).onSecond).toBeNull();
  });

  test.each(two)("%s: its file turned and put back is the file", (_, blade) => {
    expect(turnedBack(blade, turnedFile(blade))).toEqual(blade);
  });

  test("more on its faces lifts the second edge by 2Δ/cos β and leaves the first alone", () => {
    const [, blade] = two.find(([name]) => name === "dagger")!;
    const turned = finishedSteel(blade).onSecond!;
    const thicker = turned.otherwise({ faces: () => 0.1 });
    const beta = (turned.station(0.4).right.angleAtShoulder! * Math.PI) / 180;
    const [before, after] = [turned.station(0.4).behind!, thicker.station(0.4).behind!];
    // Sharpened, the shoulder climbs with the face; its thickness grows at least by what the face does.
    expect(after - before).toBeGreaterThan(0.2 / Math.cos(beta));
    const first = { x: 90, y: -24.9 };
    expect(thicknessAt(thicker.field, first.x, -first.y)).toBeCloseTo(
      thicknessAt(turned.field, first.x, -first.y),
      9,
    );
  });
});

describe("the stages of a second edge", () => {
  const [, dagger] = two.find(([name]) => name === "dagger")!;
  const usual = firstRoute(dagger);
  const route: Route = {
    ...usual,
    stages: usual.stages.flatMap((stage) =>
      stage.kind === "sharpen" || stage.kind === "finish"
        ? [
            { ...stage, edge: "first" as const },
            { ...stage, id: `${stage.kind}-2`, edge: "second" as const },
          ]
        : [stage],
    ),
  };
  const at = (of: Route, id: string) => ladderOf(dagger, of, USUAL_SHOP).find((one) => one.id === id)!;

  test("a stage of both leaves as much on both, one of the first leaves the second as it was", () => {
    const both = at(usual, "rough");
    expect(both.second!.faces).toEqual(both.left.faces);
    const one = at(route, "finish");
    expect(one.left.faces.right).toBeLessThan(one.second!.faces.right);
    expect(one.second!.faces).toEqual(at(route, "harden").second!.faces);
    expect(at(route, "finish-2").second!.faces).toEqual(at(route, "finish-2").left.faces);
  });

  test("its edge bevel is absent until its own stage", () => {
    const [first, second] = [at(route, "sharpen"), at(route, "sharpen-2")];
    expect([first.isSharpened, first.second!.isSharpened]).toEqual([true, false]);
    expect(second.second!.isSharpened).toBe(true);
    expect(onSecondEdge(first)!.steel.station(0.5).edge).toBeGreaterThan(0.2);
    expect(onSecondEdge(second)!.steel.station(0.5).edge).toBeCloseTo(0, 9);
    expect(first.steel.station(0.5).edge).toBeCloseTo(0, 9);
    expect(second.steel.volume).toBeLessThan(first.steel.volume);
  });

  test("the belts of a stage on one edge are planned for that edge's faces alone", () => {
    const [first, second] = [at(route, "finish"), at(route, "finish-2")];
    const both = at(usual, "finish");
    expect(first.belts!.job.area + second.belts!.job.area).toBeCloseTo(both.belts!.job.area, 6);
    expect(first.belts!.job.depth).toBeCloseTo(both.belts!.job.depth!, 9);
  });

  test("before it is ground it has no second edge at all", () => {
    const late = { ...route, stages: route.stages.filter(({ id }) => id !== "rough") };
    expect(onSecondEdge(at(late, "finish"))).toBeNull();
    expect(onSecondEdge(at(late, "finish-2"))).not.toBeNull();
  });
});
