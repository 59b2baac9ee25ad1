import {
  FAULTS,
  judged,
  roundInThousandths,
  roundOfStage,
  roundSlipped,
  roundWith,
  SLIPS,
  setups,
  UNGROUND,
} from "./rounds.ts";

/** How rounds of readings were answered, counted. */
export interface Tally {
  rounds: number;
  faults: { right: number; of: number };
  /** Sound, slipped, bent: rounds on which no steel may be sent to the belt. */
  unground: { kept: number; of: number };
  slips: { named: number; mended: number; of: number };
  whole: { named: number; of: number };
  readonly lines: string[];
}

const OTHER: Readonly<Record<string, string>> = { rough: "finish", true: "rough", finish: "rough" };
/** A slip that takes a reading less far than this is no further off than work is: nobody can tell it, and nothing is lost. */
const TOLD_FROM = 3;
/** A sixth of a light pass: what a correction may ask for without a belt being put on. */
const NOTHING = 0.03;

/** Puts rounds of every kind to the bench, `times` of each, and counts how they were answered. */
export function tally(
  stages: readonly string[],
  times: number,
  seed: number,
  tell = (_line: string) => {},
): Tally {
  const all: Tally = {
    rounds: 0,
    faults: { right: 0, of: 0 },
    unground: { kept: 0, of: 0 },
    slips: { named: 0, mended: 0, of: 0 },
    whole: { named: 0, of: 0 },
    lines: [],
  };
  const say = (line: string) => {
    all.lines.push(line);
    tell(line);
  };
  /** Counts a round that must send nothing to the belt; what it sends all the same is told. */
  const keep = (title: string, corrections: readonly { side: string; most: number }[]) => {
    all.unground.of++;
    const sent = corrections.filter(({ most }) => most >= NOTHING);
    if (sent.length === 0) all.unground.kept++;
    else
      say(`${title}: to the belt, ${sent.map(({ side, most }) => `${side} ${most.toFixed(3)}`).join(", ")}`);
  };
  for (const stage of stages) {
    for (const ready of setups(stage)) {
      const title = `${stage}, ${ready.kind}`;
      for (const fault of Object.keys(FAULTS)) {
        const named = new Map<string, number>();
        for (let i = 0; i < times; i++) {
          const readings = roundWith(ready, fault, seed + 7919 * i + 31 * fault.length);
          if (!readings) continue;
          const { diagnosis, corrections } = judged(ready, readings);
          all.rounds++;
          named.set(diagnosis.pattern, (named.get(diagnosis.pattern) ?? 0) + 1);
          const isRight = diagnosis.pattern === fault;
          all.faults.of++;
          if (isRight) all.faults.right++;
          if (UNGROUND.includes(fault)) keep(`${title}, ${fault}`, corrections);
        }
        if (named.size > 0)
          say(`${title}: ${fault} -> ${[...named].map(([name, n]) => `${name} ${n}`).join(", ")}`);
      }
      for (const slip of Object.keys(SLIPS)) {
        let [named, mended, of] = [0, 0, 0];
        for (let i = 0; i < times; i++) {
          const round = roundSlipped(ready, slip, seed + 104_729 * i + slip.length);
          all.rounds++;
          const { id, value, bands } = round.slip!;
          const doubt = round.bench.doubts.find((one) => one.readings.some((reading) => reading.id === id));
          const isSound = (seed + 104_729 * i + slip.length) % 2 === 0 || ready.kind === "chisel";
          if (isSound) keep(`${title}, ${slip} ${i}`, round.bench.corrections);
          if (bands < TOLD_FROM) continue;
          of++;
          if (doubt) named++;
          if (doubt?.instead != null && Math.abs(doubt.instead - value) < 0.02) mended++;
        }
        all.slips.of += of;
        all.slips.named += named;
        all.slips.mended += mended;
        if (of > 0) say(`${title}: one reading ${slip} -> named ${named}, mended ${mended} of ${of}`);
      }
      for (let i = 0; i < times; i++) {
        const units = roundInThousandths(ready, seed + i);
        const other = roundOfStage(ready, OTHER[stage]!, seed + i);
        all.rounds += 2;
        all.whole.of += 2;
        for (const [bench, id] of [
          [units, "units"],
          [other, "stage"],
        ] as const) {
          const isNamed = bench.doubts.length === 1 && bench.doubts[0]!.id === id;
          if (isNamed && bench.corrections.length === 0) all.whole.named++;
          else
            say(
              `${title}: a whole round, ${id} -> ${bench.doubts.map((one) => one.id).join(", ") || "none"}`,
            );
        }
      }
    }
  }
  return all;
}

export const share = (part: number, of: number) => part / Math.max(1, of);

export function summed({ rounds, faults, unground, slips, whole }: Tally): string {
  const percent = (part: number, of: number) => `${part} of ${of} (${(100 * share(part, of)).toFixed(1)} %)`;
  return [
    `${rounds} rounds`,
    `named first: ${percent(faults.right, faults.of)}`,
    `sound, slipped or bent, and nothing to the belt: ${percent(unground.kept, unground.of)}`,
    `slipped reading named: ${percent(slips.named, slips.of)}, with what was meant: ${percent(slips.mended, slips.of)}`,
    `whole rounds named: ${percent(whole.named, whole.of)}`,
  ].join("\n");
}
