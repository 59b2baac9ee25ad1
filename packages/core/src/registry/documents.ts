import { BladeSchema } from "../blade/schema.ts";
import type { Fault } from "../document/fault.ts";
import { KnivesSchema } from "../edge/knives.ts";
import { parseEdge } from "../edge/parse.ts";
import { type Edge, EdgeSchema, NO_EDGE } from "../edge/schema.ts";
import { TrialsSchema } from "../edge/trials.ts";
import { type Limits, LimitsSchema, NO_LIMITS, parseLimits } from "../findings/limits.ts";
import { parseForge } from "../forge/parse.ts";
import { type Forge, ForgeSchema, NO_FORGE } from "../forge/schema.ts";
import { parseHandle } from "../handle/parse.ts";
import { type Handle, HandleSchema, NO_HANDLE } from "../handle/schema.ts";
import { parseHeat } from "../heat/parse.ts";
import { type Heat, HeatSchema, NO_HEAT } from "../heat/schema.ts";
import { parseCheck } from "../inspect/parse.ts";
import { RunSchema } from "../inspect/run-schema.ts";
import { type Check, CheckSchema, NO_CHECK, ReadingsSchema } from "../inspect/schema.ts";
import { parsePhoto, parsePhotoPlace } from "../photo/parse.ts";
import {
  NO_PHOTO,
  NO_PLACE,
  type Photo,
  type PhotoPlace,
  PhotoPlaceSchema,
  PhotoSchema,
} from "../photo/schema.ts";
import { parseRoute, withStageIds } from "../route/parse.ts";
import { NO_ROUTE, type Route, RouteSchema } from "../route/schema.ts";
import { ShopSchema } from "../shop/schema.ts";
import { parseStraight } from "../straight/parse.ts";
import { NO_STRAIGHT, type Straight, StraightSchema } from "../straight/schema.ts";

/** The documents that may belong to a blade beside its own file, by kind. */
export interface Documents {
  readonly limits: Limits;
  readonly handle: Handle;
  readonly photo: Photo;
  readonly photoPlace: PhotoPlace;
  readonly route: Route;
  readonly forge: Forge;
  readonly heat: Heat;
  readonly check: Check;
  readonly straight: Straight;
  readonly edge: Edge;
}
export type DocumentKind = keyof Documents;

/** What stands before any was saved. */
export const NO_DOCUMENTS: Documents = {
  limits: NO_LIMITS,
  handle: NO_HANDLE,
  photo: NO_PHOTO,
  photoPlace: NO_PLACE,
  route: NO_ROUTE,
  forge: NO_FORGE,
  heat: NO_HEAT,
  check: NO_CHECK,
  straight: NO_STRAIGHT,
  edge: NO_EDGE,
};
export const DOCUMENT_KINDS = Object.keys(NO_DOCUMENTS) as readonly DocumentKind[];

/** The published schema of every kind of file. */
export const SCHEMAS = {
  blade: BladeSchema,
  limits: LimitsSchema,
  handle: HandleSchema,
  photo: PhotoSchema,
  photoPlace: PhotoPlaceSchema,
  route: RouteSchema,
  forge: ForgeSchema,
  heat: HeatSchema,
  readings: ReadingsSchema,
  check: CheckSchema,
  straight: StraightSchema,
  edge: EdgeSchema,
  run: RunSchema,
  knives: KnivesSchema,
  trials: TrialsSchema,
  shop: ShopSchema,
} as const;

type Parsed<K extends DocumentKind> =
  | { ok: true; document: Documents[K] }
  | { ok: false; faults: readonly Fault[] };

const PARSERS: { [K in DocumentKind]: (value: unknown) => Parsed<K> } = {
  limits: (value) => {
    const parsed = parseLimits(value);
    return parsed.ok ? { ok: true, document: parsed.limits } : parsed;
  },
  handle: (value) => {
    const parsed = parseHandle(value);
    return parsed.ok ? { ok: true, document: parsed.handle } : parsed;
  },
  photo: (value) => {
    const parsed = parsePhoto(value);
    return parsed.ok ? { ok: true, document: parsed.photo } : parsed;
  },
  photoPlace: (value) => {
    const parsed = parsePhotoPlace(value);
    return parsed.ok ? { ok: true, document: parsed.place } : parsed;
  },
  route: (value) => {
    const parsed = parseRoute(value);
    return parsed.ok ? { ok: true, document: parsed.route } : parsed;
  },
  forge: (value) => {
    const parsed = parseForge(value);
    return parsed.ok ? { ok: true, document: parsed.forge } : parsed;
  },
  heat: (value) => {
    const parsed = parseHeat(value);
    return parsed.ok ? { ok: true, document: parsed.heat } : parsed;
  },
  check: (value) => {
    const parsed = parseCheck(value);
    return parsed.ok ? { ok: true, document: parsed.check } : parsed;
  },
  straight: (value) => {
    const parsed = parseStraight(value);
    return parsed.ok ? { ok: true, document: parsed.straight } : parsed;
  },
  edge: (value) => {
    const parsed = parseEdge(value);
    return parsed.ok ? { ok: true, document: parsed.edge } : parsed;
  },
};

/** A document as it was kept, read as one is now: what older ones leave unsaid is put in. */
export function asRead<K extends DocumentKind>(kind: K, file: Documents[K]): Documents[K] {
  return kind === "route" ? (withStageIds(file as Documents["route"]) as Documents[K]) : file;
}

/** A sound document of a kind, or every fault found with its path. Never throws. */
export function parseDocument<K extends DocumentKind>(kind: K, value: unknown): Parsed<K> {
  return PARSERS[kind](value);
}
