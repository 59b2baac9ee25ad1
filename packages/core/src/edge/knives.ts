import { type Static, Type } from "@sinclair/typebox";
import { faultsOf, fewEnough } from "../document/explain.ts";
import { type Fault, pathOf } from "../document/fault.ts";
import { PRINTABLE } from "../document/printable.ts";
import { validatorOf } from "../document/validator.ts";
import { atan, tan } from "../units/angle.ts";

/** Knives that were measured and not drawn: what is behind an edge and how far up, held beside blades at one height. mm, g, degrees a side. */
const only = { additionalProperties: false } as const;
const Words = Type.String({ minLength: 1, maxLength: 120, pattern: PRINTABLE });
const Length = (most: number) => Type.Number({ exclusiveMinimum: 0, maximum: most });
export const KNIFE_PLACES = ["heel", "middle", "tip"] as const;

const PlaceSchema = Type.Object(
  {
    at: Type.Union(KNIFE_PLACES.map((place) => Type.Literal(place))),
    /** Behind the edge; its bevel's height, the length of its face, or its angle. */
    e: Length(10),
    d: Type.Optional(Length(30)),
    f: Type.Optional(Length(30)),
    angle: Type.Optional(Type.Number({ exclusiveMinimum: 0, maximum: 60 })),
  },
  only,
);
export type KnifePlace = Static<typeof PlaceSchema>;

export const KnifeSchema = Type.Object(
  {
    id: Type.String({ pattern: "^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$" }),
    name: Words,
    length: Length(1000),
    mass: Type.Optional(Length(5000)),
    steel: Type.Optional(Words),
    use: Type.Optional(Words),
    places: Type.Array(PlaceSchema, { minItems: 1, maxItems: 3 }),
    /** Thickness so far up from the edge, in the middle. */
    t5: Type.Optional(Length(25)),
    t10: Type.Optional(Length(25)),
    verdict: Type.Optional(Type.String({ minLength: 1, maxLength: 500, pattern: PRINTABLE })),
  },
  only,
);
export type Knife = Static<typeof KnifeSchema>;

export const KnivesSchema = Type.Object(
  {
    format: Type.Literal("true-spine/knives"),
    version: Type.Literal(1),
    knives: Type.Array(KnifeSchema, { maxItems: 1000 }),
  },
  { ...only, $id: "true-spine/knives/1", title: "True Spine measured knives, version 1" },
);
export type Knives = Static<typeof KnivesSchema>;

const shape = validatorOf(KnivesSchema);

/** What a knife has wrong beyond its shape, by path. */
export function knifeFaults(knife: Knife, path: readonly (string | number)[]): Fault[] {
  return knife.places.flatMap((place, i): Fault[] => {
    const said = [place.d, place.f, place.angle].filter((one) => one !== undefined).length;
    if (said === 0)
      return [
        {
          path: pathOf(...path, "places", i),
          message: "say how high its edge bevel is, how long its face, or its angle",
        },
      ];
    if (place.f !== undefined && place.f <= place.e / 2)
      return [
        {
          path: pathOf(...path, "places", i, "f"),
          message: `a face of ${place.f} is too short for ${place.e} behind it`,
        },
      ];
    return [];
  });
}

/** Sound knives, or every fault found with its path. Never throws. */
export function parseKnives(
  value: unknown,
): { ok: true; knives: Knives } | { ok: false; faults: readonly Fault[] } {
  const wrong = faultsOf(shape, value);
  if (wrong.length > 0) return { ok: false, faults: fewEnough(wrong) };
  const knives = value as Knives;
  const ids = knives.knives.map(({ id }) => id);
  const faults = knives.knives.flatMap((knife, i): Fault[] => [
    ...knifeFaults(knife, ["knives", i]),
    ...(ids.indexOf(knife.id) < i
      ? [{ path: pathOf("knives", i, "id"), message: `“${knife.id}” stands in the list already` }]
      : []),
  ]);
  return faults.length > 0 ? { ok: false, faults: fewEnough(faults) } : { ok: true, knives };
}

/** A read edge: behind it, its bevel's height, and its angle a side. Source: geometry. */
export interface KnifeEdge {
  readonly e: number;
  readonly d: number;
  readonly angle: number;
}
export function edgeOf({ e, d, f, angle }: KnifePlace): KnifeEdge {
  if (d !== undefined) return { e, d, angle: atan(e / 2 / d) };
  if (f !== undefined) {
    const high = Math.sqrt(f ** 2 - (e / 2) ** 2);
    return { e, d: high, angle: atan(e / 2 / high) };
  }
  return { e, d: e / 2 / tan(angle!), angle: angle! };
}

/** The middle one, or the first that was read. */
export const middleOf = ({ places }: Pick<Knife, "places">) =>
  places.find(({ at }) => at === "middle") ?? places[0]!;

/**
 * Thickness at a height y above the edge: e·y/d up to the shoulder d, then straight to what was read 5 up, and to what was read 10 up. Null
 * where nothing was read so high. Source: geometry.
 */
export function thickAt(knife: Pick<Knife, "places" | "t5" | "t10">, y: number): number | null {
  const { e, d } = edgeOf(middleOf(knife));
  if (y <= d) return (e * y) / d;
  const known = [
    { y: d, t: e },
    ...(knife.t5 !== undefined && d < 5 ? [{ y: 5, t: knife.t5 }] : []),
    ...(knife.t10 !== undefined && d < 10 ? [{ y: 10, t: knife.t10 }] : []),
  ];
  const above = known.findIndex((one) => one.y >= y);
  if (above < 1) return null;
  const [a, b] = [known[above - 1]!, known[above]!];
  return a.t + ((b.t - a.t) * (y - a.y)) / (b.y - a.y);
}

/** Area of its wedge up to a height, mm²; null where it was not read so high. By the same straight lines. */
export function wedgeUpTo(knife: Pick<Knife, "places" | "t5" | "t10">, top: number): number | null {
  const { d } = edgeOf(middleOf(knife));
  const ys = [0, ...[d, 5, 10].filter((y) => y < top), top].sort((a, b) => a - b);
  let area = 0;
  for (let i = 1; i < ys.length; i++) {
    const [a, b] = [thickAt(knife, ys[i - 1]!), thickAt(knife, ys[i]!)];
    if (a === null || b === null) return null;
    area += ((ys[i]! - ys[i - 1]!) * (a + b)) / 2;
  }
  return area;
}

/** How its flanks rise above the edge bevel, degrees a side, by what was read 5 up; null without. */
export function flankOf(knife: Pick<Knife, "places" | "t5">): number | null {
  const { e, d } = edgeOf(middleOf(knife));
  return knife.t5 === undefined || d >= 5 ? null : atan((knife.t5 - e) / 2 / (5 - d));
}

/** Read behind the edge and up to its shoulder, mm: what a caliper and a loupe are good for. Starting values. */
const READ_E = 0.02;
const READ_D = 0.05;

/** Standard uncertainty of what it is thick at a height. Source: JCGM 100, 5.1.2, by small steps. */
export function thickWithin(knife: Pick<Knife, "places" | "t5" | "t10">, y: number): number | null {
  const at = thickAt(knife, y);
  if (at === null) return null;
  const place = middleOf(knife);
  const { e, d } = edgeOf(place);
  const by = (de: number, dd: number) =>
    thickAt({ ...knife, places: [{ at: place.at, e: e + de, d: d + dd }] }, y) ?? at;
  const step = 1e-4;
  const [se, sd] = [(by(step, 0) - by(-step, 0)) / (2 * step), (by(0, step) - by(0, -step)) / (2 * step)];
  return Math.hypot(se * READ_E, sd * READ_D);
}
