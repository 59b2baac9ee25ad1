import { defineConfig } from "@playwright/test";
import { CHROMIUM } from "./browser.ts";

const port = Number(process.env.E2E_PORT ?? 4590);

export default defineConfig({
  testDir: ".",
  outputDir: "../.true-spine/browser-results",
  workers: 2,
  // Generous, for a machine that does much else: nothing that is tested fails by the clock.
  timeout: 900_000,
  expect: { timeout: 90_000 },
  retries: 0,
  // The longest first, so that nothing waits for it at the end.
  projects: [
    { name: "long", testMatch: "killed-server.spec.ts" },
    { name: "rest", testIgnore: ["killed-server.spec.ts", "walk.spec.ts"] },
    // It presses what changes the shop for all: alone, after the others.
    { name: "walk", testMatch: "walk.spec.ts", dependencies: ["long", "rest"] },
  ],
  reporter: [["list"], ["json"]],
  use: {
    baseURL: `http://127.0.0.1:${port}`,
    viewport: { width: 1280, height: 800 },
    launchOptions: CHROMIUM,
    trace: "off",
    // A control that never comes is told before the whole test ends.
    actionTimeout: 180_000,
  },
  webServer: {
    command: "node ../scripts/e2e-server.mjs",
    url: `http://127.0.0.1:${port}/api/health`,
    env: { E2E_PORT: String(port) },
    timeout: 300_000,
    reuseExistingServer: false,
    gracefulShutdown: { signal: "SIGINT", timeout: 60_000 },
    stdout: "ignore",
    stderr: "pipe",
  },
});
