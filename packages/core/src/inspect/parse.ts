import { faultsOf } from "../document/explain.ts";
import { type Fault, pathOf } from "../document/fault.ts";
import { validatorOf } from "../document/validator.ts";
import { QUANTITY } from "./quantity.ts";
import {
  type Check,
  CheckSchema,
  type Reading,
  ReadingSchema,
  type Readings,
  ReadingsSchema,
  type Spot,
} from "./schema.ts";

const readingShape = validatorOf(ReadingSchema);
const readingsShape = validatorOf(ReadingsSchema);
const checkShape = validatorOf(CheckSchema);

/** A sound reading, or every fault found with its path. Never throws. */
export function parseReading(
  value: unknown,
): { ok: true; reading: Reading } | { ok: false; faults: readonly Fault[] } {
  const faults = faultsOf(readingShape, value);
  if (faults.length > 0) return { ok: false, faults };
  const reading = value as Reading;
  const wrong = [...spotFaults(reading), ...valueFaults(reading)];
  return wrong.length > 0 ? { ok: false, faults: wrong } : { ok: true, reading };
}

/** A sound list of readings, each of its own id, or every fault found with its path. Never throws. */
export function parseReadings(
  value: unknown,
): { ok: true; readings: Readings } | { ok: false; faults: readonly Fault[] } {
  const faults = faultsOf(readingsShape, value);
  if (faults.length > 0) return { ok: false, faults };
  const readings = value as Readings;
  const seen = new Set<string>();
  const wrong = readings.taken.flatMap((reading, i): Fault[] => {
    const isAgain = seen.has(reading.id);
    seen.add(reading.id);
    return [
      ...[...spotFaults(reading), ...valueFaults(reading)].map(({ path, message }) => ({
        path: `${pathOf("taken", i)}${path.slice(1)}`,
        message,
      })),
      ...(isAgain
        ? [{ path: pathOf("taken", i, "id"), message: `“${reading.id}” stands in the list already` }]
        : []),
    ];
  });
  return wrong.length > 0 ? { ok: false, faults: wrong } : { ok: true, readings };
}

/** A sound check, or every fault found with its path. Never throws. */
export function parseCheck(
  value: unknown,
): { ok: true; check: Check } | { ok: false; faults: readonly Fault[] } {
  const faults = faultsOf(checkShape, value);
  if (faults.length > 0) return { ok: false, faults };
  const check = value as Check;
  const wrong = check.places.flatMap((spot, i) =>
    spotFaults(spot).map(({ path, message }) => ({
      path: `${pathOf("places", i)}${path.slice(1)}`,
      message,
    })),
  );
  return wrong.length > 0 ? { ok: false, faults: wrong } : { ok: true, check };
}

/** A spot says exactly where its quantity is read: a share of the edge, an x, a side, a height, no more and no less. */
function spotFaults(spot: Spot): Fault[] {
  const { at, isPerSide, name } = QUANTITY[spot.what];
  const wanted = { u: at === "u", x: at === "x", side: isPerSide, height: spot.what === "above" };
  return (["u", "x", "side", "height"] as const).flatMap((key) => {
    const isThere = spot[key] !== undefined;
    if (isThere === wanted[key]) return [];
    return [{ path: pathOf(key), message: `${isThere ? "says nothing of" : "must be said for"} ${name}` }];
  });
}

function valueFaults({ what, value }: Reading): Fault[] {
  const { name, isSigned, unit } = QUANTITY[what];
  const path = pathOf("value");
  if (!isSigned && value < 0) return [{ path, message: `${name} cannot be below 0` }];
  if (unit === "°" && Math.abs(value) > 90) return [{ path, message: `${name} lies within 90°` }];
  if (unit === "HRC" && value > 80) return [{ path, message: `${name} lies below 80 HRC` }];
  return [];
}
