/** What the computation needs of a steel. Names are the standard grade designations. */
export interface Steel {
  readonly name: string;
  /** g/cm³. */
  readonly density: number;
  readonly family: "carbon" | "stainless";
}

/** Density of a plain carbon steel, g/cm³, used where no steel is named. Source: handbook value, 7.85. */
export const CARBON_DENSITY = 7.85;
/** Density of a martensitic stainless steel, g/cm³. Source: handbook value, 7.7. */
export const STAINLESS_DENSITY = 7.7;

const carbon = (name: string): Steel => ({ name, density: CARBON_DENSITY, family: "carbon" });
const stainless = (name: string): Steel => ({ name, density: STAINLESS_DENSITY, family: "stainless" });

/** Steels known at the start; a shop adds its own. */
export const STEELS: readonly Steel[] = [
  carbon("1065"),
  carbon("1075"),
  carbon("1084"),
  carbon("1095"),
  carbon("5160"),
  carbon("O1"),
  stainless("420"),
  stainless("440C"),
];

/** A steel's density by name, g/cm³; carbon steel's where the name is not known. */
export function densityOf(name: string | undefined): number {
  return STEELS.find((steel) => steel.name === name)?.density ?? CARBON_DENSITY;
}
