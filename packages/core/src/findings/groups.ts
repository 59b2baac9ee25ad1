import type { Finding, Severity } from "./finding.ts";

/** A finding with what follows from it: put the one right, and the others go too. */
export interface FindingGroup {
  readonly finding: Finding;
  readonly consequences: readonly Finding[];
}

/**
 * What usually follows from what, where both are found at places that meet: the cause is told, the rest stands under it. Source: geometry.
 */
const FOLLOWS: Readonly<Record<string, readonly string[]>> = {
  // An edge that is ground away has no thickness, no bevel and no strength to speak of.
  "plane-below-apex": [
    "behind-edge-thin",
    "behind-edge-thick",
    "edge-bevel-widens",
    "edge-bevel-wide",
    "edge-swallows-bevel",
    "bevel-steeper-than-edge",
    "tip-thin",
    "zero-edge-fine",
    "edge-body-weak",
    "edge-apex-weak",
    "grind-line-runs-out",
  ],
  "taper-rises": ["thick-at-5", "thick-at-10", "wedge-thick", "behind-edge-thick", "tip-thin"],
  "plunge-wall": ["behind-edge-thick", "edge-bevel-widens", "edge-bevel-wide"],
  "edge-swallows-bevel": ["edge-bevel-wide", "edge-bevel-widens", "behind-edge-thick"],
  "faces-meet": ["grind-line-runs-out"],
};

const RANK: Readonly<Record<Severity, number>> = { fix: 0, watch: 1, note: 2 };

/** Whether two findings are at places that meet. */
function meets(one: Finding, cause: Finding): boolean {
  if (one === cause) return false;
  if (one.where.side && cause.where.side && one.where.side !== cause.where.side) return false;
  const [a, b] = [one.where.x, cause.where.x];
  return !a || !b || (a[0] <= b[1] && b[0] <= a[1]);
}

/** Whether `one` follows from `cause`: by its kind, by having the same cure, or because the cure of the one was seen to clear the other. */
function followsFrom(one: Finding, cause: Finding): boolean {
  if (!meets(one, cause)) return false;
  // What by its kind follows stands under its cause, however bad it is itself.
  if (FOLLOWS[cause.id]?.includes(one.id)) return true;
  if (RANK[one.severity] < RANK[cause.severity]) return false;
  if (cause.clears?.includes(one.id)) return true;
  const [mine, its] = [one.remedies[0], cause.remedies[0]];
  return !!mine && !!its && JSON.stringify(mine.changes) === JSON.stringify(its.changes);
}

/** The same findings with every cause before what follows from it by its kind. */
export function causesFirst(findings: readonly Finding[]): Finding[] {
  const ordered = [...findings];
  for (const cause of findings) {
    const follows = FOLLOWS[cause.id];
    const first = ordered.findIndex((one) => follows?.includes(one.id) && meets(one, cause));
    const at = ordered.indexOf(cause);
    if (first >= 0 && first < at) ordered.splice(first, 0, ...ordered.splice(at, 1));
  }
  return ordered;
}

/**
 * Findings with one cause as one, its consequences under it; worst first, and of equals the cause before what follows from it.
 */
export function groupFindings(findings: readonly Finding[]): FindingGroup[] {
  const follows = (one: Finding) => findings.filter((cause) => followsFrom(one, cause));
  // What stands under nothing leads; of two that stand under each other, the first.
  const isLed = new Map<Finding, Finding>();
  for (const [i, one] of findings.entries()) {
    const cause = follows(one).find((other) => {
      if (isLed.get(other) === one) return false;
      return findings.indexOf(other) < i || !followsFrom(other, one);
    });
    if (cause) isLed.set(one, cause);
  }
  const rootOf = (one: Finding, seen: readonly Finding[] = []): Finding => {
    const cause = isLed.get(one);
    return cause && !seen.includes(cause) ? rootOf(cause, [...seen, one]) : one;
  };
  const groups = findings
    .filter((one) => rootOf(one) === one)
    .map((finding) => ({
      finding,
      consequences: findings.filter((one) => one !== finding && rootOf(one) === finding),
    }));
  const worst = ({ finding, consequences }: FindingGroup) =>
    Math.min(...[finding, ...consequences].map(({ severity }) => RANK[severity]));
  return groups.sort((a, b) => worst(a) - worst(b));
}
