import type { Role } from "@true-spine/core/registry/contract.ts";

const BLADE = "/api/blades/[0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}";
/** What a device with nothing but the cards may ask for, and send: what a card shows, ticks, times and readings. */
const ON_CARDS: readonly (readonly [method: string, path: RegExp])[] = [
  ["GET", /^\/api\/(me|health|shop|blades|instruments|instruments\/stream)$/],
  ["GET", new RegExp(`^${BLADE}(/(documents(/[^/]+)?|readings|work|removed-stages))?$`)],
  ["POST", new RegExp(`^${BLADE}/(readings|work)(/strike)?$`)],
  ["POST", /^\/api\/instruments\/[^/]+\/press$/],
];
/** What is done at the desk alone: letting devices in, and shutting them out. */
const DESK_ONLY = /^\/api\/(devices|door|copies|history|troubles)(\/|$)/;

/** Whether a device may ask for this. What no line allows is refused, whatever is added later. */
export function mayAsk(role: Role, method: string, path: string): boolean {
  if (DESK_ONLY.test(path)) return false;
  const asked = method === "HEAD" ? "GET" : method;
  if (!path.startsWith("/api/")) return asked === "GET";
  switch (role) {
    case "all":
      return true;
    case "look":
      return asked === "GET";
    case "card":
      return ON_CARDS.some(([allowed, of]) => allowed === asked && of.test(path));
  }
}
