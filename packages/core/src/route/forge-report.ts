import type { Line } from "../blade/lines.ts";
import { sectionShape } from "../blade/lines.ts";
import type { Blade } from "../blade/schema.ts";
import type { ForgeBar } from "../forge/bar.ts";
import type { BlankSection } from "../forge/blank.ts";
import type { Form, FormPlace } from "../forge/forms.ts";
import { formsOf } from "../forge/forms.ts";
import { expansionAt, HAMMER } from "../forge/heat.ts";
import type { Forge, ForgeStep } from "../forge/schema.ts";
import type { BevelSection } from "../forge/set-down.ts";
import { type StepWork, workOf } from "../forge/work.ts";
import type { Shop } from "../shop/schema.ts";
import {
  FORM_PLACES,
  type Forging,
  type FormPlaceName,
  forgingOf,
  formAt,
  formPlaceAt,
  heatsLearned,
  type Mark,
  secondsAt,
} from "./forging.ts";
import type { Route } from "./schema.ts";
import { finishedSteel } from "./steel.ts";

type Points = readonly (readonly [number, number])[];

/** A form as a page shows it: plain figures and lines. */
export interface FormReport {
  readonly step: Form["step"];
  readonly name: string;
  readonly length: number;
  readonly turn: number;
  readonly volume: number;
  readonly outline: Points;
  readonly places: readonly (FormPlace & { readonly name: FormPlaceName })[];
  /** Over the blank's x: width, thickness, edge, and the seconds its thinnest stays hot. */
  readonly along: readonly {
    x: number;
    width: number;
    thickness: number;
    edge: number | null;
    seconds: number;
  }[];
  /** The section of it that becomes the one at the scribe, square to it. */
  readonly section: Line | null;
}

/** Another way of working, and what it costs. */
export interface ForgeSchool {
  readonly name: string;
  readonly words: string;
  readonly turn: Forge["turn"];
  readonly order: readonly ForgeStep[];
  readonly isChosen: boolean;
  /** Degrees to straighten on wood, heats in all, and the widest that its bar must give. */
  readonly onWood: number;
  readonly heats: number;
  readonly widest: number;
}

/** All that a page shows of the way from the bar to the blank. */
export interface ForgeReport {
  readonly bar: ForgeBar;
  readonly total: number;
  readonly needed: number;
  readonly kerf: number;
  readonly spare: number;
  readonly marks: readonly Mark[];
  /** The bar at places of the blank: x and s. */
  readonly map: Points;
  readonly blank: {
    readonly left: number;
    readonly right: number;
    readonly plunge: number | null;
    readonly upper: Points;
    readonly lower: Points;
    /** Where the bevel comes out of the flat. */
    readonly bevel: Points;
  };
  readonly forms: readonly FormReport[];
  readonly preform: { readonly w: number; readonly t: number };
  readonly turn: number;
  readonly sweep: Forging["sweep"];
  readonly sure: number;
  readonly toWidth: Forging["toWidth"];
  readonly heatsLearned: ReturnType<typeof heatsLearned>;
  /** How much longer everything is at the colour where work stops, as a share. */
  readonly hot: number;
  readonly point: { readonly length: number; readonly from: number };
  readonly grams: Forging["grams"];
  readonly steps: readonly StepWork[];
  readonly heats: { readonly blade: number; readonly tang: number };
  /** At the scribe: the finished blade's section and the blank's. */
  readonly section: { readonly finished: readonly Line[]; readonly blank: Line | null };
  readonly schools: readonly ForgeSchool[];
  /** Half way along what is bevelled: what a turn that was measured is held to. Null where nothing is. */
  readonly middle: BevelSection | null;
}

/** So many points of a line are enough to draw it. */
const DRAWN = 160;

/** Works the forging out for a page, sections cut at x; null where the bar is not known yet. */
export function forgeReport(
  blade: Blade,
  route: Route,
  forge: Forge,
  shop: Shop,
  x: number,
  forging = forgingOf(blade, route, forge, shop),
): ForgeReport | null {
  if (!forging) return null;
  const { bar, blank, sections, map, marks, forms, outlines, work, toWidth, sure, sweep, grams } = forging;
  const fromButt = thinned(sections.toReversed(), DRAWN);

  return {
    bar,
    total: map.total,
    needed: map.needed,
    kerf: map.kerf,
    spare: map.spare,
    marks,
    map: fromButt.map((section) => [section.x, map.sAt(section.x)] as const),
    blank: {
      left: blank.left,
      right: blank.right,
      plunge: blank.plunge,
      upper: fromButt.map(({ x: at, top }) => [at, top] as const),
      lower: fromButt.map(({ x: at, bottom }) => [at, bottom] as const),
      bevel: fromButt.flatMap(({ x: at, bottom, b, isBevelled, W }) =>
        isBevelled && b < W - 0.05 ? [[at, bottom + b] as const] : [],
      ),
    },
    forms: forms.forms.map((form, i) => ({
      step: form.step,
      name: form.name,
      length: form.length,
      turn: form.turn,
      volume: form.volume,
      outline: thinned(outlines[i]!.outline, 2 * DRAWN),
      places: FORM_PLACES.map((name) => ({ name, ...formAt(form, formPlaceAt(blank, name)) })),
      along: thinned(form.at, DRAWN).map((place) => ({
        x: place.x,
        width: place.width,
        thickness: place.thickness,
        edge: place.edge,
        seconds: secondsAt(place, forge),
      })),
      section: formSection(formAt(form, x), blank.section(x)),
    })),
    preform: forms.preform,
    turn: forms.turn,
    sweep,
    sure,
    toWidth,
    heatsLearned: heatsLearned(shop),
    hot: expansionAt(forge.heat.stop),
    point: forms.point,
    grams,
    steps: work.steps,
    heats: { blade: work.blade, tang: work.tang },
    section: {
      finished: sectionShape(finishedSteel(blade).field, x),
      blank: blankShape(forging, x),
    },
    schools: schoolsOf(forging, forge, shop),
    middle: middleOf(fromButt),
  };
}

/** What is done to come to a form. */
const STEPS_TO: Readonly<Record<Form["step"], readonly string[]>> = {
  bar: ["preform"],
  point: ["point", "tang"],
  taper: ["taper"],
  tang: [],
  bevel: ["bevel"],
  straighten: ["straighten", "planish"],
  planish: [],
};

/** What a form takes at the fire: the steps that lead to it. */
export function stepsTo(
  { steps }: Pick<ForgeReport, "steps">,
  { step }: Pick<FormReport, "step">,
): StepWork[] {
  return steps.filter((one) => STEPS_TO[step].includes(one.step));
}

/** What a form measures at the place of it that becomes x, and how long it stays hot there; null beyond it. */
export function formAtX({ along }: FormReport, x: number): FormReport["along"][number] | null {
  const i = along.findIndex((place) => place.x >= x);
  if (i <= 0) return null;
  const [a, b] = [along[i - 1]!, along[i]!];
  const share = (x - a.x) / (b.x - a.x || 1);
  const mix = (one: number, other: number) => one + (other - one) * share;
  return {
    x,
    width: mix(a.width, b.width),
    thickness: mix(a.thickness, b.thickness),
    edge: a.edge === null || b.edge === null ? null : mix(a.edge, b.edge),
    seconds: mix(a.seconds, b.seconds),
  };
}

function middleOf(fromButt: readonly BlankSection[]): BevelSection | null {
  const set = fromButt.filter(({ isBevelled }) => isBevelled);
  const one = set[Math.floor(set.length / 2)];
  return one ? { T: one.T, W: one.W, b: one.b, e: one.e } : null;
}

function thinned<T>(all: readonly T[], most: number): T[] {
  const every = Math.max(1, Math.floor(all.length / most));
  return all.filter((_, i) => i % every === 0 || i === all.length - 1);
}

/** Columns up a section that is drawn. */
const UP = 40;

/** The blank's section square to x: closed, (z, y), right side +z; null beyond its ends. */
function blankShape({ blank }: Forging, x: number): Line | null {
  const section = blank.section(x);
  if (!section) return null;
  const ys = Array.from({ length: UP + 1 }, (_, i) => {
    const inside = Math.min(UP - 1e-6, Math.max(1e-6, i));
    return section.bottom + ((section.top - section.bottom) * inside) / UP;
  });
  if (section.isBolster) return roundShape(section);
  return [
    ...ys.map((y) => [blank.half("right", x, y), y] as const),
    ...ys.toReversed().map((y) => [-blank.half("left", x, y), y] as const),
  ];
}

function roundShape({ bottom, top }: BlankSection): Line {
  const [middle, r] = [(bottom + top) / 2, (top - bottom) / 2];
  return Array.from({ length: UP }, (_, i) => {
    const angle = (2 * Math.PI * i) / UP;
    return [r * Math.cos(angle), middle + r * Math.sin(angle)] as const;
  });
}

/** A form's own section, about the middle of the blank's. */
function formSection({ width, thickness, edge }: FormPlace, section: BlankSection | null): Line | null {
  if (!section) return null;
  const middle = (section.bottom + section.top) / 2;
  const [low, high, half] = [middle - width / 2, middle + width / 2, thickness / 2];
  if (edge === null || section.b <= 0)
    return [
      [half, low],
      [half, high],
      [-half, high],
      [-half, low],
    ];
  const line = low + Math.min(width, (section.b * width) / section.W);
  return [
    [edge / 2, low],
    [half, line],
    [half, high],
    [-half, high],
    [-half, line],
    [-edge / 2, low],
  ];
}

/** The schools of the trade beside one another on the same bar, each with what it costs. */
function schoolsOf(
  { sections, blank, bar, map, toWidth, sure }: Forging,
  forge: Forge,
  shop: Shop,
): ForgeSchool[] {
  const without = forge.order.filter((step) => step !== "taper");
  const at = without.indexOf("bevel");
  const taperFirst = forge.order.includes("taper")
    ? [...without.slice(0, at), "taper" as const, ...without.slice(at)]
    : [...forge.order];
  const taperLast = [...without.slice(0, at + 1), "taper" as const, ...without.slice(at + 1)];
  const isTaperLast = forge.order.indexOf("taper") > forge.order.indexOf("bevel");
  const wood = { before: 0, after: 1 };
  const bent = { before: sure, after: 1 - sure };
  const made = (
    name: string,
    words: string,
    order: ForgeStep[],
    turn: Pick<Forge["turn"], "before" | "after">,
  ): ForgeSchool => {
    const way = { ...forge, order, turn: { ...forge.turn, ...turn } };
    const forms = formsOf(sections, blank, bar, way, toWidth.mean);
    const plunge = blank.plunge ?? 0;
    const { blade, tang } = workOf(sections, bar, forms, way, {
      barLength: map.needed,
      plunge,
      hammer: shop.hammers?.[0] ?? HAMMER,
      ratio: heatsLearned(shop).ratio,
    });
    const isOrder = isTaperLast === (order === taperLast);
    return {
      name,
      words,
      turn: way.turn,
      order,
      isChosen: isOrder && Math.abs(forge.turn.before - turn.before) < 0.005,
      onWood: turn.after * forms.turn,
      heats: blade + tang,
      widest: Math.max(...forms.forms.find(({ step }) => step === "point")!.at.map(({ width }) => width)),
    };
  };
  return [
    made(
      "taper, then bevels; straightened on wood",
      "The blade sweeps up as its bevels come and is put back on wood, early.",
      taperFirst,
      wood,
    ),
    ...(sure > 0.005
      ? [
          made(
            "taper, then bevels; bent beforehand",
            "What is sure of the sweep is bent the other way first.",
            taperFirst,
            bent,
          ),
        ]
      : []),
    made(
      "bevels, then taper",
      "Set down on the full thickness: the edge is left thicker in proportion, and drawn out with the rest.",
      taperLast,
      wood,
    ),
  ];
}
