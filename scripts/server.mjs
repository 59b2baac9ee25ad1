import { spawn } from "node:child_process";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { PROJECT } from "./database.mjs";
import { Plain } from "./plain.mjs";

const UP_WITHIN_MS = 120_000;
const BUILT = "apps/server/dist/main.mjs";
/** It needs 40 MB for what it holds: with these, 50 requests at once leave no 300 behind before the next collection (`npm run bench -- --scale`). */
const MEMORY = ["--max-old-space-size=512", "--max-semi-space-size=8"];

/**
 * Starts the application server as it was last built and waits until it answers. It ends by itself when this process dies, because
 * the channel between them closes.
 * @param {{ databaseUrl: string, port: number, dist?: string | null, env?: Record<string, string> }} how
 */
export async function startServer({ databaseUrl, port, dist, env = {} }) {
  const child = spawn(process.execPath, [...MEMORY, BUILT], {
    cwd: PROJECT,
    stdio: ["ignore", "inherit", "inherit", "ipc"],
    // In a group of its own, so that Ctrl+C reaches this process first and the server drains in order.
    detached: true,
    env: {
      // A server for tests, pictures or a bench does not put copies of its database among those of the shop.
      TRUE_SPINE_COPIES: join(tmpdir(), "true-spine-copies-of-tests"),
      ...process.env,
      ...env,
      DATABASE_URL: databaseUrl,
      PORT: String(port),
      WEB_DIST: dist ?? undefined,
    },
  });
  const gone = new Promise((resolve) => child.once("exit", (code) => resolve(code ?? 1)));
  const up = new Promise((resolve, reject) => {
    child.once("message", (message) => resolve(message));
    gone.then((code) =>
      reject(new Plain(`The server ended before it was up (status ${code}); it says why above.`)),
    );
    setTimeout(() => reject(new Plain("The server did not come up in two minutes.")), UP_WITHIN_MS).unref();
  });
  const stop = async () => {
    child.kill("SIGTERM");
    await gone;
  };
  try {
    await up;
  } catch (error) {
    child.kill("SIGKILL");
    throw error;
  }
  return { pid: child.pid, gone, stop, url: `http://127.0.0.1:${port}` };
}

/** Path of the pages' build, for those who start a server without building. */
export const DIST = join(PROJECT, "apps/web/dist");
