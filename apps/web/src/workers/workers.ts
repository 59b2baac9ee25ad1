import type { Bench } from "./bench.worker.ts";
import type { Designing } from "./design.worker.ts";
import type { Filing } from "./files.worker.ts";
import type { Judging } from "./judge.worker.ts";
import type { Meshing } from "./mesh.worker.ts";
import type { Routing } from "./route.worker.ts";

/** What each kind of worker can be asked. */
export interface Workers {
  readonly judge: Judging;
  readonly route: Routing;
  readonly bench: Bench;
  readonly design: Designing;
  readonly files: Filing;
  readonly mesh: Meshing;
}
export type WorkerKind = keyof Workers;

const START: Readonly<Record<WorkerKind, () => Worker>> = {
  judge: () => new Worker(new URL("./judge.worker.ts", import.meta.url), { type: "module" }),
  route: () => new Worker(new URL("./route.worker.ts", import.meta.url), { type: "module" }),
  bench: () => new Worker(new URL("./bench.worker.ts", import.meta.url), { type: "module" }),
  design: () => new Worker(new URL("./design.worker.ts", import.meta.url), { type: "module" }),
  files: () => new Worker(new URL("./files.worker.ts", import.meta.url), { type: "module" }),
  mesh: () => new Worker(new URL("./mesh.worker.ts", import.meta.url), { type: "module" }),
};

export const startWorker = (kind: WorkerKind): Worker => START[kind]();
