import { Hono } from "hono";
import { streamSSE } from "hono/streaming";
import { Behave, bodyOf, Press } from "../body.ts";
import type { Gateway } from "../instruments/gateway.ts";
import type { SimulatedBench } from "../instruments/simulated.ts";
import { notFound } from "../problem.ts";

const BEAT_MS = 15_000;

export interface Instruments {
  readonly gateway: Gateway;
  readonly bench: SimulatedBench;
}

/** Instruments and the simulated bench, under /api/instruments. */
export function instrumentRoutes({ gateway, bench }: Instruments): Hono {
  const routes = new Hono();

  routes.get("/", (c) => c.json({ instruments: gateway.list(), port: gateway.port }));

  routes.get("/stream", (c) =>
    streamSSE(c, async (stream) => {
      let isOver = false;
      const stop = gateway.listen((event) => void stream.writeSSE({ data: JSON.stringify(event) }));
      stream.onAbort(() => {
        isOver = true;
        stop();
      });
      while (!isOver) {
        await stream.sleep(BEAT_MS);
        await stream.write(": here\n\n");
      }
    }),
  );

  routes.post("/bench", (c) => {
    bench.start(new URL(c.req.url).origin, gateway.port);
    return c.body(null, 202);
  });

  routes.delete("/bench", (c) => {
    bench.stop();
    return c.body(null, 204);
  });

  routes.post("/:id/press", async (c) => {
    const { blade, stage, spot } = await bodyOf(c, Press);
    const id = c.req.param("id");
    gateway.tell(id, { say: "place", held: { blade, stage, spot } });
    if (!gateway.tell(id, { say: "press" })) throw notFound("instrument on the bench");
    return c.body(null, 202);
  });

  routes.post("/:id/behave", async (c) => {
    const { how } = await bodyOf(c, Behave);
    if (!gateway.tell(c.req.param("id"), { say: "behave", how })) throw notFound("instrument on the bench");
    return c.body(null, 202);
  });

  return routes;
}
