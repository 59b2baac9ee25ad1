import { spawn } from "node:child_process";
import {
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  utimesSync,
  writeFileSync,
} from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { fileURLToPath } from "node:url";
import { afterEach, beforeEach, describe, expect, test } from "vitest";
import { holderOf, takeLock } from "../lock.mjs";
import { commandOf, isSameProcess, startOf } from "../processes.mjs";

let folder;
let lock;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), "lock-"));
  lock = join(folder, "a.lock");
});
afterEach(() => rmSync(folder, { recursive: true, force: true }));

const dead = () =>
  new Promise((resolve) => {
    const child = spawn("true");
    child.once("exit", () => resolve(child.pid));
  });

describe("a lock", () => {
  test("is held by one, says whose it is, and is gone when let go of", async () => {
    const release = await takeLock(lock, "something is being done");
    expect(holderOf(lock)).toMatch(new RegExp(`^something is being done, process ${process.pid}, since 20`));
    let isSecond = false;
    const second = takeLock(lock, "the next").then((done) => {
      isSecond = true;
      return done;
    });
    await new Promise((resolve) => setTimeout(resolve, 300));
    expect(isSecond).toBe(false);
    release();
    (await second)();
    expect(readdirSync(folder)).toEqual([]);
  });

  test("of a process that is dead is broken", async () => {
    writeFileSync(lock, JSON.stringify({ pid: await dead(), start: "1", what: "gone", since: "x" }));
    expect(holderOf(lock)).toBeNull();
    (await takeLock(lock, "mine"))();
  });

  test("of a pid that is another process by now is broken", async () => {
    writeFileSync(lock, JSON.stringify({ pid: process.pid, start: "1", what: "long ago", since: "x" }));
    expect(isSameProcess({ pid: process.pid, start: startOf(process.pid) })).toBe(true);
    expect(holderOf(lock)).toBeNull();
    (await takeLock(lock, "mine"))();
  });

  test.each(["", "{", "null", "[]"])("that says %j is nobody's", async (text) => {
    writeFileSync(lock, text);
    (await takeLock(lock, "mine"))();
  });

  test("that is an empty folder, as earlier versions left one when they were killed, is broken", async () => {
    mkdirSync(lock);
    utimesSync(lock, 0, 0);
    (await takeLock(lock, "mine"))();
    expect(existsSync(lock)).toBe(false);
  });

  test("twelve processes at once on one that is dead: each has it alone", async () => {
    writeFileSync(lock, JSON.stringify({ pid: await dead(), start: "1", what: "gone", since: "x" }));
    const log = join(folder, "log");
    const program = `
      import { appendFileSync } from "node:fs";
      import { takeLock } from ${JSON.stringify(fileURLToPath(new URL("../lock.mjs", import.meta.url)))};
      const release = await takeLock(${JSON.stringify(lock)}, "a turn");
      appendFileSync(${JSON.stringify(log)}, "in ");
      await new Promise((resolve) => setTimeout(resolve, 20));
      appendFileSync(${JSON.stringify(log)}, "out ");
      release();
    `;
    const codes = await Promise.all(
      Array.from(
        { length: 12 },
        () =>
          new Promise((resolve) =>
            spawn(process.execPath, ["--input-type=module", "-e", program], { stdio: "inherit" }).once(
              "exit",
              resolve,
            ),
          ),
      ),
    );
    expect(codes).toEqual(new Array(12).fill(0));
    expect(readFileSync(log, "utf8")).toBe("in out ".repeat(12));
  });
});

describe("processes", () => {
  test("a dead one has no command and no start; its pid is not taken for it", async () => {
    const pid = await dead();
    expect(commandOf(pid)).toBeNull();
    expect(startOf(pid)).toBeNull();
    expect(isSameProcess({ pid, start: null })).toBe(false);
    expect(commandOf(process.pid)).toContain("node");
  });
});
