import { type Static, Type } from "@sinclair/typebox";
import { faultsOf } from "../document/explain.ts";
import { type Fault, pathOf } from "../document/fault.ts";
import { PRINTABLE } from "../document/printable.ts";
import { TimeSchema } from "../document/time.ts";
import { validatorOf } from "../document/validator.ts";
import { SHARPENED } from "../edge/schema.ts";
import { FORGE_FAULTS, HEATED } from "../forge/schema.ts";
import { GATES, GRAINS, MOMENTS, PLACES, SEEN_BY_FILE } from "../heat/schema.ts";
import { StageIdSchema } from "../route/schema.ts";
import { rowFaults } from "../straight/parse.ts";
import { BLOW, SET } from "../straight/schema.ts";

/**
 * What is recorded at the work beside readings, a row each: made where it was taken, added or struck out, never changed. So a card
 * and a desk never stand in each other's way. Documents hold what is chosen; an export shows both together.
 */
const only = { additionalProperties: false } as const;

const Uuid = Type.String({ pattern: "^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$" });
const Celsius = Type.Number({ minimum: 20, maximum: 1300 });
const ROW = { id: Uuid, when: TimeSchema, stage: StageIdSchema } as const;

export const WorkRowSchema = Type.Union([
  /** The stage is done. */
  Type.Object({ ...ROW, what: Type.Literal("done") }, only),
  /** A pass was made on a side. */
  Type.Object(
    { ...ROW, what: Type.Literal("pass"), side: Type.Union([Type.Literal("left"), Type.Literal("right")]) },
    only,
  ),
  /** Something worth remembering of it. */
  Type.Object(
    {
      ...ROW,
      what: Type.Literal("note"),
      words: Type.String({ minLength: 1, maxLength: 500, pattern: PRINTABLE }),
    },
    only,
  ),
  /** One heat at the fire, for a step of forging. */
  Type.Object(
    {
      ...ROW,
      what: Type.Literal("heat"),
      step: Type.Union(HEATED.map((step) => Type.Literal(step))),
    },
    only,
  ),
  /** A fault that was seen at the fire: where from and to, and how deep, mm. */
  Type.Object(
    {
      ...ROW,
      what: Type.Literal("seen"),
      fault: Type.Union(FORGE_FAULTS.map((fault) => Type.Literal(fault))),
      x: Type.Array(Type.Number({ minimum: -2000, maximum: 2000 }), { minItems: 2, maxItems: 2 }),
      depth: Type.Number({ minimum: 0, maximum: 25 }),
    },
    only,
  ),
  /** A heat began, was warm through, or ended; with what its oven or its eye said, °C. */
  Type.Object(
    {
      ...ROW,
      what: Type.Literal("run"),
      moment: Type.Union(MOMENTS.map((moment) => Type.Literal(moment))),
      T: Type.Optional(Celsius),
    },
    only,
  ),
  /** What a file did on hardened steel. */
  Type.Object(
    {
      ...ROW,
      what: Type.Literal("proof"),
      place: Type.Union(PLACES.map((place) => Type.Literal(place))),
      saw: Type.Union(SEEN_BY_FILE.map((saw) => Type.Literal(saw))),
      /** Where along the blade, mm. */
      x: Type.Optional(Type.Number({ minimum: -2000, maximum: 2000 })),
    },
    only,
  ),
  /** What a file did on a coupon of the same bar, hardened from T °C. */
  Type.Object(
    {
      ...ROW,
      what: Type.Literal("coupon"),
      T: Celsius,
      saw: Type.Union(SEEN_BY_FILE.map((saw) => Type.Literal(saw))),
    },
    only,
  ),
  /** The grain of a coupon that was snapped. */
  Type.Object(
    {
      ...ROW,
      what: Type.Literal("snap"),
      T: Celsius,
      grain: Type.Union(GRAINS.map((one) => Type.Literal(one))),
    },
    only,
  ),
  /** How deep the skin was found on a face, mm. */
  Type.Object(
    { ...ROW, what: Type.Literal("skin"), mm: Type.Number({ exclusiveMinimum: 0, maximum: 3 }) },
    only,
  ),
  /** Readings along the blade, for how straight it is. */
  Type.Object({ ...ROW, what: Type.Literal("set"), ...SET }, only),
  /** Blows that were to make it straighter. */
  Type.Object({ ...ROW, what: Type.Literal("blow"), ...BLOW }, only),
  /** Its edge was touched up, sharpened, or repaired. */
  Type.Object({ ...ROW, what: Type.Literal("sharpened"), ...SHARPENED }, only),
  /** Something that must be seen to before the next heat was seen to. */
  Type.Object(
    { ...ROW, what: Type.Literal("gate"), gate: Type.Union(GATES.map((gate) => Type.Literal(gate))) },
    only,
  ),
  /** The clock of a stage was started, or paused. */
  Type.Object({ ...ROW, what: Type.Literal("clock"), runs: Type.Boolean() }, only),
  /** So many minutes were spent on it, as its maker says. */
  Type.Object(
    { ...ROW, what: Type.Literal("spent"), minutes: Type.Number({ minimum: 0, maximum: 100_000 }) },
    only,
  ),
  /** A correction that was accepted has been carried out. */
  Type.Object({ ...ROW, what: Type.Literal("corrected"), correction: Uuid }, only),
]);
export type WorkRow = Static<typeof WorkRowSchema>;

export const WorkSchema = Type.Object(
  {
    format: Type.Literal("true-spine/work"),
    version: Type.Literal(1),
    rows: Type.Array(WorkRowSchema, { maxItems: 50_000 }),
  },
  { ...only, $id: "true-spine/work/1", title: "True Spine work, version 1" },
);
export type Work = Static<typeof WorkSchema>;

const rowShape = validatorOf(WorkRowSchema);
const workShape = validatorOf(WorkSchema);

/** A sound row, or every fault found with its path. Never throws. */
export function parseWorkRow(
  value: unknown,
): { ok: true; row: WorkRow } | { ok: false; faults: readonly Fault[] } {
  const faults = faultsOf(rowShape, value);
  if (faults.length > 0) return { ok: false, faults };
  const row = value as WorkRow;
  const wrong = row.what === "set" ? rowFaults(row.rows, ["rows"]) : [];
  return wrong.length > 0 ? { ok: false, faults: wrong } : { ok: true, row };
}

/** Sound rows, each under an id of its own, or every fault found with its path. Never throws. */
export function parseWork(
  value: unknown,
): { ok: true; work: Work } | { ok: false; faults: readonly Fault[] } {
  const faults = faultsOf(workShape, value);
  if (faults.length > 0) return { ok: false, faults };
  const work = value as Work;
  const ids = work.rows.map(({ id }) => id);
  const twice = ids.flatMap((id, i) =>
    ids.indexOf(id) < i
      ? [{ path: pathOf("rows", i, "id"), message: `“${id}” stands in the list already` }]
      : [],
  );
  const wrong = work.rows.flatMap((row, i) =>
    row.what === "set" ? rowFaults(row.rows, ["rows", i, "rows"]) : [],
  );
  const all = [...twice, ...wrong];
  return all.length > 0 ? { ok: false, faults: all } : { ok: true, work };
}
