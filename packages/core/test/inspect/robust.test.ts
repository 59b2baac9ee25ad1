import { describe, expect, test } from "vitest";
import { medianOf, residualsOf, robustLeastSquares } from "../../src/inspect/robust.ts";
import { leastSquares } from "../../src/numbers/least-squares.ts";

/** Brownlee's stack loss data: air flow, water temperature, acid, loss. Source: K. A. Brownlee (1965), as every statistics library has it. */
const STACK: readonly (readonly number[])[] = [
  [80, 27, 89, 42],
  [80, 27, 88, 37],
  [75, 25, 90, 37],
  [62, 24, 87, 28],
  [62, 22, 87, 18],
  [62, 23, 87, 18],
  [62, 24, 93, 19],
  [62, 24, 93, 20],
  [58, 23, 87, 15],
  [58, 18, 80, 14],
  [58, 18, 89, 14],
  [58, 17, 88, 13],
  [58, 18, 82, 11],
  [58, 19, 93, 12],
  [50, 18, 89, 8],
  [50, 18, 86, 7],
  [50, 19, 72, 8],
  [50, 19, 79, 8],
  [50, 20, 80, 9],
  [56, 20, 82, 15],
  [70, 20, 91, 15],
];
const loss = STACK.map((row) => row[3]!);
const columns = [STACK.map(() => 1), ...[0, 1, 2].map((k) => STACK.map((row) => row[k]!))];
const even = STACK.map(() => 1);

describe("a published example", () => {
  test("least squares, as the textbooks have it", () => {
    // Source: from memory of the stack loss example in Draper and Smith, Applied Regression Analysis.
    const [constant, air, water, acid] = leastSquares(columns, loss, even)!.amplitudes;
    expect(constant).toBeCloseTo(-39.9197, 3);
    expect(air).toBeCloseTo(0.71564, 4);
    expect(water).toBeCloseTo(1.29529, 4);
    expect(acid).toBeCloseTo(-0.15212, 4);
  });

  test("Huber's estimate with the scale from the median, as two general-purpose libraries have it", () => {
    // Source: from memory of MASS (Venables and Ripley), rlm(stack.loss ~ .), and of statsmodels' RLM with HuberT: -41.0265, 0.8294, 0.9261, -0.1278, scale 2.441.
    let scale = 3;
    let fit = robustLeastSquares(columns, loss, even)!;
    for (let i = 0; i < 60; i++) {
      fit = robustLeastSquares(
        columns,
        loss,
        even.map(() => scale),
      )!;
      scale = medianOf(residualsOf(columns, loss, fit.amplitudes).map(Math.abs)) / 0.6745;
    }
    const [constant, air, water, acid] = fit.amplitudes;
    expect(constant).toBeCloseTo(-41.0265, 2);
    expect(air).toBeCloseTo(0.8294, 3);
    expect(water).toBeCloseTo(0.9261, 3);
    expect(acid).toBeCloseTo(-0.1278, 3);
    expect(scale).toBeCloseTo(2.441, 2);
  });
});

describe("one wild reading", () => {
  const line = Array.from({ length: 12 }, (_, i) => i);
  const straight = line.map((x) => 0.5 + 0.1 * x);
  const fitted = (values: readonly number[]) =>
    robustLeastSquares(
      [line.map(() => 1), line],
      values,
      line.map(() => 0.02),
    )!;

  test("hardly moves the line through the others, where least squares is carried away", () => {
    const wild = straight.map((value, i) => (i === 10 ? value + 20 : value));
    expect(Math.abs(fitted(wild).amplitudes[1]! - 0.1)).toBeLessThan(0.01);
    expect(fitted(wild).weights[10]).toBeLessThan(0.01);
    const plain = leastSquares(
      [line.map(() => 1), line],
      wild,
      line.map(() => 0.02),
    )!;
    expect(Math.abs(plain.amplitudes[1]! - 0.1)).toBeGreaterThan(0.2);
  });

  test("where nothing is wild it is least squares", () => {
    const { amplitudes, weights } = fitted(straight.map((value, i) => value + (i % 2 ? 0.005 : -0.005)));
    expect(amplitudes[1]).toBeCloseTo(0.1, 2);
    expect(weights).toEqual(line.map(() => 1));
  });

  test("columns that say the same cannot be told apart", () => {
    expect(
      robustLeastSquares(
        [line, line],
        straight,
        line.map(() => 1),
      ),
    ).toBeNull();
  });
});
