import { dxAt, dyAt } from "./bezier.ts";
import { placeAt } from "./chain.ts";
import type { Field } from "./field.ts";
import { FLAT, isPrimary } from "./half.ts";
import { exitAlong } from "./outline.ts";
import type { Side } from "./schema.ts";
import type { PerSide } from "./station.ts";

type Line = readonly (readonly [number, number])[];

/** A ridge from the edge up, and where on it the faces toward the heel and toward the tip come out into the flat. */
export interface Ridge {
  readonly line: Line;
  readonly heelward: readonly [number, number];
  readonly tipward: readonly [number, number];
}

/** A corner of the edge that turns less is none, as a sine. */
const LEAST_TURN = 0.02;
/** How far apart a ridge is looked at along itself, and to either side of itself, mm. */
const STEP = 0.25;
const BESIDE = 0.02;

/**
 * The ridges of a compound tip: where the edge has a corner, the faces on either side of it meet along the line that halves the
 * corner, up to where both have run out into the flat. A table of heights may step there. Source: geometry, the places whose nearest
 * place on the edge is one on either side.
 */
export function ridgesOf(field: Field): PerSide<readonly Ridge[]> {
  const { edge, ring } = field;
  const corners = edge.segments.slice(1).flatMap((after, k) => {
    const before = edge.segments[k]!;
    const [ax, ay] = unit(dxAt(before, 1), dyAt(before, 1));
    const [bx, by] = unit(dxAt(after, 0), dyAt(after, 0));
    // Only where the edge turns into the blade: on the other side the faces sweep round its point.
    if (ax * by - ay * bx < LEAST_TURN) return [];
    const { x, y } = placeAt(edge, edge.s0[edge.firstInterval[k + 1]!]!);
    return [{ x, y, inward: unit(-ay - by, ax + bx) }];
  });
  const on = (side: Side): Ridge[] =>
    corners.flatMap(({ x, y, inward: [dx, dy] }) => {
      const end = exitAlong(ring, x, y, dx, dy, 1e-3);
      const surface = (s: number, beside: number) => {
        field.sampleAt(x + s * dx - beside * dy, y + s * dy + beside * dx);
        return field[side].surface;
      };
      const at = (s: number): [number, number] => [x + s * dx, y + s * dy];
      const line: [number, number][] = [];
      const out = [0, 0];
      for (let s = 0; s < end; s += STEP) {
        const both = [surface(s + 1e-6, BESIDE), surface(s + 1e-6, -BESIDE)];
        if (both.every((one) => one === FLAT)) break;
        both.forEach((one, i) => {
          if (one !== FLAT) out[i] = s + STEP / 2;
        });
        if (both.some(isPrimary)) line.push(at(s));
      }
      return line.length > 1 ? [{ line, heelward: at(out[0]!), tipward: at(out[1]!) }] : [];
    });
  const right = on("right");
  return { right, left: field.alike ? right : on("left") };
}

function unit(x: number, y: number): [number, number] {
  const size = Math.hypot(x, y) || 1;
  return [x / size, y / size];
}
