import { type Static, Type } from "@sinclair/typebox";
import { PRINTABLE } from "../document/printable.ts";
import { TimeSchema } from "../document/time.ts";
import { StageIdSchema } from "../route/schema.ts";
import { LENGTH_UNITS } from "../units/length.ts";
import { QUANTITIES } from "./quantity.ts";

/**
 * Readings and what was made of them. `true-spine/readings` version 1 is a list of readings of one blade, the way they are
 * kept, taken out and brought in; `true-spine/check` version 1 is what a maker decided at the bench. Lengths mm, angles
 * degrees, hardness HRC.
 */
const only = { additionalProperties: false } as const;

const Uuid = Type.String({ pattern: "^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$" });
const Words = Type.String({ minLength: 1, maxLength: 500, pattern: PRINTABLE });
const Id = Type.String({ pattern: "^[a-z0-9-]{1,40}$" });
const SideSchema = Type.Union([Type.Literal("left"), Type.Literal("right")]);
const Along = Type.Number({ minimum: -2000, maximum: 2000 });

const SPOT = {
  what: Type.Union(QUANTITIES.map((what) => Type.Literal(what))),
  /** Share of the edge from heel to tip, for what is read along it. */
  u: Type.Optional(Type.Number({ minimum: 0, maximum: 1 })),
  /** From the junction, for what is read on the flats. */
  x: Type.Optional(Along),
  side: Type.Optional(SideSchema),
  /** Above the edge, square to it. */
  height: Type.Optional(Type.Number({ minimum: 0, maximum: 300 })),
  /** Said where it lies on the second edge: `u` is then the share of that one, from where it begins. */
  edge: Type.Optional(Type.Literal("second")),
} as const;

/** Where something is read, and what. */
export const SpotSchema = Type.Object(SPOT, only);
export type Spot = Static<typeof SpotSchema>;

export const READ_BY = ["hand", "card", "instrument", "file"] as const;

export const ReadingSchema = Type.Object(
  {
    id: Uuid,
    when: TimeSchema,
    stage: StageIdSchema,
    ...SPOT,
    /** Wide enough for a slip of the hand: a line written in thousandths, a point left out. Those are doubted, not refused. */
    value: Type.Number({ minimum: -50_000, maximum: 50_000 }),
    /** The unit a length was typed in: its digits are looked at in that one. Absent: mm. */
    typed: Type.Optional(Type.Union(LENGTH_UNITS.map((unit) => Type.Literal(unit)))),
    /** The shop's instrument, by its id; absent: whatever is usual for it. */
    instrument: Type.Optional(Id),
    by: Type.Union(READ_BY.map((by) => Type.Literal(by))),
    /** The maker said that this stage went past its line. */
    past: Type.Optional(Type.Boolean()),
    note: Type.Optional(Words),
  },
  only,
);
export type Reading = Static<typeof ReadingSchema>;

export const ReadingsSchema = Type.Object(
  {
    format: Type.Literal("true-spine/readings"),
    version: Type.Literal(1),
    taken: Type.Array(ReadingSchema, { maxItems: 50_000 }),
    /** Which of them were struck out since, by their ids. */
    struck: Type.Optional(Type.Array(Uuid, { maxItems: 50_000 })),
  },
  { ...only, $id: "true-spine/readings/1", title: "True Spine readings, version 1" },
);
export type Readings = Static<typeof ReadingsSchema>;

/** Steel to come off one face between two places, as it was accepted. */
const CorrectionSchema = Type.Object(
  {
    id: Uuid,
    when: TimeSchema,
    stage: StageIdSchema,
    side: SideSchema,
    /** Said where it is a face of the second edge. */
    edge: Type.Optional(Type.Literal("second")),
    from: Along,
    to: Along,
    /** Square to the face at its most, mm, and how it runs out: the off at each x. */
    off: Type.Array(Type.Object({ x: Along, t: Type.Number({ minimum: 0, maximum: 10 }) }, only), {
      minItems: 1,
      maxItems: 200,
    }),
    passes: Type.Integer({ minimum: 1, maximum: 1000 }),
    belt: Type.Optional(Words),
    why: Words,
    done: Type.Optional(TimeSchema),
  },
  only,
);

const AcceptedSchema = Type.Object(
  {
    when: TimeSchema,
    stage: StageIdSchema,
    /** The finding that was let stand, and its place. */
    finding: Id,
    words: Words,
    reason: Words,
  },
  only,
);

export const CheckSchema = Type.Object(
  {
    format: Type.Literal("true-spine/check"),
    version: Type.Literal(1),
    /** Places the maker added to the plan. */
    places: Type.Array(SpotSchema, { maxItems: 200 }),
    corrections: Type.Array(CorrectionSchema, { maxItems: 500 }),
    accepted: Type.Array(AcceptedSchema, { maxItems: 200 }),
    /** Wanted after the temper, HRC. */
    hardness: Type.Optional(Type.Number({ minimum: 20, maximum: 70 })),
  },
  { ...only, $id: "true-spine/check/1", title: "True Spine check, version 1" },
);
export type Check = Static<typeof CheckSchema>;
export type AcceptedCorrection = Check["corrections"][number];
export type AcceptedDeviation = Check["accepted"][number];

export const NO_CHECK: Check = {
  format: "true-spine/check",
  version: 1,
  places: [],
  corrections: [],
  accepted: [],
};

/** One name for a place and what is read there: readings of one spot are repeats of each other. */
export function spotKey({ what, u, x, side, height, edge }: Spot): string {
  const figure = (value: number | undefined, places: number) =>
    value === undefined ? "" : value.toFixed(places);
  const key = [what, figure(u, 3), figure(x, 1), side ?? "", figure(height, 2)];
  return (edge ? [...key, edge] : key).join("|");
}

/** Only what says where and what of a reading. */
export function spotOf({ what, u, x, side, height, edge }: Spot): Spot {
  return {
    what,
    ...(u === undefined ? {} : { u }),
    ...(x === undefined ? {} : { x }),
    ...(side === undefined ? {} : { side }),
    ...(height === undefined ? {} : { height }),
    ...(edge === undefined ? {} : { edge }),
  };
}

/** Which edge and which side a spot lies on, in words after what is read; empty where neither is said. */
export function sideWords({ side, edge }: Pick<Spot, "side" | "edge">): string {
  return `${edge ? ", second edge" : ""}${side ? `, ${side}` : ""}`;
}
