import { type Static, Type } from "@sinclair/typebox";
import { AbrasiveSchema } from "../abrasive/schema.ts";
import { LARGEST_STEP, USUAL } from "../abrasive/sequence.ts";
import { USUAL_STORE } from "../abrasive/usual-store.ts";

/** The shop document, `true-spine/shop` version 1: what is on hand, and what an hour is reckoned at. */
const only = { additionalProperties: false } as const;

export const ShopSchema = Type.Object(
  {
    format: Type.Literal("true-spine/shop"),
    version: Type.Literal(1),
    abrasives: Type.Array(AbrasiveSchema, { maxItems: 300 }),
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

/** A shop that has not said yet what it has. */
export const USUAL_SHOP: Shop = {
  format: "true-spine/shop",
  version: 1,
  abrasives: [...USUAL_STORE],
  ...USUAL,
  largestStep: LARGEST_STEP,
};
