import { DxfWriter, point3d, SplineFlags, Units } from "@tarikjabiri/dxf";
import { type Drawing, flattened, type LayerName, type Path, type Piece, type Point } from "./drawing.ts";

export interface DxfOptions {
  /** Curves as they are, for whoever reads splines; or as polylines, which everybody reads. */
  readonly curves: "polylines" | "splines";
  /** Only what is cut through, for a service that cuts whatever it finds. */
  readonly isCutOnly?: boolean;
}

/** How far a polyline may stray from the curve it stands for, mm: under what any cutter holds. */
const TOLERANCE = 0.005;
/** What is cut through; everything else is for the eye. */
const CUT: readonly LayerName[] = ["OUTLINE", "HOLES"];
/** The format's own colour numbers, which tell the layers apart on any ground. */
const COLOURS: Readonly<Record<string, number>> = { OUTLINE: 7, HOLES: 7, DATUM: 8 };
const LINE_COLOUR = { RIGHT: 1, LEFT: 5 } as const;

/** A drawing as DXF in millimetres, y up, each kind of line on a layer of its own, with how far it reaches in its head. */
export function writeDxf({ layers }: Drawing, { curves, isCutOnly = false }: DxfOptions): string {
  const dxf = new DxfWriter();
  dxf.setUnits(Units.Millimeters);
  const drawn = isCutOnly ? layers.filter(({ name }) => CUT.includes(name)) : layers;
  const reached: Point[] = [];
  for (const { name, paths, circles } of drawn) {
    const side = name.endsWith("LEFT") ? "LEFT" : "RIGHT";
    dxf.addLayer(name, COLOURS[name] ?? LINE_COLOUR[side], "Continuous");
    dxf.setCurrentLayerName(name);
    for (const path of paths) {
      const points = flattened(path, TOLERANCE);
      reached.push(...points);
      if (curves === "splines" && path.pieces.some(({ controls }) => controls)) splinesOf(dxf, path);
      else polylineOf(dxf, points, path.isClosed);
    }
    for (const { at, diameter } of circles) {
      dxf.addCircle(point3d(at[0], at[1], 0), diameter / 2);
      reached.push(
        [at[0] - diameter / 2, at[1] - diameter / 2],
        [at[0] + diameter / 2, at[1] + diameter / 2],
      );
    }
  }
  setExtents(dxf, reached);
  return dxf.stringify();
}

/** Says in a drawing's head how far it reaches: what a reader shows at first. */
export function setExtents(dxf: DxfWriter, points: readonly Point[]): void {
  const reach = (pick: (...values: number[]) => number) => ({
    10: points.reduce((at, [x]) => pick(at, x), points[0]?.[0] ?? 0),
    20: points.reduce((at, [, y]) => pick(at, y), points[0]?.[1] ?? 0),
    30: 0,
  });
  dxf.setVariable("$EXTMIN", reach(Math.min));
  dxf.setVariable("$EXTMAX", reach(Math.max));
}

function polylineOf(dxf: DxfWriter, points: Point[], isClosed: boolean): void {
  dxf.addLWPolyline(
    (isClosed ? points.slice(0, -1) : points).map(([x, y]) => ({ point: { x, y } })),
    { flags: isClosed ? 1 : 0 },
  );
}

/** A path as splines and lines end to end: a spline for each run of curves, exactly the curves they are. */
function splinesOf(dxf: DxfWriter, { start, pieces, isClosed }: Path): void {
  let from = start;
  let run: Piece[] = [];
  let begun = start;
  const end = () => {
    if (run.length > 0) splineOf(dxf, begun, run);
    run = [];
  };
  const back: Piece[] = isClosed && !isSame(pieces.at(-1)!.to, start) ? [{ to: start }] : [];
  for (const piece of [...pieces, ...back]) {
    if (piece.controls) {
      if (run.length === 0) begun = from;
      run.push(piece);
    } else {
      end();
      if (!isSame(from, piece.to)) dxf.addLine(point3d(...from, 0), point3d(...piece.to, 0));
    }
    from = piece.to;
  }
  end();
}

const isSame = (a: Point, b: Point) => a[0] === b[0] && a[1] === b[1];

/** Cubics end to end as one spline of the third degree: clamped at its ends, each joint a knot of three. */
function splineOf(dxf: DxfWriter, begun: Point, run: readonly Piece[]): void {
  const controls = [begun, ...run.flatMap(({ controls, to }) => [...controls!, to])];
  const joints = Array.from({ length: run.length + 1 }, (_, i) => [i, i, i]).flat();
  dxf.addSpline({
    degreeCurve: 3,
    flags: SplineFlags.Planar,
    controlPoints: controls.map(([x, y]) => point3d(x, y, 0)),
    knots: [0, ...joints, run.length],
  });
}
