import { createHash, randomBytes, randomInt, randomUUID } from "node:crypto";
import type { DeviceRow, PairingCode, Role } from "@true-spine/core/registry/contract.ts";
import { and, desc, eq, gt, isNull, lt, or, sql } from "drizzle-orm";
import { type Database, inTransaction } from "../database.ts";
import { notFound } from "../problem.ts";
import { devices, pairingCodes } from "../schema/devices.ts";

/** Letters and digits that no hand mistakes for one another: 32 of them, 5 bits each. */
const SIGNS = "0123456789ABCDEFGHJKMNPQRSTVWXYZ";
/** Eight of 32 signs: 40 bits. */
const SIGNS_OF_CODE = 8;
const CODE_FOR = "5 minutes";
const TRIES = 5;
const SEEN_EVERY = "1 minute";
/** Channel on which it is told that a device was shut out. */
export const REVOKED = "true_spine_revoked";

const digest = (words: string) => createHash("sha256").update(`true-spine ${words}`).digest("hex");

/** A code that lets one device in; one that was made before it and not used is void. */
export async function makeCode(db: Database, name: string, role: Role): Promise<PairingCode> {
  const code = Array.from({ length: SIGNS_OF_CODE }, () => SIGNS[randomInt(SIGNS.length)]).join("");
  const [made] = await inTransaction(db, async (tx) => {
    await tx.delete(pairingCodes);
    return tx
      .insert(pairingCodes)
      .values({
        codeHash: digest(code),
        name,
        role,
        triesLeft: TRIES,
        expiresAt: sql`now() + ${CODE_FOR}::interval`,
      })
      .returning({ expiresAt: pairingCodes.expiresAt });
  });
  return {
    code: `${code.slice(0, 4)}-${code.slice(4)}`,
    expiresAt: made!.expiresAt,
    triesLeft: TRIES,
    isUsed: false,
  };
}

/** The code that was made last, without its signs; null where there is none. */
export async function standingCode(db: Database): Promise<Omit<PairingCode, "code"> | null> {
  const [row] = await db.select().from(pairingCodes).limit(1);
  return row ? { expiresAt: row.expiresAt, triesLeft: row.triesLeft, isUsed: row.usedAt !== null } : null;
}

/** Code as it may be typed: in small letters, with or without its dash, O for nought, I and L for one. */
const asMade = (typed: string) =>
  typed
    .toUpperCase()
    .replace(/[^0-9A-Z]/g, "")
    .replace(/O/g, "0")
    .replace(/[IL]/g, "1");

/** Lets a device in by its code: what it is to prove itself by from now on, or null. A wrong code costs the standing one a try. */
export async function pair(db: Database, typed: string): Promise<{ token: string; name: string } | null> {
  return inTransaction(db, async (tx) => {
    const stands = and(
      isNull(pairingCodes.usedAt),
      gt(pairingCodes.triesLeft, 0),
      gt(pairingCodes.expiresAt, sql`now()`),
    );
    const [used] = await tx
      .update(pairingCodes)
      .set({ usedAt: sql`now()` })
      .where(and(stands, eq(pairingCodes.codeHash, digest(asMade(typed)))))
      .returning();
    if (!used) {
      await tx
        .update(pairingCodes)
        .set({ triesLeft: sql`${pairingCodes.triesLeft} - 1` })
        .where(stands);
      return null;
    }
    const token = randomBytes(32).toString("base64url");
    const { name, role } = used;
    await tx.insert(devices).values({ id: randomUUID(), name, role, tokenHash: digest(token) });
    return { token, name };
  });
}

export interface Device {
  readonly id: string;
  readonly name: string;
  readonly role: Role;
}

/** The device that proves itself by this; null where it is none, or was shut out. */
export async function deviceOf(db: Database, token: string): Promise<Device | null> {
  const [found] = await db
    .select({ id: devices.id, name: devices.name, role: devices.role })
    .from(devices)
    .where(and(eq(devices.tokenHash, digest(token)), isNull(devices.revokedAt)));
  return found ?? null;
}

/** Notes that a device was here, once a minute at most. */
export async function sawDevice(db: Database, id: string): Promise<void> {
  await db
    .update(devices)
    .set({ lastSeenAt: sql`now()` })
    .where(
      and(
        eq(devices.id, id),
        or(isNull(devices.lastSeenAt), lt(devices.lastSeenAt, sql`now() - ${SEEN_EVERY}::interval`)),
      ),
    );
}

/** Devices that were ever let in, the newest first. */
export function listDevices(db: Database): Promise<DeviceRow[]> {
  return db
    .select({
      id: devices.id,
      name: devices.name,
      role: devices.role,
      createdAt: devices.createdAt,
      lastSeenAt: devices.lastSeenAt,
      revokedAt: devices.revokedAt,
    })
    .from(devices)
    .orderBy(desc(devices.createdAt))
    .limit(500);
}

/** Shuts a device out, from now on and for good, and tells every server of this database. */
export async function revokeDevice(db: Database, id: string): Promise<void> {
  const changed = await inTransaction(db, async (tx) => {
    const rows = await tx
      .update(devices)
      .set({ revokedAt: sql`coalesce(${devices.revokedAt}, now())` })
      .where(eq(devices.id, id))
      .returning({ id: devices.id });
    await tx.execute(sql`select pg_notify(${REVOKED}, ${id})`);
    return rows;
  });
  if (changed.length === 0) throw notFound("device");
}

/** Which of these devices were shut out. */
export async function revokedAmong(db: Database, ids: readonly string[]): Promise<string[]> {
  if (ids.length === 0) return [];
  const rows = await db.select({ id: devices.id, revokedAt: devices.revokedAt }).from(devices);
  const standing = new Set(rows.flatMap(({ id, revokedAt }) => (revokedAt ? [] : [id])));
  return ids.filter((id) => !standing.has(id));
}
