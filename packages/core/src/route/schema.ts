import { type Static, Type } from "@sinclair/typebox";
import { PRINTABLE } from "../document/printable.ts";
import { DaySchema, TimeSchema } from "../document/time.ts";

/**
 * The route document, `true-spine/route` version 1: the stages a blade goes through from bar to finished edge, in the
 * maker's order, and what is chosen about them. What each stage leaves follows from these. Lengths mm, particles µm.
 */
const only = { additionalProperties: false } as const;

export const STAGE_KINDS = [
  "stock",
  "forge",
  "profile",
  "drill",
  "flats",
  "layout",
  "rough",
  "normalize",
  "anneal",
  "clay",
  "harden",
  "plates",
  "temper",
  "draw",
  "true",
  "tip",
  "finish",
  "grits",
  "hand",
  "spine",
  "false-edge",
  "etch",
  "handle",
  "sharpen",
  "own",
] as const;
export type StageKind = (typeof STAGE_KINDS)[number];

/** What of a blade a stage works on. */
export const WORKED_ON = [
  "flats",
  "bevels",
  "edge",
  "false edge",
  "outline",
  "tip",
  "spine",
  "handle",
  "nothing",
] as const;
export type WorkedOn = (typeof WORKED_ON)[number];

/** A stage's own name on its route. */
export const STAGE_ID = /^[a-z0-9-]{1,40}$/;
export const StageIdSchema = Type.String({ pattern: STAGE_ID.source });

const Note = Type.String({ minLength: 1, maxLength: 500, pattern: PRINTABLE });
const Particle = Type.Number({ minimum: 0.1, maximum: 1000 });

/** A reading taken while a stage was in hand, mm: the very edge, or a grind line above it. */
const StageReading = Type.Object(
  {
    when: TimeSchema,
    what: Type.Union([Type.Literal("edge"), Type.Literal("line")]),
    place: Type.Union([Type.Literal("heel"), Type.Literal("middle"), Type.Literal("tip")]),
    value: Type.Number({ minimum: 0, maximum: 300 }),
    /** The maker said that this stage went past its line. */
    past: Type.Optional(Type.Boolean()),
  },
  only,
);

/** How a bar's flats come: what cleaning them takes follows from it. */
export const SURFACES = ["ground", "descaled", "rolled"] as const;
export type BarSurface = (typeof SURFACES)[number];

export const BarSchema = Type.Object(
  {
    surface: Type.Union(SURFACES.map((one) => Type.Literal(one))),
    /** Across a round one; absent: it is flat. */
    diameter: Type.Optional(Type.Number({ minimum: 3, maximum: 100 })),
    width: Type.Optional(Type.Number({ minimum: 3, maximum: 500 })),
    /** Radius of a flat one's corners; absent: sharp. */
    corner: Type.Optional(Type.Number({ minimum: 0, maximum: 5 })),
    length: Type.Optional(Type.Number({ minimum: 10, maximum: 6000 })),
  },
  only,
);
export type Bar = Static<typeof BarSchema>;

const StageSchema = Type.Object(
  {
    /** Its own name on the route, which whatever refers to it gives; absent in files from before there were any: its kind. */
    id: Type.Optional(StageIdSchema),
    kind: Type.Union(STAGE_KINDS.map((kind) => Type.Literal(kind))),
    /** As the maker calls it, where that is not its kind's name. */
    name: Type.Optional(Type.String({ minLength: 1, maxLength: 60, pattern: PRINTABLE })),
    /** What a stage of the maker's own works on. */
    on: Type.Optional(Type.Union(WORKED_ON.map((on) => Type.Literal(on)))),
    /** The one side it works on; absent: both. */
    side: Type.Optional(Type.Union([Type.Literal("left"), Type.Literal("right")])),
    /** The one edge it works on of a blade with two; absent: both. */
    edge: Type.Optional(Type.Union([Type.Literal("first"), Type.Literal("second")])),
    /** What it is done with, where that is no belt: none is planned for it then. */
    tool: Type.Optional(Type.String({ minLength: 1, maxLength: 60, pattern: PRINTABLE })),
    /** Taken off each face it works on, mm, where that was said; else as its kind needs. */
    takes: Type.Optional(Type.Number({ minimum: 0, maximum: 3 })),
    /** Its belts in the maker's own order, by the ids the stores give them; else the cheapest on hand. */
    belts: Type.Optional(
      Type.Array(Type.String({ pattern: "^[a-z0-9-]{1,40}$" }), { minItems: 1, maxItems: 20 }),
    ),
    done: Type.Optional(TimeSchema),
    note: Type.Optional(Note),
    /** The day it is planned for, where that is set: what a calendar is made from. */
    planned: Type.Optional(DaySchema),
    /** The set-up of the shop that it was ground with, by its id. */
    setup: Type.Optional(Type.String({ pattern: "^[a-z0-9-]{1,40}$" })),
    /** As readings were kept before they had a file of their own: still read, no longer written. */
    readings: Type.Optional(Type.Array(StageReading, { maxItems: 200 })),
  },
  only,
);

export const RouteSchema = Type.Object(
  {
    format: Type.Literal("true-spine/route"),
    version: Type.Literal(1),
    /** Thickness of the bar. */
    stock: Type.Number({ minimum: 0.1, maximum: 25 }),
    /** The bar in hand, where one is: its thickness is the stock's. Absent: any bar may be taken. */
    bar: Type.Optional(BarSchema),
    /** Left on each bevel face for the oven, beside the skin and what the finer belts take. */
    oven: Type.Number({ minimum: 0, maximum: 3 }),
    /** Of scale and decarburized steel, to come off every face after hardening. */
    skin: Type.Number({ minimum: 0, maximum: 1 }),
    /** Mean particle of the last belt on the bevels after hardening, before the finer ones. */
    coarse: Particle,
    /** Mean particle of the last abrasive on bevels, flats and the edge. */
    finish: Type.Object({ bevels: Particle, flats: Particle, edge: Particle }, only),
    /** Degrees a side of a flat roughing before the bevels have their own shape; absent: roughed as they will be. */
    roughAngle: Type.Optional(Type.Number({ exclusiveMinimum: 0, maximum: 60 })),
    /** The way of working it was begun by. */
    school: Type.Optional(Type.Union([Type.Literal("soft"), Type.Literal("hard"), Type.Literal("close")])),
    /** Whether a clay line is wanted at hardening. */
    clay: Type.Optional(Type.Boolean()),
    /** Gap of the two centre lines scribed on the edge. */
    gap: Type.Number({ minimum: 0, maximum: 10 }),
    /** Drill that centre lines are scribed with, laid flat and turned over; absent: the nearest that leaves that gap. */
    drill: Type.Optional(Type.Number({ exclusiveMinimum: 0, maximum: 30 })),
    stages: Type.Array(StageSchema, { maxItems: 60 }),
  },
  { ...only, $id: "true-spine/route/1", title: "True Spine route, version 1" },
);

type RouteFile = Static<typeof RouteSchema>;
/** Which of a blade's edges. */
export type WhichEdge = "first" | "second";
/** A stage as it stands once its file was read: under its own name. */
export type Stage = RouteFile["stages"][number] & { id: string };
export type Route = Omit<RouteFile, "stages"> & { stages: Stage[] };
export type TakenReading = NonNullable<Stage["readings"]>[number];

/** No route yet. */
export const NO_ROUTE: Route = {
  format: "true-spine/route",
  version: 1,
  stock: 4,
  oven: 0.2,
  skin: 0.1,
  coarse: 125,
  finish: { bevels: 35, flats: 35, edge: 16 },
  gap: 0.5,
  stages: [],
};
