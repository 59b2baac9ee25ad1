import { createServer } from "node:https";
import { serve } from "@hono/node-server";
import type { Door } from "@true-spine/core/registry/contract.ts";
import { Hono } from "hono";
import { certificatesFor } from "../tls/authority.ts";
import { trustPage } from "./pair-page.ts";

/** An app that answers requests. */
interface Answering {
  readonly fetch: Parameters<typeof serve>[0]["fetch"];
}

/**
 * The shop's door to the network: TLS for everything, and one page over plain HTTP that tells how to trust it. `folder` keeps its
 * certificates; addresses, names and ports come from the environment that start sets.
 */
export async function openShop(folder: string) {
  const addresses = listed(process.env.SHOP_ADDRESSES);
  const names = [...addresses, ...listed(process.env.SHOP_NAMES)];
  const [tlsPort, trustPort] = [Number(process.env.SHOP_PORT), Number(process.env.TRUST_PORT)];
  const hostname = process.env.SHOP_HOST ?? "0.0.0.0";
  const { key, cert, authority, fingerprint } = await certificatesFor(folder, names);
  const urlOf = (address: string) => `https://${address}:${tlsPort}/`;
  const door: Door = {
    addresses: addresses.map(urlOf),
    trust: `http://${addresses[0] ?? "127.0.0.1"}:${trustPort}/`,
    fingerprint,
  };
  const trust = new Hono();
  trust.use(async (c, next) => {
    await next();
    c.header("cache-control", "no-store");
    c.header(
      "content-security-policy",
      "default-src 'none'; style-src 'unsafe-inline'; frame-ancestors 'none'",
    );
  });
  trust.get("/true-spine-shop.crt", (c) =>
    c.body(authority, 200, {
      "content-type": "application/x-x509-ca-cert",
      "content-disposition": 'attachment; filename="true-spine-shop.crt"',
    }),
  );
  trust.get("/", (c) => {
    // The address that this page was opened by is one that the device reaches.
    const asked = URL.canParse(c.req.url) ? new URL(c.req.url).hostname : "";
    return c.html(
      trustPage({
        address: urlOf(names.includes(asked) ? asked : (addresses[0] ?? "127.0.0.1")),
        fingerprint,
      }),
    );
  });
  return {
    door,
    names,
    serve: (app: Answering) => [
      serve({ fetch: app.fetch, port: tlsPort, hostname, createServer, serverOptions: { key, cert } }),
      serve({ fetch: trust.fetch, port: trustPort, hostname }),
    ],
  };
}

/** Words between commas. */
export function listed(words = ""): string[] {
  return words.split(",").flatMap((word) => (word.trim() === "" ? [] : [word.trim()]));
}
