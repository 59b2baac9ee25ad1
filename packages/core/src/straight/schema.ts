import { type Static, Type } from "@sinclair/typebox";
import { TimeSchema } from "../document/time.ts";
import { STATES, type State, TOOLS, type Tool } from "../shop/struck.ts";

/**
 * The straight document, `true-spine/straight` version 1: whether its build is in doubt; sets of readings along it and blows, which are rows
 * of the work, are joined in where it is exported. Lengths mm; roll in degrees.
 */
const only = { additionalProperties: false } as const;
const Uuid = Type.String({ pattern: "^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$" });
const Id = Type.String({ pattern: "^[a-z0-9-]{1,40}$" });
const oneOf = <const T extends readonly string[]>(names: T) =>
  Type.Union(names.map((name) => Type.Literal(name as T[number])));

export { STATES, type State, TOOLS, type Tool };
export const SET_KINDS = ["gap", "rise", "edge", "roll"] as const;
export type SetKind = (typeof SET_KINDS)[number];
const Along = Type.Number({ minimum: -2000, maximum: 2000 });
const Face = oneOf(["left", "right"] as const);
const Place = Type.Array(Along, { minItems: 2, maxItems: 2 });
const Value = Type.Number({ minimum: -50, maximum: 50 });

/** What was read along one line of the blade, with the line's own offset and tilt. */
export const SET = {
  state: oneOf(STATES),
  kind: oneOf(SET_KINDS),
  /** The face it was read on, or that lay up. */
  face: Face,
  /** The shop's instrument, by its id; absent: the usual one. */
  instrument: Type.Optional(Id),
  /** Two sets of one straightedge on both faces, same end to the tip, have one. */
  pair: Type.Optional(Uuid),
  rows: Type.Array(Type.Object({ x: Along, y: Along, v: Value }, only), { minItems: 1, maxItems: 40 }),
} as const;

/** A blow, or several of one kind, along a line on the face that lay up. */
export const BLOW = {
  state: oneOf(STATES),
  /** The set that was read before it. */
  before: Type.Optional(Uuid),
  face: Face,
  from: Place,
  to: Place,
  tool: oneOf(TOOLS),
  count: Type.Integer({ minimum: 1, maximum: 500 }),
  /** What it was clamped past straight, over which span and how far it was pressed. */
  past: Type.Optional(Type.Number({ minimum: 0, maximum: 100 })),
  span: Type.Optional(Type.Number({ minimum: 5, maximum: 2000 })),
  sagitta: Type.Optional(Type.Number({ minimum: 0, maximum: 300 })),
} as const;

const SetSchema = Type.Object({ id: Uuid, when: TimeSchema, stage: Id, ...SET }, only);
export type StraightSet = Static<typeof SetSchema>;
const BlowSchema = Type.Object(
  { id: Uuid, when: TimeSchema, stage: Id, ...BLOW, after: Type.Optional(Uuid) },
  only,
);
export type Blow = Static<typeof BlowSchema>;

export const StraightSchema = Type.Object(
  {
    format: Type.Literal("true-spine/straight"),
    version: Type.Literal(1),
    /** Nobody knows whether it is one steel or a hard core in soft sides: what it is drawn as is not trusted. */
    unknown: Type.Boolean(),
    /** State of the steel after a stage, where the maker chose another than the route's. */
    states: Type.Optional(
      Type.Array(Type.Object({ stage: Id, state: oneOf(STATES) }, only), { maxItems: 60 }),
    ),
    sets: Type.Optional(Type.Array(SetSchema, { maxItems: 2000 })),
    blows: Type.Optional(Type.Array(BlowSchema, { maxItems: 5000 })),
  },
  { ...only, $id: "true-spine/straight/1", title: "True Spine straight, version 1" },
);
export type Straight = Static<typeof StraightSchema>;

/** A made-up piece as it is laid on the simulated anvil: how high it is bent and where, + with its middle to the right, mm; turned, degrees. */
export interface LaidPiece {
  readonly height: number;
  /** Where it is bent; null: evenly bowed. */
  readonly at: number | null;
  readonly twist: number;
  readonly isClad: boolean;
  /** The straightedge's own bow, mm at its middle, + toward the blade. */
  readonly rule: number;
}

export const NO_STRAIGHT: Straight = { format: "true-spine/straight", version: 1, unknown: false };
