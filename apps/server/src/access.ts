import { createHash, timingSafeEqual } from "node:crypto";
import type { HttpBindings } from "@hono/node-server";
import type { Context, MiddlewareHandler } from "hono";
import { getCookie, setCookie } from "hono/cookie";
import { Problem } from "./problem.ts";

const COOKIE = "true-spine-key";
const KEY_FOR_S = 400 * 24 * 3600;
const LOOPBACK = /^(127\.\d+\.\d+\.\d+|::1|::ffff:127\.\d+\.\d+\.\d+)$/;
const LOOPBACK_NAMES = ["localhost", "127.0.0.1", "::1"];
/** The wait after a wrong key, doubled with each. */
const FIRST_WAIT_MS = 1000;
const LONGEST_WAIT_MS = 60_000;
/** Addresses that are remembered for having brought a wrong key. */
const MOST_REMEMBERED = 1000;

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

/**
 * Lets nobody in from another machine without the key: in the address once (`?key=`), from then on as a cookie. This machine
 * itself needs none. Wrong keys from one address are answered slower and slower.
 */
export function onlyWithKey(key: string | null): MiddlewareHandler<{ Bindings: HttpBindings }> {
  const wanted = key === null ? null : digest(key);
  const wrong = new Map<string, { waitMs: number; until: number }>();
  return async (c, next) => {
    const remote = remoteOf(c);
    if (remote === null || LOOPBACK.test(remote)) return next();
    if (wanted === null) throw new Problem(403, "This server speaks to its own machine only.");
    const cookie = getCookie(c, COOKIE);
    if (cookie && isSame(Buffer.from(cookie, "base64url"), wanted)) return next();
    const offered = c.req.query("key");
    const before = wrong.get(remote);
    if (offered === undefined) {
      throw new Problem(
        401,
        "Open the whole address that start printed, with its key, once in this browser.",
      );
    }
    if (before && Date.now() < before.until) {
      const seconds = Math.ceil((before.until - Date.now()) / 1000);
      throw new Problem(
        429,
        "Too many wrong keys. Wait, then open the address that start printed.",
        {},
        seconds,
      );
    }
    if (!isSame(digest(offered), wanted)) {
      const waitMs = Math.min(LONGEST_WAIT_MS, before ? before.waitMs * 2 : FIRST_WAIT_MS);
      if (wrong.size >= MOST_REMEMBERED) wrong.delete(wrong.keys().next().value!);
      wrong.set(remote, { waitMs, until: Date.now() + waitMs });
      throw new Problem(401, "That is not the key of this server.");
    }
    wrong.delete(remote);
    setCookie(c, COOKIE, wanted.toString("base64url"), {
      httpOnly: true,
      sameSite: "Strict",
      path: "/",
      maxAge: KEY_FOR_S,
    });
    const url = new URL(c.req.url);
    url.searchParams.delete("key");
    return c.redirect(`${url.pathname}${url.search}`, 303);
  };
}

/** The address a request came from; null where it came over no socket, as in tests of the API alone. */
function remoteOf(c: Context<{ Bindings: HttpBindings }>): string | null {
  return c.env?.incoming?.socket.remoteAddress ?? null;
}

const digest = (key: string) => createHash("sha256").update(`true-spine ${key}`).digest();
const isSame = (a: Buffer, b: Buffer) => a.length === b.length && timingSafeEqual(a, b);
