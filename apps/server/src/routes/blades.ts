import { Hono } from "hono";
import { listed } from "../database.ts";
import { tagged } from "../records/answers.ts";
import {
  bladeJson,
  createBlade,
  deleteBlade,
  labelRevision,
  listBlades,
  listDeleted,
  listNames,
  listRevisions,
  markBlade,
  readBlade,
  readRevision,
  saveBlade,
} from "../records/blades.ts";
import {
  copyDocuments,
  listDocumentStates,
  listRemovedStages,
  readDocument,
  saveDocument,
} from "../records/documents.ts";
import { keepReadings, readReadings } from "../records/readings.ts";
import type { Stores } from "../records/stores.ts";
import { strikeRows } from "../records/strike.ts";
import { keepWork, readWork } from "../records/work.ts";
import { bodyOf, idOf, kindOf, numberOf, searchOf } from "../request.ts";
import { readings } from "../schema/readings.ts";
import { workRows } from "../schema/work.ts";
import { asItIs } from "./as-it-is.ts";

const LONGEST_NAME = 120;

/** Blades and their history, under /api/blades. */
export function bladeRoutes(stores: Stores): Hono {
  const { db, judging } = stores;
  const routes = new Hono();

  routes.get("/", async (c) => {
    const archived = c.req.query("archived") === "true";
    const limit = Number(c.req.query("limit") ?? Number.NaN);
    const asked = {
      search: searchOf(c),
      archived,
      ...(Number.isInteger(limit) ? { limit } : {}),
      after: c.req.query("after"),
    };
    const page = await listed(stores, (from) => listBlades(from, asked));
    // Web linking, RFC 8288.
    if (page.next) {
      const next = new URLSearchParams({ ...c.req.query(), after: page.next });
      c.header("link", `</api/blades?${next}>; rel="next"`);
    }
    if (page.total !== null) c.header("x-total", String(page.total));
    return asItIs(c, page.rows);
  });

  routes.get("/names", async (c) =>
    c.json(await listed(stores, (from) => listNames(from, c.req.query("archived") === "true"))),
  );

  routes.get("/deleted", async (c) => c.json(await listDeleted(db)));

  routes.post("/", async (c) => {
    const { id, file } = await bodyOf(c, judging, "createBlade");
    return c.json(await createBlade(stores, id, file), 201);
  });

  routes.get("/:id", async (c) => asItIs(c, tagged(await bladeJson(db, idOf(c)))));

  routes.put("/:id", async (c) => {
    const id = idOf(c);
    return c.json(await saveBlade(stores, id, await bodyOf(c, judging, "saveBlade")));
  });

  routes.patch("/:id", async (c) => {
    const id = idOf(c);
    return c.json(await markBlade(db, id, await bodyOf(c, judging, "marks")));
  });

  routes.delete("/:id", async (c) => {
    await deleteBlade(db, idOf(c), true);
    return c.body(null, 204);
  });

  routes.post("/:id/take-back", async (c) => {
    const id = idOf(c);
    await deleteBlade(db, id, false);
    return c.json(await readBlade(db, id));
  });

  routes.post("/:id/copy", async (c) => {
    const from = idOf(c);
    const { id } = await bodyOf(c, judging, "copy");
    const { file } = await readBlade(db, from);
    const name = `${file.name.slice(0, LONGEST_NAME - 7)} (copy)`;
    const made = await createBlade(stores, id, { ...file, name });
    await copyDocuments(stores, from, id);
    return c.json(made, 201);
  });

  routes.get("/:id/documents/:kind", async (c) => c.json(await readDocument(db, idOf(c), kindOf(c))));

  routes.put("/:id/documents/:kind", async (c) => {
    const [id, kind] = [idOf(c), kindOf(c)];
    return c.json(await saveDocument(stores, id, kind, await bodyOf(c, judging, `document:${kind}`)));
  });

  routes.get("/:id/removed-stages", async (c) => c.json(await listRemovedStages(db, idOf(c))));

  routes.get("/:id/documents", async (c) => c.json(await listDocumentStates(db, idOf(c))));

  routes.get("/:id/readings", async (c) => asItIs(c, tagged(await readReadings(db, idOf(c)))));

  routes.post("/:id/readings", async (c) => {
    const id = idOf(c);
    return c.json(await keepReadings(db, id, await bodyOf(c, judging, "takeReadings")));
  });

  routes.post("/:id/readings/strike", async (c) => {
    const id = idOf(c);
    const { ids, struck } = await bodyOf(c, judging, "strike");
    await strikeRows(db, readings, id, ids, struck);
    return c.body(null, 204);
  });

  routes.get("/:id/work", async (c) => c.json(await readWork(db, idOf(c))));

  routes.post("/:id/work", async (c) => {
    const id = idOf(c);
    return c.json(await keepWork(db, id, await bodyOf(c, judging, "takeWork")));
  });

  routes.post("/:id/work/strike", async (c) => {
    const id = idOf(c);
    const { ids, struck } = await bodyOf(c, judging, "strike");
    await strikeRows(db, workRows, id, ids, struck);
    return c.body(null, 204);
  });

  routes.get("/:id/revisions", async (c) => asItIs(c, tagged(await listRevisions(db, idOf(c)))));

  routes.get("/:id/revisions/:number", async (c) => c.json(await readRevision(db, idOf(c), numberOf(c))));

  routes.patch("/:id/revisions/:number", async (c) => {
    const [id, number] = [idOf(c), numberOf(c)];
    const { label } = await bodyOf(c, judging, "label");
    await labelRevision(db, id, number, label);
    return c.body(null, 204);
  });

  routes.post("/:id/revisions/:number/restore", async (c) => {
    const id = idOf(c);
    const { base, saveKey } = await bodyOf(c, judging, "restore");
    const { file, number } = await readRevision(db, id, numberOf(c));
    return c.json(await saveBlade(stores, id, { file, base, saveKey, label: `back to revision ${number}` }));
  });

  return routes;
}
