import { type Static, Type } from "@sinclair/typebox";
import { TimeSchema } from "../document/time.ts";

/**
 * The edge document, `true-spine/edge` version 1: how each edge of a blade is sharpened, how it is worn, how it is to be thinned. What was
 * done is rows of the work, joined in where it is exported. Lengths mm, angles degrees a side, particles µm.
 */
const only = { additionalProperties: false } as const;
const Uuid = Type.String({ pattern: "^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$" });
const Id = Type.String({ pattern: "^[a-z0-9-]{1,40}$" });
const oneOf = <const T extends readonly string[]>(names: T) =>
  Type.Union(names.map((name) => Type.Literal(name as T[number])));
const Angle = Type.Number({ minimum: 0, maximum: 60 });
const Share = Type.Number({ minimum: 0, maximum: 1 });

export const STEP_KINDS = ["rough", "finish", "micro", "strop"] as const;
export type StepKind = (typeof STEP_KINDS)[number];
export const SHARPENINGS = ["touch", "full", "repair"] as const;
export type Sharpening = (typeof SHARPENINGS)[number];

const StepSchema = Type.Object(
  {
    edge: oneOf(["first", "second"] as const),
    kind: oneOf(STEP_KINDS),
    angle: Type.Object({ left: Angle, right: Angle }, only),
    /** The shop's set-up, by its id; absent: a stone by hand, the spine lifted. */
    tool: Type.Optional(Id),
    /** Mean particle of its last abrasive. */
    to: Type.Number({ minimum: 0.1, maximum: 1000 }),
    /** A burr at every abrasive, or at the finest alone. */
    burr: Type.Optional(oneOf(["each", "finest"] as const)),
    /** Height of a micro-bevel. */
    facet: Type.Optional(Type.Number({ minimum: 0.02, maximum: 1 })),
  },
  only,
);
export type EdgeStep = Static<typeof StepSchema>;

const WearSchema = Type.Object(
  {
    /** Thin it again at so many times the thickness that it was ground to. */
    k: Type.Number({ minimum: 1.1, maximum: 4 }),
    perYear: Type.Number({ minimum: 0, maximum: 400 }),
    /** Blade height lost to a touch-up and to a whole sharpening. */
    touch: Type.Number({ minimum: 0.001, maximum: 1 }),
    full: Type.Number({ minimum: 0.001, maximum: 2 }),
  },
  only,
);
export type Wear = Static<typeof WearSchema>;

export const WAYS = ["parallel", "hinge", "relief"] as const;
const ThinSchema = Type.Object(
  {
    way: oneOf(WAYS),
    wanted: Type.Array(Type.Object({ u: Share, t: Type.Number({ minimum: 0, maximum: 10 }) }, only), {
      maxItems: 100,
    }),
    /** Of a relief: up to so high. */
    height: Type.Optional(Type.Number({ exclusiveMinimum: 0, maximum: 300 })),
  },
  only,
);
export type Thin = Static<typeof ThinSchema>;

/** What a sharpening was, and the blade's height after it where that was read; of a repair, how deep the damage was. */
export const SHARPENED = {
  edge: Type.Optional(oneOf(["first", "second"] as const)),
  kind: oneOf(SHARPENINGS),
  height: Type.Optional(
    Type.Array(Type.Object({ u: Share, h: Type.Number({ exclusiveMinimum: 0, maximum: 500 }) }, only), {
      maxItems: 20,
    }),
  ),
  damage: Type.Optional(Type.Number({ minimum: 0, maximum: 10 })),
} as const;
const DoneSchema = Type.Object({ id: Uuid, when: TimeSchema, ...SHARPENED }, only);
export type Sharpened = Static<typeof DoneSchema>;

export const EdgeSchema = Type.Object(
  {
    format: Type.Literal("true-spine/edge"),
    version: Type.Literal(1),
    /** Of both edges, each one's in their order; none of an edge: a finish bevel and a strop, as usual. */
    steps: Type.Array(StepSchema, { maxItems: 16 }),
    wear: Type.Optional(WearSchema),
    /** The blade is drawn as it stood then: what was sharpened before is in the drawing already. */
    drawn: Type.Optional(TimeSchema),
    thin: Type.Optional(ThinSchema),
    done: Type.Optional(Type.Array(DoneSchema, { maxItems: 5000 })),
  },
  { ...only, $id: "true-spine/edge/1", title: "True Spine edge, version 1" },
);
export type Edge = Static<typeof EdgeSchema>;

export const NO_EDGE: Edge = { format: "true-spine/edge", version: 1, steps: [] };
/** Starting values. */
export const USUAL_WEAR: Wear = { k: 1.5, perYear: 0, touch: 0.01, full: 0.04 };
export const NO_THIN: Thin = { way: "parallel", wanted: [] };
/** Most steps of one edge. */
export const MOST_STEPS = 8;
