import { compileField } from "../blade/field.ts";
import type { Blade } from "../blade/schema.ts";
import { barOf, type ForgeBar } from "../forge/bar.ts";
import { type Blank, type BlankSection, blankOf } from "../forge/blank.ts";
import { type FormOutline, formOutline } from "../forge/form-outline.ts";
import { type Form, type Forms, formsOf } from "../forge/forms.ts";
import { HAMMER, perSurfaceOfFlat, secondsToCool } from "../forge/heat.ts";
import { HEATS, type Learned, learned, sureOf, TO_WIDTH } from "../forge/learn.ts";
import { type BarMap, barMap, SCALE, sectionsOf } from "../forge/map.ts";
import type { Forge } from "../forge/schema.ts";
import { liftOf } from "../forge/set-down.ts";
import { workOf } from "../forge/work.ts";
import type { Shop } from "../shop/schema.ts";
import { densityOf } from "../steel/steels.ts";
import { radians } from "../units/angle.ts";
import { flatsToCome } from "./ladder.ts";
import type { Route } from "./schema.ts";

/** A part of the blank by its name, and where of the bar it is. mm. */
export interface Mark {
  readonly name: string;
  readonly x: number;
  readonly s: number;
}

/** The way from the bar to the blank, worked out backwards from the finished blade. */
export interface Forging {
  readonly bar: ForgeBar;
  readonly blank: Blank;
  readonly sections: readonly BlankSection[];
  readonly map: BarMap;
  readonly marks: readonly Mark[];
  readonly forms: Forms;
  readonly outlines: readonly FormOutline[];
  readonly work: ReturnType<typeof workOf>;
  /** Share of the set-down that goes to width: what the maker says, else what the shop has learned. */
  readonly toWidth: Learned & { readonly isSaid: boolean };
  /** Share of the turn that is sure enough to be bent beforehand. */
  readonly sure: number;
  /** What straightening on wood must take out, degrees, and what that lifts the tip by, mm. */
  readonly sweep: { readonly turn: number; readonly lift: number };
  /** g of the blank, of scale, and of what is cut off the point. */
  readonly grams: { readonly blank: number; readonly scale: number; readonly cut: number };
}

/** Times that heats are put into the scale they cost. */
const ROUNDS = 2;

/** The shop's own pieces as far as they say how much of a set-down went to width. */
export function toWidthOf({ forged = [] }: Pick<Shop, "forged">): Learned {
  return learned(
    TO_WIDTH,
    forged.flatMap(({ toWidth, reading }) =>
      toWidth === undefined ? [] : [{ value: toWidth, reading: reading ?? 0 }],
    ),
  );
}

/** The shop's own pieces as to heats: how many were counted for each that was expected, as a ratio with what it is uncertain by. */
export function heatsLearned({ forged = [] }: Pick<Shop, "forged">): Learned & { readonly ratio: number } {
  const said = learned(
    HEATS,
    forged.flatMap(({ heats }) =>
      heats ? [{ value: Math.log(heats.counted / heats.expected), reading: 0 }] : [],
    ),
  );
  return { ...said, ratio: Math.exp(said.mean) };
}

/** Works the forging out; null where nobody has said yet how wide the bar is. The blade must be sound. */
export function forgingOf(blade: Blade, route: Route, forge: Forge, shop: Shop): Forging | null {
  const bar = barOf(route);
  if (!bar) return null;
  const field = compileField(blade);
  const blank = blankOf(field, forge, { flats: flatsToCome(blade, route, shop) });
  const sections = sectionsOf(blank);
  const said = forge.turn.toWidth;
  const toWidth = {
    ...(said === undefined ? toWidthOf(shop) : { mean: said, u: 0, count: 0 }),
    isSaid: said !== undefined,
  };
  const forms = formsOf(sections, blank, bar, forge, toWidth.mean);
  const cut = forge.point.way === "cut" ? forms.point.length : 0;
  const plunge = blank.plunge ?? 0;
  const hammer = shop.hammers?.[0] ?? HAMMER;
  const { ratio } = heatsLearned(shop);
  let map = barMap(blank, bar, forge, { sections, cut });
  let work = workOf(sections, bar, forms, forge, { barLength: map.needed, plunge, hammer, ratio });
  for (let i = 0; i < ROUNDS; i++) {
    const heats = { blade: Math.min(MOST_HEATS, work.blade), tang: Math.min(MOST_HEATS, work.tang) };
    map = barMap(blank, bar, forge, { sections, cut, heats, scale: SCALE });
    work = workOf(sections, bar, forms, forge, { barLength: map.needed, plunge, hammer, ratio });
  }
  const density = densityOf(blade.steel) / 1000;
  const turn = forge.turn.after * forms.turn;
  return {
    bar,
    blank,
    sections,
    map,
    marks: marksOf(blank, forge, map),
    forms,
    outlines: forms.forms.map((form) => formOutline(form, sections)),
    work,
    toWidth,
    sure: sureOf(toWidth),
    sweep: { turn, lift: liftOf(Math.max(0, blank.right - plunge), radians(turn)).lift },
    grams: { blank: map.volume * density, scale: map.scaled * density, cut: map.cut * density },
  };
}

/** No piece is in the fire more often: beyond it steel is scale. */
const MOST_HEATS = 60;

function marksOf(blank: Blank, { bolster }: Forge, map: BarMap): Mark[] {
  const at = (name: string, x: number): Mark => ({ name, x, s: map.sAt(x) });
  return [
    at("tip", blank.right),
    ...(blank.plunge === null ? [] : [at("plunge", blank.plunge)]),
    at("junction", 0),
    ...(bolster ? [at("bolster, front", bolster.to), at("bolster, back", bolster.from)] : []),
    at("butt", blank.left),
  ].toSorted((a, b) => a.s - b.s);
}

/** Places that every form is measured at, by their names: a share of the blade ahead of the plunge, or of the tang behind the junction. */
export const FORM_PLACES = ["tang", "junction", "heel", "middle", "belly", "tip"] as const;
export type FormPlaceName = (typeof FORM_PLACES)[number];

/** Where a named place of the blank lies, mm from the junction. */
export function formPlaceAt(
  { left, right, plunge }: Pick<Blank, "left" | "right" | "plunge">,
  name: FormPlaceName,
): number {
  const from = plunge ?? 0;
  const ahead = (share: number) => from + share * (right - from);
  switch (name) {
    case "tang":
      return left / 2;
    case "junction":
      return 0;
    case "heel":
      return ahead(0.08);
    case "middle":
      return ahead(0.45);
    case "belly":
      return ahead(0.75);
    case "tip":
      return ahead(0.95);
  }
}

/** What a form measures at the place of it that becomes x. */
export function formAt(form: Form, x: number): Form["at"][number] {
  const i = Math.max(
    1,
    form.at.findIndex((place) => place.x >= x),
  );
  const [a, b] = [form.at[i - 1]!, form.at[i]!];
  const share = b.x > a.x ? Math.min(1, Math.max(0, (x - a.x) / (b.x - a.x))) : 0;
  const mix = (of: (place: typeof a) => number) => of(a) + (of(b) - of(a)) * share;
  return {
    x,
    along: mix(({ along }) => along),
    width: mix(({ width }) => width),
    thickness: mix(({ thickness }) => thickness),
    edge: a.edge === null || b.edge === null ? null : mix(({ edge }) => edge!),
    turned: mix(({ turned }) => turned),
  };
}

/** Seconds that the thinnest of a section stays between two temperatures, in still air. */
export function secondsAt(
  { edge, thickness }: Pick<Form["at"][number], "edge" | "thickness">,
  { heat }: Pick<Forge, "heat">,
): number {
  return secondsToCool(perSurfaceOfFlat(edge ?? thickness), heat.from, heat.stop);
}

/** What of a bar is left over. */
export function barLeft({ bar, map }: Pick<Forging, "bar" | "map">): number | null {
  return bar.length === null ? null : bar.length - map.total;
}
