/** Colours of hot steel, as ranges: eyes and light differ. Sources: from memory of Pouillet, Howe, and White and Taylor, 100 °C apart. */
const GLOWS: readonly (readonly [string, number, number])[] = [
  ["dark red", 550, 700],
  ["cherry", 700, 900],
  ["bright cherry", 840, 1000],
  ["orange", 900, 1100],
  ["yellow", 950, 1200],
];

/** Oxide on a bright face, plain carbon steel, minutes at heat, °C. Source: Machinery's Handbook, from memory of; ± 15. */
const OXIDES: readonly (readonly [string, number])[] = [
  ["pale straw", 220],
  ["straw", 232],
  ["brown", 254],
  ["purple", 277],
  ["blue", 293],
];
const OFF = 15;

/** What it may look like at a temperature, °C: every name for it; empty where it neither glows nor colours. */
export function looksAt(celsius: number): string[] {
  const glow = GLOWS.filter(([, low, high]) => celsius >= low && celsius <= high).map(([name]) => name);
  return glow.length > 0
    ? glow
    : OXIDES.filter(([, at]) => Math.abs(celsius - at) <= OFF).map(([name]) => name);
}
