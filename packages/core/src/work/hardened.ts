import type { HeatWork } from "../findings/heat-finding.ts";
import type { Hardened } from "../heat/shop.ts";
import type { HeatReport } from "../route/heat-report.ts";

export type Said = Omit<Hardened, "blade" | "when">;

/**
 * What one blade says of the shop's fires: how its edge fared at the file, what its tempers left, how deep its skin was found. `report` is to
 * be reckoned without what the shop has learned, or it would learn from itself. Null where nothing was proved or read.
 */
export function hardenedOf(report: HeatReport, { proofs, hardness, done }: HeatWork): Said | null {
  const harden = report.ops.findLast(({ op }) => op.kind === "harden");
  if (!harden || !report.grade) return null;
  const file = proofs.findLast(
    (one) => one.what === "file" && one.after === harden.op.id && one.place === "edge",
  );
  const edge = harden.sections.find(({ place }) => place === "edge");
  const tempers = report.ops.filter(
    ({ op }) => op.kind === "temper" && op.minutes > 0 && done.includes(op.id),
  );
  const last = tempers.at(-1);
  const values = hardness.filter(({ stage }) => stage === last?.op.id).map(({ value }) => value);
  const skin = proofs.findLast((one) => one.what === "skin");
  const said = {
    ...(file?.what === "file" && file.saw !== "mixed" && edge
      ? { q: (edge.q[0] + edge.q[1]) / 2, isThrough: file.saw === "skates" }
      : {}),
    ...(values.length > 0
      ? {
          tempers: tempers.map(({ op }) => ({ celsius: op.T, hours: op.minutes / 60 })),
          HRC: values.reduce((sum, value) => sum + value, 0) / values.length,
        }
      : {}),
    ...(skin?.what === "skin" && harden.skin.depth > 0
      ? { skin: { read: skin.mm, reckoned: harden.skin.depth, air: harden.op.air ?? "air" } }
      : {}),
  };
  if (Object.keys(said).length === 0) return null;
  return { steel: report.grade, T: harden.op.T, ...said };
}

/** The shop's records with one more: a blade has one, its last. */
export function withHardened(records: readonly Hardened[], one: Hardened): Hardened[] {
  return [...records.filter(({ blade }) => blade !== one.blade), one];
}
