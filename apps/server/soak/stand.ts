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
  /** Where its servers listen. */
  readonly ports: readonly number[];
  /** Address of the cluster's own database, for those who disturb it. */
  readonly databaseUrl: string;
  stop(): Promise<void>;
}

export interface StandOptions {
  /** A folder for the data, where it has to lie somewhere in particular. */
  readonly home?: string;
  /** So many servers on the one database, asked by turns. */
  readonly servers?: number;
  /** Beside what every server is told, for the last of them. */
  readonly last?: Readonly<Record<string, string>>;
}

export async function openStand({ home, servers = 1, last = {} }: StandOptions = {}): Promise<Stand> {
  const cluster = await openThrowawayCluster([], home);
  const start = async (port: number, isLast: boolean) => {
    const env = {
      LOG_LEVEL: process.env.LOG_LEVEL ?? "silent",
      INSTRUMENT_PORT: String(await freePort()),
      ...(isLast ? last : {}),
    };
    return startServer({ databaseUrl: cluster.url("postgres"), port, env });
  };
  const ports: number[] = [];
  for (let i = 0; i < servers; i++) ports.push(await freePort());
  const running = await Promise.all(ports.map((port, i) => start(port, i === servers - 1)));
  let [asked, killed] = [0, 0];
  return {
    ports,
    databaseUrl: cluster.url("true_spine"),
    async send(method, path, body) {
      const port = ports[asked++ % servers]!;
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
      const which = killed++ % servers;
      process.kill(running[which]!.pid, "SIGKILL");
      await running[which]!.gone;
      running[which] = await start(ports[which]!, which === servers - 1);
    },
    async killPostgres() {
      await cluster.kill();
      await cluster.startAgain();
    },
    async stop() {
      await Promise.all(running.map((server: { stop(): Promise<void> }) => server.stop()));
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
