/** One thing wrong with a document: where (a JSON path, RFC 9535) and what, in words. */
export interface Fault {
  readonly path: string;
  readonly message: string;
}

/** A JSON path from its steps: `pathOf("outline", "edge", 2)` is `$.outline.edge[2]`. */
export function pathOf(...steps: readonly (string | number)[]): string {
  return steps.reduce<string>((path, step) => {
    if (typeof step === "number") return `${path}[${step}]`;
    return /^[A-Za-z_]\w*$/.test(step) ? `${path}.${step}` : `${path}[${JSON.stringify(step)}]`;
  }, "$");
}

/** A JSON path from a JSON pointer (RFC 6901), as validators give it. */
export function pathFromPointer(pointer: string): string {
  const steps = pointer
    .split("/")
    .slice(1)
    .map((step) => step.replace(/~1/g, "/").replace(/~0/g, "~"));
  return pathOf(...steps.map((step) => (/^\d+$/.test(step) ? Number(step) : step)));
}
