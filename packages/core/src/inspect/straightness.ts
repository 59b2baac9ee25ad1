import { thicknessAt } from "../blade/field.ts";
import { spansAt } from "../blade/outline.ts";
import type { Blade } from "../blade/schema.ts";
import { NO_FORGE } from "../forge/schema.ts";
import { NO_HEAT } from "../heat/schema.ts";
import { knownOf } from "../heat/steel.ts";
import { isHeat } from "../route/heats.ts";
import { type StageSteel, stageSteel } from "../route/ladder.ts";
import type { Route } from "../route/schema.ts";
import type { Shop } from "../shop/schema.ts";
import type { StruckHere } from "../shop/struck.ts";
import { martensiteStart } from "../steel/critical.ts";
import { secondsInAir } from "../steel/heating.ts";
import { type Advice, adviceFor, type Build } from "../straight/advice.ts";
import {
  type Bend,
  betweenEnds,
  columnsOf,
  curveOf,
  type FitReport,
  fitBends,
  fitTwist,
  highest,
  RIVALS,
  type RowSet,
  type Twist,
} from "../straight/fit.ts";
import { bowSpared, kappaOf, type Lines, linesOf, perLine, turnSpared } from "../straight/lines.ts";
import { blowsFor, type PerBlow, perBlow, staysOf, yieldOf } from "../straight/log.ts";
import { loadFor, sagitta, sagOf, YIELDS } from "../straight/overbend.ts";
import { type Blow, STATES, type State, type Straight, type StraightSet } from "../straight/schema.ts";
import type { Reversed } from "../straight/sets.ts";
import { tan } from "../units/angle.ts";
import { effectsOf, historyOf, learnedOf, sharesOf, yieldsOf } from "./straight-log.ts";
import { bendRows, isSameLine, reading, rollRows, ruleOf } from "./straight-rows.ts";

/** One line to work along, on the face that lies up. */
export interface Strike {
  readonly face: "left" | "right";
  /** Where it crosses the middle of the blade, mm. */
  readonly x: number;
  /** From square to the spine, radians, spine end toward the heel for +. */
  readonly lean: number;
  /** What it is to take, radians. */
  readonly turn: number;
  /** Its ends on the side view, spine end first. */
  readonly from: readonly [number, number];
  readonly to: readonly [number, number];
}

/** How straight a blade is at a stage, and what to do about it. mm, radians. */
export interface StraightReport {
  readonly state: State;
  readonly build: Build;
  /** Where a line along the flats can be read. */
  readonly along: readonly [number, number];
  readonly y: number;
  readonly rows: number;
  readonly fit: FitReport;
  /** The best and its nearest rival, where that is near enough to be named. */
  readonly best: Bend | null;
  readonly rival: Bend | null;
  /** How high its middle stands to the right between its ends, and what covers 95 of 100 of that. */
  readonly height: number;
  readonly give: number;
  readonly band: number;
  /** Surely within its bands, bow and turn: where to stop. */
  readonly isWithin: boolean;
  readonly twist: Twist | null;
  readonly twistBand: number;
  /** What is read, and the curves, each nought at both ends of what was read. */
  readonly points: readonly { readonly x: number; readonly z: number; readonly u: number }[];
  readonly curve: readonly { readonly x: number; readonly best: number; readonly rival: number | null }[];
  /** Lines on both faces with what they are worked by; the first are worked first. */
  readonly work: readonly {
    readonly lines: Lines;
    readonly advice: Advice;
    readonly strikes: readonly Strike[];
  }[];
  /** Whether what is still to come off holds it: the bow that every face could spare. */
  readonly spares: { readonly bow: number; readonly turn: number; readonly holds: boolean };
  /**
   * How far to press its middle past straight, over the span that was read, for it to stay straight; from where it stands that is `sagitta`.
   * `isLearned`: by this shop's own presses. Null where it is not bent.
   */
  readonly load: {
    readonly past: number;
    readonly sagitta: number;
    readonly span: number;
    readonly isLearned: boolean;
  } | null;
  readonly blows: { readonly made: number; readonly each: PerBlow | null; readonly next: number | null };
  /** Since the first reading: heights as they were read, one after another. */
  readonly history: readonly number[];
  /** The straightedge itself, by the last two sets that were read with it on both faces. */
  readonly rule: Reversed | null;
  /** Its edge is not straight though its spine is, and it is not turned. */
  readonly edgeWaves: boolean;
  /** What this blade has said of blows, clampings and presses; null before it has. */
  readonly here: StruckHere | null;
  /** Of what it was clamped past straight by here, what stays; null before three said. */
  readonly stays: number | null;
  /** Seconds in still air from where martensite starts until half of it is there, and those temperatures; null where the steel is not known. */
  readonly window: { readonly seconds: number; readonly from: number; readonly to: number } | null;
  /** Its own weight would bend it so far between end supports. */
  readonly sag: number;
}

/** Lines are so far apart, mm. */
const LINES_APART = 25;
/** How far below the spine flats are read, mm. */
const BELOW = 4;
const COVERS = 1.96;
const CURVE = 60;
const TWIST_BAND = Math.PI / 180;
const BAND = 0.3 / 200;
/** A core whose own middle strays by more of the thickness counts as unknown. */
const OFF_CENTRE = 0.1;

/**
 * State of the steel after a stage of a route, by the heats before it. A route without a hardening stays soft; a blade without a route
 * is finished, and so hard.
 */
export function stateAt({ stages }: Pick<Route, "stages">, id: string): State {
  const at = stages.findIndex((stage) => stage.id === id);
  if (stages.length === 0) return "hard";
  const harden = stages.slice(0, at + 1).findLastIndex(({ kind }) => kind === "harden");
  if (harden < 0) return "soft";
  const { kind } = stages[at]!;
  const next = stages.findIndex((stage, i) => i > at && stage.kind === "harden");
  const tempersToCome = stages
    .slice(at + 1, next < 0 ? stages.length : next)
    .filter((stage) => stage.kind === "temper").length;
  if (kind === "harden" || kind === "plates") return tempersToCome > 0 ? "raw" : "hard";
  return isHeat(kind) && tempersToCome > 0 ? "temper" : "hard";
}

/**
 * States that may be chosen after a stage; the first is the one of the route. Hard steel snaps where soft steel bends, so steel that the
 * route hardens is never worked as soft, unless an anneal comes between, and as-quenched steel never as tempered.
 */
export function statesAt(route: Pick<Route, "stages">, id: string): readonly State[] {
  const usual = stateAt(route, id);
  const { stages } = route;
  const at = stages.findIndex((stage) => stage.id === id);
  const harden = stages.slice(0, at + 1).findLastIndex(({ kind }) => kind === "harden");
  const isAnnealed = stages.slice(harden + 1, at + 1).some(({ kind }) => kind === "anneal");
  const others = STATES.filter((state) => {
    if (state === usual) return false;
    if (usual === "raw") return state === "window";
    return usual === "soft" || state !== "soft" || isAnnealed;
  });
  return [usual, ...others];
}

/** State of the steel after a stage: the one chosen for the blade, where the route allows that, else the route's. */
export function chosenState(route: Pick<Route, "stages">, { states }: Straight, id: string): State {
  const chosen = states?.find(({ stage }) => stage === id)?.state;
  const allowed = statesAt(route, id);
  return chosen !== undefined && allowed.includes(chosen) ? chosen : allowed[0]!;
}

/** What a blade is drawn as, as far as it can be worked by. */
export function buildOf({ core }: Pick<Blade, "core">, thick: number, isInDoubt: boolean): Build {
  if (isInDoubt) return "unknown";
  if (!core) return "solid";
  const isAside = Math.abs(core.offset) > OFF_CENTRE * thick;
  const isThrough = core.t / 2 + Math.abs(core.offset) >= thick / 2;
  return isAside || isThrough ? "unknown" : "clad";
}

/** What is asked: sets and blows of one stage, in the order of time. */
export interface StraightAsked {
  /** The blade's own id, so that the shop does not count it twice; absent: it has none. */
  readonly id?: string;
  readonly blade: Blade;
  readonly route: Route;
  readonly shop: Shop;
  readonly stage: string;
  readonly straight: Straight;
  readonly sets: readonly StraightSet[];
  readonly blows: readonly Blow[];
}

/** All that a page shows of how straight a blade is at one stage. */
export function straightReport(asked: StraightAsked): StraightReport {
  const { blade, route, shop, stage: id } = asked;
  const stage = stageSteel(blade, route, shop, id, NO_FORGE);
  const { field } = stage.steel;
  const y = -BELOW;
  const along = readable(stage, y);
  const thick = thicknessAt(field, (along[0] + along[1]) / 2, y);
  const state = chosenState(route, asked.straight, id);
  const build = buildOf(blade, thick, asked.straight.unknown);
  const last = asked.blows.at(-1);
  const since = asked.sets.filter(({ when }) => !last || Date.parse(when) > Date.parse(last.when));
  // What was read last of a kind on a face stands for it.
  const now = since.filter(
    (set, i) => !since.slice(i + 1).some((other) => isSameLine(set, other) && other.pair === set.pair),
  );
  const read = reading(stage, shop);
  const twist = fitTwist(rollRows(now, read));
  const flats = bendRows(
    now.filter(({ kind }) => kind !== "edge"),
    read,
  );
  const edges = bendRows(
    now.filter(({ kind }) => kind === "edge"),
    read,
  );
  const has = (sets: readonly RowSet[]) => fitBends(sets).bends.length > 0;
  // Its spine is straight and it is not turned: what wanders is how it was ground, or a thin edge.
  const edgeWaves =
    flats.length > 0 && edges.length > 0 && !has(flats) && has(edges) && !(twist && isSure(twist));
  const bendSets = edgeWaves ? flats : [...flats, ...edges];
  const fit = fitBends(bendSets);
  const [best = null, second] = fit.bends;
  const rival = best && second && best.gain - second.gain <= RIVALS ? second : null;
  const xs = bendSets.flat().map(({ x }) => x);
  const [from, to] = xs.length > 1 ? [Math.min(...xs), Math.max(...xs)] : along;
  const between = (bend: Bend) => betweenEnds(curveOf(bend), from, to);
  const bowed = best && between(best);
  const peak = bowed ? highest(bowed, from, to) : { x: (from + to) / 2, z: 0 };
  const give = best ? COVERS * spreadOf(best, from, to) : 0;
  const tau = twist && isSure(twist) ? twist.total / twist.span : 0;
  const work = workOf(stage, { best, tau, twist, from, to, state, build });
  const spares = sparesOf(stage, route.skin, { bow: Math.abs(peak.z), turn: Math.abs(twist?.total ?? 0) });
  const made = asked.blows.reduce((sum, { count }) => sum + count, 0);
  const here: StruckHere = {
    build,
    blows: effectsOf(asked, thick, read),
    shares: sharesOf(asked, read),
    yields: build === "solid" ? yieldsOf(asked, thick, read) : [],
  };
  const learned = learnedOf([here, ...(shop.struck ?? []).filter((one) => one.blade !== asked.id)], {
    state,
    build,
    tool: work[0]?.advice.tool ?? last?.tool ?? null,
  });
  const each = perBlow(learned.blows);
  const turn = best ? turnOf(best, from, to) : 0;
  return {
    state,
    build,
    along,
    y,
    rows: bendSets.flat().length,
    fit,
    best,
    rival,
    height: peak.z,
    give,
    band: BAND * (to - from),
    isWithin:
      Math.abs(peak.z) + give <= BAND * (to - from) &&
      (!twist || Math.abs(twist.total) + COVERS * twist.u <= TWIST_BAND),
    twist,
    twistBand: TWIST_BAND,
    points: pointsOf(bendSets, from, to),
    curve: curvesOf(best, rival, from, to),
    work,
    spares,
    load: best
      ? loadOf(state, build, {
          height: Math.abs(peak.z),
          span: to - from,
          thick,
          blade,
          sigma: yieldOf(learned.yields),
        })
      : null,
    blows: { made, each, next: each && best ? blowsFor(turn, thick, each) : null },
    history: historyOf(asked, read),
    rule: ruleOf(asked.sets, read),
    edgeWaves,
    stays: staysOf(learned.shares),
    here: here.blows.length + here.shares.length + here.yields.length > 0 ? here : null,
    window: windowOf(blade, thick),
    sag: sagOf(to - from, Math.max(0.3, thick)),
  };
}

/** Where along it there is steel at a height. */
function readable({ steel: { field } }: StageSteel, y: number): [number, number] {
  const { right } = field.ring;
  const isThere = (x: number) => spansAt(field.ring, x).some(([low, high]) => low < y && y < high);
  let to = Math.floor(right);
  while (to > 10 && !isThere(to)) to--;
  return [0, to];
}

const isSure = ({ total, u }: Twist) => Math.abs(total) > COVERS * u;

/** How far the height of a bend may be off, mm: one standard deviation, by its amplitudes alone. */
function spreadOf(bend: Bend, from: number, to: number): number {
  const columns = columnsOf(bend.shape).map((of) => highest(betweenEnds(of, from, to), from, to).z);
  return Math.hypot(...columns.map((z, i) => z * bend.u[i]!));
}

/** All the turn that a bend has between the ends of what was read, radians. */
function turnOf({ shape, amplitudes }: Bend, from: number, to: number): number {
  if (shape.kind === "even") return Math.abs(amplitudes[0]!) * (to - from);
  if (shape.kind === "part") return Math.abs(amplitudes[0]!) * (shape.to - shape.from);
  return Math.max(...amplitudes.map(Math.abs));
}

interface Bent {
  readonly best: Bend | null;
  readonly tau: number;
  readonly twist: Twist | null;
  readonly from: number;
  readonly to: number;
  readonly state: State;
  readonly build: Build;
}

/** Families of lines, the one that bends most first. */
function workOf(stage: StageSteel, bent: Bent): StraightReport["work"] {
  const { best, tau, from, to, state, build } = bent;
  const places = (a: number, b: number) => {
    const count = Math.max(1, Math.floor((b - a) / LINES_APART));
    const start = (a + b - (count - 1) * LINES_APART) / 2;
    return Array.from({ length: count }, (_, i) => start + i * LINES_APART);
  };
  const family = (lines: Lines, xs: readonly number[], turn: (lines: Lines) => number, isTwist: boolean) => {
    const advice = adviceFor(state, build, lines, isTwist);
    const face = advice.face ?? lines.hollow;
    return {
      lines,
      advice,
      strikes: xs.map((x) => strikeAt(stage, { face, x, lean: lines.lean, turn: turn(lines) })),
    };
  };
  const each = (lines: Lines) => perLine(lines, LINES_APART);
  if (!best) {
    return linesOf(0, tau).map((lines) => family(lines, places(from, to), each, true));
  }
  const { shape, amplitudes } = best;
  if (shape.kind === "even" || shape.kind === "part") {
    const [a, b] = shape.kind === "even" ? [from, to] : [shape.from, shape.to];
    const kappa = amplitudes[0]!;
    return linesOf(kappa, tau).map((lines) =>
      family(lines, places(a, b), each, Math.abs(tau) > Math.abs(kappa)),
    );
  }
  const at = shape.kind === "bend" ? [shape.at] : shape.at;
  const bends = at.map((x, i) => {
    const turn = amplitudes[i]!;
    const lines: Lines = { kappa: turn, hollow: turn > 0 ? "right" : "left", lean: 0 };
    return family(lines, [x], () => Math.abs(turn), false);
  });
  return [...bends, ...linesOf(0, tau).map((lines) => family(lines, places(from, to), each, true))];
}

/** A line across the blade, a little short of spine and edge. */
function strikeAt(
  { steel: { field } }: StageSteel,
  { face, x, lean, turn }: Pick<Strike, "face" | "x" | "lean" | "turn">,
): Strike {
  const spans = spansAt(field.ring, Math.max(field.ring.left + 0.1, Math.min(field.ring.right - 0.1, x)));
  const [low, high] = [spans[0]?.[0] ?? -20, spans.at(-1)?.[1] ?? 0];
  const [bottom, top] = [low + 0.2 * (high - low), high - 0.1 * (high - low)];
  const middle = (bottom + top) / 2;
  // The spine end leans toward the heel, which lies at smaller x.
  const at = (y: number): [number, number] => [x - (y - middle) * Math.tan(lean), y];
  return { face, x, lean, turn, from: at(top), to: at(bottom) };
}

/** What every face can spare of a bow and of a turn, and whether that is enough. */
function sparesOf(
  { left, steel, isBevelled }: StageSteel,
  skin: number,
  bent: { bow: number; turn: number },
): StraightReport["spares"] {
  const { height, right } = steel.station(0.5);
  const beta = Math.atan(tan(right.primaryAngle ?? 0));
  const onFlats = bowSpared(left.flats, skin);
  const face = Math.min(left.faces.left, left.faces.right);
  const bow = isBevelled ? Math.min(onFlats, bowSpared(face, skin) / Math.cos(beta)) : onFlats;
  const turn = turnSpared(left.flats, skin, Math.max(1, height));
  return { bow, turn, holds: bent.bow <= bow && bent.turn <= turn };
}

function pointsOf(sets: readonly RowSet[], from: number, to: number): StraightReport["points"] {
  return sets.flatMap((set) => {
    if (set.length < 2) return [];
    // Each set by the line through its own ends, carried on to the ends of all.
    const [a, b] = [set[0]!, set[set.length - 1]!];
    const line = (x: number) => a.z + ((b.z - a.z) * (x - a.x)) / (b.x - a.x || 1);
    const isWhole = a.x <= from + 1e-9 && b.x >= to - 1e-9;
    return isWhole ? set.map(({ x, z, u }) => ({ x, z: z - line(x), u })) : [];
  });
}

function curvesOf(best: Bend | null, rival: Bend | null, from: number, to: number): StraightReport["curve"] {
  if (!best) return [];
  const [one, other] = [best, rival].map((bend) => bend && betweenEnds(curveOf(bend), from, to));
  return Array.from({ length: CURVE + 1 }, (_, i) => {
    const x = from + ((to - from) * i) / CURVE;
    return { x, best: one!(x), rival: other ? other(x) : null };
  });
}

interface Loaded {
  readonly height: number;
  readonly span: number;
  readonly thick: number;
  readonly blade: Blade;
  /** This shop's own yield, N/mm²; null: as usual. */
  readonly sigma: number | null;
}

/** How far past straight an even load has to go. */
function loadOf(
  state: State,
  build: Build,
  { height, span, thick, blade, sigma: own }: Loaded,
): StraightReport["load"] {
  const sigma = own ?? (state === "hot" ? YIELDS.black : state === "window" ? YIELDS.window : YIELDS.soft);
  if (!["soft", "hot", "window"].includes(state) || height <= 0) return null;
  const isClad = build === "clad" && blade.core;
  const clad = isClad
    ? { core: Math.min(isClad.t, thick), sigma: state === "soft" ? YIELDS.soft : sigma }
    : undefined;
  const stays = Math.abs(kappaOf(height, span));
  const to = loadFor(stays, thick, sigma, clad);
  if (to === null) return null;
  const whole = sagitta(to, span);
  return { past: whole - height, sagitta: whole, span, isLearned: own !== null };
}

/** Half of the martensite is there so far below where it starts, K. Source: Koistinen and Marburger (1959), from memory of: ln 2 / 0.011. */
const HALF_BELOW = 63;
/** J/kgK, below the nose: starting value. */
const C_BELOW = 500;

function windowOf(blade: Blade, thick: number): StraightReport["window"] {
  const known = knownOf(NO_HEAT.steel, blade.steel);
  if (!known) return null;
  const { linear, product } = martensiteStart(known.middle);
  const from = (linear + product) / 2;
  const to = from - HALF_BELOW;
  return { seconds: secondsInAir(Math.max(0.3, thick), from, to, C_BELOW), from, to };
}
