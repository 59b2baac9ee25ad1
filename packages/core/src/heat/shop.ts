import { type Static, Type } from "@sinclair/typebox";
import { PRINTABLE } from "../document/printable.ts";
import { TimeSchema } from "../document/time.ts";
import { AIRS, HEATED_BY, OpSchema, QUENCHES, SteelRecordSchema } from "./schema.ts";

/** What a shop hardens with and what it has learned of it: parts of the shop document. °C, minutes, mm, HRC. */
const only = { additionalProperties: false } as const;
const Id = Type.String({ pattern: "^[a-z0-9-]{1,40}$" });
const Name = Type.String({ minLength: 1, maxLength: 60, pattern: PRINTABLE });
const oneOf = <const T extends readonly string[]>(names: T) =>
  Type.Union(names.map((name) => Type.Literal(name as T[number])));
const Celsius = Type.Number({ minimum: 20, maximum: 1300 });

/** A bar whose composition is known here, under the shop's own name for it: copied into the blade that is made of it. */
export const ShopSteelSchema = Type.Object({ id: Id, name: Name, record: SteelRecordSchema }, only);
export type ShopSteel = Static<typeof ShopSteelSchema>;

export const QuenchantSchema = Type.Object(
  {
    id: Id,
    name: Name,
    medium: oneOf(QUENCHES),
    /** Quench severity, least and most, for each inch. */
    H: Type.Array(Type.Number({ minimum: 0.005, maximum: 10 }), { minItems: 2, maxItems: 2 }),
    T: Type.Optional(Type.Number({ minimum: -200, maximum: 400 })),
  },
  only,
);
export type Quenchant = Static<typeof QuenchantSchema>;

export const OvenSchema = Type.Object(
  {
    id: Id,
    name: Name,
    by: oneOf(HEATED_BY),
    /** How much hotter it reads than it is. */
    high: Type.Number({ minimum: -200, maximum: 200 }),
    air: oneOf(AIRS),
  },
  only,
);
export type Oven = Static<typeof OvenSchema>;

/** Heats in order, to be laid over a route: each becomes a stage of it. */
export const HeatRecipeSchema = Type.Object(
  {
    id: Id,
    name: Name,
    steel: Type.Optional(Name),
    ops: Type.Array(Type.Omit(OpSchema, ["id"], only), { minItems: 1, maxItems: 30 }),
  },
  only,
);
export type HeatRecipe = Static<typeof HeatRecipeSchema>;

/** What one blade said of the steel, the quenchant, the air and the tempers here: kept when its maker says so, one for each blade. */
export const HardenedSchema = Type.Object(
  {
    blade: Type.String({ minLength: 1, maxLength: 60, pattern: PRINTABLE }),
    when: TimeSchema,
    steel: Name,
    /** Hardened from. */
    T: Celsius,
    /** What may go through over what the edge was thick, and whether a file skated there. */
    q: Type.Optional(Type.Number({ exclusiveMinimum: 0, maximum: 100 })),
    isThrough: Type.Optional(Type.Boolean()),
    tempers: Type.Optional(
      Type.Array(
        Type.Object({ celsius: Celsius, hours: Type.Number({ exclusiveMinimum: 0, maximum: 100 }) }, only),
        { maxItems: 10 },
      ),
    ),
    /** Read after those tempers. */
    HRC: Type.Optional(Type.Number({ minimum: 10, maximum: 72 })),
    /** How deep its skin was found, and was reckoned, in which air. */
    skin: Type.Optional(
      Type.Object(
        {
          read: Type.Number({ exclusiveMinimum: 0, maximum: 3 }),
          reckoned: Type.Number({ exclusiveMinimum: 0, maximum: 3 }),
          air: oneOf(AIRS),
        },
        only,
      ),
    ),
  },
  only,
);
export type Hardened = Static<typeof HardenedSchema>;

/** The heat side of a shop document. */
export const HEAT_STORES = {
  steels: Type.Optional(Type.Array(ShopSteelSchema, { maxItems: 100 })),
  heatRecipes: Type.Optional(Type.Array(HeatRecipeSchema, { maxItems: 100 })),
  quenchants: Type.Optional(Type.Array(QuenchantSchema, { maxItems: 30 })),
  ovens: Type.Optional(Type.Array(OvenSchema, { maxItems: 30 })),
  hardened: Type.Optional(Type.Array(HardenedSchema, { maxItems: 2000 })),
} as const;
