import { type Fault, pathOf } from "../document/fault.ts";
import { atan, tan } from "../units/angle.ts";
import { firstAtX, placeAt } from "./chain.ts";
import { readFace } from "./face.ts";
import type { Field } from "./field.ts";
import { exitAlong } from "./outline.ts";
import { type Bevel, bevelOn, SIDES, type Side } from "./schema.ts";
import { secondBevelOn } from "./second.ts";
import { offsetFor } from "./side.ts";
import { read } from "./table.ts";

/** What only the compiled field can tell of a blade's faces: bevels that cannot be ground as they are said. */

const PLACES_ALONG = 60;
const PLACES_UP = 24;

/** Faults of the bevels at the edge, the first of each side. */
export function faceFaults(field: Field): Fault[] {
  const { blade } = field;
  const us = new Set(Array.from({ length: PLACES_ALONG + 1 }, (_, i) => i / PLACES_ALONG));
  for (const row of blade.edge.behind) us.add(row.u);
  const faults: Fault[] = [];
  for (const side of blade.bevels.left === "same" && field.alike ? (["right"] as const) : SIDES) {
    const bevel = bevelOn(blade, side);
    if (bevel.kind === "none") continue;
    if (bevel.set === "height") for (const row of bevel.height) us.add(row.u);
    const from = plungeU(field, side);
    const wheres = [from, ...[...us].filter((u) => u > from).sort((a, b) => a - b)];
    for (const u of bevel.pull === "straight" ? [from] : wheres) {
      const fault = faceFault(field, side, bevel, u);
      if (!fault) continue;
      faults.push(fault);
      break;
    }
  }
  if (faults.length === 0) {
    const necked = neckFault(field, [...us]);
    if (necked) faults.push(necked);
  }
  return faults;
}

function plungeU(field: Field, side: Side): number {
  const cut = field.plunges[side];
  const s = cut ? firstAtX(field.edge, cut.x) : null;
  return s === null ? 0 : s / field.edge.length;
}

/** The chord's own faults at u: a shoulder as thick as the flat, a wheel too small, a face that turns down. */
function faceFault(
  field: Field,
  side: Side,
  bevel: Exclude<Bevel, { kind: "none" }>,
  u: number,
): Fault | null {
  const { blade } = field;
  const place = placeAt(field.edge, u * field.edge.length);
  const inward = [-place.ty, place.tx] as const;
  const F = read(field.thickness, place.x) / 2;
  const offset = offsetFor(blade.edge.offset, side);
  const o = offset === "own-face" ? F : offset === "other-face" ? -F : offset;
  const share = side === "right" ? blade.edge.rightShare : 1 - blade.edge.rightShare;
  const e = read(field.behind, u) * share;
  const dE = e > 0 ? e / tan(blade.edge.angle[side]) : 0;
  const at = `at u ${round(u)} on the ${side} side`;
  // The flat side of a chisel may be hollowed between its edge and its line: there the apex lies in the face itself.
  const isHollowedFlat = bevel.kind === "hollow" && offset === "own-face" && e === 0;
  if (o + e >= F && !isHollowedFlat) {
    return {
      path: "$.edge.behind",
      message: `${at} the shoulder stands ${round(o + e)} mm from the centre plane, as far as the flat (${round(F)} mm)`,
    };
  }
  const relief = bevel.kind === "flat" && bevel.pull === "follow" ? bevel.relief : undefined;
  if (bevel.kind === "flat" && !relief) return null;
  const b =
    bevel.set === "height"
      ? heightAt(bevel.height, u)
      : exitAlong(field.ring, place.x, place.y, inward[0], inward[1], 1e-3);
  if (relief) {
    const eased = o + e + (relief.height - dE) * tan(relief.angle);
    const primary =
      bevel.set === "angle" ? bevel.angle : atan((F - eased) / Math.max(1e-9, b - relief.height));
    return reliefFault(relief, { dE, b: bevel.set === "angle" ? null : b, eased, F, primary }, side, at);
  }
  if (b <= dE) return null;
  const top = read(field.thickness, place.x + inward[0] * b) / 2;
  const chord = Math.hypot(b - dE, top - o - e);
  if (bevel.kind === "hollow" && chord > bevel.wheelDiameter) {
    return {
      path: pathOf("bevels", side, "wheelDiameter"),
      message: `${at} the bevel is ${round(chord)} mm wide, more than the wheel of ${bevel.wheelDiameter} mm across can reach`,
    };
  }
  if (bevel.kind === "convex") {
    const face = { h: 0, slope: 0 };
    readFace({ kind: "convex", bulge: bevel.bulge }, b, dE, o + e, b, top, face);
    if (face.slope <= 0 || bevel.bulge > chord / 2) {
      return {
        path: pathOf("bevels", side, "bulge"),
        message: `${at} a bulge of ${bevel.bulge} mm turns the face down before the grind line (${round(atan(face.slope))}° there)`,
      };
    }
  }
  return null;
}

/** A relief that ends within the edge bevel or past the line, comes out of the flat, or is no steeper than the bevel above it. */
function reliefFault(
  { angle, height }: { angle: number; height: number },
  { dE, b, eased, F, primary }: { dE: number; b: number | null; eased: number; F: number; primary: number },
  side: Side,
  at: string,
): Fault | null {
  const fault = (key: string, message: string) => ({ path: pathOf("bevels", side, "relief", key), message });
  if (height <= dE)
    return fault("height", `${at} the relief ends within the edge bevel, ${round(dE)} mm high`);
  if (b !== null && height >= b)
    return fault("height", `${at} the relief ends past the grind line, ${round(b)} mm up`);
  if (eased >= F) return fault("angle", `${at} the relief comes out of the flat before it ends`);
  if (angle <= primary)
    return fault("angle", `${at} the relief is no steeper than the bevel above it, ${round(primary)}°`);
  return null;
}

function heightAt(rows: readonly { u: number; h: number }[], u: number): number {
  return read({ at: Float64Array.from(rows, (r) => r.u), value: Float64Array.from(rows, (r) => r.h) }, u);
}

/** A hollow that leaves the blade, both sides together, thinner above the shoulder than at it. */
function neckFault(field: Field, us: readonly number[]): Fault | null {
  const { blade } = field;
  const side = SIDES.find((s) => bevelOn(blade, s).kind === "hollow");
  if (!side) return null;
  const from = Math.max(plungeU(field, "right"), plungeU(field, "left"));
  const radius = Math.max(field.plunges.right?.radius ?? 0, field.plunges.left?.radius ?? 0);
  for (const u of [...us].sort((a, b) => a - b)) {
    if (u * field.edge.length <= from * field.edge.length + 2 * radius) continue;
    const place = placeAt(field.edge, u * field.edge.length);
    const [nx, ny] = [-place.ty, place.tx];
    const height = exitAlong(field.ring, place.x, place.y, nx, ny, 1e-3);
    const thick = (d: number) => {
      field.sampleAt(place.x + nx * d, place.y + ny * d);
      return Math.min(field.right.primary, field.right.flat) + Math.min(field.left.primary, field.left.flat);
    };
    const total = read(field.behind, u);
    const shares = [blade.edge.rightShare, 1 - blade.edge.rightShare];
    const heights = [blade.edge.angle.right, blade.edge.angle.left].map((a, i) =>
      a > 0 ? (total * shares[i]!) / tan(a) : 0,
    );
    const shoulder = Math.max(...heights, 0);
    if (shoulder >= height) continue;
    const atShoulder = thick(shoulder);
    for (let k = 1; k <= PLACES_UP; k++) {
      const d = shoulder + ((height - shoulder) * k) / PLACES_UP;
      const t = thick(d);
      if (t >= atShoulder - 1e-6) continue;
      const bevel = bevelOn(blade, side);
      const key = bevel.kind === "hollow" && blade.bevels[side] !== "same" ? side : "right";
      return {
        path: pathOf("bevels", key, "wheelDiameter"),
        message: `at u ${round(u)} the hollow is thinner ${round(d - shoulder)} mm above the shoulder (${round(t)} mm) than at it (${round(atShoulder)} mm): use a larger wheel or a lower grind line`,
      };
    }
  }
  return null;
}

/** A figure as a fault tells it. */
export function round(value: number): number {
  return Number(value.toFixed(3));
}

/** Places along a second edge that are looked at. */
const SECOND_PLACES = 40;

/** Where a second edge's shoulder stands as far out as the flat, or a wheel is too small. */
export function secondFaceFaults(field: Field): Fault[] {
  const { second, blade } = field;
  if (!second || !blade.secondEdge) return [];
  for (let i = 0; i <= SECOND_PLACES; i++) {
    const v = i / SECOND_PLACES;
    const { x } = placeAt(field.spine, second.sFrom + v * (second.sTo - second.sFrom));
    const [e, F] = [read(second.behind, v) / 2, read(field.thickness, x) / 2];
    if (e >= F)
      return [
        {
          path: "$.secondEdge.behind",
          message: `at v ${round(v)} the shoulder stands ${round(e)} mm from the centre plane, as far as the flat (${round(F)} mm)`,
        },
      ];
    for (const side of SIDES) {
      const bevel = secondBevelOn(blade.secondEdge, side);
      if (bevel.kind !== "hollow" || bevel.set !== "height") continue;
      const b = read(second[side].height!, v);
      const dE = e > 0 ? e / second[side].tanEdge : 0;
      const chord = Math.hypot(b - dE, F - e);
      if (b > dE && chord > bevel.wheelDiameter)
        return [
          {
            path: pathOf("secondEdge", "bevels", side, "wheelDiameter"),
            message: `at v ${round(v)} the bevel is ${round(chord)} mm wide, more than the wheel of ${bevel.wheelDiameter} mm across can reach`,
          },
        ];
    }
  }
  return [];
}
