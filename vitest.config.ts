import { defineConfig } from "vitest/config";

/** Generous, for a machine that does much else: nothing that is tested fails by the clock. */
const PATIENCE = { testTimeout: 600_000, hookTimeout: 600_000 };

/** What `npm run mutate` asks for: a slip that is made in one file for this run alone, or to know which tests come by some places. */
const mutant: { file: string; start: number; end: number; is: string } | null = JSON.parse(
  process.env.TRUE_SPINE_MUTANT ?? "null",
);
const places: Record<string, [id: number, start: number][]> = JSON.parse(
  process.env.TRUE_SPINE_PLACES ?? "{}",
);
const isWatched = Object.keys(places).length > 0;
const watching = isWatched ? ["packages/core/test/reached.ts"] : [];
const { marked } = isWatched ? await import("./scripts/mutants.mjs") : { marked: null };
const changed = {
  name: "changed for one run",
  enforce: "pre" as const,
  transform(code: string, id: string) {
    const path = id.split("?")[0]!;
    if (mutant && path.endsWith(`/${mutant.file}`))
      return { code: code.slice(0, mutant.start) + mutant.is + code.slice(mutant.end), map: null };
    const watched = Object.keys(places).find((file) => path.endsWith(`/${file}`));
    return watched && marked ? { code: marked(code, places[watched]!), map: null } : null;
  },
};

/** What keeps no state is loaded once for all its tests, but where it is asked which of them load what. */
const isolate = isWatched;
const changes = mutant || isWatched ? [changed] : [];

export default defineConfig({
  test: {
    // Left to itself a machine of two cores would run one file at a time.
    maxWorkers: 2,
    projects: [
      {
        plugins: changes,
        test: {
          name: "core",
          ...PATIENCE,
          isolate,
          environment: "node",
          include: ["packages/core/test/**/*.test.ts"],
          setupFiles: ["packages/core/test/seed.ts", ...watching],
        },
      },
      {
        plugins: changes,
        test: {
          name: "formats",
          ...PATIENCE,
          isolate,
          environment: "node",
          setupFiles: watching,
          include: ["packages/formats/test/**/*.test.ts"],
        },
      },
      {
        test: {
          name: "instruments",
          ...PATIENCE,
          isolate,
          environment: "node",
          include: ["apps/instruments/test/**/*.test.ts"],
        },
      },
      {
        test: {
          name: "server",
          ...PATIENCE,
          environment: "node",
          include: ["apps/server/test/**/*.test.ts"],
          globalSetup: ["apps/server/test/cluster.ts"],
          env: { TRUE_SPINE_COPIES: "/tmp/true-spine-copies-of-tests" },
        },
      },
      {
        test: {
          name: "scripts",
          ...PATIENCE,
          environment: "node",
          include: ["scripts/test/**/*.test.mjs"],
        },
      },
      {
        test: {
          name: "web",
          ...PATIENCE,
          environment: "happy-dom",
          include: ["apps/web/test/**/*.test.{ts,tsx}"],
        },
      },
    ],
  },
});
