import { compileField } from "../blade/field.ts";
import type { Blade } from "../blade/schema.ts";
import { wholeBlade } from "../evaluation.ts";
import { balanceOf } from "../handle/balance.ts";
import type { Handle } from "../handle/schema.ts";
import type { Route, StageKind } from "../route/schema.ts";
import type { Shop } from "../shop/schema.ts";
import { benchOf } from "./bench.ts";
import type { Check, Reading } from "./schema.ts";

/** What a buyer is told of a blade: what was wanted, what was read, and what the maker let stand. */
export interface Spec {
  readonly format: "true-spine/spec";
  readonly version: 1;
  readonly name: string;
  readonly steel: string | null;
  readonly use: string | null;
  /** mm and g; with the handle on where it is described. */
  readonly length: number;
  readonly overall: number;
  readonly mass: number;
  readonly balance: { readonly fromPlunge: number | null; readonly withHandle: boolean };
  readonly behind: Pair & {
    /** Height of the edge bevel that it stands on, least and most. */
    readonly height: readonly [number, number] | null;
  };
  readonly edgeAngle: { readonly left: number; readonly right: number };
  /** Bevel angle a side: planned, and as read with what covers 95 of 100. */
  readonly bevelAngle: { readonly wanted: readonly [number, number] | null; readonly read: Told | null };
  readonly hardness: { readonly wanted: number | null; readonly read: Told | null };
  readonly flats: Pair;
  readonly readings: { readonly count: number; readonly stage: StageKind; readonly out: number };
  readonly deviations: readonly {
    readonly words: string;
    readonly reason: string;
    readonly stage: StageKind;
  }[];
}

interface Told {
  readonly value: number;
  readonly within: number;
}

interface Pair {
  /** Least and most along the blade. */
  readonly wanted: readonly [number, number] | null;
  readonly read: readonly [number, number] | null;
  readonly within: number | null;
}

/** Bevels and centre are read before the edge is sharpened; thickness behind the edge after it. */
const LAST_OF_BEVELS: readonly StageKind[] = ["hand", "grits", "finish"];

/** Puts a spec together from the blade and what was read at its last stages. */
export function specOf(
  blade: Blade,
  {
    route,
    shop,
    check,
    handle,
    readings,
  }: { route: Route | null; shop: Shop; check: Check; handle: Handle | null; readings: readonly Reading[] },
): Spec {
  const field = compileField(blade);
  const { blade: whole } = wholeBlade(field);
  const { fromPlunge, mass } = balanceOf(field, handle);
  const bench = (stage: StageKind) => benchOf({ blade, route, shop, stage, check, readings });
  const finished = bench("sharpen");
  const bevelStage =
    LAST_OF_BEVELS.find((kind) => readings.some((one) => one.stage === kind)) ?? ("sharpen" as const);
  const before = bevelStage === "sharpen" ? finished : bench(bevelStage);
  const hard = [finished, before]
    .flatMap(({ figures }) => figures)
    .find(({ spot }) => spot.what === "hardness");
  const spread = (values: readonly number[]): readonly [number, number] | null =>
    values.length > 0 ? [Math.min(...values), Math.max(...values)] : null;
  const read = (from: typeof finished, what: "behind" | "flats") =>
    from.figures.filter(({ spot }) => spot.what === what);
  const pair = (from: typeof finished, what: "behind" | "flats"): Pair => {
    const figures = read(from, what);
    const wanted = from.lines.filter(({ spot }) => spot.what === what).map((line) => line.wanted.value);
    return {
      wanted: spread(wanted),
      read: spread(figures.map(({ value }) => value)),
      within: figures.length > 0 ? Math.max(...figures.map(({ uncertainty }) => uncertainty.expanded)) : null,
    };
  };
  const stations = [...finished.steel.known.values()];
  const heights = stations.flatMap(({ right, left }) => right.edgeBevel ?? left.edgeBevel ?? []);
  const angles = stations.flatMap(({ right, left }) => right.primaryAngle ?? left.primaryAngle ?? []);
  const readAngles = before.truth.angles.filter(({ side }) => side !== "both");
  return {
    format: "true-spine/spec",
    version: 1,
    name: blade.name,
    steel: blade.steel ?? null,
    use: blade.use ?? null,
    length: whole.length,
    overall: whole.overall,
    mass: handle ? mass : whole.mass,
    balance: { fromPlunge, withHandle: handle !== null },
    behind: { ...pair(finished, "behind"), height: spread(heights) },
    edgeAngle: blade.edge.angle,
    bevelAngle: {
      wanted: spread(angles),
      read:
        readAngles.length > 0
          ? {
              value: readAngles.reduce((sum, { value }) => sum + value, 0) / readAngles.length,
              within: Math.max(...readAngles.map(({ expanded }) => expanded)),
            }
          : null,
    },
    hardness: {
      wanted: check.hardness ?? null,
      read: hard ? { value: hard.value, within: hard.uncertainty.expanded } : null,
    },
    flats: pair(before, "flats"),
    readings: {
      count: readings.length,
      stage: read(finished, "behind").length > 0 ? "sharpen" : bevelStage,
      out: [...finished.figures, ...(before === finished ? [] : before.figures)].filter(
        ({ verdict }) => verdict === "out",
      ).length,
    },
    deviations: check.accepted.map(({ words, reason, stage }) => ({ words, reason, stage })),
  };
}
