import { type Static, Type } from "@sinclair/typebox";
import { PRINTABLE } from "../document/printable.ts";
import { TimeSchema } from "../document/time.ts";

/**
 * The heat document, `true-spine/heat` version 1: what the steel is and how sure that is, and the heats it goes through in order. Every
 * operation is a stage of the route under the same id; runs, proofs and gates are rows of the work. Temperatures °C, times minutes,
 * lengths mm, composition mass %.
 */
const only = { additionalProperties: false } as const;

/** Operations that are stages of a route by the same kind. */
export const HEAT_KINDS = ["normalize", "anneal", "clay", "harden", "plates", "temper", "draw"] as const;
export type HeatKind = (typeof HEAT_KINDS)[number];
export const ZONES = ["all", "edge", "tang", "spine"] as const;
export const QUENCHES = ["oil", "water", "brine", "air", "plates"] as const;
/** An anneal cools slowly: in the oven at a rate, or in ash, vermiculite or dry sand. */
export const SLOW = ["oven", "insulated"] as const;
export const MEDIA = [...QUENCHES, ...SLOW] as const;
export const HEATED_BY = ["oven", "forge", "torch"] as const;
export const CONTROLS = ["measured", "colour", "magnet"] as const;
export const AIRS = ["air", "rich", "coat", "foil"] as const;
export const STEEL_FROM = ["standard", "certificate", "scrap"] as const;
export const CERTAINTIES = ["measured", "certificate", "believed", "guessed"] as const;

const oneOf = <const T extends readonly string[]>(names: T) =>
  Type.Union(names.map((name) => Type.Literal(name as T[number])));
const Celsius = Type.Number({ minimum: 20, maximum: 1300 });
const Minutes = Type.Number({ minimum: 0, maximum: 6000 });
const Severity = Type.Number({ minimum: 0.005, maximum: 10 });
const Id = Type.String({ pattern: "^[a-z0-9-]{1,40}$" });
const Words = Type.String({ minLength: 1, maxLength: 200, pattern: PRINTABLE });
const upTo = (maximum: number) => Type.Optional(Type.Number({ minimum: 0, maximum }));

export const SteelRecordSchema = Type.Object(
  {
    from: oneOf(STEEL_FROM),
    /** Its grade where that is not the blade's own steel. */
    grade: Type.Optional(Type.String({ minLength: 1, maxLength: 60, pattern: PRINTABLE })),
    certainty: oneOf(CERTAINTIES),
    /** How sure its maker is, %. */
    sure: Type.Number({ minimum: 0, maximum: 100 }),
    /** As a certificate says, mass %: good to half of its last digit. */
    mass: Type.Optional(
      Type.Object(
        {
          C: Type.Number({ minimum: 0.05, maximum: 2.5 }),
          Mn: Type.Number({ minimum: 0, maximum: 3 }),
          Si: upTo(3),
          Ni: upTo(10),
          Cr: upTo(30),
          Mo: upTo(10),
          W: upTo(20),
          V: upTo(12),
          Cu: upTo(3),
        },
        only,
      ),
    ),
  },
  only,
);
export type SteelRecord = Static<typeof SteelRecordSchema>;

export const OpSchema = Type.Object(
  {
    id: Id,
    kind: oneOf(HEAT_KINDS),
    zone: oneOf(ZONES),
    T: Celsius,
    /** The colour it was said as: `T` is the middle of its range. Absent: a figure. */
    said: Type.Optional(Type.String({ minLength: 3, maxLength: 20, pattern: "^[a-z -]+$" })),
    minutes: Minutes,
    medium: Type.Optional(oneOf(MEDIA)),
    /** How fast the oven is let cool, °C an hour. */
    coolBy: Type.Optional(Type.Number({ minimum: 5, maximum: 100 })),
    /** Quench severity, least and most, for each inch. */
    H: Type.Optional(Type.Array(Severity, { minItems: 2, maxItems: 2 })),
    mediumT: Type.Optional(Type.Number({ minimum: -200, maximum: 400 })),
    by: oneOf(HEATED_BY),
    /** The shop's own oven or forge, by its id. */
    oven: Type.Optional(Id),
    control: oneOf(CONTROLS),
    sure: Type.Optional(Type.Number({ minimum: 0, maximum: 100 })),
    source: Type.Optional(Words),
    /** HRC expected after it, least and most: by its source. */
    expect: Type.Optional(
      Type.Array(Type.Number({ minimum: 10, maximum: 72 }), { minItems: 2, maxItems: 2 }),
    ),
    air: Type.Optional(oneOf(AIRS)),
  },
  only,
);
export type HeatOp = Static<typeof OpSchema>;

export const MOMENTS = ["began", "through", "ended"] as const;
export const PLACES = ["edge", "spine", "tang"] as const;
export const SEEN_BY_FILE = ["skates", "bites", "mixed"] as const;
export const GRAINS = ["fine", "coarse", "mixed"] as const;
export const GATES = ["oil-wiped"] as const;

const File = Type.Object(
  {
    when: TimeSchema,
    after: Id,
    what: Type.Literal("file"),
    place: oneOf(PLACES),
    saw: oneOf(SEEN_BY_FILE),
    /** Where along the blade, mm. */
    x: Type.Optional(Type.Number({ minimum: -2000, maximum: 2000 })),
  },
  only,
);
export type FileProof = Static<typeof File>;
/** A piece of the same bar, hardened from T first. */
const Coupon = Type.Object(
  { when: TimeSchema, after: Id, what: Type.Literal("coupon"), T: Celsius, saw: oneOf(SEEN_BY_FILE) },
  only,
);
/** The grain of a coupon that was snapped: seen, not measured. */
const Snap = Type.Object(
  { when: TimeSchema, after: Id, what: Type.Literal("snap"), T: Celsius, grain: oneOf(GRAINS) },
  only,
);
/** How deep a face was ground until a file or a tester changed no more, mm. */
const SkinRead = Type.Object(
  {
    when: TimeSchema,
    after: Id,
    what: Type.Literal("skin"),
    mm: Type.Number({ exclusiveMinimum: 0, maximum: 3 }),
  },
  only,
);

export const HeatSchema = Type.Object(
  {
    format: Type.Literal("true-spine/heat"),
    version: Type.Literal(1),
    steel: SteelRecordSchema,
    ops: Type.Array(OpSchema, { maxItems: 30 }),
    /** What was done and seen, joined in where it is exported: rows of the work, kept apart from what is chosen. */
    runs: Type.Optional(
      Type.Array(
        Type.Object(
          {
            op: Id,
            began: TimeSchema,
            through: Type.Optional(TimeSchema),
            ended: Type.Optional(TimeSchema),
            T: Type.Optional(Celsius),
          },
          only,
        ),
        { maxItems: 300 },
      ),
    ),
    proofs: Type.Optional(Type.Array(Type.Union([File, Coupon, Snap, SkinRead]), { maxItems: 300 })),
    gates: Type.Optional(
      Type.Array(Type.Object({ when: TimeSchema, after: Id, gate: oneOf(GATES) }, only), { maxItems: 300 }),
    ),
  },
  { ...only, $id: "true-spine/heat/1", title: "True Spine heat, version 1" },
);
export type Heat = Static<typeof HeatSchema>;
export type HeatRun = NonNullable<Heat["runs"]>[number];
export type Proof = NonNullable<Heat["proofs"]>[number];
export type Gate = NonNullable<Heat["gates"]>[number];

/** Nothing said of the steel but what the blade is named for, and no heat planned. */
export const NO_HEAT: Heat = {
  format: "true-spine/heat",
  version: 1,
  steel: { from: "standard", certainty: "believed", sure: 80 },
  ops: [],
};
