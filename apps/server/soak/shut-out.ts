import { createHash, randomBytes, randomUUID } from "node:crypto";
import pg from "pg";
import type { Stand, Wrongs } from "./stand.ts";

const TIMES = 20;

/**
 * How long a device lives once it is shut out, when the one server is told and the other is asked: its requests, and a stream it has open there.
 * Answers with the longest of each, ms. The stand's second server must take nobody for the desk.
 */
export async function shutOut(stand: Stand, wrongs: Wrongs): Promise<{ request: number; stream: number }> {
  const [desk, other] = stand.ports as [number, number];
  const database = new pg.Client({ connectionString: stand.databaseUrl });
  await database.connect();
  const longest = { request: 0, stream: 0 };
  try {
    for (let i = 0; i < TIMES; i++) {
      const [id, token] = [randomUUID(), randomBytes(32).toString("base64url")];
      // As the server keeps a device: the hash of what it proves itself by.
      const hash = createHash("sha256").update(`true-spine ${token}`).digest("hex");
      await database.query("insert into devices (id, name, role, token_hash) values ($1, $2, 'look', $3)", [
        id,
        `Device ${i}`,
        hash,
      ]);
      const ask = (path: string) =>
        fetch(`http://127.0.0.1:${other}/api${path}`, { headers: { cookie: `__Host-true-spine=${token}` } });
      const before = await ask("/blades");
      if (before.status !== 200) wrongs.add(`a device that was let in got ${before.status}`);
      const reader = (await ask("/instruments/stream")).body!.getReader();
      await reader.read();
      const from = performance.now();
      const ended = (async () => {
        for (let part = await reader.read(); !part.done; part = await reader.read());
        return performance.now() - from;
      })().catch(() => performance.now() - from);
      const told = await fetch(`http://127.0.0.1:${desk}/api/devices/${id}`, { method: "DELETE" });
      if (!told.ok) wrongs.add(`shutting out was answered ${told.status}`);
      const answered = performance.now();
      const after = await ask("/blades");
      if (after.status !== 401) wrongs.add(`a device that was shut out got ${after.status}`);
      longest.request = Math.max(longest.request, answered - from);
      longest.stream = Math.max(longest.stream, await ended);
    }
  } finally {
    await database.end();
  }
  return longest;
}
