import { USUAL_INSTRUMENTS } from "@true-spine/core/shop/instrument.ts";
import { adviceFor } from "@true-spine/core/straight/advice.ts";
import { fitBends } from "@true-spine/core/straight/fit.ts";
import type { Blow, StraightSet } from "@true-spine/core/straight/schema.ts";
import { rowsOf } from "@true-spine/core/straight/sets.ts";
import { describe, expect, test } from "vitest";
import { Anvil, type Bar } from "../src/anvil.ts";
import { randomFrom, seedOf } from "../src/random.ts";

const feelers = USUAL_INSTRUMENTS.find(({ kind }) => kind === "feelers")!;
const RADIAN = Math.PI / 180;

function piece(n: number) {
  const random = randomFrom(seedOf(`piece ${n}`));
  const between = (low: number, high: number) => low + (high - low) * random.next();
  const length = between(120, 260);
  const at = length * between(0.3, 0.7);
  const side = random.next() < 0.5 ? -1 : 1;
  const turn = side * between(0.8, 2) * RADIAN;
  const bar: Bar = {
    length,
    thick: between(2.5, 4.5),
    tall: 30,
    isClad: random.next() < 0.5,
    bends: [{ at, turn }],
    bow: 0,
    twist: 0,
    seed: `piece ${n}`,
  };
  return { bar, at, turn, hand: random.next() < 0.5 ? ("left" as const) : ("right" as const), random };
}

const half =
  ({ thick }: Bar) =>
  () =>
    thick / 2;
function readOn(bar: Bar, blows: readonly Blow[], face: "left" | "right", seed: string) {
  const places = Array.from({ length: Math.floor(bar.length / 12.5) + 1 }, (_, i) => ({
    x: 12.5 * i,
    y: -4,
  }));
  const rows = new Anvil(bar, blows).read("gap", face, places, half(bar), randomFrom(seedOf(seed)));
  const set: StraightSet = {
    id: "00000000-0000-4000-8000-000000000001",
    when: "2026-01-01T10:00:00Z",
    stage: "harden",
    state: "hard",
    kind: "gap",
    face,
    rows,
  };
  return fitBends(rowsOf(set, feelers, half(bar)));
}

describe("three hundred bent bars, read with usual feelers every 12.5 mm", () => {
  const told = Array.from({ length: 300 }, (_, n) => {
    const { bar, at, turn, hand } = piece(n);
    const { bends, place } = readOn(bar, [], hand === "right" ? "left" : "right", `read ${n}`);
    const bend = bends.find(({ shape }) => shape.kind === "bend");
    const found = bend?.shape.kind === "bend" ? bend.shape.at : Number.NaN;
    const kappa = bend?.amplitudes[0] ?? 0;
    const advice = adviceFor(
      "hard",
      bar.isClad ? "clad" : "solid",
      { kappa, hollow: kappa > 0 ? "right" : "left", lean: 0 },
      false,
    );
    // A slope that turns to the right (z″ > 0) has its hollow on the right face; one steel is struck there, clad steel on the other.
    const hollow = turn > 0 ? "right" : "left";
    const right = bar.isClad === (hollow === "left") ? "right" : "left";
    return {
      isFace: advice.face === right,
      off: Math.abs(found - at),
      isIn: place && place[0] <= at && at <= place[1],
    };
  });

  test("the face in 95 of 100", () => {
    expect(told.filter(({ isFace }) => isFace).length).toBeGreaterThanOrEqual(285);
  });

  test("the place within 5 mm in 95 of 100, and within what is said of it", () => {
    expect(told.filter(({ off }) => off <= 5).length).toBeGreaterThanOrEqual(285);
    // A bend may be named a short bow or two bends as well; of those named one bend nine in ten lie within what is said.
    const placed = told.filter(({ isIn }) => isIn !== null);
    expect(placed.length).toBeGreaterThanOrEqual(250);
    expect(placed.filter(({ isIn }) => isIn).length).toBeGreaterThanOrEqual(0.9 * placed.length);
  });
});

test("struck where it is told, face and build, every bar comes straight; struck on the other face it gets worse", () => {
  for (let n = 0; n < 20; n++) {
    const { bar, at } = piece(n);
    const bandOf = (0.3 / 200) * bar.length;
    const blows: Blow[] = [];
    const height = () => {
      const anvil = new Anvil(bar, blows);
      const ends = (x: number) => (anvil.zAt(bar.length) * x) / bar.length;
      return Math.max(
        ...[0.3, 0.4, 0.5, 0.6, 0.7].map((share) =>
          Math.abs(anvil.zAt(share * bar.length) - ends(share * bar.length)),
        ),
      );
    };
    const before = height();
    for (let round = 0; round < 60; round++) {
      const [best] = readOn(bar, blows, "left", `round ${n} ${round}`).bends;
      if (!best || height() < bandOf) break;
      const kappa = best.amplitudes[0]!;
      const lines = { kappa, hollow: kappa > 0 ? ("right" as const) : ("left" as const), lean: 0 };
      const { face } = adviceFor("hard", bar.isClad ? "clad" : "solid", lines, false);
      const x = best.shape.kind === "bend" ? best.shape.at : at;
      blows.push({
        id: `b${round}`,
        when: "",
        stage: "harden",
        state: "hard",
        face: face!,
        from: [x, -5],
        to: [x, -25],
        tool: "bit",
        count: 3,
      });
    }
    expect(height(), `bar ${n}`).toBeLessThan(bandOf);
    expect(before).toBeGreaterThan(bandOf);
    const wrong: Blow = { ...blows[0]!, face: blows[0]!.face === "left" ? "right" : "left", count: 20 };
    blows.splice(0, blows.length, wrong);
    expect(height()).toBeGreaterThan(before);
  }
});
