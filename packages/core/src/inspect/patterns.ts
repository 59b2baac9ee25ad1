import { placeAt } from "../blade/chain.ts";
import { bevelOn, SIDES, type Side } from "../blade/schema.ts";
import { radians, tan } from "../units/angle.ts";
import type { InstrumentKind } from "./instrument.ts";
import { QUANTITY } from "./quantity.ts";
import type { Spot } from "./schema.ts";
import { type StageSteel, stationOf } from "./wanted.ts";

/** The faults that readings are searched for: how each looks is in trade's own words. */
export const PATTERNS = [
  "off-centre",
  "smile",
  "wave",
  "belly-thick",
  "plunge-back",
  "out-of-square",
  "wheel-swapped",
  "flats-not-true",
  "jig-zero",
  "worn-reference",
] as const;
export type PatternKey = (typeof PATTERNS)[number];

export interface PatternFacts {
  readonly name: string;
  readonly cause: string;
  readonly cure: string;
}

/** Source: common practice. */
export const PATTERN: Readonly<Record<PatternKey, PatternFacts>> = {
  "off-centre": {
    name: "edge off centre",
    cause: "one side was ground more, or the lines were not scribed from both faces",
    cure: "Work the thick side to its line, and check each pass.",
  },
  smile: {
    name: "dip at the plunge",
    cause: "pressure came on at the plunge first, or grinding started there",
    cure: "Start mid-blade and work back into the plunge; light at the end.",
  },
  wave: {
    name: "wavy grind line",
    cause: "the pulling hand pushed, or both pressed",
    cure: "One hand presses, one pulls; more passes, lighter.",
  },
  "belly-thick": {
    name: "edge thickens round the belly",
    cause: "a straight pull on a curved edge",
    cure: "Swing the handle away from where the curve starts.",
  },
  "plunge-back": {
    name: "plunges not alike",
    cause: "overhang differs, the guide is not square, or the flats are not true",
    cure: "Set the overhang by gauge on both sides; mark both from one square.",
  },
  "out-of-square": {
    name: "perimeter out of square",
    cause: "the outline is not square to the flats, so one side stood steeper and the other shallower",
    cure: "Dress the spine square before the blade goes back into the rest.",
  },
  "wheel-swapped": {
    name: "another wheel",
    cause: "the hollow is not of the planned wheel: it was swapped, or has worn",
    cure: "Measure the wheel, and put its diameter into the bevel.",
  },
  "flats-not-true": {
    name: "flats not true",
    cause: "thickness over the flats is not what everything else was laid out from",
    cure: "Dress the flats, then lay the lines out again.",
  },
  "jig-zero": {
    name: "jig lost its zero",
    cause: "both sides were held at an angle that is off by as much",
    cure: "Bring the jig back to its zero by its card, then the next pass.",
  },
  "worn-reference": {
    name: "the instrument, not the blade",
    cause: "everything it read is off by as much: zero lost, jaws or reference worn",
    cure: "Close it on a gauge block and look at its zero before anything is ground.",
  },
};

/** One way a fault may look on this blade: what one unit of each amplitude does to the reading at a spot. */
export interface Shape {
  readonly pattern: PatternKey;
  readonly side?: Side;
  /** Where along the blade, mm from the junction. */
  readonly x?: readonly [number, number];
  readonly instrument?: InstrumentKind;
  /** mm or degrees an amplitude is in. */
  readonly unit: "mm" | "°";
  readonly responses: readonly ((spot: Spot) => number)[];
  /** What one unit of each amplitude adds to a face at u, square to it, mm. Empty where faces are as planned. */
  readonly faces: readonly ((side: Side, u: number) => number)[];
  /** Only this sign of the first amplitude is the fault: −1 thins, +1 thickens. */
  readonly sign?: 1 | -1;
}

/** What 1 mm more on a side's face, square to it, does to the reading at a spot. Source: geometry. */
export function faceResponse(steel: StageSteel, spot: Spot, side: Side): number {
  if (QUANTITY[spot.what].at !== "u") return 0;
  const face = stationOf(steel, spot.u!)[side];
  if (face.primaryAngle === null || face.grindLine === null) return 0;
  const beta = radians(face.primaryAngle);
  switch (spot.what) {
    case "edge":
    case "behind":
      return 1 / Math.cos(beta);
    case "above":
      return spot.height! < face.grindLine ? 1 / Math.cos(beta) : 0;
    case "over":
      return spot.side === side ? 1 / Math.cos(beta) : 0;
    case "line":
      return spot.side === side ? -1 / Math.sin(beta) : 0;
    default:
      return 0;
  }
}

/** Every way the faults may look on this blade at this stage, for readings taken at these spots. */
export function shapesFor(steel: StageSteel, spots: readonly Spot[]): Shape[] {
  if (!steel.isBevelled) return [...flatsShapes(steel), ...referenceShapes(spots)];
  return [
    ...offCentre(steel, spots),
    ...smile(steel),
    ...wave(steel, spots),
    ...bellyThick(steel),
    ...plungeBack(),
    ...outOfSquare(steel),
    ...wheelSwapped(steel),
    ...flatsShapes(steel),
    ...jigZero(steel),
    ...referenceShapes(spots),
  ];
}

type OnFace = (side: Side, u: number) => number;

function faceShape(
  steel: StageSteel,
  pattern: PatternKey,
  faces: readonly OnFace[],
  more: Partial<Shape> = {},
): Shape {
  return {
    pattern,
    unit: "mm",
    faces,
    responses: faces.map((on) => (spot: Spot) => {
      if (QUANTITY[spot.what].at !== "u") return 0;
      return SIDES.reduce((sum, side) => sum + faceResponse(steel, spot, side) * on(side, spot.u!), 0);
    }),
    ...more,
  };
}

const xAt = (steel: StageSteel, u: number) => stationOf(steel, u).x;

/** Square to the face from along the plane: δ = k·cos β. */
function cosAt(steel: StageSteel, side: Side, u: number): number {
  return Math.cos(radians(stationOf(steel, u)[side].primaryAngle ?? 0));
}

function readAlong(spots: readonly Spot[]): number[] {
  const us = spots.flatMap(({ u }) => (u === undefined ? [] : [u]));
  return [...new Set(us)].sort((a, b) => a - b);
}

/** Whole edge, or a run of the places read: k moves the apex, or one side alone is heavy. */
function offCentre(steel: StageSteel, spots: readonly Spot[]): Shape[] {
  const us = readAlong(spots.filter(({ what }) => ["edge", "behind", "over", "line"].includes(what)));
  const runs: [number, number][] = [];
  for (let i = 0; i < us.length; i++) {
    for (let k = i + 1; k < us.length; k++) runs.push([i, k]);
  }
  return runs.flatMap(([i, k]) => {
    // Full where it was read, and running out to the next place on either side where it was not.
    const [before, after] = [us[i - 1], us[k + 1]];
    const within = (u: number) => {
      if (u < us[i]!) return before === undefined ? 1 : Math.max(0, (u - before) / (us[i]! - before));
      if (u > us[k]!) return after === undefined ? 1 : Math.max(0, (after - u) / (after - us[k]!));
      return 1;
    };
    const x = [xAt(steel, us[i]!), xAt(steel, us[k]!)] as const;
    const moved = faceShape(
      steel,
      "off-centre",
      [(side, u) => within(u) * cosAt(steel, side, u) * (side === "left" ? 1 : -1)],
      { x },
    );
    const heavy = SIDES.map((thick) =>
      faceShape(steel, "off-centre", [(side, u) => (side === thick ? within(u) : 0)], { x, side: thick }),
    );
    return [moved, ...heavy];
  });
}

/** How far from the plunge a dip may reach, mm. */
const DIPS = [12, 18, 25];

function smile(steel: StageSteel): Shape[] {
  const sides: (Side | undefined)[] = [...SIDES, undefined];
  return sides.flatMap((only) =>
    DIPS.map((reach) => {
      const on: OnFace = (side, u) => {
        const cut = steel.field.plunges[side];
        if (!cut || (only && side !== only)) return 0;
        const v = xAt(steel, u) - cut.x;
        return v < 0 || v > reach ? 0 : Math.cos((Math.PI * v) / (2 * reach)) ** 2;
      };
      const foot = steel.field.plunges[only ?? "right"]?.x ?? 0;
      return faceShape(steel, "smile", [on], {
        sign: -1,
        x: [foot, foot + reach],
        ...(only ? { side: only } : {}),
      });
    }),
  );
}

/** Lengths of a wave along the blade, mm: from a hand's width to a few passes' overlap. */
const WAVES = [24, 32, 42, 56, 75];
const ENOUGH_FOR_WAVES = 5;

function wave(steel: StageSteel, spots: readonly Spot[]): Shape[] {
  return SIDES.flatMap((only) => {
    const lines = spots.filter(({ what, side }) => what === "line" && side === only);
    if (lines.length < ENOUGH_FOR_WAVES) return [];
    const places = lines.map(({ u }) => xAt(steel, u!)).sort((a, b) => a - b);
    const apart = (places.at(-1)! - places[0]!) / (places.length - 1);
    // A wave shorter than twice the places' distance cannot be told from another: Nyquist.
    return WAVES.filter((length) => length > 2 * apart).map((length) => {
      const at = (u: number) => (2 * Math.PI * xAt(steel, u)) / length;
      return faceShape(
        steel,
        "wave",
        [
          (side, u) => (side === only ? Math.sin(at(u)) : 0),
          (side, u) => (side === only ? Math.cos(at(u)) : 0),
        ],
        { side: only },
      );
    });
  });
}

/** A straight pull leaves the climb of the edge above its first direction times tan β: 1 where it is most. */
function bellyThick(steel: StageSteel): Shape[] {
  const { edge, plunges } = steel.field;
  const start = placeAt(edge, Math.min(edge.length, Math.max(0, steel.field.sharpFrom)));
  const foot = plunges.right ?? plunges.left;
  const [cos, sin] = [start.tx, start.ty];
  const climb = (u: number) => {
    const { x, y } = placeAt(edge, u * edge.length);
    if (foot && x < foot.x) return 0;
    return Math.max(0, (y - start.y) * cos - (x - start.x) * sin);
  };
  const most = Math.max(...[0.5, 0.6, 0.7, 0.8, 0.9, 0.95].map(climb));
  if (most < LEAST_CLIMB) return [];
  const share = (u: number) => Math.min(1, climb(u) / climb(LAST_READ));
  const begins = [0.2, 0.3, 0.4, 0.5, 0.6, 0.7, 0.8].find((u) => share(u) > 0.05) ?? 0.8;
  return [
    faceShape(steel, "belly-thick", [(side, u) => 0.5 * cosAt(steel, side, u) * share(u)], {
      sign: 1,
      x: [xAt(steel, begins), xAt(steel, LAST_READ)],
    }),
  ];
}

const LAST_READ = 0.95;
/** An edge that climbs less has no belly a straight pull could thicken, mm. */
const LEAST_CLIMB = 2;

function plungeBack(): Shape[] {
  return SIDES.flatMap((only) =>
    (["plunge", "lean"] as const).map(
      (what): Shape => ({
        pattern: "plunge-back",
        side: only,
        unit: what === "plunge" ? "mm" : "°",
        faces: [],
        responses: [(spot) => (spot.what === what && spot.side === only ? 1 : 0)],
      }),
    ),
  );
}

/** A held angle off by 1°, the edge held: what it does to angle, line and thickness above the edge. Source: geometry. */
function angled(
  steel: StageSteel,
  sign: (side: Side) => number,
  held: "edge" | "line",
): (spot: Spot) => number {
  return (spot) => {
    if (QUANTITY[spot.what].at !== "u") return 0;
    const station = stationOf(steel, spot.u!);
    const part = (side: Side) => {
      const { primaryAngle, grindLine } = station[side];
      if (primaryAngle === null || grindLine === null) return null;
      return { b: grindLine, beta: radians(primaryAngle) };
    };
    const turned = radians(1);
    // Up the face by h from where it is held, a degree more lifts it by h·Δβ/cos²β.
    const lift = (side: Side, h: number) => {
      const one = part(side);
      if (!one) return 0;
      const from = held === "edge" ? h : h - one.b;
      return (sign(side) * from * turned) / Math.cos(one.beta) ** 2;
    };
    switch (spot.what) {
      case "angle":
        return part(spot.side!) ? sign(spot.side!) : 0;
      case "line": {
        const one = part(spot.side!);
        if (!one || held === "line") return 0;
        return (-sign(spot.side!) * 2 * one.b * turned) / Math.sin(2 * one.beta);
      }
      case "edge":
      case "behind":
        return lift("left", 0) + lift("right", 0);
      case "above":
        return lift("left", spot.height!) + lift("right", spot.height!);
      case "over":
        return lift(spot.side!, 0);
      default:
        return 0;
    }
  };
}

function outOfSquare(steel: StageSteel): Shape[] {
  const bevels = angled(steel, (side) => (side === "left" ? 1 : -1), "edge");
  return [
    {
      pattern: "out-of-square",
      unit: "°",
      faces: [],
      responses: [(spot) => (spot.what === "square" ? 1 : bevels(spot))],
    },
  ];
}

function jigZero(steel: StageSteel): Shape[] {
  return (["edge", "line"] as const).map((held) => ({
    pattern: "jig-zero",
    unit: "°",
    faces: held === "line" ? [(side, u) => heldLineFace(steel, side, u)] : [],
    responses: [angled(steel, () => 1, held)],
  }));
}

/** With the line held, 1° more leaves so much less at the edge. */
function heldLineFace(steel: StageSteel, side: Side, u: number): number {
  const { grindLine, primaryAngle } = stationOf(steel, u)[side];
  return grindLine === null || primaryAngle === null
    ? 0
    : (-grindLine * radians(1)) / Math.cos(radians(primaryAngle));
}

/** A hollow of another wheel: nothing at shoulder and line, most between them. 1 mm is 1 mm of sagitta on each side. */
function wheelSwapped(steel: StageSteel): Shape[] {
  const isHollow = SIDES.some((side) => bevelOn(steel.blade, side).kind === "hollow");
  if (!isHollow) return [];
  const bulge = (spot: Spot) => {
    const station = stationOf(steel, spot.u!);
    return SIDES.reduce((sum, side) => {
      const { grindLine, edgeBevel } = station[side];
      if (grindLine === null) return sum;
      const from = edgeBevel ?? 0;
      const share = (spot.height! - from) / (grindLine - from);
      return share <= 0 || share >= 1 ? sum : sum + 4 * share * (1 - share);
    }, 0);
  };
  return [
    {
      pattern: "wheel-swapped",
      unit: "mm",
      faces: [],
      responses: [(spot) => (spot.what === "above" ? bulge(spot) : 0)],
    },
  ];
}

/** Thicker by 1 mm over the flats, everywhere or more and more to the tip; bevels as they were ground. */
function flatsShapes(steel: StageSteel): Shape[] {
  const { spine } = steel.blade.outline;
  const tip = spine[spine.length - 1]!.at[0];
  const even = () => 1;
  const taper = (x: number) => Math.max(0, Math.min(1, x / tip));
  const ricasso = (x: number) => 1 - taper(x);
  return [even, taper, ricasso].map((along) => ({
    pattern: "flats-not-true",
    unit: "mm",
    x: [0, tip],
    faces: [],
    responses: [
      (spot) => {
        if (spot.what === "flats") return along(spot.x!);
        if (!steel.isBevelled || QUANTITY[spot.what].at !== "u") return 0;
        const station = stationOf(steel, spot.u!);
        if (spot.what === "over") return along(station.x) / 2;
        if (spot.what === "line") {
          const { primaryAngle, endsAt } = station[spot.side!];
          return primaryAngle && endsAt !== "spine" ? along(station.x) / 2 / tan(primaryAngle) : 0;
        }
        return 0;
      },
    ],
  }));
}

const LEAST_OF_ONE = 3;
/** Lengths along the blade and differences, which a lost zero hardly moves beside how well a hand finds their ends. */
const ALONG_THE_BLADE: readonly Spot["what"][] = ["line", "plunge", "bow"];

/** One instrument reads all it reads off by as much. */
function referenceShapes(spots: readonly Spot[]): Shape[] {
  const isBy = (kind: InstrumentKind, { what }: Spot) =>
    !ALONG_THE_BLADE.includes(what) && QUANTITY[what].instrument === kind;
  const kinds = [...new Set(spots.map(({ what }) => QUANTITY[what].instrument))];
  return kinds.flatMap((kind): Shape[] => {
    const mine = spots.filter((spot) => isBy(kind, spot));
    if (mine.length < LEAST_OF_ONE) return [];
    return [
      {
        pattern: "worn-reference",
        instrument: kind,
        unit: kind === "angle-finder" ? "°" : "mm",
        faces: [],
        responses: [(spot) => (isBy(kind, spot) ? 1 : 0)],
      },
    ];
  });
}

export function responseAt(shape: Shape, amplitudes: readonly number[], spot: Spot): number {
  return shape.responses.reduce((sum, response, i) => sum + response(spot) * (amplitudes[i] ?? 0), 0);
}

/** What a fitted shape adds to a face at u, square to it, mm. */
export function faceErrorAt(shape: Shape, amplitudes: readonly number[], side: Side, u: number): number {
  return shape.faces.reduce((sum, face, i) => sum + face(side, u) * (amplitudes[i] ?? 0), 0);
}

/** Shares of the edge where it can be read at all: clear of the plunges, and short of the point. */
export function clearSpan({ finished }: Pick<StageSteel, "finished">): readonly [number, number] {
  const { plunges, edge, sharpFrom } = finished;
  const from = Math.max(
    sharpFrom / edge.length,
    ...SIDES.map((side) => {
      const cut = plunges[side];
      if (!cut) return 0;
      const clear = cut.x + cut.radius / cut.cos;
      for (let i = 0; i <= 100; i++) {
        if (stationPlace(finished, i / 100) >= clear) return i / 100;
      }
      return 1;
    }),
  );
  return [Math.min(0.9, Math.max(0.01, from + 0.01)), LAST_READ];
}

const stationPlace = (field: StageSteel["finished"], u: number) =>
  placeAt(field.edge, u * field.edge.length).x;

/** A station's x for a share of the edge, without reading the whole section. */
export const placeOf = ({ finished }: Pick<StageSteel, "finished">, u: number) => stationPlace(finished, u);
