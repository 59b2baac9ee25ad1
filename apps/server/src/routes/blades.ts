import { randomUUID } from "node:crypto";
import { Hono } from "hono";
import {
  bladeOf,
  bodyOf,
  Copy,
  Create,
  documentOf,
  idOf,
  kindOf,
  Labelled,
  Marks,
  numberOf,
  Restore,
  readingsOf,
  Save,
  SaveDocument,
  Strike,
  TakeReadings,
} from "../body.ts";
import type { Database } from "../database.ts";
import {
  createBlade,
  labelRevision,
  listBlades,
  listRevisions,
  markBlade,
  readBlade,
  readRevision,
  saveBlade,
  throwAway,
} from "../records/blades.ts";

import { copyDocuments, listDocumentStates, readDocument, saveDocument } from "../records/documents.ts";
import { keepReadings, readReadings, strikeReadings } from "../records/readings.ts";

const LONGEST_NAME = 120;

/** Blades and their history, under /api/blades. */
export function bladeRoutes(db: Database): Hono {
  const routes = new Hono();

  routes.get("/", async (c) => {
    const search = (c.req.query("search") ?? "").slice(0, LONGEST_NAME);
    return c.json(await listBlades(db, { search, archived: c.req.query("archived") === "true" }));
  });

  routes.post("/", async (c) => {
    const { id, file } = await bodyOf(c, Create);
    return c.json(await createBlade(db, id, bladeOf(file)), 201);
  });

  routes.get("/:id", async (c) => c.json(await readBlade(db, idOf(c))));

  routes.put("/:id", async (c) => {
    const { file, ...save } = await bodyOf(c, Save);
    return c.json(await saveBlade(db, idOf(c), { ...save, file: bladeOf(file) }));
  });

  routes.patch("/:id", async (c) => c.json(await markBlade(db, idOf(c), await bodyOf(c, Marks))));

  routes.delete("/:id", async (c) => {
    await throwAway(db, idOf(c), true);
    return c.body(null, 204);
  });

  routes.post("/:id/take-back", async (c) => {
    const id = idOf(c);
    await throwAway(db, id, false);
    return c.json(await readBlade(db, id));
  });

  routes.post("/:id/copy", async (c) => {
    const { id } = await bodyOf(c, Copy);
    const { file } = await readBlade(db, idOf(c));
    const name = `${file.name.slice(0, LONGEST_NAME - 7)} (copy)`;
    const made = await createBlade(db, id, { ...file, name });
    await copyDocuments(db, idOf(c), id);
    return c.json(made, 201);
  });

  routes.get("/:id/documents/:kind", async (c) => c.json(await readDocument(db, idOf(c), kindOf(c))));

  routes.put("/:id/documents/:kind", async (c) => {
    const { file, ...save } = await bodyOf(c, SaveDocument);
    const kind = kindOf(c);
    return c.json(await saveDocument(db, idOf(c), kind, { ...save, file: documentOf(kind, file) }));
  });

  routes.get("/:id/documents", async (c) => c.json(await listDocumentStates(db, idOf(c))));

  routes.get("/:id/readings", async (c) => c.json(await readReadings(db, idOf(c))));

  routes.post("/:id/readings", async (c) => {
    const { readings } = await bodyOf(c, TakeReadings);
    return c.json(await keepReadings(db, idOf(c), readingsOf(readings)));
  });

  routes.post("/:id/readings/strike", async (c) => {
    const { ids, struck } = await bodyOf(c, Strike);
    await strikeReadings(db, idOf(c), ids, struck);
    return c.body(null, 204);
  });

  routes.get("/:id/revisions", async (c) => c.json(await listRevisions(db, idOf(c))));

  routes.get("/:id/revisions/:number", async (c) => c.json(await readRevision(db, idOf(c), numberOf(c))));

  routes.patch("/:id/revisions/:number", async (c) => {
    const { label } = await bodyOf(c, Labelled);
    await labelRevision(db, idOf(c), numberOf(c), label);
    return c.body(null, 204);
  });

  routes.post("/:id/revisions/:number/restore", async (c) => {
    const { base, saveKey } = await bodyOf(c, Restore);
    const { file, number } = await readRevision(db, idOf(c), numberOf(c));
    const label = `back to revision ${number}`;
    return c.json(await saveBlade(db, idOf(c), { file, base, saveKey: saveKey ?? randomUUID(), label }));
  });

  return routes;
}
