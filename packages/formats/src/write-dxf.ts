import { DxfWriter, point3d, Units } from "@tarikjabiri/dxf";
import { type Drawing, flattened } from "./drawing.ts";

/** How far a polyline may stray from the curve it stands for, mm: under what any cutter holds. */
const TOLERANCE = 0.005;
/** The format's own colour numbers, which tell the layers apart on any ground. */
const COLOURS: Readonly<Record<string, number>> = { OUTLINE: 7, HOLES: 7, DATUM: 8 };
const LINE_COLOUR = { RIGHT: 1, LEFT: 5 } as const;

/** A drawing as DXF in millimetres: polylines and circles on named layers, y up. */
export function writeDxf({ layers }: Drawing): string {
  const dxf = new DxfWriter();
  dxf.setUnits(Units.Millimeters);
  for (const { name, paths, circles } of layers) {
    const side = name.endsWith("LEFT") ? "LEFT" : "RIGHT";
    dxf.addLayer(name, COLOURS[name] ?? LINE_COLOUR[side], "Continuous");
    dxf.setCurrentLayerName(name);
    for (const path of paths) {
      const points = flattened(path, TOLERANCE);
      if (path.isClosed) points.pop();
      dxf.addLWPolyline(
        points.map(([x, y]) => ({ point: { x, y } })),
        { flags: path.isClosed ? 1 : 0 },
      );
    }
    for (const { at, diameter } of circles) dxf.addCircle(point3d(at[0], at[1], 0), diameter / 2);
  }
  return dxf.stringify();
}
