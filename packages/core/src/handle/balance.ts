import { compileField, type Field, thicknessAt } from "../blade/field.ts";
import { massOf, sectionSums, solidBetween } from "../blade/mass.ts";
import { isInside, spansAt } from "../blade/outline.ts";
import { gauss } from "../blade/quadrature.ts";
import type { Blade } from "../blade/schema.ts";
import { densityOf } from "../steel/steels.ts";
import { densityOfMaterial } from "./materials.ts";
import type { Handle, HandlePart, Pin } from "./schema.ts";

/** A thing's mass, g, and where its centre lies along the blade, mm from the junction. */
export interface Weight {
  readonly name: string;
  readonly mass: number;
  readonly x: number;
}

export interface Balance {
  readonly parts: readonly Weight[];
  readonly mass: number;
  /** Balance point from the junction, and from the foremost plunge's foot where there is one; + toward the tip. */
  readonly x: number;
  readonly fromPlunge: number | null;
}

const STRETCHES = 24;

/** Weighs the blade with its handle on. Throws RangeError for a material without a known density. */
export function balanceOf(field: Field, handle: Handle | null): Balance {
  const steel = solidBetween(field);
  const parts: Weight[] = [
    { name: "steel", mass: massOf(steel.volume, densityOf(field.blade.steel)), x: steel.centre[0] },
    ...(handle?.parts.map((part) => weighPart(field, part)) ?? []),
    ...(handle?.pins.map((pin) => weighPin(field, pin)) ?? []),
  ];
  const mass = parts.reduce((sum, part) => sum + part.mass, 0);
  const x = parts.reduce((sum, part) => sum + part.mass * part.x, 0) / mass;
  const plunges = [field.plunges.right?.x, field.plunges.left?.x].filter((p) => p !== undefined);
  return { parts, mass, x, fromPlunge: plunges.length > 0 ? x - Math.max(...plunges) : null };
}

function weighPart(field: Field, part: HandlePart): Weight {
  const density = densityOfMaterial(part.material);
  if (part.kind === "scales") {
    const to = Math.min(part.front, field.ring.right);
    const { volume, x } = alongX(field.ring.left, to, (at) => {
      const tall = spansAt(field.ring, at).reduce((sum, [low, high]) => sum + high - low - 2 * part.inset, 0);
      return 2 * part.thickness * Math.max(0, tall) * part.fullness;
    });
    return { name: "scales", mass: massOf(volume, density), x };
  }
  const { volume, x } = alongX(part.from, part.to, (at) => {
    const { area } = sectionSums(field, at, spansAt(field.ring, at));
    return Math.max(0, part.height * part.thickness * part.fullness - area);
  });
  return { name: part.kind === "block" ? "block" : part.name, mass: massOf(volume, density), x };
}

/** Volume and centre of something whose section along x is known. */
function alongX(from: number, to: number, area: (x: number) => number): { volume: number; x: number } {
  const { node, weight } = gauss(3);
  let [volume, moment] = [0, 0];
  for (let i = 0; i < STRETCHES && to > from; i++) {
    const half = (to - from) / STRETCHES / 2;
    const middle = from + (2 * i + 1) * half;
    for (let k = 0; k < node.length; k++) {
      const x = middle + half * node[k]!;
      const w = weight[k]! * half * area(x);
      volume += w;
      moment += w * x;
    }
  }
  return { volume, x: volume > 0 ? moment / volume : (from + to) / 2 };
}

/** A pin displaces scale and, where no hole is drilled for it, tang: its mass is counted whole less the scales'. */
function weighPin(field: Field, pin: Pin): Weight {
  const bore = Math.min(pin.bore, pin.diameter);
  const section = (Math.PI / 4) * (pin.diameter ** 2 - bore ** 2);
  const isDrilled = (field.blade.holes ?? []).some(
    (hole) => Math.hypot(hole.x - pin.x, hole.y - pin.y) < 0.5 && hole.d >= pin.diameter - 0.5,
  );
  const isThrough = !isDrilled && isInside(field.ring, pin.x, pin.y);
  const tang = !isThrough ? 0 : (Math.PI / 4) * pin.diameter ** 2 * thicknessAt(field, pin.x, pin.y);
  const steel = massOf(tang, densityOf(field.blade.steel));
  return {
    name: "pin",
    mass: massOf(section * pin.length, densityOfMaterial(pin.material)) - steel,
    x: pin.x,
  };
}

/** What one change does to the balance point, mm, + toward the tip, and to the mass, g. */
export interface Lever {
  readonly name: string;
  readonly change: string;
  readonly balance: number;
  readonly mass: number;
}

/** What would move the balance: taper, tang holes, tip, each by a small step and computed again. */
export function balanceLevers(blade: Blade, handle: Handle | null): Lever[] {
  const before = balanceOf(compileField(blade), handle);
  const last = blade.thickness.length - 1;
  const tries: { name: string; change: string; make: (copy: Blade) => void }[] = [
    {
      name: "distal taper",
      change: "0.2 mm thinner at the tip",
      make: (copy) => {
        copy.thickness[last]!.t = Math.max(0.3, copy.thickness[last]!.t - 0.2);
      },
    },
    {
      name: "tang taper",
      change: "0.2 mm thinner at the butt",
      make: (copy) => {
        copy.thickness[0]!.t = Math.max(0.3, copy.thickness[0]!.t - 0.2);
      },
    },
    {
      name: "tang holes",
      change: "every hole 1 mm wider",
      make: (copy) => {
        for (const hole of copy.holes ?? []) hole.d += 1;
      },
    },
    {
      name: "tip",
      change: "tip dropped 2 mm",
      make: (copy) => {
        const { spine, edge } = copy.outline;
        const tip = spine[spine.length - 1]!.at;
        spine[spine.length - 1]!.at = [tip[0], tip[1] - 2];
        edge[edge.length - 1]!.at = [tip[0], tip[1] - 2];
      },
    },
  ];
  return tries.map(({ name, change, make }) => {
    const copy = structuredClone(blade);
    make(copy);
    const after = balanceOf(compileField(copy), handle);
    return { name, change, balance: after.x - before.x, mass: after.mass - before.mass };
  });
}
