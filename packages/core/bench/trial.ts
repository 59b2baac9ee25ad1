import { type Field, thicknessAt } from "../src/blade/field.ts";
import { parseBlade } from "../src/blade/parse.ts";
import type { Blade } from "../src/blade/schema.ts";
import { stationAt } from "../src/blade/station.ts";
import { evaluate, stationFigures, wholeBlade } from "../src/evaluate/evaluation.ts";
import { judge } from "../src/findings/judge.ts";
import { randomBlade, seeded } from "./random-blade.ts";

export interface TrialResult {
  readonly taken: number;
  readonly refused: number;
  /** What went wrong, with the number of the blade it went wrong on. */
  readonly wrong: readonly string[];
}

const PLACES = 40;
const PLACES_ALONG = [0.1, 0.5, 0.9];

function withoutRemedies(blade: Blade, field: Field) {
  const stations = PLACES_ALONG.map((u) => stationFigures(field, stationAt(field, u)));
  return { ...wholeBlade(field), stations, findings: judge(blade, field).findings };
}

/**
 * Tries made-up blades: none may throw, give a figure that is no number, be thicker than its stock or thinner
 * than nothing. `seed` and a blade's number make it again.
 */
export function tryBlades(
  seed: number,
  count: number,
  onEach: (done: number) => void = () => {},
): TrialResult {
  let taken = 0;
  const wrong: string[] = [];
  for (let n = 0; n < count; n++) {
    const random = seeded(seed + n);
    try {
      const parsed = parseBlade(randomBlade(random));
      if (parsed.ok) {
        taken++;
        const { blade, field } = parsed;
        // Putting every remedy to the test takes ten times as long as all the rest: every tenth blade has it done.
        const all = n % 10 === 0 ? evaluate(blade, PLACES_ALONG) : withoutRemedies(blade, field);
        const figures = JSON.stringify(all, (key, value) => {
          if (typeof value === "number" && !Number.isFinite(value)) wrong.push(`${n}: ${key} is ${value}`);
          return value;
        });
        if (figures.length < 100) wrong.push(`${n}: no figures`);
        const stock = Math.max(...blade.thickness.map((row) => row.t));
        for (let i = 0; i < PLACES; i++) {
          const x = field.ring.left + random() * (field.ring.right - field.ring.left);
          const y = field.ring.bottom + random() * (field.ring.top - field.ring.bottom);
          const t = thicknessAt(field, x, y);
          if (!(t >= 0 && t <= stock + 1e-9))
            wrong.push(`${n}: ${t} mm thick at ${x}, ${y} in stock of ${stock}`);
        }
      }
    } catch (error) {
      wrong.push(
        `${n}: ${error instanceof Error ? error.stack?.split("\n").slice(0, 3).join(" | ") : error}`,
      );
    }
    onEach(n + 1);
  }
  return { taken, refused: count - taken, wrong };
}
