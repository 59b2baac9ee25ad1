import { studentAt } from "./distributions.ts";

/**
 * How far a figure can be trusted, put together as JCGM 100:2008 (the ISO guide to the expression of uncertainty in
 * measurement, GUM) does: standard uncertainties added in squares (clause 5.1.2), their degrees of freedom by Welch and
 * Satterthwaite (annex G.4), and an expanded figure that covers 95 of 100 (annex G.6.4).
 */
export interface Component {
  /** Where it comes from, in a maker's words. */
  readonly from: string;
  /** Standard uncertainty, in the unit of the figure. */
  readonly u: number;
  /** Degrees of freedom; Infinity where it is not an estimate from a few readings. */
  readonly freedom: number;
}

export interface Uncertainty {
  readonly u: number;
  readonly freedom: number;
  /** Covers 95 of 100: the figure lies within ± this. */
  readonly expanded: number;
  readonly components: readonly Component[];
}

/** Puts components together that have nothing to do with one another. */
export function combined(components: readonly Component[]): Uncertainty {
  const u = Math.hypot(...components.map((one) => one.u));
  const freedom = effectiveFreedom(components, u);
  return { u, freedom, expanded: u * coverage(freedom), components };
}

/** GUM G.2b; whole degrees of freedom are taken by cutting off, as G.4.1 says. */
export function effectiveFreedom(components: readonly Component[], u: number): number {
  const sum = components.reduce((total, one) => total + (one.u ** 4 / one.freedom || 0), 0);
  return sum > 0 ? u ** 4 / sum : Number.POSITIVE_INFINITY;
}

/** Standard normal deviate for 95 of 100. Source: GUM table G.1. */
const NORMAL_95 = 1.959964;

/** What covers 95 of 100, in standard uncertainties. Source: GUM table G.2, Student's t. */
export function coverage(freedom: number): number {
  return Number.isFinite(freedom) ? studentAt(0.975, Math.max(1, Math.floor(freedom))) : NORMAL_95;
}

/** A last figure as a standard uncertainty: anything within half of it reads the same. Source: GUM F.2.2.1. */
export function fromResolution(resolution: number): number {
  return resolution / Math.sqrt(12);
}

/** Mean, spread and standard uncertainty of repeats. Source: GUM 4.2. */
export function fromRepeats(values: readonly number[]): { mean: number; spread: number; u: number } {
  const mean = values.reduce((sum, value) => sum + value, 0) / values.length;
  if (values.length < 2) return { mean, spread: 0, u: 0 };
  const squares = values.reduce((sum, value) => sum + (value - mean) ** 2, 0);
  const spread = Math.sqrt(squares / (values.length - 1));
  return { mean, spread, u: spread / Math.sqrt(values.length) };
}
