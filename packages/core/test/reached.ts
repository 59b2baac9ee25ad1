import { randomUUID } from "node:crypto";
import { writeFileSync } from "node:fs";
import { join } from "node:path";
import { afterAll, expect } from "vitest";

/** For `npm run mutate`: which of the places it watches the tests of a file come by, and how long they take. */
declare global {
  var reached: Set<number> | undefined;
}

globalThis.reached = new Set();
const from = performance.now();

afterAll(() => {
  const seen = {
    file: expect.getState().testPath,
    ms: performance.now() - from,
    places: [...globalThis.reached!],
  };
  writeFileSync(join(process.env.TRUE_SPINE_REACHED!, `${randomUUID()}.json`), JSON.stringify(seen));
});
