import { X509Certificate } from "node:crypto";
import { once } from "node:events";
import { mkdtempSync, rmSync, statSync } from "node:fs";
import { createServer, get } from "node:https";
import type { AddressInfo } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, expect, test } from "vitest";
import { type Certificates, certificatesFor } from "../src/tls/authority.ts";

const folder = mkdtempSync(join(tmpdir(), "true-spine-tls-"));
afterAll(() => rmSync(folder, { recursive: true }));

/** What a client says of it that trusts the authority alone: node's own TLS, by OpenSSL. */
async function asked({ key, cert, authority }: Certificates, servername: string): Promise<string> {
  const server = createServer({ key, cert }, (_, answer) => answer.end("here"));
  await once(server.listen(0, "127.0.0.1"), "listening");
  const { port } = server.address() as AddressInfo;
  try {
    return await new Promise<string>((resolve, reject) => {
      const options = { host: "127.0.0.1", port, ca: authority, servername, headers: { host: servername } };
      get(options, (answer) => answer.on("data", (data) => resolve(String(data)))).on("error", reject);
    });
  } finally {
    server.close();
  }
}

test("a client that trusts the authority reaches the machine by its names and addresses, and by no other", async () => {
  const made = await certificatesFor(folder, ["workshop.local", "192.168.7.20", "127.0.0.1"]);
  expect(await asked(made, "workshop.local")).toBe("here");
  await expect(asked(made, "elsewhere.example")).rejects.toThrow(/altnames/);
  const [server] = made.cert.split(/(?=-----BEGIN)/);
  const certificate = new X509Certificate(server!);
  expect(certificate.checkIP("192.168.7.20")).toBe("192.168.7.20");
  expect(certificate.verify(new X509Certificate(made.authority).publicKey)).toBe(true);
  expect(certificate.ca).toBe(false);
  expect(new X509Certificate(made.authority).ca).toBe(true);
  expect(new X509Certificate(made.authority).fingerprint256).toBe(made.fingerprint);
  const days = (Date.parse(certificate.validTo) - Date.now()) / 86_400_000;
  expect(days).toBeGreaterThan(390);
  expect(days).toBeLessThan(398);
});

test("the authority stays; the machine's certificate stays too while it is good for its names", async () => {
  const first = await certificatesFor(folder, ["workshop.local", "192.168.7.20"]);
  const again = await certificatesFor(folder, ["workshop.local", "192.168.7.20"]);
  expect(again).toEqual(first);
  const moved = await certificatesFor(folder, ["workshop.local", "192.168.7.21"]);
  expect(moved.authority).toBe(first.authority);
  expect(moved.cert).not.toBe(first.cert);
  for (const file of ["authority.key", "server.key"])
    expect(statSync(join(folder, file)).mode & 0o077).toBe(0);
});
