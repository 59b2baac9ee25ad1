import { spawnSync } from "node:child_process";
import { readFileSync } from "node:fs";

/** Whether this process may install packages and become other users. */
export const isRoot = process.getuid?.() === 0;

/** The system user that PostgreSQL must run as when we are root: it refuses to run as root itself. */
export function databaseUser() {
  if (!isRoot) return null;
  const line = readFileSync("/etc/passwd", "utf8")
    .split("\n")
    .find((entry) => entry.startsWith("postgres:"));
  if (!line)
    throw new Error("There is no system user named postgres; Debian's postgresql package makes one.");
  const [, , uid, gid] = line.split(":");
  return { uid: Number(uid), gid: Number(gid) };
}

/** Options that make a child process run as the database user, from a folder that user may enter. */
export function asDatabaseUser() {
  const user = databaseUser();
  return user ? { ...user, cwd: "/" } : {};
}

/** Whether the database user can enter a folder: a project in somebody's home often cannot be. */
export function databaseUserCanEnter(folder) {
  if (!isRoot) return true;
  return spawnSync("/bin/sh", ["-c", 'cd "$1"', "sh", folder], asDatabaseUser()).status === 0;
}
