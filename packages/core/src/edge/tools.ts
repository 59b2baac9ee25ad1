import { type Static, Type } from "@sinclair/typebox";

/** What an edge is held by at its stone, wheel or belt, each with its own measures: set-ups of the shop beside those of a bevel. mm, N, degrees. */
const only = { additionalProperties: false } as const;
const Length = Type.Number({ minimum: -2000, maximum: 2000 });
const Long = Type.Number({ exclusiveMinimum: 0, maximum: 2000 });
/** What it gives beyond what it is set for, degrees: as edges that were read have shown. */
const ZERO = { zero: Type.Optional(Type.Number({ minimum: -15, maximum: 15 })) } as const;
const Force = Type.Number({ exclusiveMinimum: 0, maximum: 2000 });

export const EDGE_TOOLS = {
  /** A ball at P over the side view, the stone's face `s` inside the rod's line, the clamp off by `c`. */
  rod: Type.Object(
    {
      kind: Type.Literal("rod"),
      P: Type.Array(Length, { minItems: 2, maxItems: 2 }),
      s: Type.Number({ minimum: 0, maximum: 100 }),
      c: Type.Optional(Type.Number({ minimum: -20, maximum: 20 })),
      ...ZERO,
    },
    only,
  ),
  /** A wheel of radius R; a support p along the blade from the apex and q off its plane, C from the axle. */
  support: Type.Object(
    {
      kind: Type.Literal("support"),
      R: Long,
      p: Long,
      q: Length,
      C: Type.Optional(Long),
      ...ZERO,
    },
    only,
  ),
  /** A belt of tension N, pushed in by F. */
  slack: Type.Object({ kind: Type.Literal("slack"), F: Force, N: Force, ...ZERO }, only),
  /** By hand, with the spread of its angle, one standard deviation. */
  hand: Type.Object(
    { kind: Type.Literal("hand"), sd: Type.Number({ minimum: 0, maximum: 15 }), ...ZERO },
    only,
  ),
} as const;

export const EdgeToolSchema = Type.Union(Object.values(EDGE_TOOLS));
export type EdgeTool = Static<typeof EdgeToolSchema>;
export const isEdgeTool = (setup: { readonly kind: string }): setup is EdgeTool => setup.kind in EDGE_TOOLS;
/** On a stone by hand, its spine lifted, the spread of a hand that looks at it. Starting value. */
export const HAND_SD = 2;

/** An angle that a tool was set for, and the one that was found on the edge, degrees a side. */
export interface SetAndFound {
  readonly tool: string;
  readonly set: number;
  readonly found: number;
}

/** What a tool gives beyond what it is set for: mean and spread of three or more; null before. */
export function zeroOf(
  records: readonly SetAndFound[],
  tool: string,
): { mean: number; spread: number; count: number } | null {
  const offs = records.flatMap((one) => (one.tool === tool ? [one.found - one.set] : []));
  if (offs.length < ENOUGH) return null;
  const mean = offs.reduce((sum, off) => sum + off, 0) / offs.length;
  const spread = Math.sqrt(offs.reduce((sum, off) => sum + (off - mean) ** 2, 0) / (offs.length - 1));
  return { mean, spread, count: offs.length };
}
const ENOUGH = 3;
