/**
 * States in which PostgreSQL serves again by itself or once somebody has made room, by the class of SQLSTATE: connection
 * exceptions, insufficient resources (disk full, too many connections), operator intervention, system errors. Source: PostgreSQL
 * documentation, appendix A, from memory.
 */
const AWAY_CLASS = /^(08|53|57|58)...$/;
/** A lock not to be had in time, a transaction undone for another's sake or left idle; and a network that gives no answer. */
const AWAY_CODE =
  /^(55P03|40001|40P01|25P03|ECONNREFUSED|ECONNRESET|EPIPE|ETIMEDOUT|ENOTFOUND|EHOSTUNREACH|ENETUNREACH)$/;
/** What the driver says without a code. */
const AWAY_WORDS =
  /^(Connection terminated|timeout exceeded when trying to connect|Query read timeout|Client has encountered a connection error|Client was closed)/;

/** SQLSTATE or system code of an error, or of what caused it. */
export function codeOf(error: unknown): string | null {
  for (const one of causesOf(error)) {
    const { code } = one as { code?: unknown };
    if (typeof code === "string") return code;
  }
  return null;
}

/** Whether an error means that the database is away for a while, and not that what was asked is wrong. */
export function isDatabaseAway(error: unknown): boolean {
  return causesOf(error).some((one) => {
    const code = String((one as { code?: unknown }).code ?? "");
    return AWAY_CLASS.test(code) || AWAY_CODE.test(code) || AWAY_WORDS.test(one.message);
  });
}

function causesOf(error: unknown): Error[] {
  const causes: Error[] = [];
  for (let one = error; one instanceof Error && causes.length < 8; one = one.cause) causes.push(one);
  return causes;
}
