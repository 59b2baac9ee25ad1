import { type Static, type TSchema, Type } from "@sinclair/typebox";
import { PRINTABLE } from "../document/printable.ts";

/**
 * The blade file, `true-spine/blade` version 1: one definition that types the code, that Ajv validates with,
 * and that is published as JSON Schema. Lengths mm, angles degrees. Ranges are the format's own limits.
 */
const only = { additionalProperties: false } as const;

export const COORDINATE_LIMIT = 2000;
const Coordinate = Type.Number({ minimum: -COORDINATE_LIMIT, maximum: COORDINATE_LIMIT });
const Point = Type.Tuple([Coordinate, Coordinate]);
const Fraction = Type.Number({ minimum: 0, maximum: 1 });
const Thickness = Type.Number({ minimum: 0.1, maximum: 25 });
const Behind = Type.Number({ minimum: 0, maximum: 10 });
const BevelAngle = Type.Number({ exclusiveMinimum: 0, maximum: 60 });
const EdgeAngle = Type.Number({ minimum: 0, maximum: 60 });
const Radius = Type.Number({ minimum: 0, maximum: 50 });

const OutlineNode = Type.Object({ at: Point, back: Type.Optional(Point), ahead: Type.Optional(Point) }, only);
const NodeChain = Type.Array(OutlineNode, { minItems: 2, maxItems: 200 });
const rows = <T extends TSchema>(row: T) => Type.Array(row, { minItems: 1, maxItems: 100 });
const ThicknessRow = Type.Object({ x: Coordinate, t: Thickness }, only);
const BehindRow = Type.Object({ u: Fraction, t: Behind }, only);
const HeightRow = Type.Object(
  { u: Fraction, h: Type.Number({ minimum: 0, maximum: COORDINATE_LIMIT }) },
  only,
);

const Plunge = Type.Object(
  { x: Coordinate, lean: Type.Number({ minimum: -60, maximum: 60 }), radius: Radius },
  only,
);

const follow = { pull: Type.Literal("follow"), plunge: Plunge };
/** A second slope above the shoulder, or an eased shoulder: at its own angle up to a height above the edge. Flat bevels only. */
const Relief = Type.Object(
  { angle: BevelAngle, height: Type.Number({ exclusiveMinimum: 0, maximum: COORDINATE_LIMIT }) },
  only,
);
const relieved = { relief: Type.Optional(Relief) };
const byHeight = { set: Type.Literal("height"), height: rows(HeightRow) };
const full = { set: Type.Literal("full") };
const hollow = {
  kind: Type.Literal("hollow"),
  wheelDiameter: Type.Number({ minimum: 10, maximum: 2000 }),
  ...follow,
};
const convex = {
  kind: Type.Literal("convex"),
  bulge: Type.Number({ exclusiveMinimum: 0, maximum: 25 }),
  ...follow,
};

/** Every bevel that can be said, by the keys that tell them apart: kind, pull, set. */
export const BEVELS = {
  "flat/follow/angle": Type.Object(
    { kind: Type.Literal("flat"), ...follow, ...relieved, set: Type.Literal("angle"), angle: BevelAngle },
    only,
  ),
  "flat/follow/height": Type.Object(
    { kind: Type.Literal("flat"), ...follow, ...relieved, ...byHeight },
    only,
  ),
  "flat/follow/full": Type.Object({ kind: Type.Literal("flat"), ...follow, ...relieved, ...full }, only),
  "flat/straight/angle": Type.Object(
    {
      kind: Type.Literal("flat"),
      pull: Type.Literal("straight"),
      set: Type.Literal("angle"),
      angle: BevelAngle,
      restAngle: Type.Optional(Type.Number({ minimum: -30, maximum: 30 })),
      plunge: Plunge,
    },
    only,
  ),
  "hollow/follow/height": Type.Object({ ...hollow, ...byHeight }, only),
  "hollow/follow/full": Type.Object({ ...hollow, ...full }, only),
  "convex/follow/height": Type.Object({ ...convex, ...byHeight }, only),
  "convex/follow/full": Type.Object({ ...convex, ...full }, only),
  none: Type.Object({ kind: Type.Literal("none") }, only),
} as const;

export const BevelSchema = Type.Union(Object.values(BEVELS) as unknown as Members<typeof BEVELS>);
type Members<T extends Record<string, TSchema>> = [T[keyof T], T[keyof T]];

const FalseEdge = Type.Object(
  {
    from: Coordinate,
    to: Coordinate,
    angle: BevelAngle,
    land: Type.Number({ minimum: 0, maximum: 25 }),
    radius: Type.Optional(Radius),
  },
  only,
);

const BehindAlong = Type.Object({ v: Fraction, t: Behind }, only);
const HeightAlong = Type.Object(
  { v: Fraction, h: Type.Number({ minimum: 0, maximum: COORDINATE_LIMIT }) },
  only,
);
const RunIn = Type.Object({ lean: Type.Number({ minimum: -60, maximum: 60 }), radius: Radius }, only);

/** Every bevel of a second edge, by the keys that tell them apart: kind, set. There is no straight pull to one. */
export const SECOND_BEVELS = {
  "flat/angle": Type.Object(
    { kind: Type.Literal("flat"), set: Type.Literal("angle"), angle: BevelAngle, runIn: RunIn },
    only,
  ),
  "flat/height": Type.Object(
    { kind: Type.Literal("flat"), set: Type.Literal("height"), height: rows(HeightAlong), runIn: RunIn },
    only,
  ),
  "flat/full": Type.Object({ kind: Type.Literal("flat"), set: Type.Literal("full"), runIn: RunIn }, only),
  "hollow/height": Type.Object(
    {
      kind: Type.Literal("hollow"),
      wheelDiameter: Type.Number({ minimum: 10, maximum: 2000 }),
      set: Type.Literal("height"),
      height: rows(HeightAlong),
      runIn: RunIn,
    },
    only,
  ),
  "hollow/full": Type.Object(
    {
      kind: Type.Literal("hollow"),
      wheelDiameter: Type.Number({ minimum: 10, maximum: 2000 }),
      set: Type.Literal("full"),
      runIn: RunIn,
    },
    only,
  ),
  "convex/height": Type.Object(
    {
      kind: Type.Literal("convex"),
      bulge: Type.Number({ exclusiveMinimum: 0, maximum: 25 }),
      set: Type.Literal("height"),
      height: rows(HeightAlong),
      runIn: RunIn,
    },
    only,
  ),
  "convex/full": Type.Object(
    {
      kind: Type.Literal("convex"),
      bulge: Type.Number({ exclusiveMinimum: 0, maximum: 25 }),
      set: Type.Literal("full"),
      runIn: RunIn,
    },
    only,
  ),
  none: Type.Object({ kind: Type.Literal("none") }, only),
} as const;

const SecondBevelSchema = Type.Union(
  Object.values(SECOND_BEVELS) as unknown as Members<typeof SECOND_BEVELS>,
);

/** The blade's other sharpened edge, on its spine, by its own v: 0 where it begins, 1 where it ends. */
const SecondEdge = Type.Object(
  {
    from: Coordinate,
    /** Where it ends; absent: at the tip. */
    to: Type.Optional(Coordinate),
    behind: rows(BehindAlong),
    angle: Type.Object({ left: EdgeAngle, right: EdgeAngle }, only),
    bevels: Type.Object(
      { right: SecondBevelSchema, left: Type.Union([Type.Literal("same"), SecondBevelSchema]) },
      only,
    ),
  },
  only,
);

/** A laminated blade's hard middle: how thick it is, and how far its own middle lies to the right of the centre plane. */
const Core = Type.Object(
  {
    t: Type.Number({ exclusiveMinimum: 0, maximum: 25 }),
    offset: Type.Number({ minimum: -12.5, maximum: 12.5 }),
  },
  only,
);

/** What a hole is drilled for. */
const HOLE_USES = ["pin", "bolt", "lanyard", "glue", "lighten"] as const;
export type HoleUse = (typeof HOLE_USES)[number];

const Diameter = Type.Number({ exclusiveMinimum: 0, maximum: 100 });
const Hole = Type.Object(
  {
    x: Coordinate,
    y: Coordinate,
    d: Diameter,
    for: Type.Optional(Type.Union(HOLE_USES.map((one) => Type.Literal(one)))),
    /** Sunk into each scale for the head of a bolt: how wide, and how deep from the scale's face. */
    counterbore: Type.Optional(
      Type.Object({ d: Diameter, depth: Type.Number({ exclusiveMinimum: 0, maximum: 50 }) }, only),
    ),
  },
  only,
);

const Edge = Type.Object(
  {
    behind: rows(BehindRow),
    angle: Type.Object({ left: EdgeAngle, right: EdgeAngle }, only),
    rightShare: Fraction,
    offset: Type.Union([
      Type.Number({ minimum: -12.5, maximum: 12.5 }),
      Type.Literal("left-face"),
      Type.Literal("right-face"),
    ]),
    start: Type.Optional(Coordinate),
    /** Flat where nothing is said; convex off a slack belt or by hand, its `angle` then the chord's. */
    kind: Type.Optional(Type.Union([Type.Literal("flat"), Type.Literal("convex")])),
    /** Of a convex edge bevel: how far it stands outside its chord. */
    bulge: Type.Optional(Type.Number({ exclusiveMinimum: 0, maximum: 10 })),
  },
  only,
);

const ShopName = Type.String({ minLength: 1, maxLength: 80, pattern: PRINTABLE });

export const BladeSchema = Type.Object(
  {
    format: Type.Literal("true-spine/blade"),
    version: Type.Literal(1),
    name: Type.String({ minLength: 1, maxLength: 120, pattern: PRINTABLE }),
    outline: Type.Object({ spine: NodeChain, edge: NodeChain, tang: NodeChain }, only),
    thickness: rows(ThicknessRow),
    edge: Edge,
    bevels: Type.Object({ right: BevelSchema, left: Type.Union([Type.Literal("same"), BevelSchema]) }, only),
    falseEdge: Type.Optional(FalseEdge),
    secondEdge: Type.Optional(SecondEdge),
    core: Type.Optional(Core),
    holes: Type.Optional(Type.Array(Hole, { maxItems: 60 })),
    use: Type.Optional(ShopName),
    steel: Type.Optional(ShopName),
  },
  { ...only, $id: "true-spine/blade/1", title: "True Spine blade, version 1" },
);

export type Blade = Static<typeof BladeSchema>;
export type OutlineNode = Static<typeof OutlineNode>;
export type Outline = Blade["outline"];
export type Bevel = Static<(typeof BEVELS)[keyof typeof BEVELS]>;
export type SecondBevel = Static<(typeof SECOND_BEVELS)[keyof typeof SECOND_BEVELS]>;
export type CutBevel = Exclude<Bevel, { kind: "none" }>;
export type Plunge = Static<typeof Plunge>;
export type FalseEdge = Static<typeof FalseEdge>;
export type Hole = Static<typeof Hole>;
export type ThicknessRow = Static<typeof ThicknessRow>;
export type BehindRow = Static<typeof BehindRow>;
export type HeightRow = Static<typeof HeightRow>;
export type Side = "left" | "right";
export const SIDES: readonly Side[] = ["left", "right"];

/** The bevel cut on one side, with `"same"` resolved. */
export function bevelOn(blade: Blade, side: Side): Bevel {
  const left = blade.bevels.left;
  return side === "left" && left !== "same" ? left : blade.bevels.right;
}
