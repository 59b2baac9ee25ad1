import { Hono } from "hono";
import { streamSSE } from "hono/streaming";
import type { Doors, WithDevice } from "../access/doors.ts";
import type { Bench } from "../instruments/benches.ts";
import type { SimulatedBench } from "../instruments/simulated.ts";
import type { Judging } from "../judging/judging.ts";
import { away, notFound } from "../problem.ts";
import { bodyOf } from "../request.ts";

const BEAT_MS = 15_000;
const MOST_STREAMS = 64;
/** Events that wait for a page which does not read: then it is let go of, and comes back by itself. */
const MOST_WAITING = 200;

export interface Instruments {
  readonly gateway: Bench;
  readonly bench: SimulatedBench;
  /** Where this server is reached from its own machine; what simulated instruments ask. */
  readonly self: string;
}

/** Instruments and the simulated bench, under /api/instruments. */
export function instrumentRoutes(
  { gateway, bench, self }: Instruments,
  judging: Judging,
  doors: Doors,
): Hono<WithDevice> {
  const routes = new Hono<WithDevice>();

  routes.get("/", (c) => c.json({ instruments: gateway.list(), port: gateway.port }));

  let streams = 0;
  routes.get("/stream", (c) => {
    if (streams >= MOST_STREAMS) throw away("Too many pages listen to the instruments already.");
    return streamSSE(c, async (stream) => {
      streams++;
      const hearing = gateway.listen(MOST_WAITING);
      stream.onAbort(hearing.stop);
      const forget = doors.holds(c.get("device"), hearing.stop);
      try {
        for (;;) {
          const event = await hearing.next(BEAT_MS);
          if (event === "over") return;
          if (event === "nothing") await stream.write(": here\n\n");
          else await stream.writeSSE({ data: JSON.stringify(event) });
        }
      } finally {
        forget();
        hearing.stop();
        streams--;
      }
    });
  });

  routes.post("/bench", (c) => {
    bench.start(self, gateway.port);
    return c.body(null, 202);
  });

  routes.delete("/bench", (c) => {
    bench.stop();
    return c.body(null, 204);
  });

  routes.post("/:id/press", async (c) => {
    const { blade, stage, spot, press } = await bodyOf(c, judging, "press");
    const id = c.req.param("id");
    gateway.tell(id, { say: "place", held: { blade, stage, spot } });
    if (!gateway.tell(id, { say: "press", ...(press === undefined ? {} : { press }) }))
      throw notFound("instrument on the bench");
    return c.body(null, 202);
  });

  routes.post("/:id/behave", async (c) => {
    const { how } = await bodyOf(c, judging, "behave");
    if (!gateway.tell(c.req.param("id"), { say: "behave", how })) throw notFound("instrument on the bench");
    return c.body(null, 202);
  });

  return routes;
}
