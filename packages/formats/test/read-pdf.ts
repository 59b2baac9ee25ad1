import { getDocument, OPS } from "pdfjs-dist/legacy/build/pdf.mjs";

export interface ReadPage {
  /** Paper, mm. */
  readonly width: number;
  readonly height: number;
  /** Every stroked path, mm from the lower left corner; curves as sixteen chords each. */
  readonly paths: [number, number][][];
  readonly text: string;
  /** How far from the left the text reaches, mm. */
  readonly right: number;
  /** Each piece of text: where it begins on its line, and how long and how tall it is, mm. */
  readonly words: readonly { readonly text: string; x: number; y: number; long: number; tall: number }[];
}

const MM = 25.4 / 72;

/** Reads a PDF's own drawing back with a general-purpose reader that did not write it. */
export async function readPdf(bytes: Uint8Array): Promise<ReadPage[]> {
  const pdf = await getDocument({ data: bytes.slice(), verbosity: 0, isEvalSupported: false }).promise;
  const pages: ReadPage[] = [];
  for (let number = 1; number <= pdf.numPages; number++) {
    const page = await pdf.getPage(number);
    const [, , width = 0, height = 0] = page.view;
    const { fnArray, argsArray } = await page.getOperatorList();
    const items = (await page.getTextContent()).items.filter((item) => "str" in item);
    const text = items.map(({ str }) => str).join(" ");
    const right = Math.max(0, ...items.map((item) => item.transform[4] + item.width)) * MM;
    const paths = pathsOf(fnArray, argsArray);
    const words = items.map(({ str, transform, width, height }) => ({
      text: str,
      x: transform[4] * MM,
      y: transform[5] * MM,
      long: width * MM,
      tall: height * MM,
    }));
    pages.push({ width: width * MM, height: height * MM, paths, text, right, words });
  }
  await pdf.destroy();
  return pages;
}

type Matrix = readonly [number, number, number, number, number, number];

/** Paths as they stand on the paper, each under the transform that it is drawn with. */
function pathsOf(operators: number[], args: unknown[]): [number, number][][] {
  const paths: [number, number][][] = [];
  const kept: Matrix[] = [];
  let [a, b, c, d, e, f]: Matrix = [1, 0, 0, 1, 0, 0];
  for (const [i, operator] of operators.entries()) {
    if (operator === OPS.save) kept.push([a, b, c, d, e, f]);
    else if (operator === OPS.restore) [a, b, c, d, e, f] = kept.pop()!;
    else if (operator === OPS.transform) {
      const [p, q, r, s, t, u] = args[i] as Matrix;
      [a, b, c, d, e, f] = [
        a * p + c * q,
        b * p + d * q,
        a * r + c * s,
        b * r + d * s,
        a * t + c * u + e,
        b * t + d * u + f,
      ];
    } else if (operator === OPS.constructPath) {
      const points = pointsOf(...(args[i] as [number[], number[]]));
      paths.push(points.map(([x, y]) => [a * x + c * y + e * MM, b * x + d * y + f * MM]));
    }
  }
  return paths;
}

function pointsOf(operators: number[], numbers: number[]): [number, number][] {
  const points: [number, number][] = [];
  let at = 0;
  const next = (): [number, number] => [numbers[at++]! * MM, numbers[at++]! * MM];
  for (const operator of operators) {
    if (operator === OPS.moveTo || operator === OPS.lineTo) points.push(next());
    else if (operator === OPS.curveTo) {
      const from = points[points.length - 1]!;
      const [a, b, to] = [next(), next(), next()];
      for (let i = 1; i <= 16; i++) {
        const t = i / 16;
        const s = 1 - t;
        const on = (k: 0 | 1) =>
          s ** 3 * from[k] + 3 * s * s * t * a[k] + 3 * s * t * t * b[k] + t ** 3 * to[k];
        points.push([on(0), on(1)]);
      }
    } else if (operator === OPS.closePath && points[0]) points.push([...points[0]]);
  }
  return points;
}
