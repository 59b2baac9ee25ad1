/**
 * How long steel takes to come up to its oven, and to cool in air: as warm all through, which thin steel is. Source: radiation and
 * convection, geometry; starting values for what is not physics, ± 25 %.
 */
const BOLTZMANN = 5.670374419e-8;
/** Absolute nought, °C below nought. */
export const KELVIN = 273.15;
export const DENSITY = 7850;
/** Starting value; ± 0.1 is ∓ 11 % of the seconds in air. */
const EMISSIVITY = 0.8;
/** W/m²K: still air, and an oven with a fan. */
export const CONVECTION = { still: 15, fan: 25 } as const;
/** J/kgK: at hardening heats, and at tempering ones. */
export const SPECIFIC_HEAT = 650;
const SPECIFIC_HEAT_TEMPER = 500;
/** J/kg that pearlite takes where it dissolves, and where that is, °C. */
const LATENT = 77_000;
const LATENT_AT = 723;
/** Through is within so much of the oven, °C: the soak clock starts there. */
const WITHIN = 10;
const WITHIN_TEMPER = 5;
/** Above it an oven hardens; below it tempers, °C. */
const TEMPERS_BELOW = 700;
const ROOM = 20;
const STEPS = 4000;

/** Seconds until steel so thick, mm, in an oven at a temperature is warm through. */
export function secondsThrough(thick: number, oven: number, air: keyof typeof CONVECTION = "still"): number {
  const isTemper = oven < TEMPERS_BELOW;
  const goal = oven - (isTemper ? WITHIN_TEMPER : WITHIN);
  const c = isTemper ? SPECIFIC_HEAT_TEMPER : SPECIFIC_HEAT;
  const net = (at: number) => flow(oven, at, CONVECTION[air]);
  const seconds = storing(thick, c) * overFlow(ROOM, goal, net);
  const held = goal > LATENT_AT ? (DENSITY * (thick / 1000) * LATENT) / (2 * net(LATENT_AT)) : 0;
  return seconds + held;
}

/**
 * Seconds until steel so thick, mm, cools from one temperature to another in still air at 25 °C: the way to the quench, at a specific heat of
 * 650 J/kgK; or below the nose, at 500.
 */
export function secondsInAir(thick: number, from: number, to: number, c: number = SPECIFIC_HEAT): number {
  return storing(thick, c) * overFlow(to, from, (at) => -flow(AIR, at, CONVECTION.still));
}
const AIR = 25;

/** J/m²K that a plate stores for each of its two faces. */
const storing = (thick: number, c: number) => (DENSITY * c * (thick / 1000)) / 2;

/** W/m² from walls and air at one temperature into steel at another, °C, `h` W/m²K of it by the air. Source: EN 1993-1-2, from memory of. */
export function flow(walls: number, steel: number, h: number, emissivity = EMISSIVITY): number {
  return emissivity * BOLTZMANN * ((walls + KELVIN) ** 4 - (steel + KELVIN) ** 4) + h * (walls - steel);
}

/** ∫ dT over the flow, by Simpson's rule. */
export function overFlow(from: number, to: number, net: (at: number) => number, steps = STEPS): number {
  const step = (to - from) / steps;
  let sum = 0;
  for (let i = 0; i < steps; i++) {
    const [a, b] = [from + i * step, from + (i + 1) * step];
    sum += (1 / net(a) + 4 / net((a + b) / 2) + 1 / net(b)) / 6;
  }
  return sum * step;
}
