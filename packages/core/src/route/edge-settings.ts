import { clearFrom } from "../blade/measure.ts";
import { SIDES, type Side } from "../blade/schema.ts";
import type { PerSide, Station } from "../blade/station.ts";
import { tangentsOf } from "../edge/facet.ts";
import { LEAST } from "../edge/life.ts";
import {
  angleOfBall,
  angleOfLift,
  angleOfSupport,
  axleToSupport,
  ballFor,
  gapFor,
  liftFor,
  slackBulge,
  slackBy,
  turnOverWheel,
} from "../edge/settings.ts";
import type { EdgeTool } from "../edge/tools.ts";
import { degrees, radians, tan } from "../units/angle.ts";
import { perSide, type Steel } from "./steel.ts";

/** Where the edge is read and set: shares of it, clear of the plunge. */
export interface EdgePlace {
  readonly place: "heel" | "middle" | "tip";
  readonly u: number;
}
const PLACES = [0.1, 0.5, 0.9] as const;
export function edgePlaces({ field }: Steel): EdgePlace[] {
  const from = clearFrom(field);
  return [
    { place: "heel", u: Math.min(PLACES[1] - 0.01, Math.max(PLACES[0], from)) },
    { place: "middle", u: PLACES[1] },
    { place: "tip", u: PLACES[2] },
  ];
}

/** A stone by hand: nothing is known of it but that the spine is lifted. */
export interface ByLift {
  readonly kind: "stone";
}
export type Holds = EdgeTool | ByLift;

/** What to set one place of one side to: degrees, mm; null where the tool cannot reach it. */
export interface Setting {
  /** Lift of the spine, ball over the centre plane, axle to support: mm. Degrees to hold it at for a belt or a free hand. */
  readonly set: number | null;
  readonly unit: "mm" | "°";
  /** Under the spine's lower corner on a stone, mm. */
  readonly gap: number | null;
  /** The angle that the middle's own setting gives here, degrees. */
  readonly back: number | null;
  /** On a stone: whether nothing but the edge touches it. */
  readonly isFree: boolean;
  /** A wheel's facet is hollow: how steep it is at its shoulder, degrees. */
  readonly shoulder: number | null;
  /** A slack belt's is round: how far it stands out of its chord, mm. */
  readonly bulge: number | null;
}

/**
 * Angle that an edge is sharpened at, degrees per side: of its edge bevel; with nothing behind the edge, of the bevel's own face at the apex,
 * which then lies flat on the stone. Null where that side is not ground.
 */
export function sharpeningAngle(steel: Steel, station: Station, side: Side): number | null {
  const { edgeBevel, angleAtShoulder, primaryAngle } = station[side];
  const angle = steel.field.blade.edge.angle[side];
  if (edgeBevel) return angle;
  // Beside an edge bevel on the other side this one is its back, and lies flat.
  if (angle === 0 && !isZeroAt(station)) return null;
  return angleAtShoulder ?? primaryAngle;
}

/** Whether the bevel runs to the apex at a place, so that sharpening lays its face flat on the stone. */
export function isZeroAt(station: Station): boolean {
  return !station.left.edgeBevel && !station.right.edgeBevel && (station.behind ?? 0) < LEAST;
}

/** Settings at heel, middle and tip, each side, for angles in degrees, one for all places or each place's own; `facet`: the height of a facet that is not the edge bevel, mm. */
export function settingsFor(
  steel: Steel,
  tool: Holds,
  angle: PerSide<number> | ((station: Station, side: Side) => number),
  places: readonly EdgePlace[],
  facet?: number,
): PerSide<readonly Setting[]> {
  const zero = "zero" in tool ? (tool.zero ?? 0) : 0;
  return perSide((side) => {
    const stations = places.map(({ u }) => steel.station(u));
    const middle = stations[1]!;
    return stations.map((station) => {
      const wanted = typeof angle === "function" ? angle(station, side) : angle[side];
      // What it is known to give too much is taken off what it is set for, and back in what it gives.
      const alpha = radians(Math.max(0.1, wanted - zero));
      const face = (facet ?? station[side].edgeBevel ?? 0) / Math.cos(alpha);
      const setting = {
        ...settingAt(steel, tool, side, { alpha, station, middle }),
        shoulder: tool.kind === "support" ? degrees(alpha + turnOverWheel(face, tool.R)) : null,
        bulge: bulgeOf(tool, face),
      };
      return zero === 0 || setting.back === null ? setting : { ...setting, back: setting.back + zero };
    });
  });
}

interface At {
  readonly alpha: number;
  readonly station: Station;
  readonly middle: Station;
}

type Set = Omit<Setting, "shoulder" | "bulge">;

function settingAt(steel: Steel, tool: Holds, side: Side, { alpha, station, middle }: At): Set {
  const nothing = { gap: null, isFree: true };
  const inDegrees = (angle: number | null) => (angle === null ? null : degrees(angle));
  switch (tool.kind) {
    case "stone": {
      const { height } = station;
      return {
        set: liftFor(height, alpha),
        unit: "mm",
        gap: gapFor(height, alpha, halfAt(steel, station, side, height - 1e-6), apexOn(steel, station, side)),
        back: inDegrees(angleOfLift(liftFor(middle.height, alpha), height)),
        isFree: liesFree(steel, station, side, alpha),
      };
    }
    case "rod": {
      const { P, s, c = 0 } = tool;
      const to = ({ x, y, inward }: Station) => (P[0]! - x) * inward[0] + (P[1]! - y) * inward[1];
      // The clamp is off to the right: the right side's ball stands so much lower over its own plane.
      const off = side === "right" ? -c : c;
      const eta = ballFor(to(middle), alpha, s) + off;
      return {
        set: ballFor(to(station), alpha, s),
        unit: "mm",
        ...nothing,
        back: inDegrees(angleOfBall(eta, to(station), s)),
      };
    }
    case "support": {
      const C = axleToSupport(tool, alpha);
      return { set: C, unit: "mm", ...nothing, back: inDegrees(angleOfSupport(tool.C ?? C, tool)) };
    }
    case "slack": {
      const by = slackBy(tool.F, tool.N);
      return { set: by === null ? null : degrees(alpha - by), unit: "°", ...nothing, back: degrees(alpha) };
    }
    case "hand":
      return { set: degrees(alpha), unit: "°", ...nothing, back: degrees(alpha) + tool.sd };
  }
}

/** How far a slack belt's facet stands out of its chord, mm; null for what leaves it flat. */
function bulgeOf(tool: Holds, face: number): number | null {
  const by = tool.kind === "slack" ? slackBy(tool.F, tool.N) : null;
  return by === null ? null : slackBulge(face, by);
}

function halfAt({ field }: Steel, { cut }: Station, side: Side, s: number): number {
  field.sampleAt(cut.x + s * cut.dx, cut.y + s * cut.dy);
  return field[side].lowest;
}

/** How far to a side the apex stands off the centre plane, mm. */
function apexOn(steel: Steel, station: Station, side: Side): number {
  const { offset } = steel.field.blade.edge;
  if (typeof offset === "number") return side === "right" ? offset : -offset;
  const flat = steel.field.blade.edge.offset === `${side}-face` ? 1 : -1;
  return (flat * station.flats) / 2;
}

const LOOKS = 40;

/** Whether a side laid on a stone at an angle touches it with its edge alone, from its shoulder up to the spine. */
function liesFree(steel: Steel, station: Station, side: Side, alpha: number): boolean {
  const from = Math.max(0.05, station[side].edgeBevel ?? 0) + 1e-3;
  const apex = apexOn(steel, station, side);
  for (let i = 1; i <= LOOKS; i++) {
    const s = from + ((station.height - 1e-6 - from) * i) / LOOKS;
    if (halfAt(steel, station, side, s) - apex >= s * Math.tan(alpha)) return false;
  }
  return true;
}

/** How much the angle differs that one setting gives along the edge, degrees, on the side that differs most; null where it does not reach everywhere. */
export function variesBy(settings: PerSide<readonly Setting[]>, angle: PerSide<number>): number | null {
  const each = SIDES.filter((side) => angle[side] > 0).map((side) => {
    const backs = settings[side].map(({ back }) => back);
    return backs.some((one) => one === null)
      ? null
      : Math.max(...(backs as number[])) - Math.min(...(backs as number[]));
  });
  return each.some((one) => one === null) ? null : Math.max(0, ...(each as number[]));
}

/** The tangent of the apex before a facet is cut on it, radians: of the edge bevel where there is one, else of the face. */
export function tangentAt(steel: Steel, station: Station, side: "left" | "right", angle: number): number {
  const { edgeBevel, grindLine, primaryAngle, angleAtShoulder } = station[side];
  if (edgeBevel && angle > 0) {
    const { kind, bulge = 0 } = steel.field.blade.edge;
    const run = edgeBevel;
    return kind === "convex" ? tangentsOf({ run, rise: run * tan(angle) }, bulge).apex : radians(angle);
  }
  return radians(angleAtShoulder ?? primaryAngle ?? (grindLine === null ? angle : 0));
}
