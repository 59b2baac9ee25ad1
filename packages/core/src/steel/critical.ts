import { type Composition, USUAL_SILICON } from "./composition.ts";

/**
 * Critical points of a steel by its composition, °C. Source: K. W. Andrews, JISI 203 (1965), from memory of: for carbon up to 0.6 %; above
 * that beyond the formula, and said so. Spreads are starting values.
 */
export const SPREAD = { Ac1: 15, Ac3: 25, Ms: 25, Acm: 20 } as const;
/** Carbon of pearlite, %, and where it melts into austenite, °C. */
export const EUTECTOID = 0.77;
const EUTECTOID_AT = 727;
/** Slope of the line Acm, °C for each %: through 0.77/727 and 2.11/1148. Source: iron–carbon diagram, from memory of. */
const ACM_SLOPE = 314;
/** Beyond it the formulas are carried on, and that is said. */
export const FORMULA_TO = 0.6;

/** Pearlite begins to dissolve on heating. */
export function ac1({ Mn, Si = USUAL_SILICON, Ni = 0, Cr = 0, W = 0 }: Composition): number {
  return 723 - 10.7 * Mn - 16.9 * Ni + 29.1 * Si + 16.9 * Cr + 6.38 * W;
}

/** The last ferrite is gone; never below Ac1. */
export function ac3(steel: Composition): number {
  const { C, Si = USUAL_SILICON, Ni = 0, V = 0, Mo = 0, W = 0 } = steel;
  const by = 910 - 203 * Math.sqrt(C) - 15.2 * Ni + 44.7 * Si + 104 * V + 31.5 * Mo + 13.1 * W;
  return Math.max(ac1(steel), by);
}

/** All carbide is dissolved, of steel with more carbon than pearlite. */
export function acm({ C }: Composition): number {
  return EUTECTOID_AT + ACM_SLOPE * (C - EUTECTOID);
}

/** Where a steel is austenite throughout: Acm above pearlite's carbon, else Ac3; at least Ac1. */
export function austenitic(steel: Composition): number {
  return Math.max(ac1(steel), steel.C > EUTECTOID ? acm(steel) : ac3(steel));
}

/** Carbon that is in solution at a temperature, %: what is above that stays carbide. */
export function dissolvedAt({ C }: Composition, celsius: number): number {
  return Math.min(C, Math.max(0, EUTECTOID + (celsius - EUTECTOID_AT) / ACM_SLOPE));
}

/** Martensite starts to form, by both of Andrews' formulas, of steel with its carbon as it is dissolved. */
export function martensiteStart(steel: Composition): { linear: number; product: number } {
  const { C, Mn, Ni = 0, Cr = 0, Mo = 0 } = steel;
  return {
    linear: 539 - 423 * C - 30.4 * Mn - 17.7 * Ni - 12.1 * Cr - 7.5 * Mo,
    product: 512 - 453 * C - 16.9 * Ni + 15 * Cr - 9.5 * Mo + 217 * C ** 2 - 71.5 * C * Mn - 67.6 * C * Cr,
  };
}

/** Share of austenite that is left when a quench ends at a temperature: ranks, and promises nothing. Source: D. P. Koistinen and R. E. Marburger (1959), from memory of. */
export function retained(start: number, end: number): number {
  return end >= start ? 1 : Math.exp(-0.011 * (start - end));
}

/** Iron loses its magnetism there, whatever is in it, °C. From memory of. */
const CURIE = 770;

/** From where to where a magnet lets go on heating, °C: well short of hardening heat. */
export function magnetLetsGo(steel: Composition): readonly [number, number] {
  const from = ac1(steel);
  return [from, steel.C > EUTECTOID ? from + 30 : Math.min(CURIE, Math.max(from + 30, austenitic(steel)))];
}
