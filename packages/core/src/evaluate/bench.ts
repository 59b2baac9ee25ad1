import { type Static, Type } from "@sinclair/typebox";
import type { Side } from "../blade/schema.ts";
import { speechIn } from "../findings/judged.ts";
import { doubtWords, judgeWork } from "../findings/true.ts";
import { type Asked, benchOf } from "../inspect/bench.ts";
import { PATTERNS } from "../inspect/faults/fault.ts";
import type { Explained } from "../inspect/fit.ts";
import type { BenchSteel } from "../inspect/target.ts";

/**
 * What readings say of a stage, as the evaluator prints it: `true-spine/bench` version 1. Lengths mm, x from the junction. Doubted
 * readings by their ids (a whole round by what is wrong with it: `units`, `sides`, `stage`, `blade`), faults best first.
 */
const orNull = (type: Parameters<typeof Type.Union>[0][number]) => Type.Union([type, Type.Null()]);
const SideSchema = Type.Union([Type.Literal("left"), Type.Literal("right")]);

export const BenchFiguresSchema = Type.Object(
  {
    doubted: Type.Array(
      Type.Object({
        id: Type.String(),
        why: Type.String(),
        /** What it would be without the slip: a figure, or for a round the unit or the stage it seems to be in. */
        instead: Type.Union([Type.Number(), Type.String(), Type.Null()]),
      }),
    ),
    faults: Type.Array(
      Type.Object({
        id: Type.Union(PATTERNS.map((pattern) => Type.Literal(pattern))),
        side: orNull(SideSchema),
        /** Said where it is of the second edge. */
        edge: Type.Optional(Type.Literal("second")),
        from: orNull(Type.Number()),
        to: orNull(Type.Number()),
        size: Type.Number(),
        unit: Type.Union([Type.Literal("mm"), Type.Literal("degrees")]),
        /** Share of all that was off which it explains, 0…1. */
        share: Type.Number(),
      }),
    ),
    corrections: Type.Array(
      Type.Object({
        side: SideSchema,
        edge: Type.Optional(Type.Literal("second")),
        from: Type.Number(),
        to: Type.Number(),
        /** Square to the face where it is most. */
        most: Type.Number(),
      }),
    ),
    findings: Type.Array(
      Type.Object({
        id: Type.String(),
        severity: Type.String(),
        where: Type.Unknown(),
        message: Type.String(),
        advice: Type.String(),
        basis: Type.String(),
      }),
    ),
  },
  { $id: "true-spine/bench/1", title: "True Spine bench, version 1" },
);
export type BenchFigures = Static<typeof BenchFiguresSchema>;

/** Works the bench out and gives its figures. */
export function benchFigures(asked: Asked): BenchFigures {
  const bench = benchOf(asked);
  const edges = bench.second ? [bench, bench.second] : [bench];
  const say = speechIn("mm");
  return {
    doubted: edges
      .flatMap(({ doubts }) => doubts)
      .map((doubt) => ({
        id: doubt.id,
        why: doubtWords(doubt, say),
        instead: doubt.instead ?? doubt.of,
      })),
    faults: edges.flatMap(({ stage, diagnosis }) => diagnosis.found.map((one) => faultFigures(one, stage))),
    corrections: edges
      .flatMap(({ corrections }) => corrections)
      .map(({ side, edge, from, to, most }) => ({ side, ...(edge ? { edge } : {}), from, to, most })),
    findings: judgeWork(bench, "mm").map(({ id, severity, where, message, advice, basis }) => ({
      id,
      severity,
      where,
      message,
      advice,
      basis,
    })),
  };
}

function faultFigures(
  { pattern, shape, size, share }: Explained,
  { edge }: BenchSteel,
): BenchFigures["faults"][number] {
  return {
    id: pattern,
    ...(edge ? { edge } : {}),
    side: (shape.side ?? null) as Side | null,
    from: shape.x ? shape.x[0] : null,
    to: shape.x ? shape.x[1] : null,
    size,
    unit: shape.unit === "mm" ? "mm" : "degrees",
    share,
  };
}
