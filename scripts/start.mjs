import { openProjectCluster } from "./database.mjs";
import { freePort } from "./processes.mjs";
import { startServer } from "./server.mjs";
import { checkNode, ensureBuild, ensurePackages, ensurePostgres, run, say } from "./setup.mjs";

const USUAL_PORT = 4570;

run(async () => {
  checkNode();
  ensurePackages();
  ensurePostgres();
  const dist = ensureBuild();
  say("Starting the database …");
  const cluster = await openProjectCluster();
  let server;
  let stopping = false;
  const asked = new Promise((resolve) => {
    for (const signal of ["SIGINT", "SIGTERM", "SIGHUP"]) process.on(signal, () => resolve(0));
  });
  const stop = async () => {
    if (stopping) return;
    stopping = true;
    await server?.stop();
    await cluster.stop();
  };
  try {
    const port = await freePort(Number(process.env.PORT) || USUAL_PORT);
    server = await startServer({ databaseUrl: cluster.url("postgres"), port, dist });
    say(`\nTrue Spine is ready: ${server.url}\nCtrl+C stops it.`);
    const code = await Promise.race([asked, server.gone]);
    if (code === 0) say("\nStopping …");
    return code;
  } finally {
    await stop();
  }
});
