/** Whether there is time for all of it: `npm run soak -- tests`. */
const IS_LONG = process.env.TRUE_SPINE_LONG === "1";

/** One in three, from the first on; every one where there is time. For what takes seconds each. */
export const some = <T>(all: readonly T[]): readonly T[] =>
  IS_LONG ? all : all.filter((_, i) => i % 3 === 0);

/** How often: seldom among the tests, often where there is time. */
export const times = (seldom: number, often: number): number => (IS_LONG ? often : seldom);
