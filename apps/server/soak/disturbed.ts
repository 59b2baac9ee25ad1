import { execFileSync } from "node:child_process";
import { randomBytes, randomUUID } from "node:crypto";
import { chmodSync, mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { NO_PHOTO } from "@true-spine/core/photo/schema.ts";
import { Client } from "pg";

const PICTURES = 30;

import { bladeNamed, openStand, type Stand, type Wrongs } from "./stand.ts";
import { freshThings } from "./things.ts";
import { startWriter } from "./writers.ts";

/** Cuts the server's connections again and again under a writer. Answers with how many were cut, and how many writes were acknowledged. */
export async function lostConnections(
  stand: Stand,
  rounds: number,
  wrongs: Wrongs,
): Promise<{ cut: number; answers: number }> {
  const writer = await startWriter(stand, await freshThings(stand), wrongs);
  const client = new Client({ connectionString: stand.databaseUrl });
  await client.connect();
  let cut = 0;
  for (let i = 0; i < rounds; i++) {
    // A slow machine takes its time to connect again: there is something to cut first.
    for (let tries = 0; tries < 1000; tries++) {
      const { rows } = await client.query(
        "select pg_terminate_backend(pid) from pg_stat_activity where datname = current_database() and pid <> pg_backend_pid()",
      );
      cut += rows.length;
      await new Promise((resolve) => setTimeout(resolve, 60));
      if (rows.length > 0) break;
    }
  }
  await client.end();
  const answers = writer.answers();
  await writer.stop();
  return { cut, answers };
}

/**
 * Fills the disk under a writer, and makes room again: on a small file system of its own, which only root may make. Answers null where
 * that cannot be done here.
 */
export async function fullDisk(wrongs: Wrongs): Promise<{ refused: number; answers: number } | null> {
  const home = mkdtempSync(join(tmpdir(), "small-disk-"));
  chmodSync(home, 0o755);
  try {
    execFileSync("mount", ["-t", "tmpfs", "-o", "size=120m,mode=755", "tmpfs", home], { stdio: "ignore" });
  } catch {
    rmSync(home, { recursive: true, force: true });
    return null;
  }
  let stand: Stand | undefined;
  try {
    stand = await openStand({ home });
    const writer = await startWriter(stand, await freshThings(stand), wrongs);
    const blades = Array.from({ length: PICTURES }, () => randomUUID());
    for (const id of blades) await stand.send("POST", "/blades", { id, file: bladeNamed("Large") });
    const filler = join(home, "filler");
    // All there is, down to the last block.
    for (let size = 64 * 1024 * 1024; size >= 4096; ) {
      try {
        writeFileSync(filler, Buffer.alloc(size), { flag: "a" });
      } catch {
        size /= 2;
      }
    }
    let refused = 0;
    for (const id of blades) {
      // What cannot be made smaller on its way to the disk.
      const data = `data:image/jpeg;base64,${randomBytes(150_000).toString("base64")}`;
      const file = { ...NO_PHOTO, picture: { data, width: 9, height: 8 } };
      const answer = await stand.send("PUT", `/blades/${id}/documents/photo`, { file, base: 0, saveKey: id });
      if (answer?.status === 503) refused++;
      else if (answer && answer.status !== 200)
        wrongs.add(`disk full: ${answer.status} ${answer.body?.title}`);
    }
    if (refused === 0) wrongs.add("disk full: nothing was put off, so it was not full");
    const before = writer.answers();
    rmSync(filler);
    // PostgreSQL that gave up on its log is started again, as the start command does.
    const health = await stand.send("GET", "/health");
    if (health?.status === 503) await stand.killPostgres();
    for (const end = Date.now() + 120_000; writer.answers() < before + 20 && Date.now() < end; )
      await new Promise((resolve) => setTimeout(resolve, 50));
    if (writer.answers() < before + 20) wrongs.add("disk full: nothing is written after room was made");
    await writer.stop();
    return { refused, answers: writer.answers() };
  } finally {
    await stand?.stop();
    execFileSync("umount", ["-l", home], { stdio: "ignore" });
    rmSync(home, { recursive: true, force: true });
  }
}
