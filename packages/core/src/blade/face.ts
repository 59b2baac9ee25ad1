/**
 * The primary bevel's face over a chord in the (d, h) plane: d from the edge, h from the centre plane. The
 * chord runs from the shoulder (d0, h0) to the grind line (d1, h1), both mm.
 */
export interface Face {
  /** h at d: −∞…∞; +∞ where the face is not there to cut. */
  h: number;
  /** dh/dd at d, the tangent of the angle per side. */
  slope: number;
}

export type FaceShape =
  | { readonly kind: "flat" }
  | { readonly kind: "hollow"; readonly radius: number }
  | { readonly kind: "convex"; readonly bulge: number };

/**
 * Reads a face at d into `face`. Below d0 it goes on along its own line or circle, above d1 along its tangent
 * there. Source: geometry; an arc of radius R over chord c has sagitta R − √(R² − c²/4).
 */
export function readFace(
  shape: FaceShape,
  d: number,
  d0: number,
  h0: number,
  d1: number,
  h1: number,
  face: Face,
): void {
  const run = d1 - d0;
  const rise = h1 - h0;
  if (shape.kind === "flat") {
    face.slope = rise / run;
    face.h = h0 + (d - d0) * face.slope;
    return;
  }
  const chordSquared = run * run + rise * rise;
  const chord = Math.sqrt(chordSquared);
  const isHollow = shape.kind === "hollow";
  const radius = isHollow ? shape.radius : arcRadius(chord, shape.bulge);
  const toCentre = Math.sqrt(Math.max(0, radius * radius - chordSquared / 4));
  const side = (isHollow || (shape.kind === "convex" && shape.bulge > chord / 2) ? 1 : -1) * toCentre;
  const centreD = (d0 + d1) / 2 - (rise / chord) * side;
  const centreH = (h0 + h1) / 2 + (run / chord) * side;
  const outward = isHollow ? -1 : 1;
  const reach = Math.min(d, d1) - centreD;
  const under = radius * radius - reach * reach;
  if (under <= 0) {
    face.h = isHollow ? Number.POSITIVE_INFINITY : centreH;
    face.slope = 0;
    return;
  }
  const drop = Math.sqrt(under);
  face.slope = (-outward * reach) / drop;
  face.h = centreH + outward * drop;
  if (d > d1) face.h += (d - d1) * face.slope;
}

/** Radius of the arc that stands `bulge` outside a chord: c²/8q + q/2. Source: geometry. */
export function arcRadius(chord: number, bulge: number): number {
  return (chord * chord) / (8 * bulge) + bulge / 2;
}
