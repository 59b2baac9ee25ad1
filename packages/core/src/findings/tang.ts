import { spansAt } from "../blade/outline.ts";
import { degrees } from "../units/angle.ts";
import type { Finding } from "./finding.ts";
import { type Judged, type Rule, tipX } from "./judged.ts";
import { flatsAt } from "./meant.ts";
import { STARTING_VALUE } from "./purposes.ts";

/** Will the tang hold: what a handle is hung on. */

/** Where along the tang it is looked at, mm from the junction, and the blade just ahead of it. */
const LOOKS = 40;
const AHEAD = 12;
/** A tang breaks where it leaves the blade, not at its far end, mm. */
const NEAR_BLADE = 35;
/** Of the blade's own section ahead of the junction, how little a tang may be: to watch, and to fix. Starting values. */
const THIN = { watch: 0.2, fix: 0.1 } as const;

/** Area of the section of outline and flats at x, mm²: what carries a bend. */
function sectionAt(judged: Judged, x: number): number {
  return heightAt(judged, x) * flatsAt(judged, x);
}

function heightAt({ field }: Judged, x: number): number {
  return spansAt(field.ring, x).reduce((sum, [low, high]) => sum + high - low, 0);
}

/** A tang with too little steel for the blade it carries. */
export const tangThin: Rule = (judged) => {
  const { field, say } = judged;
  const { left } = field.ring;
  if (left > -5) return [];
  const blade = sectionAt(judged, AHEAD);
  const reach = Math.max(left * 0.7, -NEAR_BLADE);
  const places = Array.from({ length: LOOKS }, (_, i) => -2 + ((reach + 2) * i) / (LOOKS - 1));
  const weakest = places.reduce((a, b) => (sectionAt(judged, b) < sectionAt(judged, a) ? b : a));
  const share = sectionAt(judged, weakest) / blade;
  if (!(share < THIN.watch)) return [];
  return [
    {
      id: "tang-thin",
      severity: share < THIN.fix ? "fix" : "watch",
      where: { x: [weakest, weakest] },
      measured: share,
      wanted: [THIN.watch, null],
      message: `The tang is ${say.length(heightAt(judged, weakest))} by ${say.length(flatsAt(judged, weakest))} ${say.along(weakest, weakest)}: ${Math.round(share * 100)} % of the blade's own section.`,
      advice: "Leave it wider where it leaves the blade: that is where it breaks.",
      basis: STARTING_VALUE,
      remedies: [],
    },
  ];
};

/** A tang shorter than this share of the blade, or than this, mm, hardly holds a handle. Starting values. */
const SHORT = { share: 0.35, least: 45 } as const;

export const tangShort: Rule = (judged) => {
  const { field, say } = judged;
  const length = -field.ring.left;
  const blade = tipX(judged);
  const least = Math.min(SHORT.least, SHORT.share * blade);
  if (length >= least) return [];
  return [
    {
      id: "tang-short",
      severity: "watch",
      where: { x: [field.ring.left, 0] },
      measured: length,
      wanted: [least, null],
      unit: "mm",
      message: `The tang is ${say.length(Math.max(0, length))} long behind a blade of ${say.length(blade)}.`,
      advice: "Make it longer, or let the handle be no lever: glue alone holds this.",
      basis: STARTING_VALUE,
      remedies: [],
    },
  ];
};

/** A shoulder of the tang this near to the junction is looked at, mm; and how much narrower behind it makes it one. */
const NEAR_JUNCTION = 20;
const NARROWER = 0.6;
/** How far to both sides of a corner the outline is looked at, mm. */
const BESIDE = 4;
/** A turn of the outline that is square, degrees. */
const SQUARE = 45;

/** An inner corner where a narrow tang leaves the blade: a crack starts there. */
export const tangSquare: Rule = (judged) => {
  const { blade, say } = judged;
  const nodes = blade.outline.tang;
  const corners = nodes.slice(1, -1).flatMap((node, i): Finding[] => {
    const [x, y] = node.at;
    if (Math.abs(x) > NEAR_JUNCTION || node.back || node.ahead) return [];
    const [a, b] = [nodes[i]!.at, nodes[i + 2]!.at];
    // The outline goes round with the steel on its right hand: an inner corner turns to the left.
    const turn = degrees(
      Math.atan2(
        (x - a[0]) * (b[1] - y) - (y - a[1]) * (b[0] - x),
        (x - a[0]) * (b[0] - x) + (y - a[1]) * (b[1] - y),
      ),
    );
    const isShoulder = heightAt(judged, x - BESIDE) < NARROWER * heightAt(judged, x + BESIDE);
    if (turn < SQUARE || !isShoulder) return [];
    return [
      {
        id: "tang-square-corner",
        severity: "note",
        where: { x: [x, x] },
        measured: turn,
        unit: "degrees",
        message: `The tang leaves the blade in a square corner ${say.along(x, x)}: the outline turns by ${turn.toFixed(0)}° there.`,
        advice: "File it round, 2 mm or more, before hardening: square corners crack in the quench.",
        basis: "common practice",
        remedies: [],
      },
    ];
  });
  // One word for both shoulders.
  return corners.slice(0, 1);
};

export const TANG_RULES: readonly Rule[] = [tangThin, tangShort, tangSquare];
