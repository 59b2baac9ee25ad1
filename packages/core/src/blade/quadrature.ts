/**
 * Gauss–Legendre nodes and weights on −1…1. Source: roots of the Legendre polynomials, found by Newton's
 * method from the usual cosine start (Abramowitz & Stegun 25.4.29, from memory of); exact to degree 2n − 1.
 */
export interface Rule {
  readonly node: Float64Array;
  readonly weight: Float64Array;
}

const rules = new Map<number, Rule>();

/** The n-point rule, made once. n is 1…64. */
export function gauss(n: number): Rule {
  const made = rules.get(n);
  if (made) return made;
  const node = new Float64Array(n);
  const weight = new Float64Array(n);
  for (let i = 0; i < n; i++) {
    let x = Math.cos((Math.PI * (i + 0.75)) / (n + 0.5));
    let slope = 1;
    for (let step = 0; step < 100; step++) {
      let previous = 1;
      let value = x;
      for (let k = 2; k <= n; k++) {
        [previous, value] = [value, ((2 * k - 1) * x * value - (k - 1) * previous) / k];
      }
      if (n === 1) previous = 1;
      slope = (n * (x * value - previous)) / (x * x - 1);
      const moved = value / slope;
      x -= moved;
      if (Math.abs(moved) < 1e-15) break;
    }
    node[i] = x;
    weight[i] = 2 / ((1 - x * x) * slope * slope);
  }
  const rule = { node, weight };
  rules.set(n, rule);
  return rule;
}

/** ∫ f over from…to by the n-point rule. */
export function integrate(f: (x: number) => number, from: number, to: number, n: number): number {
  const { node, weight } = gauss(n);
  const half = (to - from) / 2;
  const middle = (to + from) / 2;
  let sum = 0;
  for (let i = 0; i < n; i++) sum += weight[i]! * f(middle + half * node[i]!);
  return sum * half;
}

/** A rule on 0…1: places and weights. */
export interface UnitRule {
  readonly place: Float64Array;
  readonly weight: Float64Array;
}

const plain = new Map<number, UnitRule>();
const bunched = new Map<number, UnitRule>();

/** The n-point rule moved to 0…1. */
export function plainRule(n: number): UnitRule {
  return made(plain, n, (node, weight) => [(node + 1) / 2, weight / 2]);
}

/**
 * The n-point rule bunched toward both ends by place = sin² θ: right for what starts or ends like a square
 * root, which the plain rule takes badly. Source: the usual trigonometric change of variable.
 */
export function bunchedRule(n: number): UnitRule {
  return made(bunched, n, (node, weight) => {
    const angle = (Math.PI / 4) * (node + 1);
    return [Math.sin(angle) ** 2, (weight * Math.PI * Math.sin(2 * angle)) / 4];
  });
}

function made(
  kept: Map<number, UnitRule>,
  n: number,
  move: (node: number, weight: number) => [number, number],
): UnitRule {
  let rule = kept.get(n);
  if (!rule) {
    const { node, weight } = gauss(n);
    const moved = Array.from(node, (x, i) => move(x, weight[i]!));
    // Scaled to hold what is even exactly: the change of variable alone leaves a few parts in 10⁹.
    const sum = moved.reduce((total, m) => total + m[1], 0);
    rule = {
      place: Float64Array.from(moved, (m) => m[0]),
      weight: Float64Array.from(moved, (m) => m[1] / sum),
    };
    kept.set(n, rule);
  }
  return rule;
}
