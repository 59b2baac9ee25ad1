import type { Bevel } from "../src/blade/schema.ts";

/** A small seeded generator, so that a run can be repeated from its printed seed (mulberry32, from memory). */
export function seeded(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/**
 * A made-up blade file from a random source: outlines of many sorts, every kind of bevel, pull and edge, sizes
 * from the usual to the absurd. Many are refused by the parser, and are meant to be.
 */
export function randomBlade(random: () => number): unknown {
  const between = (low: number, high: number) => low + (high - low) * random();
  const chance = (share: number) => random() < share;
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
  const length = between(50, 320);
  const height = between(12, 70);
  const drop = between(0, height * 0.8);
  const heel = between(-4, 16);
  const handle = between(60, 140);
  const curve = (x: number, y: number, reach: number) => ({
    at: [x, y],
    back: [-reach * between(0.2, 1), between(-3, 3)],
    ahead: [reach * between(0.2, 1), between(-3, 3)],
  });
  const tip = [length, -drop];
  const rows = <T>(most: number, row: (share: number) => T): T[] => {
    const count = 1 + Math.floor(random() * most);
    return Array.from({ length: count }, (_, i) => row(count === 1 ? 0 : i / (count - 1)));
  };
  const stock = between(0.8, 7);
  const behind = rows(3, (u) => ({ u, t: chance(0.15) ? 0 : between(0, stock * 0.4) }));
  const offset = chance(0.75)
    ? chance(0.6)
      ? 0
      : between(-0.3, 0.3)
    : pick(["left-face", "right-face"] as const);
  const flat = offset === "left-face" ? "left" : offset === "right-face" ? "right" : null;
  const angle = () => between(6, 32);
  const bevel = (): Bevel | unknown => {
    const plunge = {
      x: between(heel - 8, heel + 25),
      lean: between(-25, 25),
      radius: chance(0.2) ? 0 : between(0, 9),
    };
    const kind = pick(["flat", "flat", "hollow", "convex", "none"] as const);
    if (kind === "none") return { kind };
    if (kind === "flat" && chance(0.3)) {
      return {
        kind,
        pull: "straight",
        set: "angle",
        angle: between(1, 14),
        restAngle: between(-2, 2),
        plunge,
      };
    }
    const set = pick(
      kind === "flat" ? (["height", "angle", "full"] as const) : (["height", "full"] as const),
    );
    const shape =
      kind === "hollow"
        ? { wheelDiameter: between(40, 1200) }
        : kind === "convex"
          ? { bulge: between(0.02, 0.8) }
          : {};
    const measure =
      set === "height"
        ? { height: rows(4, (u) => ({ u, h: between(1, height * 1.1) })) }
        : set === "angle"
          ? { angle: between(1, 16) }
          : {};
    return { kind, pull: "follow", set, ...shape, ...measure, plunge };
  };
  const none = { kind: "none" };
  /** Some edges are convex, some shoulders eased, some blades laminated: drawn last, so that what was drawn before stays. */
  const eased = (one: unknown) =>
    typeof one === "object" &&
    (one as Bevel).kind === "flat" &&
    (one as { pull: string }).pull === "follow" &&
    chance(0.3)
      ? { ...(one as object), relief: { angle: between(3, 25), height: between(0.3, 8) } }
      : one;
  const made = {
    format: "true-spine/blade",
    version: 1,
    name: "Made up",
    outline: {
      spine: [
        { at: [0, 0] },
        curve(length * between(0.3, 0.7), between(-4, 4), length * 0.25),
        { at: tip, back: [-between(2, 30), between(-4, 20)] },
      ],
      edge: [
        { at: [heel, -height], ...(chance(0.4) ? { ahead: [between(1, 20), between(-4, 6)] } : {}) },
        ...(chance(0.3) ? [curve(length * 0.3, -height * between(0.8, 1.1), length * 0.12)] : []),
        curve(length * between(0.5, 0.75), -height * between(0.85, 1.15), length * 0.18),
        { at: tip, back: [-between(1, 25), -between(0, 25)] },
      ],
      tang: [
        { at: [heel, -height] },
        { at: [Math.min(heel, 4) - 6, -height * 0.75] },
        { at: [-handle, -height * 0.7] },
        { at: [-handle, 0] },
        { at: [0, 0] },
      ],
    },
    thickness: rows(5, (share) => ({
      x: -handle + share * (handle + length),
      t: between(stock * 0.5, stock),
    })),
    edge: {
      behind,
      angle: { left: flat === "left" ? 0 : angle(), right: flat === "right" ? 0 : angle() },
      rightShare: flat === "left" ? 1 : flat === "right" ? 0 : chance(0.7) ? 0.5 : random(),
      offset,
      ...(chance(0.2) ? { start: between(heel, length * 0.4) } : {}),
    },
    bevels:
      flat === "right"
        ? { right: none, left: bevel() }
        : { right: bevel(), left: flat === "left" ? none : chance(0.6) ? "same" : bevel() },
    ...(chance(0.35)
      ? {
          falseEdge: {
            from: length * between(0.1, 0.8),
            to: length * between(0.81, 1),
            angle: between(5, 45),
            land: between(0, 2),
            radius: between(0, 6),
          },
        }
      : {}),
    holes: chance(0.4) ? [{ x: -handle * 0.4, y: -height * 0.35, d: between(2, 9) }] : [],
    use: pick(["field", "kitchen", "slicer", "chopper", "carving", "pocket", "marking", "display", "none"]),
  };
  const hasSecond = !("falseEdge" in made) && chance(0.2);
  return {
    ...made,
    ...(hasSecond ? { secondEdge: secondEdge(between, chance, rows, { length, height, stock }) } : {}),
    edge: { ...made.edge, ...(chance(0.25) ? { kind: "convex", bulge: between(0.002, 0.06) } : {}) },
    bevels: { right: eased(made.bevels.right), left: eased(made.bevels.left) },
    ...(chance(0.2) ? { core: { t: between(0.3, stock), offset: between(-0.2, 0.2) } } : {}),
  };
}

/** A second edge along some of the spine. */
function secondEdge(
  between: (low: number, high: number) => number,
  chance: (share: number) => boolean,
  rows: <T>(most: number, row: (share: number) => T) => T[],
  { length, height, stock }: { length: number; height: number; stock: number },
): unknown {
  const measure = () =>
    chance(0.5)
      ? { set: "height", height: rows(3, (v) => ({ v, h: between(1, height * 0.6) })) }
      : chance(0.5)
        ? { set: "angle", angle: between(2, 20) }
        : { set: "full" };
  const flat = { kind: "flat", ...measure() };
  const shape = chance(0.3)
    ? {
        kind: "hollow",
        wheelDiameter: between(60, 900),
        set: "height",
        height: [{ v: 0, h: between(2, height * 0.5) }],
      }
    : flat;
  return {
    from: length * between(0.05, 0.7),
    ...(chance(0.3) ? { to: length * between(0.75, 0.98) } : {}),
    behind: rows(2, (v) => ({ v, t: chance(0.2) ? 0 : between(0, stock * 0.35) })),
    angle: { left: between(8, 30), right: between(8, 30) },
    bevels: { right: { ...shape, runIn: { lean: between(-20, 20), radius: between(0, 8) } }, left: "same" },
  };
}
