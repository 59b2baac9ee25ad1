import type { TestProject } from "vitest/node";
// @ts-expect-error plain JavaScript, so that it runs before anything is installed
import { openThrowawayCluster } from "../../../scripts/database.mjs";

declare module "vitest" {
  export interface ProvidedContext {
    databaseUrl: string;
  }
}

/** One throwaway cluster for all server tests; each file makes a database of its own in it. */
export default async function (project: TestProject) {
  const cluster = await openThrowawayCluster();
  project.provide("databaseUrl", cluster.url("postgres"));
  return () => cluster.stop();
}
