import { type Static, Type } from "@sinclair/typebox";
import { PRINTABLE } from "../document/printable.ts";

/** The shop's belts and other abrasives, part of `true-spine/shop`. Sizes µm, rates mm³ a minute, lives mm³. */
const only = { additionalProperties: false } as const;
const Name = Type.String({ minLength: 1, maxLength: 60, pattern: PRINTABLE });

export const ABRASIVES = [
  "ceramic",
  "zirconia",
  "alumina",
  "silicon carbide",
  "structured",
  "diamond",
] as const;
export const CONDITIONS = ["fresh", "used", "worn"] as const;

/** What it is; absent: a belt. */
export const FORMS = ["belt", "stone", "plate", "wheel", "strop"] as const;
export type AbrasiveForm = (typeof FORMS)[number];

export const AbrasiveSchema = Type.Object(
  {
    id: Type.String({ pattern: "^[a-z0-9-]{1,40}$" }),
    abrasive: Type.Union(ABRASIVES.map((one) => Type.Literal(one))),
    backing: Name,
    form: Type.Optional(Type.Union(FORMS.map((one) => Type.Literal(one)))),
    scale: Type.Union((["P", "CAMI", "JIS", "micron"] as const).map((one) => Type.Literal(one))),
    grade: Name,
    microns: Type.Number({ exclusiveMinimum: 0, maximum: 2000 }),
    condition: Type.Union(CONDITIONS.map((one) => Type.Literal(one))),
    onHand: Type.Integer({ minimum: 0, maximum: 10_000 }),
    /** Of one, in the shop's own money. */
    price: Type.Number({ minimum: 0, maximum: 10_000 }),
    /** As the shop's log has it; the stated defaults where it is not given. */
    rate: Type.Optional(Type.Number({ exclusiveMinimum: 0, maximum: 1e6 })),
    life: Type.Optional(Type.Number({ exclusiveMinimum: 0, maximum: 1e9 })),
    /** The steel that rate and life were read on; absent: hardened. */
    rateOn: Type.Optional(Type.Union([Type.Literal("soft"), Type.Literal("hard")])),
  },
  only,
);
export type Abrasive = Static<typeof AbrasiveSchema>;

export const isBelt = ({ form = "belt" }: Pick<Abrasive, "form">) => form === "belt";

/** A belt's name, or a stone's, as a maker says it. */
export function abrasiveName({ abrasive, grade, scale, condition, form = "belt" }: Abrasive): string {
  const size = scale === "micron" ? `${grade} µm` : scale === "CAMI" ? `CAMI ${grade}` : grade;
  const what = form === "belt" ? "" : ` ${form}`;
  return `${abrasive} ${size}${what}${condition === "fresh" ? "" : `, ${condition}`}`;
}
