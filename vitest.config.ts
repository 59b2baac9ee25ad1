import { defineConfig } from "vitest/config";

export default defineConfig({
  test: {
    // Left to itself a machine of two cores would run one file at a time.
    maxWorkers: 2,
    projects: [
      {
        test: {
          name: "core",
          environment: "node",
          include: ["packages/core/test/**/*.test.ts"],
          setupFiles: ["packages/core/test/seed.ts"],
          testTimeout: 30_000,
        },
      },
      {
        test: {
          name: "formats",
          environment: "node",
          include: ["packages/formats/test/**/*.test.ts"],
          testTimeout: 60_000,
        },
      },
      {
        test: {
          name: "instruments",
          environment: "node",
          include: ["apps/instruments/test/**/*.test.ts"],
          testTimeout: 60_000,
        },
      },
      {
        test: {
          name: "server",
          environment: "node",
          include: ["apps/server/test/**/*.test.ts"],
          globalSetup: ["apps/server/test/cluster.ts"],
          hookTimeout: 60_000,
          testTimeout: 60_000,
        },
      },
      {
        test: {
          name: "scripts",
          environment: "node",
          include: ["scripts/test/**/*.test.mjs"],
          testTimeout: 120_000,
        },
      },
      {
        test: {
          name: "web",
          environment: "happy-dom",
          include: ["apps/web/test/**/*.test.{ts,tsx}"],
          hookTimeout: 60_000,
          testTimeout: 60_000,
        },
      },
    ],
  },
});
