/**
 * Colours of steel as temperatures, one table for every box and every text. Eyes and light differ, so that a colour is a range; computed
 * with is its middle. Sources: glow from memory of Pouillet, Howe, and White and Taylor, 100 °C apart; oxide on a bright face of plain
 * carbon steel, minutes at heat, from memory of Machinery's Handbook, ± 15; 770 °C is the Curie temperature of iron.
 */
export interface Colour {
  readonly name: string;
  readonly low: number;
  readonly high: number;
}

const GLOWS: readonly Colour[] = [
  { name: "dark red", low: 550, high: 700 },
  { name: "cherry", low: 700, high: 900 },
  { name: "bright cherry", low: 840, high: 1000 },
  { name: "orange", low: 900, high: 1100 },
  { name: "yellow", low: 950, high: 1200 },
];
const OFF = 15;
const oxide = (name: string, at: number): Colour => ({ name, low: at - OFF, high: at + OFF });
const OXIDES: readonly Colour[] = [
  oxide("pale straw", 220),
  oxide("straw", 232),
  oxide("brown", 254),
  oxide("purple", 277),
  { name: "blue", low: 288, high: 299 },
];
/** Other words for them, and words for a part of a range. */
const ALSO: readonly Colour[] = [
  { name: "red", low: 550, high: 700 },
  { name: "cherry red", low: 700, high: 900 },
  { name: "bright orange", low: 1000, high: 1100 },
  { name: "non-magnetic", low: 770, high: 770 },
];

export const middleOf = ({ low, high }: Colour) => (low + high) / 2;

/**
 * The range that a colour's name, or "non-magnetic", stands for, °C; null where the word is not known.
 *
 * @example colourNamed("orange") // { name: "orange", low: 900, high: 1100 }
 */
export function colourNamed(word: string): Colour | null {
  const said = word.trim().toLowerCase().replace(/\s+/g, " ").replace("nonmagnetic", "non-magnetic");
  return [...GLOWS, ...OXIDES, ...ALSO].find(({ name }) => name === said) ?? null;
}

const nearest = (colours: readonly Colour[], celsius: number) =>
  colours.reduce((a, b) => (Math.abs(middleOf(b) - celsius) < Math.abs(middleOf(a) - celsius) ? b : a));

/** Below this steel does not glow, °C. */
const GLOWS_FROM = 550;

/**
 * The colour that a temperature looks like, °C: the one whose middle is nearest. Null where steel neither glows nor takes a colour.
 *
 * @example colourAt(899)?.name // "bright cherry"
 */
export function colourAt(celsius: number): Colour | null {
  if (celsius >= GLOWS_FROM) return nearest(GLOWS, celsius);
  const oxide = nearest(OXIDES, celsius);
  return celsius >= oxide.low - 1e-9 && celsius <= oxide.high + OFF ? oxide : null;
}

/** A colour with its range: `orange, 900 to 1100 °C`. */
export const colourInWords = ({ name, low, high }: Colour) =>
  low === high ? `${name}, ${low} °C` : `${name}, ${low} to ${high} °C`;
