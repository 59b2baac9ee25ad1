import { createSocket } from "node:dgram";
import { hostname, networkInterfaces } from "node:os";
import { freePort } from "./processes.mjs";

const USUAL_SHOP_PORT = 4571;
const USUAL_TRUST_PORT = 4572;

/** What the server needs to listen to the network: this machine's addresses and names, ports, and where its certificates are kept. */
export async function shopDoor(folder) {
  const host = process.env.HOST ?? "0.0.0.0";
  const isAll = ["0.0.0.0", "::"].includes(host);
  const addresses = isAll ? await addressesOfThis() : [host];
  // Without a network the shop is still there for this machine's own browsers.
  if (addresses.length === 0) addresses.push("127.0.0.1");
  const names = [
    hostname(),
    `${hostname().replace(/\.local$/, "")}.local`,
    ...(process.env.ALLOWED_HOSTS ?? "").split(","),
  ];
  const port = await freePort(Number(process.env.SHOP_PORT) || USUAL_SHOP_PORT, host);
  const trust = await freePort(Number(process.env.TRUST_PORT) || USUAL_TRUST_PORT, host);
  return {
    address: `https://${addresses[0]}:${port}/`,
    env: {
      SHOP_DIR: folder,
      SHOP_HOST: host,
      SHOP_PORT: String(port),
      TRUST_PORT: String(trust),
      SHOP_ADDRESSES: addresses.join(","),
      SHOP_NAMES: names.filter(Boolean).join(","),
    },
  };
}

/** Addresses at which other machines reach this one; the one it would go out by first, which is the one a tablet finds. */
async function addressesOfThis() {
  const all = Object.values(networkInterfaces())
    .flatMap((one) => one ?? [])
    .filter(({ internal, family }) => !internal && family === "IPv4")
    .map(({ address }) => address);
  const out = await addressOut();
  return all.includes(out) ? [out, ...all.filter((address) => address !== out)] : all;
}

/** The address that this machine would reach others by; nothing is sent for it. 192.0.2.1 is nobody's (RFC 5737). */
function addressOut() {
  return new Promise((resolve) => {
    const socket = createSocket("udp4");
    const end = (address) => {
      socket.close();
      resolve(address);
    };
    socket.once("error", () => end(null));
    socket.connect(9, "192.0.2.1", () => end(socket.address().address));
  });
}
