import type { HttpBindings } from "@hono/node-server";
import type { Me } from "@true-spine/core/registry/contract.ts";
import type { Context, MiddlewareHandler } from "hono";
import { getCookie, setCookie } from "hono/cookie";
import type { Database } from "../database.ts";
import { Problem } from "../problem.ts";
import { type Device, deviceOf, pair, revokedAmong, sawDevice } from "../records/devices.ts";
import { pairPage } from "./pair-page.ts";
import { mayAsk } from "./roles.ts";

/** Only over TLS, to this host alone, out of reach of every script. */
const COOKIE = "__Host-true-spine";
const LETS_IN_FOR_S = 400 * 24 * 3600;
const LOOPBACK = /^(127\.\d+\.\d+\.\d+|::1|::ffff:127\.\d+\.\d+\.\d+)$/;
const LONGEST_FORM = 1000;

export type WithDevice = { Bindings: HttpBindings; Variables: { device?: Device } };

/** Who is let in, and what of theirs is open: what a device that is shut out has open ends at once. */
export class Doors {
  private readonly open = new Map<string, Set<() => void>>();

  constructor(private readonly db: Database) {}

  /** Keeps a way to end what a device has open; answers with how to forget it. Nobody shuts out the desk. */
  holds(device: Device | undefined, end: () => void): () => void {
    if (!device) return () => {};
    const ends = this.open.get(device.id) ?? new Set();
    this.open.set(device.id, ends.add(end));
    return () => {
      ends.delete(end);
      if (ends.size === 0) this.open.delete(device.id);
    };
  }

  /** A device was shut out, here or at another server of this database. */
  shut(id: string): void {
    for (const end of this.open.get(id) ?? []) end();
    this.open.delete(id);
  }

  /** Looks after everyone that has something open: what was told in the meantime may have been missed. */
  async lookAgain(): Promise<void> {
    for (const id of await revokedAmong(this.db, [...this.open.keys()])) this.shut(id);
  }

  /**
   * Lets in the machine itself, and devices that were let in before, to what their role allows; whoever else gets the page that asks for
   * a code, or a 401. With `isDeskShut` not even the machine itself: something else passes requests on to it.
   */
  guard(isDeskShut: boolean): MiddlewareHandler<WithDevice> {
    return async (c, next) => {
      if (!isDeskShut && isDesk(c)) return next();
      const token = getCookie(c, COOKIE);
      const device = token ? await deviceOf(this.db, token) : null;
      if (!device) {
        if (c.req.path === "/pair" && c.req.method === "POST") return this.letIn(c);
        return stranger(c);
      }
      if (!mayAsk(device.role, c.req.method, c.req.path)) {
        throw new Problem(
          403,
          `This device was let in ${IN_WORDS[device.role]}; the desk can let it do more.`,
        );
      }
      c.set("device", device);
      await sawDevice(this.db, device.id);
      return next();
    };
  }

  private async letIn(c: Context<WithDevice>): Promise<Response> {
    const origin = c.req.header("origin");
    if (origin && (!URL.canParse(origin) || new URL(origin).host !== c.req.header("host"))) {
      throw new Problem(403, "Requests from other pages are refused.");
    }
    const length = Number(c.req.header("content-length") ?? Number.NaN);
    if (!(length <= LONGEST_FORM)) throw new Problem(413, "That is no code.");
    const code = new URLSearchParams(await c.req.text()).get("code") ?? "";
    const paired = await pair(this.db, code);
    if (!paired)
      return c.html(pairPage("That code does not let anybody in. Look at the desk: it may be over."), 401);
    setCookie(c, COOKIE, paired.token, {
      httpOnly: true,
      secure: true,
      sameSite: "Strict",
      path: "/",
      maxAge: LETS_IN_FOR_S,
    });
    return c.redirect("/", 303);
  }
}

const IN_WORDS = { all: "for the shop's work", card: "for the cards only", look: "to look only" } as const;

/** Who asks. */
export const meOf = (c: Context<WithDevice>): Me => {
  const device = c.get("device");
  return { role: device?.role ?? "desk", name: device?.name ?? null };
};

function stranger(c: Context<WithDevice>): Response {
  const isPage = c.req.method === "GET" && /\btext\/html\b/.test(c.req.header("accept") ?? "");
  if (isPage && !c.req.path.startsWith("/api/"))
    return c.html(pairPage(null), 401, { "cache-control": "no-store" });
  throw new Problem(
    401,
    "This device has not been let in. Open the address of the shop and type the code that the desk shows.",
  );
}

/** Whether a request comes over the loopback of this machine. */
export const isOverLoopback = (c: Context<WithDevice>): boolean =>
  LOOPBACK.test(c.env?.incoming?.socket?.remoteAddress ?? "");

/** Whether a request comes from the machine itself by its own door: over the loopback, and not over that of the shop, which is TLS. */
function isDesk(c: Context<WithDevice>): boolean {
  const socket = c.env?.incoming?.socket;
  // Over no socket at all, as in tests of the API alone and where the server asks itself.
  if (!socket) return true;
  return isOverLoopback(c) && !("encrypted" in socket && socket.encrypted);
}
