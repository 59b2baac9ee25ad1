import { type Static, Type } from "@sinclair/typebox";
import { TimeSchema } from "../document/time.ts";

/**
 * The forge document, `true-spine/forge` version 1: what is chosen about the way from the bar to the blank. The bar is the route's;
 * heats and faults seen are rows. Lengths mm, temperatures °C.
 */
const only = { additionalProperties: false } as const;
const Share = Type.Number({ minimum: 0, maximum: 1 });
const Outside = Type.Number({ minimum: 0, maximum: 15 });

/** What is done at the fire, a step for each form that is measured. */
export const FORGE_STEPS = ["point", "taper", "tang", "bevel", "straighten", "planish"] as const;
export type ForgeStep = (typeof FORGE_STEPS)[number];

/** The same with the bar drawn flat first: what heats are counted for. */
export const HEATED = ["preform", ...FORGE_STEPS] as const;

/** What is seen at the fire and is no reading. */
export const FORGE_FAULTS = ["cold-shut", "burnt", "crack"] as const;
export type ForgeFault = (typeof FORGE_FAULTS)[number];

/** From where to where along the blade. */
const Along = Type.Array(Type.Number({ minimum: -2000, maximum: 2000 }), { minItems: 2, maxItems: 2 });

const Said = Type.String({ minLength: 3, maxLength: 20, pattern: "^[a-z -]+$" });
export const ForgeSchema = Type.Object(
  {
    format: Type.Literal("true-spine/forge"),
    version: Type.Literal(1),
    /** What a round or square bar is drawn down to first; absent: as wide and as thick as the blade needs it. */
    preform: Type.Optional(
      Type.Object(
        { w: Type.Number({ minimum: 5, maximum: 150 }), t: Type.Number({ minimum: 2, maximum: 40 }) },
        only,
      ),
    ),
    blank: Type.Object(
      {
        /** Φ a side left on the flats, beyond what the stages after it take. */
        flats: Type.Number({ minimum: 0, maximum: 3 }),
        /** The edge left thick. */
        edge: Type.Number({ minimum: 0.8, maximum: 8 }),
        /** Of the height that the bevel is set down over. */
        share: Type.Number({ minimum: 0.3, maximum: 1 }),
        /** The same by a table over u, where the share does not do. */
        height: Type.Optional(
          Type.Array(Type.Object({ u: Share, h: Type.Number({ minimum: 0.5, maximum: 300 }) }, only), {
            minItems: 1,
            maxItems: 100,
          }),
        ),
        /** Left outside each chain of the outline. */
        grow: Type.Object({ spine: Outside, edge: Outside, tang: Outside }, only),
        /** Of the plunge as it is forged. */
        radius: Type.Number({ minimum: 0, maximum: 50 }),
      },
      only,
    ),
    order: Type.Array(Type.Union(FORGE_STEPS.map((step) => Type.Literal(step))), {
      uniqueItems: true,
      minItems: 1,
      maxItems: FORGE_STEPS.length,
    }),
    point: Type.Object({ way: Type.Union([Type.Literal("forged"), Type.Literal("cut")]) }, only),
    taper: Type.Object(
      {
        /** Whether the width is edged back between heats, or left to spread. */
        spread: Type.Union([Type.Literal("held"), Type.Literal("free")]),
        /** Bite of the hammer or die as a share of the bar's width, where it spreads. */
        bite: Type.Optional(Type.Number({ minimum: 0.3, maximum: 1.2 })),
      },
      only,
    ),
    /** Shares of the turn that are bent beforehand and straightened on wood afterwards; the rest lifts the point. */
    turn: Type.Object(
      {
        before: Share,
        after: Share,
        /** Share of the set-down that goes to width; absent: what the shop has learned. */
        toWidth: Type.Optional(Share),
      },
      only,
    ),
    /** An integral bolster of the bar's own section. */
    bolster: Type.Optional(
      Type.Object(
        {
          from: Type.Number({ minimum: -2000, maximum: 2000 }),
          to: Type.Number({ minimum: -2000, maximum: 2000 }),
          d: Type.Number({ minimum: 5, maximum: 60 }),
        },
        only,
      ),
    ),
    heat: Type.Object(
      {
        from: Type.Number({ minimum: 700, maximum: 1250 }),
        stop: Type.Number({ minimum: 700, maximum: 1250 }),
        /** The colours they were said as. Absent: figures. */
        said: Type.Optional(Type.Object({ from: Type.Optional(Said), stop: Type.Optional(Said) }, only)),
      },
      only,
    ),
    /** Lost to the cut that takes it off the bar. */
    kerf: Type.Number({ minimum: 0, maximum: 20 }),
    /** What was done of it and what was seen, joined in where it is exported: rows of the work, kept apart from what is chosen. */
    done: Type.Optional(
      Type.Array(
        Type.Object(
          {
            step: Type.Union(HEATED.map((step) => Type.Literal(step))),
            heats: Type.Integer({ minimum: 0, maximum: 1000 }),
            when: TimeSchema,
          },
          only,
        ),
        { maxItems: 20 },
      ),
    ),
    seen: Type.Optional(
      Type.Array(
        Type.Object(
          {
            fault: Type.Union(FORGE_FAULTS.map((fault) => Type.Literal(fault))),
            x: Along,
            depth: Type.Number({ minimum: 0, maximum: 25 }),
            when: TimeSchema,
          },
          only,
        ),
        { maxItems: 200 },
      ),
    ),
  },
  { ...only, $id: "true-spine/forge/1", title: "True Spine forge, version 1" },
);
export type Forge = Static<typeof ForgeSchema>;

/** Nothing chosen yet: starting values, in the spirit of common practice. */
export const NO_FORGE: Forge = {
  format: "true-spine/forge",
  version: 1,
  blank: { flats: 0.4, edge: 2, share: 0.667, grow: { spine: 1, edge: 1.5, tang: 2 }, radius: 8 },
  order: ["point", "taper", "tang", "bevel", "straighten", "planish"],
  point: { way: "forged" },
  taper: { spread: "held" },
  turn: { before: 0, after: 1 },
  heat: { from: 1050, stop: 800 },
  kerf: 2,
};
