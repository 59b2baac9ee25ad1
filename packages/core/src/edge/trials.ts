import { type Static, Type } from "@sinclair/typebox";
import { faultsOf, fewEnough } from "../document/explain.ts";
import { type Fault, pathOf } from "../document/fault.ts";
import { PRINTABLE } from "../document/printable.ts";
import { TimeSchema } from "../document/time.ts";
import { validatorOf } from "../document/validator.ts";
import { rateBelow } from "../numbers/rates.ts";
import { atan, tan } from "../units/angle.ts";
import { YIELD } from "./strength.ts";

/**
 * Trials of an edge: batches of cuts in one material, at one edge, with what was found of it; and what they say of how thin and how steep the next
 * may be. mm, N, degrees a side. They are only added, and struck out.
 */
const only = { additionalProperties: false } as const;
const Uuid = Type.String({ pattern: "^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$" });
const Words = Type.String({ minLength: 1, maxLength: 60, pattern: PRINTABLE });
export const DAMAGES = ["none", "apex", "body"] as const;
export type Damage = (typeof DAMAGES)[number];

export const BatchSchema = Type.Object(
  {
    id: Uuid,
    when: TimeSchema,
    blade: Type.Optional(Uuid),
    revision: Type.Optional(Type.Integer({ minimum: 1 })),
    /** Which grinding of that blade's edge it was: what counts is edges ground anew. */
    edge: Type.Optional(Type.Integer({ minimum: 1, maximum: 1000 })),
    material: Words,
    cuts: Type.Integer({ minimum: 1, maximum: 100_000 }),
    force: Type.Optional(Type.Number({ exclusiveMinimum: 0, maximum: 5000 })),
    drop: Type.Optional(
      Type.Object(
        {
          kg: Type.Number({ exclusiveMinimum: 0, maximum: 100 }),
          m: Type.Number({ exclusiveMinimum: 0, maximum: 10 }),
        },
        only,
      ),
    ),
    /** Behind the edge, least and most along it. */
    least: Type.Number({ minimum: 0, maximum: 10 }),
    most: Type.Number({ minimum: 0, maximum: 10 }),
    angle: Type.Number({ exclusiveMinimum: 0, maximum: 60 }),
    /** Height of a micro-bevel, where it has one. */
    micro: Type.Optional(Type.Number({ exclusiveMinimum: 0, maximum: 1 })),
    /** The bevel above the edge. */
    bevel: Type.Optional(Type.Number({ exclusiveMinimum: 0, maximum: 45 })),
    hrc: Type.Optional(Type.Number({ minimum: 10, maximum: 72 })),
    steel: Type.Optional(Words),
    use: Type.Optional(Words),
    damage: Type.Union(DAMAGES.map((one) => Type.Literal(one))),
    depth: Type.Optional(Type.Number({ minimum: 0, maximum: 20 })),
    x: Type.Optional(Type.Number({ minimum: -2000, maximum: 2000 })),
  },
  only,
);
export type Batch = Static<typeof BatchSchema>;

export const TrialsSchema = Type.Object(
  {
    format: Type.Literal("true-spine/trials"),
    version: Type.Literal(1),
    batches: Type.Array(BatchSchema, { maxItems: 5000 }),
  },
  { ...only, $id: "true-spine/trials/1", title: "True Spine trials, version 1" },
);
export type Trials = Static<typeof TrialsSchema>;
const shape = validatorOf(TrialsSchema);

/** What a batch has wrong beyond its shape. */
export function batchFaults(batch: Batch, path: readonly (string | number)[]): Fault[] {
  return [
    ...(batch.least > batch.most
      ? [{ path: pathOf(...path, "most"), message: `must be no less than least, ${batch.least}` }]
      : []),
    ...(batch.force !== undefined && batch.drop !== undefined
      ? [{ path: pathOf(...path, "drop"), message: "pressed by a force or dropped, not both" }]
      : []),
    ...(batch.damage === "none" && (batch.depth ?? 0) > 0
      ? [{ path: pathOf(...path, "depth"), message: "nothing is deep where nothing was found" }]
      : []),
  ];
}

/** Sound trials, or every fault found with its path. Never throws. */
export function parseTrials(
  value: unknown,
): { ok: true; trials: Trials } | { ok: false; faults: readonly Fault[] } {
  const wrong = faultsOf(shape, value);
  if (wrong.length > 0) return { ok: false, faults: fewEnough(wrong) };
  const trials = value as Trials;
  const ids = trials.batches.map(({ id }) => id);
  const faults = trials.batches.flatMap((batch, i): Fault[] => [
    ...batchFaults(batch, ["batches", i]),
    ...(ids.indexOf(batch.id) < i
      ? [{ path: pathOf("batches", i, "id"), message: `“${batch.id}” stands in the list already` }]
      : []),
  ]);
  return faults.length > 0 ? { ok: false, faults: fewEnough(faults) } : { ok: true, trials };
}

/** From light to hard, as they are tried. Common practice. */
export const MATERIALS = [
  "foam",
  "card",
  "pine",
  "hardwood",
  "plywood",
  "thin plastic",
  "heavy plastic ties",
  "drink can",
  "food can",
] as const;
/** Cuts of each, and how hard they are pressed, N. Common practice. */
export const CUTS = 50;
export const FORCE = 155;
/** Behind the edge, step after step, at 10° a side. Common practice. */
export const STAGES: readonly (readonly [number, number])[] = [
  [0.25, 0.5],
  [0.13, 0.25],
  [0.08, 0.15],
  [0, 0],
];

/** Work of a drop, J. */
export const dropWork = ({ kg, m }: { kg: number; m: number }) => kg * 9.81 * m;

const SEED = (
  n: number,
  more: Pick<Batch, "material" | "angle" | "least" | "most" | "damage"> & Partial<Batch>,
): Batch => ({
  id: `5eed0000-0000-4000-8000-${String(n).padStart(12, "0")}`,
  when: "2000-01-01T00:00:00Z",
  cuts: CUTS,
  force: FORCE,
  steel: "1075",
  hrc: 58,
  ...more,
});
/**
 * What is known before anything was tried here: 1075 at 57 to 59 HRC, at 10° a side, taken down in steps; wood, plastic and drink cans did no harm, a
 * ridged food can rippled the apex by 0.05, about 15° was stable. Common practice.
 */
export const SEEDS: readonly Batch[] = [
  ...STAGES.flatMap(([least, most], i) =>
    ["hardwood", "heavy plastic ties", "drink can"].map((material, k) =>
      SEED(10 * i + k, { material, angle: 10, least, most, damage: "none" }),
    ),
  ),
  SEED(90, { material: "food can", angle: 10, least: 0, most: 0, damage: "apex", depth: 0.05 }),
  SEED(91, { material: "food can", angle: 15, least: 0, most: 0, damage: "none" }),
];

const SEEDED = new Set(SEEDS.map(({ id }) => id));
/** Whether a batch is one of the starting rows, which were not cut in this shop. */
export const isSeed = ({ id }: Pick<Batch, "id">) => SEEDED.has(id);

/** What is known of cuts in a shop: its own batches, and before them the starting rows, unless the shop has removed those. */
export function knownTrials({
  trials = [],
  ownTrialsOnly = false,
}: {
  readonly trials?: readonly Batch[] | undefined;
  readonly ownTrialsOnly?: boolean | undefined;
}): Batch[] {
  return [...(ownTrialsOnly ? [] : SEEDS), ...trials];
}

/** The side load an apex at α stands, N/mm, at the contact depth that the strength index is told for; and how steep one has to be for a load. */
export const apexStands = (alpha: number) => (0.4 / 3) * YIELD * tan(alpha) ** 2;
export const apexFor = (load: number) => atan(Math.sqrt((3 * load) / (0.4 * YIELD)));
/** The same of the body behind a flat bevel: by the thickness before sharpening. */
export const bodyStands = (behind: number, alpha: number, beta: number) =>
  (4 / 3) * YIELD * behind * (1 - tan(beta) / tan(alpha)) * tan(beta);
export const bodyFor = (load: number, alpha: number, beta: number) =>
  (3 * load) / (4 * YIELD * tan(beta)) / (1 - tan(beta) / tan(alpha));

/** What a batch's own edge stood at the site asked of; null where its bevel is not known. */
export function stands(batch: Batch, site: "apex" | "body"): number | null {
  if (site === "apex") return apexStands(batch.angle);
  return batch.bevel === undefined ? null : bodyStands(batch.least, batch.angle, batch.bevel);
}

/** How high an apex's own facet is: its micro-bevel, else the edge bevel where it is thinnest; without one the bevel above is its facet. */
const facetOf = ({ micro, least, angle }: Batch) =>
  micro ?? (least > 0 ? least / (2 * tan(angle)) : Number.POSITIVE_INFINITY);

/** What gave way: an apex that went deeper than its facet took the body behind it along. */
export const siteOf = (batch: Batch): Damage =>
  batch.damage === "apex" && (batch.depth ?? 0) > facetOf(batch) ? "body" : batch.damage;

/** What a material asks of an edge, as far as its batches say: at least lo, at most hi, N/mm; null where nothing says so. */
export interface Demand {
  readonly lo: number | null;
  readonly hi: number | null;
  /** An edge that stood less was sound, one that stood more was damaged. */
  readonly isUnsettled: boolean;
}

/** The harder site's own: `apex` counts batches whose apex went, `body` those whose body did. */
export function demandOf(batches: readonly Batch[], site: "apex" | "body"): Demand {
  const of = (isDamaged: boolean) =>
    batches.flatMap((batch) => {
      const stood = stands(batch, site);
      const found = siteOf(batch);
      const went = found === site || (site === "apex" && found === "body");
      return stood !== null && went === isDamaged ? [stood] : [];
    });
  const [damaged, sound] = [of(true), of(false)];
  const lo = damaged.length > 0 ? Math.max(...damaged) : null;
  const hi = sound.length > 0 ? Math.min(...sound) : null;
  return { lo, hi, isUnsettled: lo !== null && hi !== null && lo >= hi };
}

/** Batches of the same steel, within a point of hardness, done the same way: what counts together. */
export function alike(batches: readonly Batch[], to: Pick<Batch, "steel" | "hrc" | "drop">): Batch[] {
  return batches.filter(
    (one) =>
      one.steel === to.steel &&
      (one.hrc === undefined || to.hrc === undefined || Math.abs(one.hrc - to.hrc) <= 1) &&
      (one.drop === undefined) === (to.drop === undefined),
  );
}

/** Reground edges that were tried in this shop, and how many of those failed: cuts of one edge count once, starting rows not at all. */
export function counted(batches: readonly Batch[]): { n: number; failed: number; below: number } {
  const edges = new Map<string, boolean>();
  for (const { id, blade, edge, damage } of batches.filter((one) => !isSeed(one))) {
    const key = edge === undefined ? id : `${blade ?? ""} ${edge}`;
    edges.set(key, (edges.get(key) ?? false) || damage !== "none");
  }
  const failed = [...edges.values()].filter(Boolean).length;
  return { n: edges.size, failed, below: rateBelow(failed, edges.size) };
}

/** What is changed from one batch to the next: more than one and it teaches nothing. */
export function changesBetween(a: Batch, b: Batch): string[] {
  return [
    ...(a.least !== b.least || a.most !== b.most ? ["what is behind the edge"] : []),
    ...(a.angle !== b.angle ? ["the angle"] : []),
    ...(a.micro !== b.micro ? ["the micro-bevel"] : []),
    ...(a.steel !== b.steel ? ["the steel"] : []),
    ...(a.hrc !== b.hrc ? ["the hardness"] : []),
    ...(a.use !== b.use ? ["the use"] : []),
  ];
}

/** What comes next, by what was found at this edge. */
export type Next =
  | { readonly do: "thinner" | "thicker"; readonly to: readonly [number, number]; readonly angle: number }
  | { readonly do: "steeper"; readonly angle: number }
  | { readonly do: "softer" }
  | { readonly do: "stop"; readonly why: string };

/** So much steeper where only the apex went, degrees a side. Starting value. */
const STEEPER = 2.5;
/** Between what failed and what stood there is so little: nothing more to learn. Starting value. */
const NEAR = 1.3;

/** `most`: the steepest that the purpose lets stand, degrees a side. */
export function nextOf(
  edge: readonly Batch[],
  { most, demand }: { readonly most: number; readonly demand: Demand },
): Next | null {
  const last = edge.at(-1);
  if (!last) return null;
  const { lo, hi } = demand;
  if (lo !== null && hi !== null && lo < hi && hi / lo <= NEAR)
    return { do: "stop", why: "What failed and what stood lie within a third of each other." };
  const stage = STAGES.findIndex(([, most]) => last.most >= most - 1e-9);
  const at = stage < 0 ? STAGES.length - 1 : stage;
  const found = edge.map(siteOf);
  if (found.every((site) => site === "none")) {
    if (last.most <= 0)
      return { do: "stop", why: "Sound with nothing behind its edge: thinner there is none." };
    return { do: "thinner", to: STAGES[Math.min(STAGES.length - 1, at + 1)]!, angle: last.angle };
  }
  if (!found.includes("body") && last.angle + STEEPER <= most + 1e-9)
    return { do: "steeper", angle: last.angle + STEEPER };
  return at > 0 ? { do: "thicker", to: STAGES[at - 1]!, angle: last.angle } : { do: "softer" };
}

/** A limit that trials allow: by the least load that each material they were made in shows an edge has to stand, the hardest of them. */
export interface LimitOffer {
  /** Least angle a side, degrees; least behind the edge, mm, at that angle and bevel. */
  readonly angle: number | null;
  readonly behind: number | null;
  readonly evidence: readonly string[];
  readonly counted: ReturnType<typeof counted>;
}

/** `alpha`: the angle it is to be told for; `beta`: the bevel above it, null where that is not known. Null while a material is unsettled. */
export function limitFrom(
  batches: readonly Batch[],
  { alpha, beta }: { readonly alpha: number; readonly beta: number | null },
): LimitOffer | null {
  // The starting rows alone are what the usual limits rest on already: they move none.
  if (batches.every(isSeed)) return null;
  const materials = [...new Set(batches.map(({ material }) => material))];
  const most = (site: "apex" | "body") => {
    const demands = materials.map((material) =>
      demandOf(
        batches.filter((one) => one.material === material),
        site,
      ),
    );
    // Where one material has only failed, nothing stands yet that could be a limit.
    if (demands.some(({ lo, hi, isUnsettled }) => isUnsettled || (lo !== null && hi === null))) return null;
    const known = demands.flatMap(({ hi }) => (hi === null ? [] : [hi]));
    return known.length > 0 ? Math.max(...known) : null;
  };
  const [apex, body] = [most("apex"), most("body")];
  const angle = apex === null ? null : apexFor(apex);
  const behind = beta === null || body === null ? null : bodyFor(body, Math.max(alpha, angle ?? 0), beta);
  if (angle === null && behind === null) return null;
  return { angle, behind, evidence: batches.map(({ id }) => id), counted: counted(batches) };
}

/** A purpose's limit that was moved, with the batches it rests on. */
export const LearnedLimitSchema = Type.Object(
  {
    use: Words,
    when: TimeSchema,
    angle: Type.Optional(Type.Number({ exclusiveMinimum: 0, maximum: 60 })),
    behind: Type.Optional(Type.Number({ minimum: 0, maximum: 10 })),
    evidence: Type.Array(Uuid, { minItems: 1, maxItems: 500 }),
  },
  only,
);
export type LearnedLimit = Static<typeof LearnedLimitSchema>;

/** Limits whose evidence all still stands: where a batch was struck out, the purpose's own is back. */
export function standingLimits(limits: readonly LearnedLimit[], batches: readonly Batch[]): LearnedLimit[] {
  const ids = new Set([...SEEDS, ...batches].map(({ id }) => id));
  return limits.filter(({ evidence }) => evidence.every((id) => ids.has(id)));
}
