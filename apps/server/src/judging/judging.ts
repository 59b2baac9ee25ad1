import type { Blade } from "@true-spine/core/blade/schema.ts";
import type { Beside } from "@true-spine/core/findings/judge.ts";
import type { Bundle } from "@true-spine/core/registry/bundle.ts";
import type { Summary } from "@true-spine/core/registry/contract.ts";
import type { ReadBundle } from "@true-spine/formats/bundle.ts";
import { Tinypool } from "tinypool";
import type { BodyName, BodyOf } from "../bodies.ts";
import { THREAD } from "../places.ts";
import { away, Problem } from "../problem.ts";
import { type ReadBody, readBody, type Task } from "./tasks.ts";

/** A body up to this many characters cannot keep the event loop long, if no blade has to be worked out for it. */
const SMALL = 16_000;
/** Above this it goes a way of its own, so that a small one never waits behind it. */
const LARGE = 64_000;
/** A thread that takes longer is ended: no document within its limits comes near it. */
const DONE_WITHIN_MS = 30_000;
const MOST_MEMORY_MB = 512;

/**
 * Reading of bodies and judging of blades, off the event loop: one thread for what is small, one for what is large. Threads start when
 * they are first needed.
 */
export class Judging {
  private readonly pools = new Map<"small" | "large", Tinypool>();

  /** A request's body, checked. Throws the Problem that it has: 400, 413 or 422. */
  async read<N extends BodyName>(body: N, text: string): Promise<BodyOf<N>> {
    const isQuick = text.length <= SMALL && !body.endsWith("Blade");
    const read = isQuick
      ? readBody(body, text)
      : await this.run<ReadBody>({ do: "read", body, text }, text.length);
    if (!read.ok) throw new Problem(read.status, read.title, { ...read.extra });
    return read.value as BodyOf<N>;
  }

  /** What the rack shows of a blade. */
  summarize(blade: Blade, beside: Beside = {}): Promise<Summary> {
    return this.run<Summary>({ do: "summarize", blade, beside }, 0);
  }

  /** A blade whole as a zip. */
  pack(bundle: Bundle): Promise<Uint8Array> {
    return this.run<Uint8Array>({ do: "pack", bundle, made: new Date().toISOString() }, Infinity);
  }

  /** A blade whole from a zip. Throws a 422 that says what is wrong with it. */
  async unpack(bytes: Uint8Array): Promise<Bundle> {
    const read = await this.run<ReadBundle>({ do: "unpack", bytes }, Infinity);
    if (read.ok) return read.bundle;
    throw new Problem(422, `${read.why} Nothing was taken in.`, { faults: read.faults.slice(0, 100) });
  }

  /** Starts the thread that is needed first, with what it needs. */
  async warm(): Promise<void> {
    await this.run<ReadBody>({ do: "read", body: "saveBlade", text: "{}" }, 0).catch(() => {});
  }

  async close(): Promise<void> {
    const pools = [...this.pools.values()];
    this.pools.clear();
    await Promise.all(pools.map((pool) => pool.destroy()));
  }

  private async run<T>(task: Task, size: number): Promise<T> {
    const pool = this.poolOf(size > LARGE ? "large" : "small");
    const signal = AbortSignal.timeout(DONE_WITHIN_MS);
    try {
      return (await pool.run(task, { signal })) as T;
    } catch (error) {
      if (signal.aborted)
        throw new Problem(413, "The document takes too long to look through; nothing was saved.");
      // A thread that died of one document is replaced; the next one is not to blame.
      if (error instanceof Error && /memory limit|Worker exited|terminated/i.test(error.message)) {
        throw away(
          "The server could not look the document through just now. Nothing is lost: try again in a moment.",
        );
      }
      throw error;
    }
  }

  private poolOf(size: "small" | "large"): Tinypool {
    let pool = this.pools.get(size);
    if (!pool) {
      pool = new Tinypool({
        filename: THREAD,
        name: "perform",
        runtime: "worker_threads",
        minThreads: 1,
        maxThreads: 1,
        resourceLimits: { maxOldGenerationSizeMb: MOST_MEMORY_MB },
      });
      this.pools.set(size, pool);
    }
    return pool;
  }
}
