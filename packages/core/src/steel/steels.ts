/** What the computation needs of a steel. Names are the standard grade designations. */
export interface Steel {
  readonly name: string;
  /** g/cm³. */
  readonly density: number;
  readonly family: "carbon" | "stainless";
  /** Manganese by its standard, % least and most. Source: from memory of SAE J403, ASTM A29 and A681. */
  readonly manganese: readonly [number, number];
}

/** Density of a plain carbon steel, g/cm³, used where no steel is named. Source: handbook value, 7.85. */
export const CARBON_DENSITY = 7.85;
/** Density of a martensitic stainless steel, g/cm³. Source: handbook value, 7.7. */
export const STAINLESS_DENSITY = 7.7;

const carbon = (name: string, least: number, most: number): Steel => ({
  name,
  density: CARBON_DENSITY,
  family: "carbon",
  manganese: [least, most],
});
const stainless = (name: string): Steel => ({
  name,
  density: STAINLESS_DENSITY,
  family: "stainless",
  manganese: [0, 1],
});

/** Steels known at the start; a shop adds its own. */
export const STEELS: readonly Steel[] = [
  carbon("1065", 0.6, 0.9),
  carbon("1075", 0.4, 0.7),
  carbon("1084", 0.6, 0.9),
  carbon("1095", 0.3, 0.5),
  carbon("5160", 0.75, 1),
  carbon("O1", 1, 1.4),
  stainless("420"),
  stainless("440C"),
];

/** A steel's density by name, g/cm³; carbon steel's where the name is not known. */
export function densityOf(name: string | undefined): number {
  return STEELS.find((steel) => steel.name === name)?.density ?? CARBON_DENSITY;
}
