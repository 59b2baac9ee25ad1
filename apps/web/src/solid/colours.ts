/** Thin to thick, as colours that differ in lightness too, so that they can be told apart without hue. */
const STOPS: readonly (readonly [number, number, number])[] = [
  [255, 106, 71],
  [255, 210, 122],
  [214, 228, 240],
  [92, 144, 200],
  [28, 72, 127],
];

/** Red, green, blue, 0…1, for a share from thin (0) to thick (1). */
export function thicknessColour(share: number): [number, number, number] {
  const at = Math.min(1, Math.max(0, share)) * (STOPS.length - 1);
  const low = Math.min(STOPS.length - 2, Math.floor(at));
  const [a, b] = [STOPS[low]!, STOPS[low + 1]!];
  const mix = (i: 0 | 1 | 2) => (a[i] + (b[i] - a[i]) * (at - low)) / 255;
  return [mix(0), mix(1), mix(2)];
}

/** The same scale as a CSS gradient, thin at the left. */
export const THICKNESS_GRADIENT = `linear-gradient(to right, ${STOPS.map((stop) => `rgb(${stop.join(" ")})`).join(", ")})`;
