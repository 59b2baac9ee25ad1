import { type Static, type TSchema, Type } from "@sinclair/typebox";
import { faultsOf } from "../document/explain.ts";
import { type Fault, pathOf } from "../document/fault.ts";
import { PRINTABLE } from "../document/printable.ts";
import { validatorOf } from "../document/validator.ts";
import type { LearnedLimit } from "../edge/trials.ts";
import { type Purpose, STARTING_VALUE } from "./purposes.ts";

/**
 * The limits document, `true-spine/limits` version 1: what one blade is held to instead of its purpose's own
 * limits, each with the maker's reason. Thicknesses and heights mm, angles degrees a side; null: not asked.
 */
const only = { additionalProperties: false } as const;
const Reason = Type.String({ minLength: 3, maxLength: 300, pattern: PRINTABLE });
const Thickness = Type.Number({ minimum: 0, maximum: 25 });
const Angle = Type.Number({ minimum: 0, maximum: 60 });
const orNone = Type.Union([Thickness, Type.Null()]);
const range = <T extends TSchema>(bound: T) =>
  Type.Optional(Type.Object({ least: bound, most: bound, reason: Reason }, only));
const atMost = Type.Optional(Type.Object({ most: orNone, reason: Reason }, only));
const atLeast = Type.Optional(Type.Object({ least: orNone, reason: Reason }, only));

export const LimitsSchema = Type.Object(
  {
    format: Type.Literal("true-spine/limits"),
    version: Type.Literal(1),
    behind: range(Thickness),
    edgeAngle: range(Angle),
    at5: atMost,
    at10: atMost,
    tip: atLeast,
    flex: atMost,
    /** Findings that say what is meant so on this blade: not told again, but listed with the reason. */
    meant: Type.Optional(
      Type.Array(
        Type.Object({ finding: Type.String({ pattern: "^[a-z0-9-]{1,60}$" }), reason: Reason }, only),
        {
          maxItems: 40,
        },
      ),
    ),
  },
  { ...only, $id: "true-spine/limits/1", title: "True Spine limits of one blade, version 1" },
);

export type Limits = Static<typeof LimitsSchema>;
export const LIMITS = ["behind", "edgeAngle", "at5", "at10", "tip", "flex"] as const;
export type Limit = (typeof LIMITS)[number];
export const LIMIT_NAMES: Readonly<Record<Limit, string>> = {
  behind: "thickness behind the edge",
  edgeAngle: "edge angle a side",
  at5: "thickness 5 mm up",
  at10: "thickness 10 mm up",
  tip: "thickness over the flats near the tip",
  flex: "give of the point under a side push, for each 100 mm",
};

export const NO_LIMITS: Limits = { format: "true-spine/limits", version: 1 };

const validate = validatorOf(LimitsSchema);

/** Sound limits, or every fault found with its path. Never throws. */
export function parseLimits(
  value: unknown,
): { ok: true; limits: Limits } | { ok: false; faults: readonly Fault[] } {
  const faults = faultsOf(validate, value);
  if (faults.length > 0) return { ok: false, faults };
  const limits = value as Limits;
  const crossed = (["behind", "edgeAngle"] as const).flatMap((key) => {
    const limit = limits[key];
    return limit && limit.least > limit.most
      ? [{ path: pathOf(key, "most"), message: `must be no less than least, ${limit.least}` }]
      : [];
  });
  return crossed.length > 0 ? { ok: false, faults: crossed } : { ok: true, limits };
}

/** A purpose as it holds for one blade: with what was changed for it put in. */
export function purposeWithin(purpose: Purpose, limits: Limits): Purpose {
  const { behind, edgeAngle, at5, at10, tip, flex } = limits;
  return {
    ...purpose,
    ...(behind ? { behind: [behind.least, behind.most] } : {}),
    ...(edgeAngle ? { edgeAngle: [edgeAngle.least, edgeAngle.most] } : {}),
    ...(at5 ? { at5: at5.most } : {}),
    ...(at10 ? { at10: at10.most } : {}),
    ...(tip ? { tip: tip.least } : {}),
    ...(flex ? { flex: flex.most } : {}),
  };
}

/** A purpose with what this shop's trials moved of it. */
export function purposeLearned(purpose: Purpose, learned: readonly LearnedLimit[]): Purpose {
  const own = learned.findLast(({ use }) => use === purpose.key);
  if (!own) return purpose;
  const { behind, edgeAngle } = purpose;
  return {
    ...purpose,
    ...(own.behind === undefined ? {} : { behind: [own.behind, Math.max(own.behind, behind[1])] }),
    ...(own.angle === undefined ? {} : { edgeAngle: [own.angle, Math.max(own.angle, edgeAngle[1])] }),
  };
}

/** What a limit that trials moved rests on; null where they did not. */
export function learnedBasis(
  limit: Limit,
  use: string | undefined,
  learned: readonly LearnedLimit[],
): string | null {
  const own = learned.findLast((one) => one.use === use);
  const isMoved =
    (limit === "behind" && own?.behind !== undefined) || (limit === "edgeAngle" && own?.angle !== undefined);
  return own && isMoved
    ? `this shop's own trials: ${own.evidence.length} ${own.evidence.length === 1 ? "batch" : "batches"}, moved ${own.when.slice(0, 10)}`
    : null;
}

/** What a limit rests on: the product's own starting value, or the maker's reason for another. */
export function basisOf(limit: Limit, limits: Limits): string {
  const changed = limits[limit];
  return changed ? `this blade's own limit: ${changed.reason.replace(/\.$/, "")}` : STARTING_VALUE;
}
