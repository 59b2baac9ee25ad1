import { type Static, Type } from "@sinclair/typebox";
import { LoggedSchema } from "../abrasive/log.ts";
import { AbrasiveSchema } from "../abrasive/schema.ts";
import { LARGEST_STEP, USUAL } from "../abrasive/sequence.ts";
import { USUAL_STORE } from "../abrasive/usual-store.ts";
import { PRINTABLE } from "../document/printable.ts";
import { TimeSchema } from "../document/time.ts";
import { KnifeSchema } from "../edge/knives.ts";
import { type EdgeTool, EdgeToolSchema, isEdgeTool } from "../edge/tools.ts";
import { BatchSchema, LearnedLimitSchema } from "../edge/trials.ts";
import { type Setup, SetupSchema } from "../grind/setups.ts";
import { HEAT_STORES } from "../heat/shop.ts";
import { GrinderSchema } from "./grinders.ts";
import { InstrumentSchema } from "./instrument.ts";
import { STRAIGHT_STORES } from "./struck.ts";

/** The shop document, `true-spine/shop` version 1: what is on hand, and what an hour is reckoned at. */
const only = { additionalProperties: false } as const;

const Id = Type.String({ pattern: "^[a-z0-9-]{1,40}$" });
const Name = Type.String({ minLength: 1, maxLength: 60, pattern: PRINTABLE });

/** A bevel's set-up, or a tool of the edge. */
const HeldSchema = Type.Union([...SetupSchema.anyOf, ...EdgeToolSchema.anyOf]);

export const ShopSchema = Type.Object(
  {
    format: Type.Literal("true-spine/shop"),
    version: Type.Literal(1),
    abrasives: Type.Array(AbrasiveSchema, { maxItems: 300 }),
    /** Jigs and rests by name, so that one can be found again after the oven. */
    setups: Type.Array(Type.Object({ id: Id, name: Name, setup: HeldSchema }, only), { maxItems: 60 }),
    /** Of a tool of the edge: the angle it was set for, and the one that was found, degrees a side. */
    learned: Type.Optional(
      Type.Array(
        Type.Object(
          {
            tool: Id,
            when: TimeSchema,
            set: Type.Number({ minimum: 0, maximum: 60 }),
            found: Type.Number({ minimum: 0, maximum: 60 }),
          },
          only,
        ),
        { maxItems: 500 },
      ),
    ),
    /** What radius a belt left at a plunge when it hung so far past the platen, by belt and set-up; lengths mm. */
    overhangs: Type.Optional(
      Type.Array(
        Type.Object(
          {
            belt: Id,
            setup: Id,
            past: Type.Number({ exclusiveMinimum: 0, maximum: 50 }),
            radius: Type.Number({ exclusiveMinimum: 0, maximum: 50 }),
          },
          only,
        ),
        { maxItems: 500 },
      ),
    ),
    /** What blades are read with; a usual one stands in for every kind that is not among them. */
    instruments: Type.Optional(Type.Array(InstrumentSchema, { maxItems: 60 })),
    /** What blades are ground on; absent: a two-inch belt. */
    grinders: Type.Optional(Type.Array(GrinderSchema, { maxItems: 20 })),
    /** Bars on hand: round ones by their diameter, flat and square ones by width and thickness, mm. */
    bars: Type.Optional(
      Type.Array(
        Type.Object(
          {
            id: Id,
            d: Type.Optional(Type.Number({ minimum: 5, maximum: 60 })),
            w: Type.Optional(Type.Number({ minimum: 5, maximum: 150 })),
            t: Type.Optional(Type.Number({ minimum: 2, maximum: 40 })),
            length: Type.Number({ minimum: 10, maximum: 6000 }),
            steel: Type.Optional(Name),
          },
          only,
        ),
        { maxItems: 200 },
      ),
    ),
    /** What it is forged with; absent: a hand hammer of 0.9 kg. Common practice for the mass, starting values else. */
    hammers: Type.Optional(
      Type.Array(
        Type.Object(
          {
            id: Id,
            name: Name,
            mass: Type.Number({ minimum: 0.2, maximum: 500 }),
            speed: Type.Number({ minimum: 1, maximum: 15 }),
            blows: Type.Number({ minimum: 0.2, maximum: 10 }),
            useful: Type.Number({ minimum: 0.05, maximum: 1 }),
          },
          only,
        ),
        { maxItems: 20 },
      ),
    ),
    /** What forged pieces have said of how steel moves here: share of a set-down that went to width, and how well that was read. */
    forged: Type.Optional(
      Type.Array(
        Type.Object(
          {
            when: TimeSchema,
            toWidth: Type.Optional(Type.Number({ minimum: 0, maximum: 1 })),
            reading: Type.Optional(Type.Number({ minimum: 0, maximum: 0.5 })),
            /** Heats that were counted, of so many expected. */
            heats: Type.Optional(
              Type.Object(
                {
                  counted: Type.Number({ exclusiveMinimum: 0, maximum: 500 }),
                  expected: Type.Number({ exclusiveMinimum: 0, maximum: 500 }),
                },
                only,
              ),
            ),
          },
          only,
        ),
        { maxItems: 500 },
      ),
    ),
    ...HEAT_STORES,
    ...STRAIGHT_STORES,
    /** Knives that were measured, trials that were made, and the limits of purposes that they moved. */
    knives: Type.Optional(Type.Array(KnifeSchema, { maxItems: 1000 })),
    trials: Type.Optional(Type.Array(BatchSchema, { maxItems: 5000 })),
    /** The starting rows of the tests are removed here. */
    ownTrialsOnly: Type.Optional(Type.Boolean()),
    limits: Type.Optional(Type.Array(LearnedLimitSchema, { maxItems: 60 })),
    /** Times and weights as they were written down: what rates are corrected from, when the maker says so. */
    log: Type.Array(LoggedSchema, { maxItems: 2000 }),
    /** Money for an hour of the maker's time: what minutes and belts are added up in. */
    hourly: Type.Number({ minimum: 0, maximum: 10_000 }),
    /** Largest step in fineness from one belt to the next. */
    largestStep: Type.Number({ minimum: 1.1, maximum: 10 }),
    /** Share of the particle that its deepest scratch is. */
    scratchShare: Type.Number({ minimum: 0.02, maximum: 0.5 }),
  },
  { ...only, $id: "true-spine/shop/1", title: "True Spine shop, version 1" },
);

export type Shop = Static<typeof ShopSchema>;
export type StoredBar = NonNullable<Shop["bars"]>[number];
export type Hammer = NonNullable<Shop["hammers"]>[number];
/** What is held by a name: a bevel's set-up, or a tool of the edge. */
export type NamedHeld = Shop["setups"][number];
export type NamedSetup = Omit<NamedHeld, "setup"> & { readonly setup: Setup };
export type NamedEdgeTool = Omit<NamedHeld, "setup"> & { readonly setup: EdgeTool };

/** The shop's set-ups of a bevel. */
export const bevelSetups = ({ setups }: Pick<Shop, "setups">): NamedSetup[] =>
  setups.flatMap(({ id, name, setup }) => (isEdgeTool(setup) ? [] : [{ id, name, setup }]));
/** The shop's tools of the edge. */
export const edgeTools = ({ setups }: Pick<Shop, "setups">): NamedEdgeTool[] =>
  setups.flatMap(({ id, name, setup }) => (isEdgeTool(setup) ? [{ id, name, setup }] : []));

/** A shop that has not said yet what it has. */
export const USUAL_SHOP: Shop = {
  format: "true-spine/shop",
  version: 1,
  abrasives: [...USUAL_STORE],
  log: [],
  setups: [
    { id: "rest", name: "rest against the platen", setup: { kind: "rest" } },
    { id: "guide", name: "bevel guide, square block", setup: { kind: "guide" } },
    { id: "screw", name: "screw jig", setup: { kind: "screw", pivot: 150, by: "tangent" } },
    { id: "arm", name: "tool arm", setup: { kind: "arm", zero: 0, sense: 1 } },
  ],
  ...USUAL,
  largestStep: LARGEST_STEP,
};
