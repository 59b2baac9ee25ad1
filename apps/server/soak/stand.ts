import { readFileSync } from "node:fs";
import type { Blade } from "@true-spine/core/blade/schema.ts";
// @ts-expect-error plain JavaScript, so that it runs before anything is installed
import { openThrowawayCluster } from "../../../scripts/database.mjs";
// @ts-expect-error plain JavaScript, so that it runs before anything is installed
import { freePort } from "../../../scripts/processes.mjs";
// @ts-expect-error plain JavaScript, so that it runs before anything is installed
import { startServer } from "../../../scripts/server.mjs";

export interface Answer {
  readonly status: number;
  // biome-ignore lint/suspicious/noExplicitAny: whatever the server says is looked at by its keys
  readonly body: any;
  readonly retryAfter: string | null;
}

/** A server and a cluster of its own, both to be killed at will and brought back. */
export interface Stand {
  /** Sends a request; null where there was no answer. */
  send(method: string, path: string, body?: unknown): Promise<Answer | null>;
  killServer(): Promise<void>;
  killPostgres(): Promise<void>;
  /** Address of the cluster's own database, for those who disturb it. */
  readonly databaseUrl: string;
  stop(): Promise<void>;
}

/** `home` is a folder for the data, where it has to lie somewhere in particular. */
export async function openStand(home?: string): Promise<Stand> {
  const cluster = await openThrowawayCluster([], home);
  const port = await freePort();
  const env = { LOG_LEVEL: process.env.LOG_LEVEL ?? "silent", INSTRUMENT_PORT: String(await freePort()) };
  const start = () => startServer({ databaseUrl: cluster.url("postgres"), port, env });
  let server = await start();
  return {
    databaseUrl: cluster.url("true_spine"),
    async send(method, path, body) {
      try {
        const response = await fetch(`http://127.0.0.1:${port}/api${path}`, {
          method,
          headers: body === undefined ? {} : { "content-type": "application/json" },
          body: body === undefined ? undefined : typeof body === "string" ? body : JSON.stringify(body),
          signal: AbortSignal.timeout(60_000),
        });
        const text = await response.text();
        const isJson = /json/.test(response.headers.get("content-type") ?? "");
        return {
          status: response.status,
          body: isJson && text ? JSON.parse(text) : text,
          retryAfter: response.headers.get("retry-after"),
        };
      } catch {
        return null;
      }
    },
    async killServer() {
      process.kill(server.pid, "SIGKILL");
      await server.gone;
      server = await start();
    },
    async killPostgres() {
      await cluster.kill();
      await cluster.startAgain();
    },
    async stop() {
      await server.stop();
      await cluster.stop();
    },
  };
}

/** What went wrong, in words, with how often: empty when nothing did. */
export class Wrongs {
  private readonly counts = new Map<string, number>();

  add(words: string): void {
    this.counts.set(words, (this.counts.get(words) ?? 0) + 1);
  }

  list(): string[] {
    return [...this.counts].map(([words, times]) => (times > 1 ? `${words} (${times} times)` : words));
  }
}

/** A small seeded generator (mulberry32, from memory), so that a run can be had again. */
export function seeded(seed: number): () => number {
  let state = seed | 0;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

const example = JSON.parse(
  readFileSync(new URL("../../../packages/core/examples/field.json", import.meta.url), "utf8"),
) as Blade;
export const bladeNamed = (name: string): Blade => ({ ...example, name });
