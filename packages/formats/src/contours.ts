import { type Circle, flattened, type Path, type Point } from "./drawing.ts";
import { joined } from "./joined.ts";
import { distance, endOf, signedArea, sizeOf } from "./path.ts";

/** What a drawing file holds, in its own units with y up, before anybody has said what is what. */
export interface ReadDrawing {
  /** Closed runs, the largest first. */
  readonly contours: readonly Path[];
  readonly circles: readonly Circle[];
  /** Millimetres to the file's unit where the file tells it; null where it does not. */
  readonly mmPerUnit: number | null;
  /** Gaps that were closed with a straight line, each from end to end. */
  readonly gaps: readonly (readonly [Point, Point])[];
  /** What was left out or mended, in words. */
  readonly notes: readonly string[];
}

export type Read =
  | { readonly ok: true; readonly drawing: ReadDrawing }
  | { readonly ok: false; readonly why: string };

/** The most pieces that are taken: a blade has some dozens. */
export const MOST_PIECES = 20_000;
/** Ends nearer than this share of the drawing's size are one point. */
const JOINED = 2e-5;
/** A gap up to this share of the drawing's size is closed with a straight line, and told; a larger one is not. */
const CLOSABLE = 0.005;

/** Joins loose paths end to end into closed runs; doubled ones count once, what stays open is told. */
export function assembled(
  paths: readonly Path[],
  circles: readonly Circle[],
  mmPerUnit: number | null,
  notes: readonly string[],
): Read {
  const told = [...notes];
  if (paths.length === 0 && circles.length === 0) return { ok: false, why: "Nothing is drawn in it." };
  if (paths.reduce((sum, path) => sum + path.pieces.length, 0) > MOST_PIECES) {
    return { ok: false, why: `It holds more than ${MOST_PIECES} pieces, too many for a blade's outline.` };
  }
  const size = sizeOf(paths);
  if (!Number.isFinite(size))
    return { ok: false, why: "It holds numbers that are none, or too large to draw." };
  const near = size * JOINED;
  const apart = withoutDoubles(
    paths.filter((path) => path.pieces.length > 0),
    near,
  );
  if (apart.doubled > 0)
    told.push(`${apart.doubled} doubled line${apart.doubled === 1 ? "" : "s"} counted once.`);
  const closed = apart.paths.filter((path) => path.isClosed || isRound(path, near)).map(shut);
  const open = apart.paths.filter((path) => !path.isClosed && !isRound(path, near));
  const met = joined(open, near, CLOSABLE * size);
  closed.push(...met.closed.map(shut));
  if (met.gaps.length > 0) told.push(gapsInWords(met.gaps.map(([from, to]) => distance(from, to))));
  if (met.open.length > 0)
    told.push(`${met.open.length} open line${met.open.length === 1 ? "" : "s"} left out.`);
  if (closed.length === 0) {
    const widest = Math.min(
      ...met.open.map((run) => distance(run.start, endOf(run))).filter((apart) => apart > 0),
    );
    const apart = Number.isFinite(widest)
      ? ` The ends that lie nearest are ${inFigures(widest)} of its units apart.`
      : "";
    return { ok: false, why: `Nothing in it is closed: an outline must run all the way round.${apart}` };
  }
  const contours = closed
    .map((path) => ({ path, area: Math.abs(signedArea(path)) }))
    .filter(({ area }) => area > near * near)
    .sort((a, b) => b.area - a.area)
    .map(({ path }) => path);
  if (contours.length === 0) return { ok: false, why: "What is closed in it has no area." };
  return { ok: true, drawing: { contours, circles, mmPerUnit, gaps: met.gaps, notes: [...new Set(told)] } };
}

/** What was closed, and how wide it was, in the drawing's units. */
function gapsInWords(gaps: readonly number[]): string {
  const widest = inFigures(Math.max(...gaps));
  return gaps.length === 1
    ? `A gap of ${widest} was closed with a straight line.`
    : `${gaps.length} gaps were closed with straight lines, the widest ${widest}.`;
}

const inFigures = (length: number) => Number(length.toPrecision(2)).toString();

function isRound(path: Path, near: number): boolean {
  return path.pieces.length > 1 && distance(path.start, endOf(path)) <= near;
}

/** A closed path that ends exactly where it begins. */
function shut(path: Path): Path {
  const end = endOf(path);
  const isMet = distance(path.start, end) < 1e-9;
  if (isMet) return { ...path, isClosed: true };
  const size = sizeOf([path]);
  if (distance(path.start, end) <= size * JOINED * 2) {
    const last = path.pieces[path.pieces.length - 1]!;
    return { ...path, pieces: [...path.pieces.slice(0, -1), { ...last, to: path.start }], isClosed: true };
  }
  return { ...path, pieces: [...path.pieces, { to: path.start }], isClosed: true };
}

/** Leaves out a path that lies on one already there, either way round. */
function withoutDoubles(paths: readonly Path[], near: number): { paths: Path[]; doubled: number } {
  const kept = new Map<string, Path[]>();
  let doubled = 0;
  const result: Path[] = [];
  const cell = (point: Point) => point.map((value) => Math.round(value / (20 * near))).join();
  for (const path of paths) {
    const points = sample(path);
    const key = [...new Set([cell(points[0]!), cell(points[points.length - 1]!)])].sort().join(" ");
    const twins = kept.get(key) ?? [];
    const back = [...points].reverse();
    const isDouble = twins.some((twin) => {
      const other = sample(twin);
      return [points, back].some((run) => run.every((point, i) => distance(point, other[i]!) <= 2 * near));
    });
    if (isDouble) doubled++;
    else {
      result.push(path);
      kept.set(key, [...twins, path]);
    }
  }
  return { paths: result, doubled };
}

const SAMPLES = 9;

/** Points at even shares of a path's length. */
function sample(path: Path): Point[] {
  const points = flattened(path, Math.max(sizeOf([path]) / 500, 1e-9));
  const lengths = points.slice(1).map((point, i) => distance(points[i]!, point));
  const total = lengths.reduce((sum, length) => sum + length, 0);
  return Array.from({ length: SAMPLES }, (_, k) => {
    let left = (k / (SAMPLES - 1)) * total;
    let i = 0;
    while (i < lengths.length - 1 && left > lengths[i]!) left -= lengths[i++]!;
    const share = lengths[i] ? Math.min(1, left / lengths[i]!) : 0;
    const [a, b] = [points[i]!, points[i + 1] ?? points[i]!];
    return [a[0] + share * (b[0] - a[0]), a[1] + share * (b[1] - a[1])];
  });
}
