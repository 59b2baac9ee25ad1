import { tryBlades } from "./trial.ts";

/** `npm run fuzz [-- COUNT [SEED]]`: ten thousand made-up blades by default. */
const count = Number(process.argv[2] ?? 10_000);
const seed = Number(process.argv[3] ?? Date.now() % 1_000_000_000);
console.log(`seed ${seed}, ${count} made-up blades`);
const { taken, refused, wrong } = tryBlades(seed, count, (done) => {
  if (done % 1000 === 0) console.log(`  ${done} tried`);
});
console.log(`${taken} were blades, ${refused} were refused, ${wrong.length} went wrong`);
for (const line of wrong.slice(0, 20)) console.log(`  ${line}`);
process.exitCode = wrong.length === 0 && taken > count / 10 ? 0 : 1;
