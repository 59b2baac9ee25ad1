import { SIDES, type Side } from "../blade/schema.ts";
import { angleByFace, angleByHeight, type Read, type Solved } from "../edge/triangle.ts";
import { combined, coverage } from "../numbers/uncertainty.ts";
import type { Figure } from "./figure.ts";
import { steelAt } from "./reader.ts";
import { faceResponse } from "./response.ts";
import { type BenchSteel, centreBand, edgeBand, lineBand } from "./target.ts";

/** A figure worked out of several readings, with what covers 95 of 100. */
export interface Derived {
  readonly value: number;
  readonly expanded: number;
}

interface EdgeRead {
  readonly value: number;
  readonly off: number;
  readonly x: number;
  readonly u: number;
}

/** What readings of one place, or of the whole blade, say together. Lengths mm, angles degrees; where along in x. */
export interface Together {
  /** Half of the difference of the sides, + left of centre, by the height gauge from both flats. */
  readonly centre: readonly (Derived & {
    readonly x: number;
    readonly u: number;
    readonly band: number;
    /** What it parts the grind lines by where both edges are held. */
    readonly linesApart: number;
  })[];
  readonly lines: readonly (Derived & { readonly x: number; readonly band: number })[];
  readonly plunges: { readonly place: Derived | null; readonly lean: Derived | null };
  /** Along the edge: thinnest, thickest, and what is between them beside the planned steps. */
  readonly edge: {
    readonly least: EdgeRead;
    readonly most: EdgeRead;
    readonly range: Derived;
    readonly band: number;
    readonly count: number;
  } | null;
  /** Flats, thicker than planned at the tip than at the heel by so much. */
  readonly taper: Derived | null;
  /** Bevel angle a side, by the angle finder or from two thicknesses. */
  readonly angles: readonly (Derived & {
    readonly x: number;
    readonly side: Side | "both";
    readonly by: string;
  })[];
  /** Edge angle a side by what is behind the edge and how high or long its bevel is; `open`: by how much all three do not close, mm. */
  readonly edgeAngles: readonly EdgeAngle[];
  readonly bow: Derived | null;
  readonly twist: Derived | null;
}

/** The angle of one side's edge bevel, degrees, with its ends, and the reading that it mostly leans on. */
export interface EdgeAngle {
  readonly x: number;
  readonly u: number;
  readonly side: Side;
  readonly value: number;
  readonly ends: readonly [number, number];
  readonly leansOn: Solved["leansOn"];
  /** Height and face both read: how far the face lies from what the height gives, mm, and what covers that; null where one is missing. */
  readonly open: { readonly off: number; readonly covers: number } | null;
}

/** Puts the figures of a stage together. */
export function together(stage: BenchSteel, figures: readonly Figure[]): Together {
  const at = (what: Figure["spot"]["what"], side?: Side) =>
    figures.filter(({ spot }) => spot.what === what && (side === undefined || spot.side === side));
  const one = (what: Figure["spot"]["what"]) => {
    const [figure] = at(what);
    return figure ? { value: figure.value, expanded: figure.uncertainty.expanded } : null;
  };
  return {
    centre: pairs(at("over", "left"), at("over", "right")).map(([left, right]) => {
      const u = left.spot.u!;
      // Both are read from the far flat, half the flats each: those fall out of the difference.
      const k = { ...differenceOf(left, right), x: left.target.x, u };
      const value = k.value / 2;
      return {
        value,
        expanded: k.expanded / 2,
        x: k.x,
        u,
        band: centreBand(stage),
        linesApart: linesApartBy(stage, u, value),
      };
    }),
    lines: pairs(at("line", "left"), at("line", "right")).map(([left, right]) => {
      const apart = differenceOf(left, right);
      return {
        value: apart.value - (left.target.value - right.target.value),
        expanded: apart.expanded,
        x: left.target.x,
        band: lineBand(stage, left.spot),
      };
    }),
    plunges: {
      place: apartFromPlan(at("plunge", "left")[0], at("plunge", "right")[0]),
      lean: apartFromPlan(at("lean", "left")[0], at("lean", "right")[0]),
    },
    edge: edgeOf([...at("edge"), ...at("behind")]),
    taper: taperOf(at("flats")),
    angles: anglesOf(stage, figures),
    edgeAngles: edgeAnglesOf(figures),
    bow: one("bow"),
    twist: one("twist"),
  };
}

/** Figures of both sides at the same share of the edge. */
function pairs(left: readonly Figure[], right: readonly Figure[]): [Figure, Figure][] {
  return left
    .flatMap((one): [Figure, Figure][] => {
      const other = right.find(({ spot }) => spot.u === one.spot.u);
      return other ? [[one, other]] : [];
    })
    .sort(([a], [b]) => a.target.x - b.target.x);
}

/** Left less right, with both uncertainties; what one instrument is off by falls out of it. */
function differenceOf(left: Figure, right: Figure): Derived {
  const own = (figure: Figure) =>
    figure.uncertainty.components.filter(({ from }) => !from.startsWith("its error"));
  const { expanded } = combined([...own(left), ...own(right)]);
  return { value: left.value - right.value, expanded };
}

function apartFromPlan(left: Figure | undefined, right: Figure | undefined): Derived | null {
  if (!left || !right) return null;
  const { expanded } = differenceOf(left, right);
  return { value: left.off - right.off, expanded };
}

/** How far apart an edge off centre by k takes the lines of both sides: what lifts the apex by so much on the one and lets it down on the other. */
function linesApartBy(stage: BenchSteel, u: number, k: number): number {
  const moved = (side: Side) => {
    const over = faceResponse(stage, { what: "over", u, side }, side);
    return over > 0 ? faceResponse(stage, { what: "line", u, side }, side) / over : 0;
  };
  return -k * (moved("left") + moved("right"));
}

/** Readings of one place contradict each other from so many standard uncertainties. */
const CONTRADICTS = 4;
/** Grind lines count as read at the place of an edge reading within this, mm. */
const SAME_PLACE = 4;

/**
 * The grind lines of a place where they contradict the edge readings there: an edge off centre by k makes them unlike by 2k/tan β. Null
 * where they agree, or were not read.
 */
export function linesAgainst(
  edge: Together["centre"][number],
  lines: Together["lines"],
): Together["lines"][number] | null {
  const there = lines.find(({ x }) => Math.abs(x - edge.x) <= SAME_PLACE);
  if (!there || edge.value === 0) return null;
  const u = Math.hypot(there.expanded, (edge.linesApart / edge.value) * edge.expanded) / COVERS;
  // The side that the edge is off to stands proud, and its line low.
  const expected = -Math.sign(edge.value) * Math.abs(edge.linesApart);
  return Math.abs(there.value - expected) > CONTRADICTS * u ? there : null;
}
const COVERS = 1.96;

function edgeOf(figures: readonly Figure[]): Together["edge"] {
  if (figures.length < 2) return null;
  const by = (better: (a: number, b: number) => boolean, of: (figure: Figure) => number) =>
    figures.reduce((a, b) => (better(of(b), of(a)) ? b : a));
  const said = ({ value: read, off, target, spot }: Figure) => ({
    value: read,
    off,
    x: target.x,
    u: spot.u!,
  });
  const value = (figure: Figure) => figure.value;
  // Wanted steps, as a thinner tip, are taken out of the range.
  const [high, low] = [
    by(
      (b, a) => b > a,
      (one) => one.off,
    ),
    by(
      (b, a) => b < a,
      (one) => one.off,
    ),
  ];
  return {
    least: said(by((b, a) => b < a, value)),
    most: said(by((b, a) => b > a, value)),
    range:
      differenceOf(high, low).value === 0
        ? { value: 0, expanded: differenceOf(high, low).expanded }
        : { value: high.off - low.off, expanded: differenceOf(high, low).expanded },
    band: 2 * edgeBand(figures.reduce((sum, { value: each }) => sum + each, 0) / figures.length),
    count: figures.length,
  };
}

/** The line through what the flats are off by, as what it gains from the first reading to the last. Source: least squares. */
function taperOf(figures: readonly Figure[]): Derived | null {
  if (figures.length < 3) return null;
  const xs = figures.map(({ target }) => target.x);
  const mean = xs.reduce((sum, x) => sum + x, 0) / xs.length;
  const squares = xs.reduce((sum, x) => sum + (x - mean) ** 2, 0);
  const length = Math.max(...xs) - Math.min(...xs);
  const slope = figures.reduce((sum, { off }, i) => sum + off * (xs[i]! - mean), 0) / squares;
  const u = Math.max(...figures.map(({ uncertainty }) => uncertainty.u)) / Math.sqrt(squares);
  return { value: slope * length, expanded: u * length * coverage(Number.POSITIVE_INFINITY) };
}

/**
 * Angles by the finder, and by two thicknesses of one place, both sides together: as much steeper than the steel should be there as
 * the two thicknesses are further apart than its own. Source: geometry; GUM 5.1.2 for the uncertainty.
 */
function anglesOf(stage: BenchSteel, figures: readonly Figure[]): Together["angles"] {
  const found = figures.filter(({ spot }) => spot.what === "angle");
  const direct = found.map(({ value, uncertainty, target, spot }) => ({
    value,
    expanded: uncertainty.expanded,
    x: target.x,
    side: spot.side!,
    by: "angle finder",
  }));
  const aboves = figures.filter(({ spot }) => spot.what === "above");
  const edges = figures.filter(({ spot }) => spot.what === "edge");
  const two = aboves.flatMap((above) => {
    const { u, height } = above.spot;
    const edge = edges.find(({ spot }) => spot.u === u);
    const { left, right } = stage.steel.station(u!);
    if (!edge || height! >= Math.min(left.grindLine ?? 0, right.grindLine ?? 0)) return [];
    const sides = (["left", "right"] as const).map((side) => steelAt(stage, { what: "angle", u, side }));
    const planned = sides.reduce<number>((sum, one) => sum + (one ?? 0), 0) / 2;
    const rise = 2 * height!;
    const slopeOf = (a: number, b: number) => (Math.atan((a - b) / rise) * 180) / Math.PI;
    const value = planned + slopeOf(above.value, edge.value) - slopeOf(above.target.value, edge.target.value);
    const within =
      combined([...above.uncertainty.components, ...edge.uncertainty.components]).expanded / rise;
    return [
      {
        value,
        expanded: (within * 180) / Math.PI / (1 + ((above.value - edge.value) / rise) ** 2),
        x: above.target.x,
        side: "both" as const,
        by: "two thicknesses",
      },
    ];
  });
  return [...direct, ...two];
}

const asRead = ({ value, uncertainty: { u } }: Figure) => ({ value, u });

/** Where the edge's thickness and its bevel were both read: half of the thickness is each side's. Source: geometry; JCGM 100. */
function edgeAnglesOf(figures: readonly Figure[]): EdgeAngle[] {
  const at = (what: Figure["spot"]["what"], u: number, side?: Side) =>
    figures.find(({ spot }) => spot.what === what && spot.u === u && spot.side === side);
  const behinds = figures.filter(({ spot }) => spot.what === "behind");
  return behinds.flatMap((behind) =>
    SIDES.flatMap((side): EdgeAngle[] => {
      const u = behind.spot.u!;
      const [high, face] = [at("edge-height", u, side), at("edge-face", u, side)];
      const e = asRead(behind);
      const solved = high ? angleByHeight(e, asRead(high)) : face ? angleByFace(e, asRead(face)) : null;
      if (!solved) return [];
      const { value, ends, leansOn } = solved;
      return [
        {
          x: behind.target.x,
          u,
          side,
          value,
          ends,
          leansOn,
          open: high && face ? openBy(e, asRead(high), asRead(face)) : null,
        },
      ];
    }),
  );
}

/** By Pythagoras: the face over the height and half of what is behind it. */
function openBy(e: Read, d: Read, f: Read): NonNullable<EdgeAngle["open"]> {
  const wanted = Math.hypot(d.value, e.value / 2);
  const u = Math.hypot(f.u, (d.value / wanted) * d.u, (e.value / 4 / wanted) * e.u);
  return { off: f.value - wanted, covers: u * coverage(Number.POSITIVE_INFINITY) };
}

/** What centring an edge takes at a place: off the thick face so that its apex comes down by 2k, the edge thinner, its line up. */
export function centringCost(stage: BenchSteel, u: number, side: Side, k: number) {
  const over = faceResponse(stage, { what: "over", u, side }, side);
  const off = over > 0 ? (2 * Math.abs(k)) / over : 2 * Math.abs(k);
  return {
    off,
    edge: 2 * Math.abs(k),
    line: -off * faceResponse(stage, { what: "line", u, side }, side),
  };
}
