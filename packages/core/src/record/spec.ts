import { type Blade, SIDES } from "../blade/schema.ts";
import type { PerSide } from "../blade/station.ts";
import { wholeBlade } from "../evaluate/evaluation.ts";
import { balanceOf } from "../handle/balance.ts";
import type { Handle } from "../handle/schema.ts";
import { type Heat, NO_HEAT } from "../heat/schema.ts";
import { type Bench, benchOf } from "../inspect/bench.ts";
import { placesAlong } from "../inspect/plan.ts";
import { steelAt } from "../inspect/reader.ts";
import type { Check, Reading } from "../inspect/schema.ts";
import { heatsDone, staysSoft } from "../route/heats.ts";
import type { Route } from "../route/schema.ts";
import { kindOf, stageName } from "../route/stages.ts";
import { finishedSteel } from "../route/steel.ts";
import type { Shop } from "../shop/schema.ts";

/** What a buyer is told of a blade: what was wanted, what was read, and what the maker let stand. */
export interface Spec {
  readonly format: "true-spine/spec";
  readonly version: 1;
  readonly name: string;
  readonly steel: string | null;
  /** How its steel is known, and the heats that were done; empty where none was. */
  readonly heat: { readonly steel: string; readonly done: readonly string[] };
  readonly use: string | null;
  /** mm and g; with the handle on where it is described. */
  readonly length: number;
  readonly overall: number;
  readonly mass: number;
  readonly balance: { readonly fromPlunge: number | null; readonly withHandle: boolean };
  readonly behind: Pair & {
    /** Height of the edge bevel that it stands on, least and most. */
    readonly height: Range | null;
  };
  readonly edgeAngle: { readonly left: number; readonly right: number };
  /** Bevel angle a side along the blade: planned, and as read with what covers 95 of 100. */
  readonly bevelAngle: {
    readonly wanted: PerSide<Range | null>;
    readonly read: PerSide<Told | null>;
  };
  readonly hardness: { readonly wanted: number | null; readonly read: Told | null };
  readonly flats: Pair;
  readonly readings: { readonly count: number; readonly stage: string; readonly out: number };
  readonly deviations: readonly {
    readonly words: string;
    readonly reason: string;
    /** The stage's own name on its route, and what it is called. */
    readonly stage: string;
    readonly after: string;
  }[];
}

interface Told {
  readonly value: number;
  readonly within: number;
}

type Range = readonly [number, number];

interface Pair {
  /** Least and most along the blade. */
  readonly wanted: Range | null;
  readonly read: Range | null;
  /** Read less wanted, place by place: least and most. An edge that is read even where it should thin is not even. */
  readonly off: Range | null;
  readonly within: number | null;
}

/** Bevels and centre are read before the edge is sharpened; thickness behind the edge after it. */
const LAST_OF_BEVELS = ["hand", "grits", "finish"] as const;

/** Puts a spec together from the blade and what was read at its last stages. */
export function specOf(
  blade: Blade,
  {
    route,
    shop,
    check,
    handle,
    readings,
    heat = NO_HEAT,
  }: {
    route: Route | null;
    shop: Shop;
    check: Check;
    handle: Handle | null;
    readings: readonly Reading[];
    heat?: Heat;
  },
): Spec {
  const steel = finishedSteel(blade);
  const { blade: whole } = wholeBlade(steel.field);
  const { fromPlunge, mass } = balanceOf(steel.field, handle);
  const idOf = (kind: string) => route?.stages.find((one) => one.kind === kind)?.id ?? kind;
  const bench = (stage: string) => benchOf({ blade, route, shop, stage, check, readings });
  const sharpened = idOf("sharpen");
  const finished = bench(sharpened);
  const isRead = (id: string) => readings.some((one) => one.stage === id);
  const bevelStage = LAST_OF_BEVELS.map(idOf).find(isRead) ?? sharpened;
  const before = bevelStage === sharpened ? finished : bench(bevelStage);
  const hard = [finished, before]
    .flatMap(({ figures }) => figures)
    .find(({ spot }) => spot.what === "hardness");
  const us = placesAlong(finished.stage);
  const angles = (side: (typeof SIDES)[number]) =>
    us.flatMap((u) => steelAt(finished.stage, { what: "angle", u, side }) ?? []);
  const heights = us.flatMap((u) => SIDES.flatMap((side) => steel.station(u)[side].edgeBevel ?? []));
  const readAngles = (side: (typeof SIDES)[number]): Told | null => {
    const mine = before.together.angles.filter((one) => one.side === side);
    if (mine.length === 0) return null;
    return {
      value: mine.reduce((sum, { value }) => sum + value, 0) / mine.length,
      within: Math.max(...mine.map(({ expanded }) => expanded)),
    };
  };
  const isBehindRead = finished.figures.some(({ spot }) => spot.what === "behind");
  const out = new Set([...finished.figures, ...before.figures].filter(({ verdict }) => verdict === "out"));
  return {
    format: "true-spine/spec",
    version: 1,
    name: blade.name,
    steel: blade.steel ?? null,
    heat: {
      steel: `${heat.steel.certainty}, ${Math.round(heat.steel.sure)} %`,
      done: route ? (staysSoft(route) ? ["not hardened"] : heatsDone(blade, route, heat)) : [],
    },
    use: blade.use ?? null,
    length: whole.length,
    overall: whole.overall,
    mass: handle ? mass : whole.mass,
    balance: { fromPlunge, withHandle: handle !== null },
    behind: { ...pairOf(finished, "behind"), height: spread(heights) },
    edgeAngle: blade.edge.angle,
    bevelAngle: {
      wanted: { left: spread(angles("left")), right: spread(angles("right")) },
      read: { left: readAngles("left"), right: readAngles("right") },
    },
    hardness: {
      wanted: check.hardness ?? null,
      read: hard ? { value: hard.value, within: hard.uncertainty.expanded } : null,
    },
    flats: pairOf(before, "flats"),
    readings: {
      count: readings.length,
      stage: kindOf(route, isBehindRead ? sharpened : bevelStage) ?? bevelStage,
      out: out.size,
    },
    deviations: check.accepted.map(({ words, reason, stage }) => ({
      words,
      reason,
      stage,
      after: stageName(route, stage),
    })),
  };
}

function spread(values: readonly number[]): Range | null {
  return values.length > 0 ? [Math.min(...values), Math.max(...values)] : null;
}

function pairOf({ figures, lines }: Bench, what: "behind" | "flats"): Pair {
  const mine = figures.filter(({ spot }) => spot.what === what);
  return {
    wanted: spread(lines.filter(({ spot }) => spot.what === what).map(({ target }) => target.value)),
    read: spread(mine.map(({ value }) => value)),
    off: spread(mine.map(({ off }) => off)),
    within: mine.length > 0 ? Math.max(...mine.map(({ uncertainty }) => uncertainty.expanded)) : null,
  };
}
