import { cuttingRate } from "../abrasive/cutting.ts";
import { isBelt } from "../abrasive/schema.ts";
import { type Planned, type Sequence, type Skipped, skippedBy } from "../abrasive/sequence.ts";
import { type Line, sectionShape } from "../blade/lines.ts";
import { massOf } from "../blade/mass.ts";
import { type Blade, SIDES, type Side } from "../blade/schema.ts";
import { secondLines } from "../blade/second-station.ts";
import { type PerSide, thicknessAbove } from "../blade/station.ts";
import { type Forge, NO_FORGE } from "../forge/schema.ts";
import { type AngleCost, costOfAngle, singleAngle } from "../grind/setups.ts";
import type { Shop } from "../shop/schema.ts";
import { densityOf } from "../steel/steels.ts";
import type { Surface } from "./areas.ts";
import { sharpeningAngle } from "./edge-settings.ts";
import { rankByHeat, type Warmth } from "./heat.ts";
import { ladderOf, onSecondEdge, type Rung, type StageSteel } from "./ladder.ts";
import { type LayoutSheet, layoutOf } from "./layout.ts";
import type { Route, Stage, StageKind, WhichEdge, WorkedOn } from "./schema.ts";
import { nameOf, workedOn } from "./stages.ts";
import { finishedSteel, type Steel } from "./steel.ts";
import { isOnEdge } from "./take.ts";
import { placesOf, type StageTarget, targetsAt } from "./targets.ts";

/** What a stage does to what it works on, at heel, middle and tip: nothing that it does not touch. */
export interface StageWork extends WorkAlong {
  readonly on: WorkedOn;
  /** Said where it works on the second edge alone: its figures are that one's. */
  readonly edge?: "second";
  /** The same of the second edge, begun to end; null where there is none, or the stage does not touch it beside the first. */
  readonly second: WorkAlong | null;
}

/** What a stage does along one edge, at heel, middle and tip of it. */
export interface WorkAlong {
  /** The edge to stop at on bevels, what is behind the edge when it is sharpened, mm; null where neither is worked. */
  readonly stop: readonly (number | null)[];
  /** Top of the face that is worked, above the edge, mm. */
  readonly line: PerSide<readonly (number | null)[]>;
  /** Degrees a side that face is held at. */
  readonly angle: PerSide<readonly (number | null)[]>;
  /** One angle a side to set a jig to, or null where no single angle exists. */
  readonly single: PerSide<number | null>;
}

/** One stage as a page or a sheet of paper shows it: plain figures and lines, nothing that must be asked again. */
export interface StageReport {
  readonly id: string;
  readonly kind: StageKind;
  /** As the maker calls it. */
  readonly name: string;
  readonly work: StageWork;
  readonly left: Rung["left"];
  /** What the finer belts, the hand and the oven's skin must still find on each face, mm. */
  readonly needed: Rung["needed"];
  readonly isBevelled: boolean;
  /** g taken off by the stage. */
  readonly removed: number;
  readonly targets: readonly StageTarget[];
  /** Grind line in the middle of the face that is worked, had each flat lost `FLATS_LOST` more, mm; null without a line. */
  readonly again: number | null;
  /** What a tenth of a degree costs at the middle, mm; null where there is no bevel. */
  readonly tenth: AngleCost | null;
  readonly belts: {
    readonly on: Surface;
    readonly planned: Planned;
    /** Belts left out, and what they would add. */
    readonly skipped: readonly Skipped[];
  } | null;
  /** Whole minutes at its belts; 0 where it has none, or is done. */
  readonly minutes: number;
  /** Places by how warm the coarsest belt of the stage makes them, warmest first; empty where none is ground. */
  readonly warmth: readonly Warmth[];
  readonly grindLine: { readonly [side in Side]: readonly Line[] };
  /** Thickness of the very edge along the blade: x, mm. */
  readonly edge: readonly (readonly [number, number])[];
  /** The section at the place asked for. */
  readonly section: readonly Line[];
}

export interface RouteReport {
  readonly stages: readonly StageReport[];
  /** Null where the route has no layout or no bevel to lay out. */
  readonly layout: LayoutSheet | null;
  /** Of the stages still to be done: their sum. */
  readonly minutes: number;
}

/** Works a route out for a page or a sheet of paper; the section of every stage is cut at x. */
export function reportOf(
  blade: Blade,
  route: Route,
  shop: Shop,
  x: number,
  forge: Forge = NO_FORGE,
): RouteReport {
  const finished = finishedSteel(blade);
  const rungs = ladderOf(blade, route, shop, forge);
  const density = densityOf(blade.steel);
  const clear = finished.drawn.stations.filter((_, i) => finished.drawn.clear[i]);
  const lines = new Map<Steel, Pick<StageReport, "grindLine" | "edge" | "section">>();
  const drawn = (steel: Steel) => {
    let known = lines.get(steel);
    if (!known) {
      known = {
        grindLine: grindLinesOf(steel),
        edge: clear.map(({ u, x }) => [x, steel.station(u).edge] as const),
        section: sectionShape(steel.field, x),
      };
      lines.set(steel, known);
    }
    return known;
  };
  const stages = rungs.map((rung, i): StageReport => {
    const stage = route.stages[i]!;
    const turned = isOnEdge(stage, "second") ? onSecondEdge(rung) : null;
    const worked = (stage.edge === "second" && turned) || rung;
    const targets = targetsAt(worked);
    const along = workAlong(worked, stage, targets);
    const other = turned && worked !== turned ? workAlong(turned, stage, targetsAt(turned)) : null;
    const work: StageWork = {
      ...along,
      on: workedOn(stage),
      ...(worked === turned ? { edge: "second" } : {}),
      second: other && isAnything(other) ? other : null,
    };
    const side = SIDES.find((one) => work.line[one][1] !== null && work.angle[one][1] !== null);
    const { belts } = rung;
    return {
      id: rung.id,
      kind: rung.kind,
      name: nameOf(stage, route.stages),
      work,
      left: rung.left,
      needed: rung.needed,
      isBevelled: rung.isBevelled,
      removed: i === 0 ? 0 : massOf(rungs[i - 1]!.steel.volume - rung.steel.volume, density),
      targets,
      again: side ? lineAgain(worked, targets[1]!.u, side) : null,
      tenth: side ? costOfAngle(work.line[side][1]!, work.angle[side][1]!, 0.1) : null,
      belts: belts && {
        on: belts.on,
        planned: belts.planned,
        skipped: belts.planned.ok
          ? skippedBy(belts.planned.sequence, shop.abrasives.filter(isBelt), belts.job)
          : [],
      },
      minutes: belts?.planned.ok && !stage.done ? Math.ceil(belts.planned.sequence.minutes - 1e-9) : 0,
      warmth: belts?.on === "bevels" && belts.planned.ok ? warmthOf(rung, belts.planned.sequence) : [],
      ...drawn(rung.steel),
    };
  });
  const scribed = rungs.find((rung) => rung.kind === "layout");
  const groundBy = (which: WhichEdge) => {
    const mine = rungs.filter((_, i) => isOnEdge(route.stages[i]!, which));
    return mine.find(({ kind }) => kind === "rough") ?? mine.find(({ kind }) => kind === "finish");
  };
  const ground = groundBy("first");
  return {
    stages,
    layout: scribed && ground ? layoutOf(scribed, ground, route, groundBy("second") ?? null) : null,
    minutes: stages.reduce((sum, { minutes }) => sum + minutes, 0),
  };
}

/** Every grind line that is drawn on a side, of both edges. */
export function grindLinesOf({ drawn: { grindLine }, field }: Steel): PerSide<readonly Line[]> {
  if (!field.second) return grindLine;
  const second = secondLines(field).grindLine;
  return { left: [...grindLine.left, ...second.left], right: [...grindLine.right, ...second.right] };
}

/** What cleaning a flat usually takes, mm: what a jig must be found again for. Source: common practice. */
export const FLATS_LOST = 0.1;

/** Where a grind line comes out when the flats are lower and the face is ground by the same reading: asked of the steel itself. */
function lineAgain({ steel, isBevelled }: StageSteel, u: number, side: Side): number | null {
  return isBevelled ? steel.otherwise({ flats: () => -FLATS_LOST }).station(u)[side].grindLine : null;
}

const isAnything = ({ stop, line }: WorkAlong) =>
  [...stop, ...line.left, ...line.right].some((value) => value !== null);

/** What a stage works on along one edge, as it comes out. */
function workAlong(
  { steel, finished }: StageSteel,
  stage: Stage,
  targets: readonly StageTarget[],
): WorkAlong {
  const on = workedOn(stage);
  const stations = targets.map(({ u }) => steel.station(u));
  const none = targets.map(() => null);
  const made = (
    stop: WorkAlong["stop"],
    of: (side: Side) => { line: (number | null)[]; angle: (number | null)[] },
  ): WorkAlong => {
    const worked = (side: Side) =>
      stage.side === undefined || stage.side === side ? of(side) : { line: none, angle: none };
    const [left, right] = [worked("left"), worked("right")];
    return {
      stop,
      line: { left: left.line, right: right.line },
      angle: { left: left.angle, right: right.angle },
      single: { left: singleAngle(left.angle), right: singleAngle(right.angle) },
    };
  };
  if (on === "bevels") {
    return made(
      targets.map(({ edge }) => edge),
      (side) => ({
        line: targets.map(({ grindLine }) => grindLine[side]),
        angle: targets.map(({ angle }) => angle[side]),
      }),
    );
  }
  if (on === "edge") {
    // Where the bevel runs to the apex it is the edge, and is held as it is.
    return made(
      stations.map(({ behind }) => behind),
      (side) => ({
        line: stations.map((one) => one[side].edgeBevel || null),
        angle: stations.map((one) => sharpeningAngle(finished, one, side)),
      }),
    );
  }
  return made(none, () => ({ line: none, angle: none }));
}

/** How far above the edge the steel is looked at that carries a pass's heat off, mm. */
const HEAT_AT = 1.5;

function warmthOf({ steel, finished }: Rung, { steps }: Sequence): Warmth[] {
  const places = placesOf(finished).map(({ place, u }) => ({
    place,
    thickness: thicknessAbove(steel.field, steel.station(u), HEAT_AT) ?? 0,
  }));
  return rankByHeat(places, cuttingRate(steps[0]!.belt));
}
