import type { Blade, Side } from "../blade/schema.ts";
import type { Limit } from "./limits.ts";

/** fix: it will not do as it is; watch: it may do, look; note: worth knowing. */
export type Severity = "fix" | "watch" | "note";

/** Where on the blade: which side (both when not said), and from where to where along x, mm. */
export interface Place {
  readonly side?: Side;
  /** Said where it is the second edge. */
  readonly edge?: "second";
  readonly x?: readonly [number, number];
}

/** One value put at one place of the blade file; an absent value takes the key away. */
export interface Change {
  readonly path: readonly (string | number)[];
  readonly value?: unknown;
}

/** A change that clears a finding: in words with its figures, and as data. */
export interface Remedy {
  readonly words: string;
  readonly changes: readonly Change[];
}

/** One judgement: what, where, by how much, why, and what to do about it. */
export interface Finding {
  readonly id: string;
  readonly severity: Severity;
  readonly where: Place;
  /** Measured and wanted figures, in `unit`. */
  readonly measured?: number;
  readonly wanted?: readonly [number | null, number | null];
  readonly unit?: "mm" | "degrees";
  readonly message: string;
  readonly advice: string;
  readonly basis: string;
  /** The limit of the purpose that was passed, where it was one: it can be changed for the blade. */
  readonly limit?: Limit;
  /** Candidates, best first; only those that confirm.ts has put to the test may be shown. */
  readonly remedies: readonly Remedy[];
  /** Ids of other findings that were seen to go with the remedy that holds. */
  readonly clears?: readonly string[];
}

/** A finding with what may be done about it at one press. */
export interface Offered<Offer> extends Finding {
  readonly offers: readonly Offer[];
}

/** A finding by its words; what else there is of it after them. */
export function found(
  id: string,
  severity: Severity,
  message: string,
  advice: string,
  basis: string,
  more: Partial<Finding> = {},
): Finding {
  return { id, severity, where: {}, message, advice, basis, remedies: [], ...more };
}

/** The same with what is offered, if anything is. */
export function offering<Offer>(
  id: string,
  severity: Severity,
  message: string,
  advice: string,
  basis: string,
  { offers = [], ...more }: Partial<Offered<Offer>> = {},
): Offered<Offer> {
  return { ...found(id, severity, message, advice, basis, more), offers };
}

/** A rule that had nothing to judge by, and why. */
export interface NotJudged {
  readonly id: string;
  readonly why: string;
}

/** A blade with changes put in. Containers that a path needs must exist. */
export function withChanges(blade: Blade, changes: readonly Change[]): Blade {
  const copy = structuredClone(blade);
  for (const { path, value } of changes) {
    let holder = copy as unknown as Record<string | number, unknown>;
    for (const step of path.slice(0, -1)) holder = holder[step] as Record<string | number, unknown>;
    const last = path[path.length - 1]!;
    if (value === undefined) delete holder[last];
    else holder[last] = structuredClone(value);
  }
  return copy;
}
