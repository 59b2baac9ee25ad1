import { type Field, thicknessAt } from "../blade/field.ts";
import { isPrimary, SECOND, SECOND_RUN_IN, type Surface } from "../blade/half.ts";
import { SIDES } from "../blade/schema.ts";
import { type SecondStation, secondStations } from "../blade/second-station.ts";
import type { Finding } from "./finding.ts";
import type { Rule } from "./judged.ts";

/** Places along a second edge that are looked at. */
const PLACES = 40;

const isSecond = (surface: Surface) => surface === SECOND || surface === SECOND_RUN_IN;

/** Where both edges' bevels meet with no flat between, as mm below the second edge; null where flat lies between. */
function ridgeOf({ cut }: SecondStation): number | null {
  for (const side of SIDES) {
    const surfaces = cut[side];
    const at = surfaces.findIndex((surface, i) => isSecond(surface) && isPrimary(surfaces[i + 1] ?? surface));
    if (at >= 0) return cut.breaks[at + 1]!;
  }
  return null;
}

function thickAt(field: Field, { x, y, inward }: SecondStation, down: number): number {
  return thicknessAt(field, x + down * inward[0], y + down * inward[1]);
}

/** Bevels of both edges that meet in a ridge: where, and how thick it is. */
const ridge: Rule = ({ field, say }) => {
  const met = secondStations(field, PLACES).flatMap((station) => {
    const down = ridgeOf(station);
    return down === null ? [] : [{ x: station.x, t: thickAt(field, station, down) }];
  });
  if (met.length === 0) return [];
  const thin = met.reduce((a, b) => (b.t < a.t ? b : a));
  const [from, to] = [met[0]!.x, met[met.length - 1]!.x];
  return [
    {
      id: "edges-meet-in-ridge",
      severity: "note",
      where: { x: [Math.min(from, to), Math.max(from, to)] },
      measured: thin.t,
      unit: "mm",
      message: `The bevels of both edges meet in a ridge ${say.along(Math.min(from, to), Math.max(from, to))}, ${say.length(thin.t)} thick where it is thinnest.`,
      advice: "Grind both edges by turns, or the ridge wanders to the side that was ground last.",
      basis: "geometry",
      remedies: [],
    },
  ];
};

/** A double edge is a matter of law before it is one of steel. */
const lawful: Rule = ({ field, say }): Finding[] => {
  if (!field.second) return [];
  const { from, to } = field.second;
  return [
    {
      id: "second-edge-law",
      severity: "note",
      where: { x: [from, to] },
      message: `There is a second edge ${say.along(from, to)}.`,
      advice: "Double edges, blade length and carry are matters of local law: look before it is ground.",
      basis: "common practice",
      remedies: [],
    },
  ];
};

/** How far from the point both edges are still told apart, mm. */
const AT_THE_POINT = 4;
/** As thin as this near the point, a point sharpened from two sides breaks off: a starting value, mm over the flats. */
const THIN = 1;

/** A point that two edges make thinner than either would. */
const pointThin: Rule = ({ field, say }) => {
  const station = secondStations(field, PLACES).findLast(({ x }) => x <= field.ring.right - AT_THE_POINT);
  if (!station || station.x < field.ring.right - 4 * AT_THE_POINT) return [];
  const most = Math.max(
    ...Array.from({ length: 21 }, (_, i) => thickAt(field, station, (station.height * i) / 20)),
  );
  if (most >= THIN) return [];
  return [
    {
      id: "double-point-thin",
      severity: "watch",
      where: { x: [station.x, field.ring.right] },
      measured: most,
      wanted: [THIN, null],
      unit: "mm",
      message: `Between both edges the point is no more than ${say.length(most)} thick ${say.along(station.x, station.x)}.`,
      advice: "Let both grind lines come down toward the point, or leave the stock thicker there.",
      basis: "starting value, without a published source",
      remedies: [],
    },
  ];
};

export const SECOND_EDGE_RULES: readonly Rule[] = [ridge, lawful, pointThin];
