import { randomUUID } from "node:crypto";
import { readFileSync } from "node:fs";
import type { Blade } from "@true-spine/core/blade/schema.ts";
import pino from "pino";
import { inject } from "vitest";
import { type AppOptions, createApp } from "../src/app.ts";
import { type Database, openDatabase } from "../src/database.ts";
import { Gateway } from "../src/instruments/gateway.ts";
import { SimulatedBench } from "../src/instruments/simulated.ts";
import { Judging } from "../src/judging/judging.ts";

/** The API on a database of its own, spoken to without a socket. */
export async function openApi(
  name = `test_${randomUUID().replaceAll("-", "")}`,
  options: Partial<AppOptions> = {},
) {
  const opened = await openDatabase(inject("databaseUrl"), name);
  const judging = new Judging();
  const close = async () => {
    await judging.close();
    await opened.close();
  };
  return { ...apiOn(opened.db, judging, options), judging, close, name };
}

/** The API on a database that is open. */
export function apiOn(db: Database, judging: Judging, options: Partial<AppOptions> = {}) {
  const log = pino({ level: "silent" });
  const instruments = {
    gateway: new Gateway(log),
    bench: new SimulatedBench(),
    self: "http://127.0.0.1:9",
  };
  const app = createApp({ db, judging, log, instruments, ...options });
  const send = async (method: string, path: string, body?: unknown, headers: Record<string, string> = {}) => {
    const response = await app.request(`/api${path}`, {
      method,
      headers: {
        host: "localhost",
        ...(body === undefined ? {} : { "content-type": "application/json" }),
        ...headers,
      },
      body: body === undefined ? undefined : typeof body === "string" ? body : JSON.stringify(body),
    });
    const text = await response.text();
    const isJson = /json/.test(response.headers.get("content-type") ?? "");
    return {
      status: response.status,
      headers: response.headers,
      body: isJson && text ? JSON.parse(text) : text,
    };
  };
  return { db, send, app, ...instruments };
}

export function fieldKnife(change: (blade: Blade) => void = () => {}): Blade {
  const text = readFileSync(new URL("../../../packages/core/examples/field.json", import.meta.url), "utf8");
  const blade = JSON.parse(text) as Blade;
  change(blade);
  return blade;
}

export const named = (name: string) => fieldKnife((blade) => (blade.name = name));
