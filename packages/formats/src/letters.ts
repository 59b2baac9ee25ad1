import fontkit from "@pdf-lib/fontkit";
import { flattened, type Piece, type Point } from "./drawing.ts";

/** How far the outline of a letter may stray from its curves, in parts of its height. */
const TOLERANCE = 0.002;

/** Words as outlines of their letters, for what is cut or engraved: a reader of the file needs no font. */
export class Letters {
  private readonly fonts;

  /** The fonts' own bytes; each sign is drawn from the first that has it. */
  constructor(bytes: readonly Uint8Array[]) {
    this.fonts = bytes.map((one) => fontkit.create(one));
  }

  /** Closed outlines of words on a line that begins at `at`, their capitals `height` tall. */
  outlines(words: string, [x, y]: Point, height: number): Point[][] {
    const outlines: Point[][] = [];
    let along = x;
    for (const sign of words) {
      const font = this.fonts.find((one) => one.hasGlyphForCodePoint(sign.codePointAt(0)!)) ?? this.fonts[0]!;
      const times = height / font.capHeight;
      const [glyph] = font.layout(sign).glyphs;
      if (!glyph) continue;
      const place = (px: number, py: number): Point => [along + px * times, y + py * times];
      const { commands } = glyph.path as unknown as { commands: readonly Command[] };
      outlines.push(...closedPaths(commands, place, TOLERANCE * height));
      along += glyph.advanceWidth * times;
    }
    return outlines;
  }
}

/** A step of a letter's outline, as the font's reader keeps it: its types leave it out. */
interface Command {
  readonly command: "moveTo" | "lineTo" | "quadraticCurveTo" | "bezierCurveTo" | "closePath";
  readonly args: number[];
}

function closedPaths(
  commands: readonly Command[],
  place: (x: number, y: number) => Point,
  tolerance: number,
): Point[][] {
  const paths: { start: Point; pieces: Piece[] }[] = [];
  for (const { command, args } of commands) {
    const points = Array.from({ length: args.length / 2 }, (_, i) => place(args[2 * i]!, args[2 * i + 1]!));
    const path = paths.at(-1);
    const from = path?.pieces.at(-1)?.to ?? path?.start;
    if (command === "moveTo") paths.push({ start: points[0]!, pieces: [] });
    else if (!path || !from || command === "closePath") continue;
    else if (command === "lineTo") path.pieces.push({ to: points[0]! });
    else if (command === "bezierCurveTo")
      path.pieces.push({ controls: [points[0]!, points[1]!], to: points[2]! });
    else path.pieces.push({ controls: raised(from, points[0]!, points[1]!), to: points[1]! });
  }
  return paths.flatMap(({ start, pieces }) => {
    const points = flattened({ start, pieces, isClosed: true }, tolerance);
    const [last] = points.slice(-1);
    if (last && last[0] === start[0] && last[1] === start[1]) points.pop();
    return points.length > 2 ? [points] : [];
  });
}

/** A quadratic's one control as the two of the same curve as a cubic. */
function raised(from: Point, control: Point, to: Point): [Point, Point] {
  const toward = (end: Point): Point => [
    end[0] + (2 / 3) * (control[0] - end[0]),
    end[1] + (2 / 3) * (control[1] - end[1]),
  ];
  return [toward(from), toward(to)];
}
