import type { Ask, Given, Nearest, Say, Sum } from "./sum.ts";

/** How far one figure is moved to find what is possible, as shares of itself: near ones first, up to tenfold. */
const STEPS = [0.01, 0.03, 0.08, 0.2, 0.4, 0.7, 1.2, 2, 4, 9] as const;
/** How nearly the border is then found, as a share of the way to it. */
const HALVINGS = 10;

/** Rounded to what a maker types: a hundredth of a millimetre, a tenth of a degree, toward `inside`. */
function rounded(kind: Ask["kind"], value: number, inside: number): number {
  const step = kind === "angle" ? 0.1 : 0.01;
  const round = inside > value ? Math.ceil : Math.floor;
  return Number((round(value / step - (inside > value ? 1e-9 : -1e-9)) * step).toFixed(4));
}

/**
 * The nearest that is possible to an impossible question: one of its figures moved by as small a share of itself as will do, the rest
 * kept. Nothing where no one figure does it.
 */
export function nearestOf(sum: Sum, given: Given, say: Say): Nearest | undefined {
  const isAnswered = (key: string, value: number) =>
    sum.answer({ ...given, [key]: value }, say).state === "answered";
  let best: { ask: Ask; value: number; share: number } | null = null;
  for (const ask of sum.asks) {
    const value = given[ask.key];
    if (typeof value !== "number" || ask.kind === "choice" || ask.kind === "text") continue;
    const found = moved(ask, value, (to) => isAnswered(ask.key, to));
    if (!found) continue;
    const share = Math.abs(found - value) / Math.max(Math.abs(value), 1e-9);
    if (!best || share < best.share) best = { ask, value: found, share };
  }
  if (!best) return undefined;
  const { ask, value } = best;
  const told =
    ask.kind === "length" ? say.length(value) : ask.kind === "angle" ? say.angle(value) : String(value);
  return { words: `With ${lowered(ask.name)} ${told} it can be.`, given: { [ask.key]: value } };
}

const lowered = (name: string) => name.charAt(0).toLowerCase() + name.slice(1);

/** A figure moved as little as will do, either way; null where nothing does. */
function moved(ask: Ask, value: number, isPossible: (to: number) => boolean): number | null {
  let best: number | null = null;
  for (const way of [1, -1]) {
    const size = Math.max(Math.abs(value), 0.1);
    const step = STEPS.find((share) => isPossible(value + way * share * size));
    if (step === undefined) continue;
    let [no, yes] = [value, value + way * step * size];
    for (let i = 0; i < HALVINGS; i++) {
      const middle = (no + yes) / 2;
      if (isPossible(middle)) yes = middle;
      else no = middle;
    }
    const told = rounded(ask.kind, yes, value + way * step * size);
    const to = isPossible(told) ? told : yes;
    if (best === null || Math.abs(to - value) < Math.abs(best - value)) best = to;
  }
  return best;
}
