/** What handles and fittings are made of. Densities g/cm³, of dry wood where it is wood. */
export interface Material {
  readonly name: string;
  readonly density: number;
  readonly source: string;
}

const fromMemory = "from memory of handbook tables of densities";

export const MATERIALS: readonly Material[] = [
  { name: "walnut", density: 0.64, source: fromMemory },
  { name: "oak", density: 0.72, source: fromMemory },
  { name: "maple", density: 0.7, source: fromMemory },
  { name: "olive wood", density: 0.92, source: fromMemory },
  { name: "bog oak", density: 0.85, source: fromMemory },
  { name: "stabilized wood", density: 1.1, source: "common practice" },
  { name: "linen laminate", density: 1.35, source: fromMemory },
  { name: "glass laminate", density: 1.85, source: fromMemory },
  { name: "horn", density: 1.3, source: fromMemory },
  { name: "brass", density: 8.5, source: fromMemory },
  { name: "nickel silver", density: 8.7, source: fromMemory },
  { name: "bronze", density: 8.8, source: fromMemory },
  { name: "mild steel", density: 7.85, source: fromMemory },
  { name: "stainless steel", density: 7.9, source: fromMemory },
  { name: "aluminium", density: 2.7, source: fromMemory },
  { name: "titanium", density: 4.5, source: fromMemory },
];

/** A material's density, g/cm³. Throws RangeError for a name that is not in the list. */
export function densityOfMaterial(name: string): number {
  const found = MATERIALS.find((material) => material.name === name);
  if (!found) throw new RangeError(`no density is known for “${name}”`);
  return found.density;
}
