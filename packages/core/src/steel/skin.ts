import { bisected } from "../numbers/bisect.ts";
import { KELVIN } from "./heating.ts";

/**
 * How deep carbon is gone below a face that was hot in air, an upper side: its surface empty of carbon, steel lost to scale as it goes.
 * Sources: diffusion of carbon in austenite, from memory of W. D. Callister; scale, from memory of N. Birks and J. Jackson (1970).
 */
const GAS = 8.314;

/** Diffusivity of carbon in austenite, m²/s. */
export function carbonDiffusivity(celsius: number): number {
  return 2.3e-5 * Math.exp(-148_000 / (GAS * (celsius + KELVIN)));
}

/** Parabolic rate of the steel lost to scale in air, m²/s. */
export function scaleRate(celsius: number): number {
  return 0.571e-4 * Math.exp(-21_720 / (celsius + KELVIN));
}

/** Time at a temperature since a face was last ground. */
export interface Held {
  readonly celsius: number;
  readonly minutes: number;
}

/** What a face has lost: steel to scale, and below the old surface how deep nine tenths of its carbon are gone, mm. */
export interface Skin {
  readonly scale: number;
  readonly depth: number;
  readonly ratio: number;
}

/** What air takes of it all: mild in a rich forge or under a coat, little in foil. Starting values, × or ÷ 1.5. */
export const AIR = { air: 1, rich: 0.5, coat: 0.5, foil: 0.1 } as const;

/** All heats above `ac1` °C since the face was ground, together. Source: diffusion with a moving surface, erfc z = 0.1 erfc λ. */
export function skinOf(heats: readonly Held[], ac1: number, air: keyof typeof AIR = "air"): Skin {
  const hot = heats.filter(({ celsius }) => celsius > ac1);
  const a = hot.reduce((sum, { celsius, minutes }) => sum + carbonDiffusivity(celsius) * minutes * 60, 0);
  const lost = Math.sqrt(
    hot.reduce((sum, { celsius, minutes }) => sum + 2 * scaleRate(celsius) * minutes * 60, 0),
  );
  if (a === 0) return { scale: 0, depth: 0, ratio: 0 };
  const reach = 2 * Math.sqrt(a);
  const ratio = lost / reach;
  const left = 0.1 * erfc(ratio);
  const depth = reach * bisected(-left, 0, 6, (z) => -erfc(z));
  return { scale: lost * 1000 * AIR[air], depth: depth * 1000 * AIR[air], ratio };
}

/** 1 − erf. Source: W. J. Cody's rational fit as in Numerical Recipes' erfccheb, from memory of; to 1.2·10⁻⁷. */
export function erfc(x: number): number {
  const z = Math.abs(x);
  const t = 1 / (1 + z / 2);
  const r =
    t *
    Math.exp(
      -z * z -
        1.26551223 +
        t *
          (1.00002368 +
            t *
              (0.37409196 +
                t *
                  (0.09678418 +
                    t *
                      (-0.18628806 +
                        t *
                          (0.27886807 +
                            t * (-1.13520398 + t * (1.48851587 + t * (-0.82215223 + t * 0.17087277)))))))),
    );
  return x >= 0 ? r : 2 - r;
}
