import { stationAt, thicknessAbove } from "../blade/station.ts";
import { edgeAngleAt, isZeroEdge } from "./edge-section.ts";
import type { Finding, NotJudged } from "./finding.ts";
import { type Judged, type OtherBlade, type Rule, tipX } from "./judged.ts";
import { STARTING_VALUE } from "./purposes.ts";

/** Thickness behind the edge beside what is usual: for the size, in the steel, and on the shop's own shelf. */

/** Usual thickness behind the edge of small and of seven-inch knives, mm at mm of blade. Starting values. */
const SMALL = { length: 75, behind: 0.5 };
const SEVEN_INCH = { length: 178, behind: 0.6 };
/** How far from the usual before it is worth a word: a starting value. */
const UNUSUAL = [0.6, 1.7] as const;

/** Usual thickness behind the edge for a belt or field knife of this length, mm: between the two above, held at the ends. */
export function usualBehind(length: number): number {
  const share = (length - SMALL.length) / (SEVEN_INCH.length - SMALL.length);
  return SMALL.behind + Math.min(1, Math.max(0, share)) * (SEVEN_INCH.behind - SMALL.behind);
}

/** Thickness behind the edge at mid-edge, unusual for a knife of this size. */
export const behindForSize: Rule = (judged) => {
  const { field, purpose, say } = judged;
  if (purpose?.key !== "pocket" && purpose?.key !== "field") return [];
  const middle = stationAt(field, 0.5);
  // With one face to the apex there is nothing behind the edge to be usual or not.
  if (middle.behind === null || isZeroEdge(field, middle)) return [];
  const length = tipX(judged);
  const usual = usualBehind(length);
  const share = middle.behind / usual;
  if (share >= UNUSUAL[0] && share <= UNUSUAL[1]) return [];
  const which = share > 1 ? "thick" : "thin";
  return [
    {
      id: `behind-edge-${which}-for-size`,
      severity: "note",
      where: { x: [middle.x, middle.x] },
      measured: middle.behind,
      wanted: [UNUSUAL[0] * usual, UNUSUAL[1] * usual],
      unit: "mm",
      message: `${say.length(middle.behind)} behind the edge at mid-edge is ${which} for a blade ${say.length(length)} long: about ${say.length(usual)} is usual.`,
      advice:
        which === "thick"
          ? "Thin it if it is meant to slice; keep it for rough work."
          : "Fine if it only slices; leave more for twisting cuts.",
      basis: STARTING_VALUE,
      remedies: [],
    },
  ];
};

/** Edge angle a side that hard use usually asks for before a steel has been tried at less, degrees. Starting value. */
const HARD_USE_ANGLE = 15;
const HARD_USE = ["pocket", "field", "chopper"];

/** An edge angle below what hard use usually asks for. */
export const angleForSteel: Rule = ({ blade, field, purpose }) => {
  if (!purpose || !HARD_USE.includes(purpose.key)) return [];
  const at = edgeAngleAt(field, stationAt(field, 0.5));
  const [left, right] = [at.left ?? 0, at.right ?? 0];
  const exact = left === 0 || right === 0 ? (left + right) / 2 : Math.min(left, right);
  const least = Math.round(10 * exact) / 10;
  if (least >= HARD_USE_ANGLE || least === 0) return [];
  return [
    {
      id: "edge-angle-for-steel",
      severity: "note",
      where: {},
      measured: least,
      wanted: [HARD_USE_ANGLE, null],
      unit: "degrees",
      message: `At ${least}° a side this is below the ${HARD_USE_ANGLE}° that hard use usually asks for, until ${blade.steel ?? "the steel"} has been tried at less.`,
      advice: "Try it on the real material before it goes out, or sharpen higher.",
      basis: STARTING_VALUE,
      remedies: [],
    },
  ];
};

/** Whether there is nothing to hold this steel's edge against. */
export function steelUntried({ blade, purpose }: Judged): NotJudged[] {
  if (!purpose || !HARD_USE.includes(purpose.key)) return [];
  const steel = blade.steel ? `of ${blade.steel}` : "of the steel, which is not named,";
  return [
    { id: "edge-against-steel", why: `No trial ${steel} is on record to hold the edge angle against.` },
  ];
}

/** How unlike a blade of the same purpose must be, before it is told of: a starting value. */
const UNLIKE = 1.25;

/** As thick as: at the height where another blade's edge bevel ends, beside what that blade has there. */
export const asThickAsOthers: Rule = ({ field, blade, others, say }) => {
  const middle = stationAt(field, 0.5);
  const found = others
    .filter((other) => other.use !== null && other.use === blade.use && other.behind > 0.02)
    .flatMap((other): { other: OtherBlade; here: number; ratio: number }[] => {
      const here = thicknessAbove(field, middle, other.edgeBevel);
      return here === null ? [] : [{ other, here, ratio: here / other.behind }];
    })
    .sort((a, b) => Math.abs(Math.log(b.ratio)) - Math.abs(Math.log(a.ratio)))[0];
  if (!found || Math.max(found.ratio, 1 / found.ratio) < UNLIKE) return [];
  const { other, here, ratio } = found;
  const finding: Finding = {
    id: "as-thick-as",
    severity: "note",
    where: { x: [middle.x, middle.x] },
    measured: here,
    wanted: [null, other.behind],
    unit: "mm",
    message: `${say.length(other.edgeBevel)} up, where the edge bevel of ${other.name} ends at ${say.length(other.behind)}, this blade is as thick as ${say.length(here)}: ${ratio.toFixed(2)} times.`,
    advice: `Beside ${other.name} it will feel ${ratio > 1 ? "thicker" : "thinner"} in the cut.`,
    basis: "geometry",
    remedies: [],
  };
  return [finding];
};

export const BESIDE: readonly Rule[] = [behindForSize, angleForSteel, asThickAsOthers];
