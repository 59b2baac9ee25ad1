import { Ajv, type Options, type ValidateFunction } from "ajv";
import { isDay, isTime } from "./time.ts";

const ajv = (more: Options = {}) =>
  new Ajv({
    allErrors: true,
    verbose: true,
    strict: true,
    formats: { "date-time": isTime, date: isDay },
    ...more,
  });

/** A validator of a schema: finds every fault, and knows moments and days of the calendar. */
export function validatorOf(schema: object, more?: Options): ValidateFunction {
  return ajv(more).compile(schema);
}
