const WIDE = 150;
/** Of a long row of points only these are written, and what they come to. */
const MANY = 12;

/** Any plain value in lines, path before value, numbers to four figures; a list of more than `many` as its sum. */
export function inLines(value: unknown, path = "", many = MANY): string[] {
  const rounded = short(value, many);
  const whole = JSON.stringify(rounded) ?? "nothing";
  const isSummed = Array.isArray(value) && value.length > many;
  if (whole.length <= WIDE || isSummed || typeof rounded !== "object" || rounded === null)
    return [`${path} ${whole}`.trim()];
  return Object.entries(value as object).flatMap(([key, part]) =>
    inLines(part, path ? `${path}.${key}` : key, many),
  );
}

function short(value: unknown, many: number): unknown {
  if (typeof value === "number") return Number(value.toPrecision(4));
  if (value instanceof Map) return short(Object.fromEntries(value), many);
  if (Array.isArray(value)) {
    if (value.length <= many) return value.map((one) => short(one, many));
    const numbers = numbersIn(value);
    return {
      many: value.length,
      sum: Number(numbers.reduce((a, b) => a + b, 0).toPrecision(6)),
    };
  }
  if (typeof value !== "object" || value === null) return typeof value === "function" ? undefined : value;
  return Object.fromEntries(Object.entries(value).map(([key, part]) => [key, short(part, many)]));
}

function numbersIn(value: unknown): number[] {
  if (typeof value === "number") return [value];
  return value && typeof value === "object" ? Object.values(value).flatMap(numbersIn) : [];
}
