import { degrees } from "../units/angle.ts";
import { barArea, type ForgeBar } from "./bar.ts";
import type { Blank, BlankSection } from "./blank.ts";
import type { Forge, ForgeStep } from "./schema.ts";
import { setDown } from "./set-down.ts";

/** A place of a form: where it lies along it from the butt, how wide and thick it is there, mm, and how far it has turned, degrees. */
export interface FormPlace {
  /** The place of the blank that becomes of it. */
  readonly x: number;
  readonly along: number;
  readonly width: number;
  readonly thickness: number;
  /** The edge, where it is set down. */
  readonly edge: number | null;
  readonly turned: number;
}

/** What the steel looks like when a step is done. */
export interface Form {
  readonly step: "bar" | ForgeStep;
  readonly name: string;
  readonly at: readonly FormPlace[];
  readonly length: number;
  /** mm³. */
  readonly volume: number;
  /** Degrees from plunge to tip, + the tip up. */
  readonly turn: number;
}

/** What is behind the forms. */
export interface Forms {
  readonly forms: readonly Form[];
  /** Width and thickness that a round bar is drawn to first; the bar's own of a flat one. */
  readonly preform: { readonly w: number; readonly t: number };
  /** Turn of the bevel alone, degrees, and what it lifts the tip by, mm. */
  readonly turn: number;
  /** How much of a thinning goes sideways while it is drawn, and how much would have to. */
  readonly spread: number;
  readonly spreadNeeded: number;
  /** The point: how long it is in form 2, and how far up the bar it is forged from, mm. */
  readonly point: { readonly length: number; readonly from: number };
}

/** Spread of a bar drawn out, S, by the bite as a share of its width. Source: A. Tomlinson and J. D. Stringer (1959), from memory of; for k 0.3 to 1.2. */
export function spreadOf(bite: number): number {
  return 0.14 + 0.36 * bite - 0.054 * bite ** 2;
}

/** A bite where nobody said, as a share of the width. Starting value. */
const USUAL_BITE = 2 / 3;
/** A point is where the pointed form is still narrower than this share of what the blade mostly is. */
const FULL = 0.9;

/** One place of a form: mm, mm²; `rate` is its length for each mm of the blank that becomes of it. */
interface Measured {
  readonly width: number;
  readonly thickness: number;
  readonly area: number;
  readonly rate: number;
  readonly edge?: number;
}

/** What a section has been through when its bevel is set down: on its own thickness, or on the bar's where the taper comes after. */
interface Undone {
  readonly stretch: number;
  /** Radians for each mm of the blank. */
  readonly turn: number;
}

/**
 * The forms between the bar and the blank, undone backwards: straight; bevelled and so turned; tapered, with what is bent beforehand;
 * pointed; the bar. Where the taper comes after the bevels they are set down on the bar's own thickness, the edge thicker in
 * proportion. Every one holds the same steel. mm, degrees. Source: geometry, volumes that are kept; the spread as said there.
 */
export function formsOf(
  sections: readonly BlankSection[],
  blank: Pick<Blank, "plunge" | "right">,
  bar: ForgeBar,
  forge: Pick<Forge, "preform" | "taper" | "turn" | "order">,
  toWidth: number,
): Forms {
  const fromButt = sections.toReversed();
  const isTaperLast = forge.order.indexOf("taper") > forge.order.indexOf("bevel");
  const spread = forge.taper.spread === "held" ? 0 : spreadOf(forge.taper.bite ?? USUAL_BITE);
  const worked = fromButt.filter(({ isBolster }) => !isBolster);
  const thickest = Math.max(...worked.map(({ T }) => T));
  const flat = bar.shape === "round" ? forge.preform : { w: bar.w, t: bar.t };
  const t0 = flat?.t ?? thickest;
  const end = lastTurned(fromButt, blank);
  /** Drawn out from the bar's thickness by so much: its length for each mm of the blank. */
  const drawn = ({ T }: BlankSection) => (T / t0) ** (1 - spread);
  const set = fromButt.map((section): Undone => {
    if (!section.isBevelled) return { stretch: 1, turn: 0 };
    const { T, W, b, e, x } = section;
    const wide = (T / t0) ** spread;
    const at = isTaperLast ? { T: t0, W: W * wide, b: b * wide, e: (e * t0) / T } : section;
    const { stretch, turn } = setDown(at, toWidth);
    const isTurned = blank.plunge !== null && x >= blank.plunge && x <= end;
    return { stretch, turn: isTurned ? turn * (isTaperLast ? drawn(section) : 1) : 0 };
  });
  /** Before its bevel, on the thickness it has then. */
  const unbevelled = ({ area, T }: BlankSection, i: number) => (area * set[i]!.stretch) / T;
  const pointed = (section: BlankSection, i: number) => unbevelled(section, i) * (section.T / t0) ** spread;
  const own = flat ?? {
    w: Math.max(...fromButt.map((section, i) => (section.isBolster ? 0 : pointed(section, i)))),
    t: t0,
  };
  const S = bar.shape === "round" ? own.w * own.t : barArea(bar);
  const { before: p, after: r } = forge.turn;
  const turned = fromButt.map(() => 0);
  for (let i = 1; i < fromButt.length; i++) {
    const dx = fromButt[i]!.x - fromButt[i - 1]!.x;
    turned[i] = turned[i - 1]! + ((set[i]!.turn + set[i - 1]!.turn) / 2) * dx;
  }
  const whole = degrees(turned.at(-1)!);
  /** A form from what it measures at each place. */
  const made = (
    step: Form["step"],
    name: string,
    of: (section: BlankSection, i: number) => Measured,
    share: number,
  ): Form => {
    let [along, volume] = [0, 0];
    // The bar itself stays where a bolster is.
    const measured = fromButt.map((section, i): Measured => {
      const { isBolster, W, T, area } = section;
      return isBolster ? { width: W, thickness: T, area, rate: 1 } : of(section, i);
    });
    const at = measured.map(({ width, thickness, edge }, i): FormPlace => {
      if (i > 0) {
        const [a, b] = [measured[i - 1]!, measured[i]!];
        const dx = fromButt[i]!.x - fromButt[i - 1]!.x;
        along += ((a.rate + b.rate) / 2) * dx;
        volume += ((a.rate * a.area + b.rate * b.area) / 2) * dx;
      }
      const { x } = fromButt[i]!;
      return { x, along, width, thickness, edge: edge ?? null, turned: share * degrees(turned[i]!) };
    });
    return { step, name, at, length: along, volume, turn: share * whole };
  };
  const slab = (width: number, thickness: number, rate: number): Measured => ({
    width,
    thickness,
    area: width * thickness,
    rate,
  });
  const finished = ({ W, T, e, area, isBevelled }: BlankSection): Measured => ({
    width: W,
    thickness: T,
    area,
    rate: 1,
    ...(isBevelled ? { edge: e } : {}),
  });
  const onBar = (section: BlankSection): Measured => {
    const { W, T, e, area, isBevelled } = section;
    const rate = drawn(section);
    const width = W * (T / t0) ** spread;
    return { width, thickness: t0, area: area / rate, rate, ...(isBevelled ? { edge: (e * t0) / T } : {}) };
  };
  const bent = p > 0 ? ", bent beforehand" : "";
  const first: Form[] = [
    made(
      "bar",
      bar.shape === "round" ? "drawn flat" : "the bar",
      ({ area }) => ({ ...slab(own.w, t0, area / S), area: S }),
      0,
    ),
    made(
      "point",
      `pointed, tang and shoulders${isTaperLast ? bent : ""}`,
      (section, i) => slab(pointed(section, i), t0, drawn(section) / set[i]!.stretch),
      isTaperLast ? -(1 - r) : -(1 - p - r),
    ),
  ];
  const middle: Form[] = isTaperLast
    ? [made("bevel", "bevelled", onBar, r), made("taper", "tapered", finished, r)]
    : [
        made(
          "taper",
          `tapered${bent}`,
          (section, i) => slab(unbevelled(section, i), section.T, 1 / set[i]!.stretch),
          -(1 - r),
        ),
        made("bevel", "bevelled", finished, r),
      ];
  const forms = [...first, ...middle, made("straighten", "straight and planished", finished, 0)];
  return {
    forms,
    preform: own,
    turn: whole,
    spread,
    spreadNeeded: bar.shape === "round" ? 0 : spreadNeeded(fromButt.map(unbevelled), fromButt, own),
    point: pointOf(
      fromButt,
      (i) => pointed(fromButt[i]!, i),
      (section, i) => drawn(section) / set[i]!.stretch,
      own.w,
      blank.plunge ?? 0,
    ),
  };
}

/** Forged toward the tip the turn goes on to where the blade has half its height. */
function lastTurned(
  fromButt: readonly BlankSection[],
  { plunge, right }: Pick<Blank, "plunge" | "right">,
): number {
  const blade = fromButt.filter(({ x }) => x >= (plunge ?? 0));
  const most = Math.max(...blade.map(({ W }) => W));
  return blade.findLast(({ W }) => W >= most / 2)?.x ?? right;
}

/** The spread that the widest place would need to come out of a bar so wide: ln(W₂/w)/ln(t₀/T); 0 where the bar is wide enough. */
function spreadNeeded(
  widths: readonly number[],
  sections: readonly BlankSection[],
  { w, t }: { readonly w: number; readonly t: number },
): number {
  return widths.reduce((most, width, i) => {
    const thinned = Math.log(t / sections[i]!.T);
    if (width <= w * 1.0001) return most;
    return Math.max(most, thinned > 1e-6 ? Math.log(width / w) / thinned : Number.POSITIVE_INFINITY);
  }, 0);
}

/** The stretch at the tip that is narrower than the bar, in form 2, and the bar that its steel fills. */
function pointOf(
  fromButt: readonly BlankSection[],
  w1: (i: number) => number,
  rate: (section: BlankSection, i: number) => number,
  w: number,
  plunge: number,
): Forms["point"] {
  const ahead = fromButt.flatMap(({ x, isBolster }, i) => (x >= plunge && !isBolster ? [w1(i)] : []));
  const most = Math.min(w, FULL * (ahead.toSorted((a, b) => a - b)[Math.floor(ahead.length / 2)] ?? 0));
  let [length, filled] = [0, 0];
  for (let i = fromButt.length - 1; i > 0; i--) {
    if (w1(i) >= most) break;
    const dx = fromButt[i]!.x - fromButt[i - 1]!.x;
    const step = ((rate(fromButt[i]!, i) + rate(fromButt[i - 1]!, i - 1)) / 2) * dx;
    length += step;
    filled += (step * (w1(i) + w1(i - 1))) / 2;
  }
  return { length, from: filled / w };
}
