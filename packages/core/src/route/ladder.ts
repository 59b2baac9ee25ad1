import { depthAfter, type Job, type Planned, planSequence } from "../abrasive/sequence.ts";
import { placeAt } from "../blade/chain.ts";
import { compileField, compileStageWithBevels, type Field, thicknessAt } from "../blade/field.ts";
import { drawnLines } from "../blade/lines.ts";
import { solidBetween } from "../blade/mass.ts";
import { spansAt } from "../blade/outline.ts";
import { type Bevel, type Blade, SIDES } from "../blade/schema.ts";
import type { Allowance } from "../blade/side.ts";
import { type Station, stationAt } from "../blade/station.ts";
import { constant, read } from "../blade/table.ts";
import type { Shop } from "../shop/schema.ts";
import { tan } from "../units/angle.ts";
import type { Route, StageKind } from "./schema.ts";

/** What a stage's belts work on. */
export type Surface = "bevels" | "flats" | "edge";

/**
 * The stages of a route worked out backwards from the finished blade: what each still has to leave for those after it,
 * and so what its steel is. What was chosen drives it; nothing is given twice.
 */
export interface Rung {
  readonly kind: StageKind;
  /** Still to come off after this stage: each bevel face square to it, and each flat, mm. */
  readonly left: { readonly faces: number; readonly flats: number };
  readonly isBevelled: boolean;
  /** The steel as it stands when the stage is done. */
  readonly field: Field;
  readonly volume: number;
  /** What the stage's own belts do, where it has any: mm, minutes, and which; or why that cannot be. */
  readonly belts: { readonly on: Surface; readonly planned: Planned; readonly job: Job } | null;
}

/** Works every stage out, first to last. The blade must be sound; a stage that thin steel cannot hold is its field's own fault. */
export function ladderOf(blade: Blade, route: Route, shop: Shop): Rung[] {
  const finished = compileField(blade);
  const faces = faceArea(finished);
  const flats = flatArea(finished);
  const edgeArea = edgeBevelArea(finished);
  const kinds = route.stages.map((stage) => stage.kind);
  const take = amounts(route, shop, faces, flats);
  const isSteep = hasSteepBevel(finished);
  const known = new Map<string, Pick<Rung, "field" | "volume">>();
  const rungs: Rung[] = [];
  let before: number | null = null;
  for (const [i, kind] of kinds.entries()) {
    const later = kinds.slice(i + 1);
    const left = {
      faces: sum(later, (one) => take[one]?.faces ?? 0),
      flats: sum(later, (one) => take[one]?.flats ?? 0),
    };
    const isDone = (stage: StageKind) => kinds.slice(0, i + 1).includes(stage);
    const isLast = later.length === 0;
    const isBevelled = isLast || isDone("rough") || isDone("finish");
    const isTrue = isBevelled || isDone("flats") || isDone("true");
    const still = {
      flats: left.flats,
      faces: { left: constant(left.faces), right: constant(left.faces) },
      edgeBevel: isLast || isDone("sharpen"),
      falseEdge: isLast || isDone("finish"),
    };
    // Many stages leave the steel as they found it: what is the same is worked out once.
    const key = JSON.stringify([
      left,
      isBevelled,
      isTrue,
      isDone("forge"),
      isDone("finish"),
      still.edgeBevel,
    ]);
    let steel = known.get(key);
    if (!steel) {
      const isForged = isDone("forge");
      const thickness = isTrue
        ? null
        : isForged
          ? forged(blade, route, left.flats)
          : [{ x: 0, t: route.stock }];
      const roughAngle = isDone("finish") || isLast ? null : (route.roughAngle ?? null);
      const own = stageField(blade, still, { isBevelled, isSteep, thickness, roughAngle });
      steel = { field: own, volume: solidBetween(own).volume };
      known.set(key, steel);
    }
    const { field, volume } = steel;
    rungs.push({
      kind,
      left,
      isBevelled,
      field,
      volume,
      belts: beltsOf(kind, {
        route,
        shop,
        faces,
        flats,
        edgeArea,
        take,
        removed: before === null ? 0 : before - volume,
      }),
    });
    before = volume;
  }
  return rungs;
}

const sum = <T>(all: readonly T[], of: (one: T) => number) => all.reduce((total, one) => total + of(one), 0);

interface StageShape {
  readonly isBevelled: boolean;
  /** Of the bar or the forged blank, where the flats are still its own; null once they are true. */
  readonly thickness: Blade["thickness"] | null;
  readonly isSteep: boolean;
  /** A flat roughing at an angle of its own, degrees a side; null for the bevels as they will be. */
  readonly roughAngle: number | null;
}

/** The steel of a stage: bevelled or not, its flats true or still its own. */
function stageField(
  blade: Blade,
  still: Allowance,
  { isBevelled, thickness, isSteep, roughAngle }: StageShape,
): Field {
  if (thickness) {
    const bevels = isBevelled ? blade.bevels : UNBEVELLED;
    return compileStageWithBevels(blade, bevels, { ...still, flats: 0 }, thickness);
  }
  if (!isBevelled) return compileStageWithBevels(blade, UNBEVELLED, still);
  if (roughAngle !== null) return compileStageWithBevels(blade, roughed(blade.bevels, roughAngle), still);
  return isSteep ? compileStageWithBevels(blade, blade.bevels, still) : compileField(blade, still);
}

const UNBEVELLED: Blade["bevels"] = { right: { kind: "none" }, left: "same" };

/** The same sides ground flat at one angle: what is roughed before a hollow, a convex face, or a shallower flat. */
function roughed({ right, left }: Blade["bevels"], angle: number): Blade["bevels"] {
  const rough = (bevel: Bevel): Bevel =>
    bevel.kind === "none"
      ? bevel
      : { kind: "flat", pull: "follow", set: "angle", angle, plunge: bevel.plunge };
  return { right: rough(right), left: left === "same" ? "same" : rough(left) };
}

/** What a forged blank has on its flats beside what is planned to come off, mm in all. Starting value. */
const FORGED_EXTRA = 0.8;

/** A forged blank is tapered already, and no thicker than the bar it came from. */
function forged(blade: Blade, { stock }: Route, flats: number): Blade["thickness"] {
  return blade.thickness.map(({ x, t }) => ({
    x,
    t: Math.max(t, Math.min(stock, t + 2 * flats + FORGED_EXTRA)),
  }));
}

const LOOKS = 150;

/**
 * Whether a bevel is anywhere steeper than the edge bevel: carried on to the apex it passes below the finished edge, so
 * such stages are held up to the finished steel, as nobody grinds past it.
 */
function hasSteepBevel(finished: Field): boolean {
  const none = { left: constant(0), right: constant(0) };
  const ground = compileField(finished.blade, { flats: 0, faces: none, edgeBevel: false, falseEdge: true });
  for (let i = 0; i < LOOKS; i++) {
    const { x, y, tx, ty } = placeAt(finished.edge, ((i + 0.5) / LOOKS) * finished.edge.length);
    for (const d of [0.02, 0.1, 0.3, 0.6, 1]) {
      const at = [x - ty * d, y + tx * d] as const;
      if (thicknessAt(ground, ...at) < thicknessAt(finished, ...at) - 1e-9) return true;
    }
  }
  return false;
}

type Amounts = Partial<Record<StageKind, { faces: number; flats: number }>>;

/** What each stage takes off a face and off a flat, mm a side. */
function amounts(route: Route, shop: Shop, faces: number, flats: number): Amounts {
  const { oven, skin, coarse, finish } = route;
  const share = shop.scratchShare;
  return {
    true: { faces: 0, flats: skin + finerDepth(shop, flats, coarse, finish.flats) },
    finish: { faces: oven + skin, flats: 0 },
    grits: { faces: finerDepth(shop, faces, coarse, finish.bevels), flats: 0 },
    hand: { faces: depthAfter(finish.bevels, share), flats: depthAfter(finish.flats, share) },
  };
}

/** What the belts after a coarse one take to a finish, mm: by the cheapest sequence on hand, else by halving each time. */
function finerDepth(shop: Shop, area: number, from: number, to: number): number {
  if (to >= from) return 0;
  const planned = planSequence(shop.abrasives, { ...ratesOf(shop), area, from, to, depth: null });
  if (planned.ok) return planned.sequence.depth;
  let depth = 0;
  for (let size = from; size > to; size /= 2) depth += depthAfter(size, shop.scratchShare);
  return depth;
}

const ratesOf = ({ hourly, largestStep, scratchShare }: Shop) => ({ hourly, largestStep, scratchShare });

interface Work {
  readonly route: Route;
  readonly shop: Shop;
  readonly faces: number;
  readonly flats: number;
  readonly edgeArea: number;
  readonly take: Amounts;
  readonly removed: number;
}

/** A surface smaller than this is none, mm². */
const SMALLEST = 1;

/** The belts of a stage that has some; null for the others. */
function beltsOf(
  kind: StageKind,
  { route, shop, faces, flats, edgeArea, take, removed }: Work,
): Rung["belts"] {
  const area = { bevels: faces, flats, edge: edgeArea };
  const plan = (on: Surface, from: number, to: number, depth: number | null) => {
    if (area[on] < SMALLEST) return null;
    const job: Job = { ...ratesOf(shop), area: area[on], from, to, depth };
    return { on, job, planned: planSequence(shop.abrasives, job) };
  };
  const { coarse, finish } = route;
  switch (kind) {
    case "rough":
      return removed > 0 ? plan("bevels", 0, coarse, removed / faces) : null;
    case "finish":
      return plan("bevels", 0, coarse, take.finish!.faces);
    case "grits":
      return finish.bevels < coarse ? plan("bevels", coarse, finish.bevels, null) : null;
    case "flats":
      return plan("flats", 0, coarse, removed > 0 ? removed / flats : null);
    case "sharpen":
      return removed > 0 ? plan("edge", 0, finish.edge, removed / edgeArea) : null;
    case "true":
      return plan("flats", 0, finish.flats, take.true!.flats);
    default:
      return null;
  }
}

/** Area of all bevel faces together, mm²: width along the face, summed along the edge. */
function faceArea(field: Field): number {
  const { stations } = drawnLines(field);
  let area = 0;
  for (const [i, station] of stations.entries()) {
    const next = stations[i + 1];
    if (!next) break;
    const along = (next.u - station.u) * field.edge.length;
    area += (along * (faceWidth(station) + faceWidth(next))) / 2;
  }
  return area;
}

function faceWidth(station: Station): number {
  return sum(SIDES, (side) => {
    const { grindLine, edgeBevel, primaryAngle } = station[side];
    if (grindLine === null || primaryAngle === null) return 0;
    const slope = tan(primaryAngle);
    return Math.max(0, grindLine - (edgeBevel ?? 0)) * Math.hypot(1, slope);
  });
}

/** Area of the edge bevels of both sides, mm². */
function edgeBevelArea(field: Field): number {
  const { stations } = drawnLines(field);
  const { angle } = field.blade.edge;
  const width = (station: Station) =>
    sum(SIDES, (side) => (station[side].edgeBevel ?? 0) * Math.hypot(1, tan(angle[side])));
  return sum(stations.slice(1), (next) => {
    const before = stations[stations.indexOf(next) - 1]!;
    return ((next.u - before.u) * field.edge.length * (width(before) + width(next))) / 2;
  });
}

const STRETCHES = 120;

/** Area of both flats together, mm²: the outline's less what the bevels take, and never below a tenth of it. */
function flatArea(field: Field): number {
  const { ring } = field;
  const step = (ring.right - ring.left) / STRETCHES;
  let outline = 0;
  for (let i = 0; i < STRETCHES; i++) {
    const spans = spansAt(ring, ring.left + (i + 0.5) * step);
    outline += step * sum(spans, ([low, high]) => high - low);
  }
  return Math.max(0.2 * outline, 2 * outline - faceArea(field));
}

/** What should be read at one place of the edge at a stage. Null where there is no such thing. */
export interface StageReading {
  readonly place: "heel" | "middle" | "tip";
  readonly x: number;
  readonly u: number;
  /** The blade's height there square to its edge, mm. */
  readonly height: number;
  readonly flats: number;
  /** The very edge, mm: what to stop at. */
  readonly edge: number;
  readonly grindLine: { readonly left: number | null; readonly right: number | null };
  readonly angle: { readonly left: number | null; readonly right: number | null };
}

/** Shares of the edge that stand for heel, middle and tip, clear of plunge and point. */
export function placesOf(finished: Field): { place: StageReading["place"]; u: number }[] {
  const { stations, clear } = drawnLines(finished);
  const heel = stations.find((_, i) => clear[i])?.u ?? 0.05;
  return [
    { place: "heel", u: heel },
    { place: "middle", u: (heel + 0.95) / 2 },
    { place: "tip", u: 0.95 },
  ];
}

/** What a caliper or a height gauge should read at a stage, at heel, middle and tip. */
export function readingsAt(
  rung: Pick<Rung, "field" | "left" | "isBevelled">,
  finished: Field,
): StageReading[] {
  return placesOf(finished).map(({ place, u }) => {
    const station = stationAt(rung.field, u);
    const { x, y, height, right, left } = station;
    const flats = read(rung.field.thickness, x) + (isStock(rung.field, finished) ? 0 : 2 * rung.left.flats);
    const line = rung.isBevelled;
    return {
      place,
      x,
      u,
      height,
      flats,
      edge: thicknessAt(rung.field, x, y),
      grindLine: { left: line ? left.grindLine : null, right: line ? right.grindLine : null },
      angle: { left: line ? left.primaryAngle : null, right: line ? right.primaryAngle : null },
    };
  });
}

/** Whether a stage still has the bar's own thickness. */
function isStock(field: Field, finished: Field): boolean {
  return field.blade.thickness !== finished.blade.thickness;
}
