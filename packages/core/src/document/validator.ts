import { Ajv, type Options, type ValidateFunction } from "ajv";
import { FORMATS } from "./time.ts";

/** How schemas are compiled: every fault is found, with what was there instead. */
export const OPTIONS: Options = {
  allErrors: true,
  verbose: true,
  strict: true,
  strictTuples: false,
  inlineRefs: false,
  formats: FORMATS,
};

/**
 * A validator of a schema: finds every fault, and knows moments and days of the calendar. To be called while a module loads, not later:
 * pages are built with what is made then compiled beforehand.
 */
export function validatorOf(schema: object): ValidateFunction {
  return new Ajv(OPTIONS).compile(schema);
}
