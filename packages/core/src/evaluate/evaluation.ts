import { compileField, type Field } from "../blade/field.ts";
import { massOf, solidBetween } from "../blade/mass.ts";
import type { Blade } from "../blade/schema.ts";
import { secondStationAt } from "../blade/second-station.ts";
import {
  FIXED_HEIGHTS,
  type PerSide,
  type Station,
  sectionAtX,
  stationAt,
  thicknessAbove,
} from "../blade/station.ts";
import type { NotJudged, Place, Severity } from "../findings/finding.ts";
import { type Beside, confirmRemedies, judge } from "../findings/judge.ts";
import { balanceOf, type Weight } from "../handle/balance.ts";
import type { Handle } from "../handle/schema.ts";
import { densityOf } from "../steel/steels.ts";

/** One JSON document with a blade's figures: lengths mm, volume mm³, mass g, area mm², second moment mm⁴. */
export interface Evaluation {
  readonly format: "true-spine/evaluation";
  readonly version: 1;
  readonly name: string;
  readonly blade: SolidFigures & {
    readonly overall: number;
    readonly length: number;
    readonly edgeLength: number;
  };
  /** Ahead of the junction only. */
  readonly forward: SolidFigures;
  /** With the handle on; only where a handle was given. */
  readonly handled?: Handled;
  readonly stations: readonly StationFigures[];
  /** Only where there is a second edge. */
  readonly secondEdge?: { readonly stations: readonly SecondFigures[] };
  readonly findings: readonly FindingFigures[];
  readonly notJudged: readonly NotJudged[];
}

export interface SolidFigures {
  readonly volume: number;
  readonly mass: number;
  readonly centreOfMass: readonly [number, number];
}

export interface Handled {
  readonly mass: number;
  /** From the junction, and from the foremost plunge; + toward the tip. */
  readonly balance: number;
  readonly fromPlunge: number | null;
  readonly parts: readonly Weight[];
}

export interface StationFigures {
  readonly u: number;
  readonly x: number;
  readonly height: number;
  readonly flats: number;
  readonly behind: PerSide<number | null> & { readonly total: number | null };
  readonly edgeBevel: PerSide<number | null>;
  readonly primaryAngle: PerSide<number | null>;
  readonly grindLine: PerSide<number | null>;
  readonly above: Readonly<Record<string, number | null>>;
  readonly area: number;
  readonly secondMoment: number;
}

/** The section square to the second edge at v, 0 where it begins and 1 where it ends. */
export interface SecondFigures {
  readonly v: number;
  readonly x: number;
  readonly height: number;
  readonly behind: PerSide<number | null> & { readonly total: number | null };
  readonly edgeBevel: PerSide<number | null>;
  readonly primaryAngle: PerSide<number | null>;
  readonly grindLine: PerSide<number | null>;
}

export interface FindingFigures {
  readonly id: string;
  readonly severity: Severity;
  readonly where: Place;
  readonly message: string;
  readonly advice: string;
  readonly basis: string;
  readonly remedy: string | null;
}

export const USUAL_PLACES: readonly number[] = Array.from({ length: 19 }, (_, i) =>
  Number(((i + 1) * 0.05).toFixed(2)),
);

/** Evaluates a checked blade at the given fractions of its edge. Throws nothing for a blade that parses. */
export function evaluate(
  blade: Blade,
  places: readonly number[] = USUAL_PLACES,
  beside: Beside = {},
): Evaluation {
  const field = compileField(blade);
  const { findings, notJudged } = judge(blade, field, beside);
  return {
    format: "true-spine/evaluation",
    version: 1,
    name: blade.name,
    ...wholeBlade(field),
    ...(beside.handle ? { handled: handled(field, beside.handle) } : {}),
    stations: places.map((u) => stationFigures(field, stationAt(field, u))),
    ...(field.second ? { secondEdge: { stations: places.flatMap((v) => secondFigures(field, v)) } } : {}),
    findings: confirmRemedies(blade, findings, beside).map(
      ({ id, severity, where, message, advice, basis, remedies }) => ({
        id,
        severity,
        where,
        message,
        advice,
        basis,
        remedy: remedies[0]?.words ?? null,
      }),
    ),
    notJudged,
  };
}

function secondFigures(field: Field, v: number): SecondFigures[] {
  const station = secondStationAt(field, v);
  if (!station) return [];
  const { x, height, right, left, behind } = station;
  return [
    {
      v,
      x,
      height,
      behind: { left: left.behind, right: right.behind, total: behind },
      edgeBevel: { left: left.edgeBevel, right: right.edgeBevel },
      primaryAngle: { left: left.primaryAngle, right: right.primaryAngle },
      grindLine: { left: left.grindLine, right: right.grindLine },
    },
  ];
}

/** Lengths, volume, mass and centre of the whole steel, and of what lies ahead of the junction. */
export function wholeBlade(field: Field): Pick<Evaluation, "blade" | "forward"> {
  const { blade, ring } = field;
  const density = densityOf(blade.steel);
  const figures = (from: number, to: number): SolidFigures => {
    const { volume, centre } = solidBetween(field, from, to);
    return { volume, mass: massOf(volume, density), centreOfMass: centre };
  };
  const forward = figures(0, ring.right);
  const behind = figures(ring.left, 0);
  const volume = forward.volume + behind.volume;
  const mean = (i: 0 | 1) =>
    volume > 0
      ? (forward.centreOfMass[i] * forward.volume + behind.centreOfMass[i] * behind.volume) / volume
      : 0;
  return {
    blade: {
      overall: ring.right - ring.left,
      length: blade.outline.spine[blade.outline.spine.length - 1]!.at[0],
      edgeLength: field.edge.length,
      volume,
      mass: massOf(volume, density),
      centreOfMass: [mean(0), mean(1)],
    },
    forward,
  };
}

function handled(field: Field, handle: Handle): Handled {
  const { mass, x, fromPlunge, parts } = balanceOf(field, handle);
  return { mass, balance: x, fromPlunge, parts };
}

/** A station's figures in the evaluation's own shape. */
export function stationFigures(field: Field, station: Station): StationFigures {
  const { left, right } = station;
  return {
    u: station.u,
    x: station.x,
    height: station.height,
    flats: station.flats,
    behind: { left: left.behind, right: right.behind, total: station.behind },
    edgeBevel: { left: left.edgeBevel, right: right.edgeBevel },
    primaryAngle: { left: left.primaryAngle, right: right.primaryAngle },
    grindLine: { left: left.grindLine, right: right.grindLine },
    above: Object.fromEntries(
      FIXED_HEIGHTS.map((height) => [String(height), thicknessAbove(field, station, height)]),
    ),
    ...sectionAtX(field, station.x),
  };
}
