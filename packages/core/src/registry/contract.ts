import type { Blade } from "../blade/schema.ts";
import type { Run } from "../inspect/run-schema.ts";
import type { Reading } from "../inspect/schema.ts";
import type { Shop } from "../shop/schema.ts";
import type { WorkRow } from "../work/schema.ts";
import type { DocumentKind, Documents } from "./documents.ts";

/** What server and pages say to one another about blades, apart from the blade file itself. */
export const BLADE_STATES = ["design", "in work", "finished"] as const;
export type BladeState = (typeof BLADE_STATES)[number];

/** What the rack shows of a blade without reading its file. Worked out once for each save. */
export interface Summary {
  /** Blade length, mm; mass of the steel, g; thickness behind the edge, mm, least and most along the edge. */
  length: number;
  mass: number;
  behind: [number, number] | null;
  fix: number;
  watch: number;
  /** At mid-edge, mm: thickness behind the edge and height of the edge bevel; absent where there is none. */
  middle?: { behind: number; edgeBevel: number };
  /** At mid-edge, how thick it is so far above its edge, by the height, mm; absent where it was saved before this was worked out. */
  above?: Record<string, number>;
  /** The worst finding, in a sentence. */
  worst: string | null;
  /** The outline as an SVG path in mm, y down, and its box: x, y, width, height. */
  outline: string;
  /** Grind line and plunge of the right side, or the left where only that is ground, in the same way. */
  lines?: string;
  box: [number, number, number, number];
}

/** A blade as the rack lists it. */
export interface BladeRow {
  id: string;
  name: string;
  use: string | null;
  steel: string | null;
  state: BladeState;
  revision: number;
  summary: Summary;
  updatedAt: string;
  archivedAt: string | null;
}

/** A blade among others, to be picked or held beside them: without its drawing. */
export interface BladeName extends Pick<BladeRow, "id" | "name" | "use" | "steel" | "state" | "revision"> {
  summary: Pick<Summary, "length" | "mass" | "middle" | "above">;
}

/** How many of them are listed at most, the newest first. */
export const MOST_NAMES = 2000;

export interface BladeWithFile extends BladeRow {
  file: Blade;
}

/** A document that belongs to a blade, as it stands; revision 0 and null where there is none yet. */
export interface StandingDocument<K extends DocumentKind = DocumentKind> {
  revision: number;
  file: Documents[K] | null;
}

/** The shop as it stands; revision 0 and null where it has said nothing yet. */
export interface StandingShop {
  revision: number;
  file: Shop | null;
}

/** A blade or a run that was deleted, and can be taken back. */
export interface DeletedRow {
  id: string;
  name: string;
  deletedAt: string;
}

export interface RevisionRow {
  number: number;
  label: string | null;
  createdAt: string;
}

/** A blade's readings in the order they were taken, and which of them were struck out since. */
export interface TakenReadings {
  taken: Reading[];
  struck: string[];
}

/** What was recorded at a blade's work in the order it was, and what of it was struck out since. */
export interface TakenWork {
  taken: WorkRow[];
  struck: string[];
}

/** That a document was saved, and when. */
export interface DocumentState {
  kind: DocumentKind;
  number: number;
  createdAt: string;
}

export interface RunRow {
  id: string;
  revision: number;
  file: Run;
  updatedAt: string;
}

/** A run with what was read at its places, blades in the order they were made. */
export interface RunReadings extends RunRow {
  blades: { id: string; name: string }[];
  specification: { id: string; file: Blade } | null;
  readings: { bladeId: string; reading: Reading }[];
}

/** What a device that was let in may do: everything of the shop's work, the cards alone, or look alone. */
export const ROLES = ["all", "card", "look"] as const;
export type Role = (typeof ROLES)[number];

/** Who asks: the machine that the program runs on, or a device that was let in. */
export interface Me {
  role: Role | "desk";
  name: string | null;
}

/** A code that lets one device in, and how long and how often it may still be tried. */
export interface PairingCode {
  code: string;
  expiresAt: string;
  triesLeft: number;
  isUsed: boolean;
}

export interface DeviceRow {
  id: string;
  name: string;
  role: Role;
  createdAt: string;
  lastSeenAt: string | null;
  revokedAt: string | null;
}

/** Where other machines reach this one; null where it was not started for them. */
export interface Door {
  /** Addresses to open, the one that a tablet most likely reaches first. */
  addresses: string[];
  /** The page, over plain HTTP, that tells how to trust this shop. */
  trust: string;
  /** SHA-256 of the authority's certificate, to be compared by eye. */
  fingerprint: string;
}

/** A copy of everything that was begun, and what came of it. */
export interface CopyRow {
  startedAt: string;
  endedAt: string | null;
  file: string | null;
  bytes: number | null;
  /** Whether it was restored elsewhere and found the same. */
  isGood: boolean;
  why: string | null;
}

export interface CopyState {
  /** Folder the copies go to. */
  folder: string;
  /** Whether that is the program's own folder, on the same disk as the database. */
  isOwn: boolean;
  lastGood: string | null;
  /** Whether there is no good one of the last seven days. */
  isLate: boolean;
  isRunning: boolean;
  /** The last ones, newest first. */
  rows: CopyRow[];
}

/** Something that the server did wrong. */
export interface TroubleRow {
  at: string;
  what: string;
  /** What was asked of it: method and path. */
  where: string | null;
}

/** How much of the history goes, or went, by the rule that keeps it small. */
export interface Thinning {
  revisions: number;
  documents: number;
}
