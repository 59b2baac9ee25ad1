import type { TestProject } from "vitest/node";
// @ts-expect-error plain JavaScript, so that it runs before anything is installed
import { openThrowawayCluster } from "../../../scripts/database.mjs";
// @ts-expect-error the same
import { setUp } from "../../../scripts/setup.mjs";

declare module "vitest" {
  export interface ProvidedContext {
    databaseUrl: string;
  }
}

/** One throwaway cluster for all server tests; each file makes a database of its own in it. */
export default async function (project: TestProject) {
  // Some tests start the server as it is built.
  await setUp({ built: true });
  const cluster = await openThrowawayCluster();
  project.provide("databaseUrl", cluster.url("postgres"));
  return () => cluster.stop();
}
