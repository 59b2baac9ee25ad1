import type { TakenIn } from "@true-spine/core/registry/bundle.ts";
import { fetchBytes, sendBytes } from "./client.ts";

/** What to do where the blade's id stands here already. */
export type BundleWay = "ask" | "onto" | "beside";

/** A blade whole, as a zip. */
export const fetchBundle = (id: string, withHistory: boolean) =>
  fetchBytes(`/bundles/${id}?history=${withHistory}`);
export const takeInBundle = (file: Blob, way: BundleWay) =>
  sendBytes<TakenIn>(`/bundles?standing=${way}`, "application/zip", file);
