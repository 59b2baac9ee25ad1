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
 * what is built has it compiled beforehand. From the sources it is compiled when it is first asked.
 */
export function validatorOf(schema: object): ValidateFunction {
  let compiled: ValidateFunction | null = null;
  const validate = (value: unknown): boolean => {
    compiled ??= new Ajv(OPTIONS).compile(schema);
    const isSound = compiled(value);
    validate.errors = compiled.errors;
    return isSound;
  };
  validate.errors = null as ValidateFunction["errors"];
  return validate as ValidateFunction;
}
