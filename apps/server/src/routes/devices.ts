import type { Door } from "@true-spine/core/registry/contract.ts";
import { Hono } from "hono";
import { listDevices, makeCode, revokeDevice, standingCode } from "../records/devices.ts";
import type { Stores } from "../records/stores.ts";
import { bodyOf, idOf } from "../request.ts";

/** Devices and the codes that let them in, under /api/devices: for the desk alone. */
export function deviceRoutes({ db, judging }: Stores): Hono {
  const routes = new Hono();

  routes.get("/", async (c) => c.json(await listDevices(db)));

  routes.get("/code", async (c) => c.json(await standingCode(db)));

  routes.post("/code", async (c) => {
    const { name, role } = await bodyOf(c, judging, "letIn");
    return c.json(await makeCode(db, name, role), 201);
  });

  routes.delete("/:id", async (c) => {
    await revokeDevice(db, idOf(c, "device"));
    return c.body(null, 204);
  });

  return routes;
}

/** Where other machines reach this one, under /api/door. */
export function doorRoutes(door: Door | null): Hono {
  return new Hono().get("/", (c) => c.json(door));
}
