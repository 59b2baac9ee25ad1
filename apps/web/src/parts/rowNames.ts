import type { Finding } from "@true-spine/core/findings/finding.ts";

/**
 * A name for each row of a list that it keeps while what it says changes under it, so that what has the focus or is being pressed stays: its
 * kind, and which of that kind it is.
 */
export function rowNames(kinds: readonly string[]): string[] {
  const seen = new Map<string, number>();
  return kinds.map((kind) => {
    const count = seen.get(kind) ?? 0;
    seen.set(kind, count + 1);
    return `${kind} ${count}`;
  });
}

/** Those of findings: their place counts only where several are alike. */
export function findingNames(findings: readonly Pick<Finding, "id" | "where">[]): string[] {
  const kindOf = ({ id, where }: Pick<Finding, "id" | "where">) => `${id} ${where.side ?? ""}`;
  return rowNames(
    findings.map((finding) => {
      const kind = kindOf(finding);
      const isOnly = findings.filter((other) => kindOf(other) === kind).length === 1;
      return isOnly ? kind : `${kind} ${finding.where.x?.join() ?? ""}`;
    }),
  );
}
