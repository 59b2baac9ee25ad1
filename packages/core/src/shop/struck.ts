import { type Static, Type } from "@sinclair/typebox";
import { PRINTABLE } from "../document/printable.ts";
import { TimeSchema } from "../document/time.ts";

/** How the steel stands: soft; at black heat; between quench and martensite; hard and not tempered; held in the temper; hard and tempered. */
export const STATES = ["soft", "hot", "window", "raw", "temper", "hard"] as const;
export type State = (typeof STATES)[number];
/** What a blade is made straight with. */
export const TOOLS = ["bit", "hammer", "wood", "press", "wrench", "glove", "clamp"] as const;
export type Tool = (typeof TOOLS)[number];

/** What blades of a shop have said of blows, clampings and presses: a part of the shop document, one record a blade. */
const only = { additionalProperties: false } as const;
const oneOf = <const T extends readonly string[]>(names: T) =>
  Type.Union(names.map((name) => Type.Literal(name as T[number])));
const MOST = 100;

export const StruckSchema = Type.Object(
  {
    blade: Type.String({ minLength: 1, maxLength: 60, pattern: PRINTABLE }),
    when: TimeSchema,
    build: oneOf(["solid", "clad", "unknown"] as const),
    /** What each blow did, e = turn × thickness², radians mm². */
    blows: Type.Array(
      Type.Object(
        { state: oneOf(STATES), tool: oneOf(TOOLS), e: Type.Number({ minimum: -100, maximum: 100 }) },
        only,
      ),
      { maxItems: MOST },
    ),
    /** Of what it was clamped past straight by, the share that stayed. */
    shares: Type.Array(Type.Number({ exclusiveMinimum: 0, exclusiveMaximum: 1 }), { maxItems: MOST }),
    /** The yield that a press gave, N/mm². */
    yields: Type.Array(
      Type.Object({ state: oneOf(STATES), sigma: Type.Number({ minimum: 10, maximum: 5000 }) }, only),
      { maxItems: MOST },
    ),
  },
  only,
);
export type Struck = Static<typeof StruckSchema>;
/** What one blade says, before it is kept. */
export type StruckHere = Omit<Struck, "blade" | "when">;

/** The straightening side of a shop document. */
export const STRAIGHT_STORES = {
  struck: Type.Optional(Type.Array(StruckSchema, { maxItems: 1000 })),
} as const;
