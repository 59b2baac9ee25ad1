import type { Role } from "@true-spine/core/registry/contract.ts";

/** What a device may do, as the desk says it. */
export const ROLE_NAMES: Record<Role, string> = {
  card: "cards only",
  all: "all of the shop's work",
  look: "look only",
};
