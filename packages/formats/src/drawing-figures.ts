import type { Read } from "./contours.ts";
import { flattened, type Path } from "./drawing.ts";
import { laid } from "./outline-from.ts";
import { distance } from "./path.ts";
import { readDxf } from "./read-dxf.ts";
import { readSvg } from "./read-svg.ts";

/** A drawing's figures, for whoever holds this reader to other people's files: lengths in mm, or in its own units where it does not say which. */
export interface DrawingFigures {
  readonly format: "true-spine/drawing-figures";
  readonly version: 1;
  readonly unit: "mm" | "not said";
  /** Millimetres to the file's own unit, and how that is known. */
  readonly mmPerUnit: number | null;
  readonly how: string;
  /** Of the largest closed run: its box and its area. */
  readonly width: number;
  readonly height: number;
  readonly area: number;
  readonly holes: readonly { readonly x: number; readonly y: number; readonly diameter: number }[];
  /** Closed runs that are offered as the outline, the largest first. */
  readonly runs: readonly { readonly width: number; readonly height: number; readonly area: number }[];
  /** Gaps between ends that were closed with a straight line, how wide each was. */
  readonly gaps: readonly number[];
  readonly notes: readonly string[];
}

export type FiguresOrWhy =
  | { readonly ok: true; readonly figures: DrawingFigures }
  | { readonly ok: false; readonly why: string };

/** Reads a drawing by its name's ending and gives its figures, or in words why not. Never throws. */
export function figuresOf(name: string, text: string): FiguresOrWhy {
  const kind = /\.(svg|dxf)$/i.exec(name)?.[1]?.toLowerCase();
  if (!kind) return { ok: false, why: "It is neither an SVG nor a DXF, by its name." };
  const read: Read = kind === "svg" ? readSvg(text) : readDxf(text);
  if (!read.ok) return read;
  const { contours, mmPerUnit, gaps, notes } = read.drawing;
  const by = mmPerUnit ?? 1;
  const { holes } = laid(read.drawing, { contour: 0, mmPerUnit: by, flipX: false, flipY: false, turn: 0 });
  const runs = contours.map((path) => boxOf(path, by));
  const [largest] = runs;
  if (!largest) return { ok: false, why: "Nothing in it is closed: an outline must run all the way round." };
  return {
    ok: true,
    figures: {
      format: "true-spine/drawing-figures",
      version: 1,
      unit: mmPerUnit === null ? "not said" : "mm",
      mmPerUnit,
      how:
        mmPerUnit === null
          ? "the file names no unit: lengths are its own"
          : kind === "dxf"
            ? "by $INSUNITS in its header"
            : "by its width or height and its viewBox",
      ...largest,
      holes: holes.map(({ at: [x, y], diameter }) => ({
        x: figure(x),
        y: figure(y),
        diameter: figure(diameter),
      })),
      runs,
      gaps: gaps.map(([from, to]) => figure(distance(from, to) * by)),
      notes,
    },
  };
}

/** Of a run's own size: what its figures may be off by. */
const FLAT = 1e-6;
const figure = (value: number) => Number(value.toPrecision(10));

function boxOf(path: Path, by: number) {
  const rough = flattened(path, Number.MAX_VALUE);
  const size = Math.max(
    ...rough.map(([x, y]) => Math.max(Math.abs(x - rough[0]![0]), Math.abs(y - rough[0]![1]))),
  );
  const points = flattened(path, Math.max(size * FLAT, 1e-12));
  const [xs, ys] = [points.map(([x]) => x), points.map(([, y]) => y)];
  const span = (values: readonly number[]) =>
    values.reduce((most, v) => Math.max(most, v), -Infinity) -
    values.reduce((least, v) => Math.min(least, v), Infinity);
  const twice = points.reduce((sum, [x, y], i) => {
    const [nx, ny] = points[(i + 1) % points.length]!;
    return sum + x * ny - nx * y;
  }, 0);
  return {
    width: figure(span(xs) * by),
    height: figure(span(ys) * by),
    area: figure((Math.abs(twice) / 2) * by * by),
  };
}
