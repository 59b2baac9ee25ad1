import { type Static, Type } from "@sinclair/typebox";
import { PRINTABLE } from "../document/printable.ts";
import { DaySchema } from "../document/time.ts";

/** What a blade is read with, as a record of the shop: how fine it reads, how well it repeats, and what is known against it. */
const only = { additionalProperties: false } as const;

export const INSTRUMENT_KINDS = [
  "caliper",
  "height-gauge",
  "angle-finder",
  "hardness-tester",
  "rule",
  "feelers",
] as const;
export type InstrumentKind = (typeof INSTRUMENT_KINDS)[number];

export const INSTRUMENT_NAMES: Readonly<Record<InstrumentKind, string>> = {
  caliper: "caliper",
  "height-gauge": "height gauge",
  "angle-finder": "angle finder",
  "hardness-tester": "hardness tester",
  rule: "rule",
  feelers: "straightedge and feelers",
};

export const InstrumentSchema = Type.Object(
  {
    id: Type.String({ pattern: "^[a-z0-9-]{1,40}$" }),
    name: Type.String({ minLength: 1, maxLength: 60, pattern: PRINTABLE }),
    kind: Type.Union(INSTRUMENT_KINDS.map((kind) => Type.Literal(kind))),
    /** Its last figure, in its own unit (mm, degrees or HRC). */
    resolution: Type.Number({ exclusiveMinimum: 0, maximum: 5 }),
    /** Standard deviation of one reading taken again and again by the same hand. */
    repeat: Type.Number({ minimum: 0, maximum: 5 }),
    /** Reads too much by this, as the last check told; 0 where it was found true. */
    error: Type.Number({ minimum: -10, maximum: 10 }),
    /** What it read with nothing in it, when its zero was last looked at. */
    zero: Type.Number({ minimum: -10, maximum: 10 }),
    /** The day it was last held against something known; absent: never, and the reading says so. */
    checked: Type.Optional(DaySchema),
    /** Width of a caliper's jaws where they touch, mm. */
    jaw: Type.Optional(Type.Number({ minimum: 0, maximum: 30 })),
    /** A straightedge's own bow along it, + toward what it is laid on, as a reversal found it: mm. */
    shape: Type.Optional(
      Type.Array(
        Type.Object(
          {
            x: Type.Number({ minimum: -2000, maximum: 2000 }),
            t: Type.Number({ minimum: -10, maximum: 10 }),
          },
          only,
        ),
        { maxItems: 60 },
      ),
    ),
  },
  only,
);
export type Instrument = Static<typeof InstrumentSchema>;

/**
 * One of each, until the shop says what it has. Common practice: a caliper repeats within ± 0.05–0.1 mm on an edge, which is
 * two of these; a usual tester reads within ± 1 HRC. The rest are starting values.
 */
export const USUAL_INSTRUMENTS: readonly Instrument[] = [
  {
    id: "caliper",
    name: "digital caliper",
    kind: "caliper",
    resolution: 0.01,
    repeat: 0.03,
    error: 0,
    zero: 0,
    jaw: 1,
  },
  {
    id: "height-gauge",
    name: "height gauge",
    kind: "height-gauge",
    resolution: 0.01,
    repeat: 0.02,
    error: 0,
    zero: 0,
  },
  {
    id: "angle-finder",
    name: "angle finder",
    kind: "angle-finder",
    resolution: 0.1,
    repeat: 0.1,
    error: 0,
    zero: 0,
  },
  {
    id: "hardness-tester",
    name: "hardness tester",
    kind: "hardness-tester",
    resolution: 0.1,
    repeat: 0.5,
    error: 0,
    zero: 0,
  },
  { id: "rule", name: "steel rule", kind: "rule", resolution: 0.5, repeat: 0.15, error: 0, zero: 0 },
  {
    id: "feelers",
    name: "straightedge and feelers",
    kind: "feelers",
    resolution: 0.05,
    repeat: 0.03,
    error: 0,
    zero: 0,
  },
];
