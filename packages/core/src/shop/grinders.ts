import { type Static, Type } from "@sinclair/typebox";

export const GRINDER_KINDS = ["belt", "disc", "stone"] as const;

/** What a shop grinds on. Lengths mm, speed m/s. */
export const GrinderSchema = Type.Object(
  {
    id: Type.String({ pattern: "^[a-z0-9-]{1,40}$" }),
    kind: Type.Union(GRINDER_KINDS.map((kind) => Type.Literal(kind))),
    /** Width of its belt, or of what it grinds with: lies along the blade. */
    belt: Type.Number({ minimum: 5, maximum: 400 }),
    /** Length of its flat platen, where it has one. */
    platen: Type.Optional(Type.Number({ minimum: 10, maximum: 2000 })),
    /** Diameter of its contact wheel, where it has one. */
    wheel: Type.Optional(Type.Number({ minimum: 10, maximum: 2000 })),
    speed: Type.Optional(Type.Number({ minimum: 0.1, maximum: 60 })),
  },
  { additionalProperties: false },
);
export type Grinder = Static<typeof GrinderSchema>;

/** A two-inch belt. Common practice. */
const USUAL_BELT = 50.8;

/** The narrowest that the shop grinds with, mm: no place along a blade is let down by itself that is narrower. */
export function narrowestBelt({ grinders = [] }: { readonly grinders?: readonly Grinder[] }): number {
  return grinders.length > 0 ? Math.min(...grinders.map(({ belt }) => belt)) : USUAL_BELT;
}
