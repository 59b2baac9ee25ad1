import type { MiddlewareHandler } from "hono";
import { Problem } from "../problem.ts";

const LOOPBACK_NAMES = ["localhost", "127.0.0.1", "::1"];

/**
 * Refuses names that this server does not go by, so that no foreign page can reach it by pointing a name of its own here. `hosts`
 * are names and addresses beside those of the loopback; a name matches whatever the port.
 */
export function onlyHosts(hosts: readonly string[]): MiddlewareHandler {
  const known = new Set([...LOOPBACK_NAMES, ...hosts].map((host) => host.toLowerCase()));
  return async (c, next) => {
    const name = hostName(c.req.header("host"));
    if (name === null || !known.has(name)) {
      throw new Problem(421, "This server does not go by that name. Use the address that start printed.");
    }
    await next();
  };
}

/** `[::1]:80` and `Example:80` without port and brackets, in small letters; null for what is no host. */
function hostName(host: string | undefined): string | null {
  if (!host || !URL.canParse(`http://${host}`)) return null;
  const { hostname, username, pathname } = new URL(`http://${host}`);
  return username === "" && pathname === "/" ? hostname.replace(/^\[|\]$/g, "") : null;
}
