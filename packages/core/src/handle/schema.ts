import { type Static, Type } from "@sinclair/typebox";
import { PRINTABLE } from "../document/printable.ts";

/** The handle document, `true-spine/handle` version 1: what is put on a blade's tang. Lengths mm. */
const only = { additionalProperties: false } as const;
const X = Type.Number({ minimum: -2000, maximum: 2000 });
const Size = Type.Number({ exclusiveMinimum: 0, maximum: 400 });
const MaterialName = Type.String({ minLength: 1, maxLength: 40, pattern: PRINTABLE });

/** Slabs on both faces of a full tang, from butt to front, within the tang's outline less an inset. */
const Scales = Type.Object(
  {
    kind: Type.Literal("scales"),
    material: MaterialName,
    /** Of one scale. */
    thickness: Size,
    /** Behind this x only: the front of the scales. */
    front: X,
    /** How far the scales stand inside the tang's outline; negative where they stand proud. */
    inset: Type.Number({ minimum: -20, maximum: 20 }),
    /** Share of the slab that rounding leaves, 0.5…1. */
    fullness: Type.Number({ minimum: 0.5, maximum: 1 }),
    /** Radius of the bit that rounds them over; absent where they are shaped by hand. */
    roundOver: Type.Optional(Type.Number({ minimum: 0, maximum: 50 })),
  },
  only,
);

/** A block over a hidden tang. */
const Block = Type.Object(
  {
    kind: Type.Literal("block"),
    material: MaterialName,
    from: X,
    to: X,
    height: Size,
    thickness: Size,
    fullness: Type.Number({ minimum: 0.5, maximum: 1 }),
  },
  only,
);

/** A guard, bolster, spacer or pommel: a plate across the tang, its slot the tang's own section. */
const Fitting = Type.Object(
  {
    kind: Type.Literal("fitting"),
    name: MaterialName,
    material: MaterialName,
    from: X,
    to: X,
    height: Size,
    thickness: Size,
    fullness: Type.Number({ minimum: 0.3, maximum: 1 }),
  },
  only,
);

/** A pin or tube through the tang and both scales; bore above 0 makes it a tube. */
const Pin = Type.Object(
  {
    x: X,
    y: X,
    diameter: Size,
    bore: Type.Number({ minimum: 0, maximum: 400 }),
    length: Size,
    material: MaterialName,
  },
  only,
);

/** Every kind of part. */
export const PARTS = { scales: Scales, block: Block, fitting: Fitting } as const;

export const HandleSchema = Type.Object(
  {
    format: Type.Literal("true-spine/handle"),
    version: Type.Literal(1),
    parts: Type.Array(Type.Union(Object.values(PARTS) as unknown as PartMembers), { maxItems: 20 }),
    pins: Type.Array(Pin, { maxItems: 40 }),
  },
  { ...only, $id: "true-spine/handle/1", title: "True Spine handle, version 1" },
);

type PartMembers = [typeof Scales, typeof Block, typeof Fitting];
export type Handle = Static<typeof HandleSchema>;
export type HandlePart = Handle["parts"][number];
export type Pin = Static<typeof Pin>;

/** A handle of no parts: the bare blade. */
export const NO_HANDLE: Handle = { format: "true-spine/handle", version: 1, parts: [], pins: [] };
