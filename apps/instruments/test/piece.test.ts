import { SIDES } from "@true-spine/core/blade/schema.ts";
import { benchOf } from "@true-spine/core/inspect/bench.ts";
import { NO_CHECK } from "@true-spine/core/inspect/schema.ts";
import { onSecondEdge, type StageSteel } from "@true-spine/core/route/ladder.ts";
import { USUAL_SHOP } from "@true-spine/core/shop/schema.ts";
import { describe, expect, test } from "vitest";
import { cutPiece } from "../src/piece.ts";
import { dagger, hollowKnife, knife, randomFrom, roundOf, setupOf } from "./bench.ts";

const convexKnife = () =>
  knife((file) => {
    file.bevels.right = { ...file.bevels.right, kind: "convex", bulge: 0.12 };
  });
const heldKnife = () =>
  knife((file) => {
    const { plunge } = file.bevels.right;
    file.bevels.right = { kind: "flat", pull: "follow", set: "angle", angle: 4, plunge };
  });

/** One side's half-thickness at a height above the edge. */
function halfOf({ steel }: StageSteel, u: number, side: (typeof SIDES)[number], height: number): number {
  const { cut } = steel.station(u);
  steel.field.sampleAt(cut.x + height * cut.dx, cut.y + height * cut.dy);
  return steel.field[side].lowest;
}

describe("a piece without faults is the stage's own steel, by surfaces cut apart from it", () => {
  test.each([
    ["flat", knife()],
    ["hollow", hollowKnife()],
    ["convex", convexKnife()],
    ["flat at an angle", heldKnife()],
    [
      "with its shoulder eased",
      knife((file) => Object.assign(file.bevels.right, { relief: { angle: 9, height: 3 } })),
    ],
    ["convex at its edge", knife((file) => Object.assign(file.edge, { kind: "convex", bulge: 0.012 }))],
  ])("%s", (_, blade) => {
    for (const stage of ["true", "finish", "sharpen"] as const) {
      const setup = setupOf(blade, stage).stage;
      const piece = cutPiece({ blade, left: setup.left, isSharpened: stage === "sharpen", faults: [] });
      let worst = 0;
      for (const u of [0.2, 0.35, 0.5, 0.65, 0.8, 0.92]) {
        const station = setup.steel.station(u);
        const [x, y] = [station.x, station.y];
        for (const height of [0.05, 0.5, 2, 5, 8]) {
          for (const side of SIDES) {
            const at = [x + station.inward[0] * height, y + station.inward[1] * height] as const;
            worst = Math.max(worst, Math.abs(piece.half(side, ...at) - halfOf(setup, u, side, height)));
          }
        }
      }
      expect(worst).toBeLessThan(0.004);
    }
  });
});

describe("a piece along the second edge", () => {
  const blade = dagger();
  test("reads what the stage's own steel should read there, place by place", () => {
    for (const kind of ["true", "finish", "sharpen"] as const) {
      const { stage } = setupOf(blade, kind);
      const turned = onSecondEdge(stage)!;
      const piece = cutPiece({
        blade,
        left: turned.left,
        isSharpened: turned.isSharpened,
        faults: [],
        edge: "second",
      });
      for (const u of [0.2, 0.4, 0.6, 0.8]) {
        const station = turned.steel.station(u);
        for (const side of SIDES) {
          for (const height of [0.05, 0.6, 2, 4]) {
            const at = [
              station.x + station.inward[0] * height,
              station.y + station.inward[1] * height,
            ] as const;
            expect(piece.half(side, ...at)).toBeCloseTo(halfOf(turned, u, side, height), 2);
          }
        }
      }
    }
  });

  test("a face left heavy there is told of that edge, and the round that finds it asks for nothing on the first", () => {
    const setup = setupOf(blade, "true");
    const turned = onSecondEdge(setup.stage)!;
    const random = randomFrom(11);
    const faults = [{ kind: "off-centre" as const, k: 0.3, from: 60, to: 130 }];
    const { blade: file, route } = setup;
    const asked = {
      blade: file,
      route,
      shop: USUAL_SHOP,
      stage: "true",
      check: { ...NO_CHECK, hardness: 60 },
    };
    const spots = benchOf({ ...asked, readings: [] }).second!.lines.map(({ spot }) => spot);
    const piece = cutPiece({
      blade,
      left: turned.left,
      isSharpened: false,
      faults,
      edge: "second",
      wander: { by: 0.012, phase: 1 },
    });
    const bench = benchOf({ ...asked, readings: roundOf(piece, spots, "true", random) });
    expect(bench.second!.diagnosis.found[0]!.pattern).toBe("off-centre");
    expect(bench.second!.corrections.every(({ edge }) => edge === "second")).toBe(true);
    expect(bench.second!.corrections.some(({ side }) => side === "left")).toBe(true);
    expect(bench.corrections).toEqual([]);
  });
});

describe("faults stand where they were cut", () => {
  const setup = setupOf(knife(), "true");
  const { blade, stage: steel } = setup;
  const cut = (faults: Parameters<typeof cutPiece>[0]["faults"]) =>
    cutPiece({ blade, left: steel.left, isSharpened: false, faults });
  const sound = cut([]);
  const at = (x: number) => {
    const u = Array.from({ length: 1000 }, (_, i) => i / 1000).find((one) => sound.edgeAt(one).x >= x)!;
    return { u, ...sound.edgeAt(u) };
  };

  test("an edge k to the left: left half up by k, right half down by it, within its stretch alone", () => {
    const piece = cut([{ kind: "off-centre", k: 0.2, from: 40, to: 75 }]);
    const { x, y } = at(58);
    expect(piece.half("left", x, y) - sound.half("left", x, y)).toBeCloseTo(0.2, 6);
    expect(piece.half("right", x, y) - sound.half("right", x, y)).toBeCloseTo(-0.2, 6);
    const far = at(95);
    expect(piece.half("left", far.x, far.y)).toBeCloseTo(sound.half("left", far.x, far.y), 9);
  });

  test("a thick face lowers its grind line by δ/sin β", () => {
    const piece = cut([{ kind: "heavy", side: "right", by: 0.1, from: 30, to: 90 }]);
    const { u } = at(60);
    const beta = (steel.steel.station(u).right.primaryAngle! * Math.PI) / 180;
    // Proud by 0.1 along the middle plane's normal is 0.1·cos β square to the face.
    const fall = sound.line("right", u)! - piece.line("right", u)!;
    expect(fall).toBeCloseTo((0.1 * Math.cos(beta)) / Math.sin(beta), 1);
    expect(piece.line("left", u)).toBeCloseTo(sound.line("left", u)!, 6);
  });

  test("a straight pull is felt round the belly and nowhere before it", () => {
    const piece = cut([{ kind: "belly-thick", most: 0.2 }]);
    const thick = (x: number) => {
      const { x: px, y } = at(x);
      return (
        piece.half("left", px, y) +
        piece.half("right", px, y) -
        sound.half("left", px, y) -
        sound.half("right", px, y)
      );
    };
    expect(thick(40)).toBeLessThan(0.01);
    expect(thick(117)).toBeGreaterThan(0.12);
  });

  test("what is taken off a face afterwards is gone from that face", () => {
    const off = [
      { x: 40, t: 0.15 },
      { x: 80, t: 0.15 },
    ];
    const piece = cutPiece({
      blade,
      left: steel.left,
      isSharpened: false,
      faults: [],
      taken: [{ side: "left", off }],
    });
    const { x, y } = at(60);
    expect(sound.half("left", x, y) - piece.half("left", x, y)).toBeCloseTo(0.15, 2);
    expect(piece.half("right", x, y)).toBeCloseTo(sound.half("right", x, y), 9);
  });

  test("a plunge set back, a bent reference of squareness, flats too thick", () => {
    const piece = cut([
      { kind: "plunge-back", side: "left", by: 1.5, lean: 2 },
      { kind: "out-of-square", by: 0.5 },
      { kind: "flats-not-true", heel: 0.1, tip: 0.2 },
    ]);
    expect(piece.plunge("left")).toBeCloseTo(sound.plunge("left")! - 1.5, 9);
    expect(piece.plunge("right")).toBe(sound.plunge("right"));
    expect(piece.lean("left")).toBeCloseTo(sound.lean("left")! + 2, 9);
    expect(piece.square).toBe(0.5);
    expect(piece.flats(0) - sound.flats(0)).toBeCloseTo(0.1, 9);
  });
});
