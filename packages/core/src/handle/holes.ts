import type { Hole, HoleUse } from "../blade/schema.ts";
import type { Handle } from "./schema.ts";

/** What a hole is drilled for, in words. */
export const HOLE_USES: Readonly<Record<HoleUse, string>> = {
  pin: "pin",
  bolt: "bolt",
  lanyard: "lanyard",
  glue: "glue",
  lighten: "lightening",
};

/** What a hole is called: by what it is for. */
export function nameOfHole({ for: use }: Pick<Hole, "for">): string {
  return use ? `${HOLE_USES[use]} hole` : "hole";
}

/** A hole as it is marked out: what for, how wide, where, and how a bolt's head is sunk. */
export function holeInWords(hole: Hole, say: (mm: number) => string): string {
  const { x, y, d, counterbore } = hole;
  const sunk = counterbore
    ? `, counterbore ${say(counterbore.d)} across, ${say(counterbore.depth)} deep`
    : "";
  const where = `${say(Math.abs(x))} ${x < 0 ? "behind" : "ahead of"} the junction`;
  return `${nameOfHole(hole)} ${say(d)} across: ${where}, ${say(-y)} below the datum${sunk}`;
}

/** Whether something goes through it that holds the scales. */
export function takesPin({ for: use }: Pick<Hole, "for">): boolean {
  return use === undefined || use === "pin" || use === "bolt";
}

/** What stays of one scale under the head of a bolt, mm; null without scales or a counterbore. */
export function lipUnder({ counterbore }: Hole, handle: Handle | null): number | null {
  const scales = handle?.parts.find((part) => part.kind === "scales");
  return scales && counterbore ? scales.thickness - counterbore.depth : null;
}
