import type { Mesh } from "@true-spine/core/blade/mesh.ts";
import { strToU8, zipSync } from "fflate";
import { escaped } from "./write-svg.ts";

/** A closed surface: its corners, three numbers each, and its triangles, three corners each. */
export type Solid = Pick<Mesh, "positions" | "triangles">;

/**
 * A surface as it stands once its numbers are written down: corners that are then one are one, and triangles that have become lines are gone.
 * It stays closed, two faces at each edge: an edge that shrinks to a point takes its two triangles with it.
 */
function asWritten({ positions, triangles }: Solid, written: (value: number) => number): Solid {
  const known = new Map<string, number>();
  const kept: number[] = [];
  const corner = Array.from({ length: positions.length / 3 }, (_, i) => {
    const at = [0, 1, 2].map((axis) => written(positions[3 * i + axis]!) + 0);
    const key = at.join(" ");
    const index = known.get(key) ?? known.size;
    if (index === known.size) {
      known.set(key, index);
      kept.push(...at);
    }
    return index;
  });
  const faces: number[] = [];
  for (let i = 0; i < triangles.length; i += 3) {
    const [a, b, c] = [0, 1, 2].map((k) => corner[triangles[i + k]!]!) as [number, number, number];
    if (a !== b && b !== c && c !== a) faces.push(a, b, c);
  }
  return { positions: Float64Array.from(kept), triangles: Uint32Array.from(faces) };
}

/** A mesh as binary STL, millimetres. Source of the layout: the format's own 80-byte header, count, 50 bytes a facet. */
export function writeStl(solid: Solid, name: string): Uint8Array {
  const mesh = asWritten(solid, Math.fround);
  const count = mesh.triangles.length / 3;
  const bytes = new Uint8Array(84 + 50 * count);
  const view = new DataView(bytes.buffer);
  // Any text but one that begins with “solid”, which readers take for the other kind of STL.
  bytes.set(strToU8(`true spine: ${name.replace(/[^\x20-\x7e]/g, "?")}`).subarray(0, 80));
  view.setUint32(80, count, true);
  const at = (vertex: number, axis: number) => mesh.positions[3 * vertex + axis]!;
  for (let i = 0; i < count; i++) {
    const corners = [0, 1, 2].map((k) => mesh.triangles[3 * i + k]!);
    const edge = (k: number) => [0, 1, 2].map((axis) => at(corners[k]!, axis) - at(corners[0]!, axis));
    const [u, v] = [edge(1), edge(2)];
    const normal = [0, 1, 2].map(
      (k) => u[(k + 1) % 3]! * v[(k + 2) % 3]! - u[(k + 2) % 3]! * v[(k + 1) % 3]!,
    );
    const size = Math.hypot(...normal) || 1;
    const values = [
      ...normal.map((n) => n / size),
      ...corners.flatMap((c) => [at(c, 0), at(c, 1), at(c, 2)]),
    ];
    for (const [k, value] of values.entries()) view.setFloat32(84 + 50 * i + 4 * k, value, true);
  }
  return bytes;
}

const CONTENT_TYPES = `<?xml version="1.0" encoding="UTF-8"?>
<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="model" ContentType="application/vnd.ms-package.3dmanufacturing-3dmodel+xml"/></Types>`;
const RELATIONS = `<?xml version="1.0" encoding="UTF-8"?>
<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Target="/3D/3dmodel.model" Id="rel0" Type="http://schemas.microsoft.com/3dmanufacturing/2013/01/3dmodel"/></Relationships>`;

/** A mesh as a 3MF package, millimetres. Source: the 3MF core specification's smallest conforming package. */
export function write3mf(solid: Solid, name: string): Uint8Array {
  const mesh = asWritten(solid, (value) => Number(value.toFixed(5)));
  const vertices: string[] = [];
  for (let i = 0; i < mesh.positions.length; i += 3) {
    const [x, y, z] = mesh.positions.subarray(i, i + 3);
    vertices.push(`<vertex x="${x}" y="${y}" z="${z}"/>`);
  }
  const triangles: string[] = [];
  for (let i = 0; i < mesh.triangles.length; i += 3) {
    const [a, b, c] = mesh.triangles.subarray(i, i + 3);
    triangles.push(`<triangle v1="${a}" v2="${b}" v3="${c}"/>`);
  }
  // A build lies where every coordinate is positive.
  const shift = [0, 1, 2].map((axis) => {
    let least = 0;
    for (let i = axis; i < mesh.positions.length; i += 3) least = Math.min(least, mesh.positions[i]!);
    return Math.ceil(-least);
  });
  const model = `<?xml version="1.0" encoding="UTF-8"?>
<model unit="millimeter" xml:lang="en-GB" xmlns="http://schemas.microsoft.com/3dmanufacturing/core/2015/02"><metadata name="Application">True Spine</metadata><metadata name="Title">${escaped(name)}</metadata><resources><object id="1" type="model" name="${escaped(name)}"><mesh><vertices>${vertices.join("")}</vertices><triangles>${triangles.join("")}</triangles></mesh></object></resources><build><item objectid="1" transform="1 0 0 0 1 0 0 0 1 ${shift.join(" ")}"/></build></model>`;
  return zipSync({
    "[Content_Types].xml": strToU8(CONTENT_TYPES),
    "_rels/.rels": strToU8(RELATIONS),
    "3D/3dmodel.model": strToU8(model),
  });
}
