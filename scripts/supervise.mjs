import { say } from "./plain.mjs";
import { sleep } from "./processes.mjs";
import { startServer } from "./server.mjs";

const LOOK_EVERY_MS = 1000;
const FIRST_WAIT_MS = 500;
const LONGEST_WAIT_MS = 10_000;
/** One that has served for so long is taken for well again. */
const WELL_AFTER_MS = 60_000;

/**
 * Keeps PostgreSQL and the server going: what ends by itself is started again, slower and slower while it keeps ending. Resolves once it
 * serves, to what ends both. `options` are the server's.
 */
export async function supervise(cluster, options) {
  let isStopping = false;
  const start = () => startServer({ ...options, databaseUrl: cluster.url("postgres") });
  let server = await start();
  let port = cluster.port;

  const again = async (what, doing) => {
    for (let wait = FIRST_WAIT_MS; !isStopping; wait = Math.min(LONGEST_WAIT_MS, wait * 2)) {
      try {
        await doing();
        if (!isStopping) say(`${what} runs again.`);
        return;
      } catch (error) {
        say(`${what} does not start: ${error.message} Trying again …`);
        await sleep(wait);
      }
    }
  };

  const watchDatabase = async () => {
    while (!isStopping) {
      await sleep(LOOK_EVERY_MS);
      if (isStopping || cluster.isRunning()) continue;
      say("PostgreSQL has ended by itself; starting it again …");
      await again("PostgreSQL", () => cluster.startAgain());
      // On another port the server has to be told.
      if (!isStopping && cluster.port !== port) {
        port = cluster.port;
        await server.stop();
      }
    }
  };

  const watchServer = async () => {
    let wait = FIRST_WAIT_MS;
    while (!isStopping) {
      const since = Date.now();
      await server.gone;
      if (isStopping) return;
      wait = Date.now() - since > WELL_AFTER_MS ? FIRST_WAIT_MS : Math.min(LONGEST_WAIT_MS, wait * 2);
      say("The server has ended by itself; starting it again …");
      await sleep(wait);
      await again("The server", async () => {
        server = await start();
      });
    }
  };

  const watching = [watchDatabase(), watchServer()];
  return {
    url: server.url,
    stop: async () => {
      isStopping = true;
      await server.stop();
      await Promise.all(watching);
    },
  };
}
