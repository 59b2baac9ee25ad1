import { SIDES } from "../blade/schema.ts";
import type { Station } from "../blade/station.ts";
import { tipDeflection } from "../blade/stiffness.ts";
import {
  apexStrength,
  bodyStrength,
  CONTACT_DEPTH,
  flatBodyStrength,
  SOFT_YIELD,
  YIELD,
} from "../edge/strength.ts";
import { tan } from "../units/angle.ts";
import { followTheCurve } from "./cut.ts";
import { type Finding, found } from "./finding.ts";
import { clearStations, type Judged, type Rule, stretches } from "./judged.ts";
import { type Purpose, STARTING_VALUE } from "./purposes.ts";

/** Side load at the tip that flex is judged by, N: a hand's sideways push, a starting value. */
const SIDE_LOAD = 20;
/** Share of the purpose's own reference below which an edge is told of: a starting value. */
const WEAK = 0.6;

/**
 * The edge that a purpose's limits describe at their thinnest: least behind the edge, lowest edge angle, and
 * half-way to the thickest it allows 5 mm up. What an edge index is held against, as a ratio.
 */
export function referenceBody(purpose: Purpose): number | null {
  if (purpose.at5 === null || purpose.behind[0] === 0) return null;
  const [behind] = purpose.behind;
  const [angle] = purpose.edgeAngle;
  const bevel = behind / 2 / tan(angle);
  const middle = (behind + purpose.at5) / 2;
  const slope = (middle - behind) / 2 / (5 - bevel);
  return flatBodyStrength(behind * (1 - slope / tan(angle)), slope);
}

/** What of hardened steel's strength this one has. */
const strengthOf = ({ staysSoft }: Pick<Judged, "staysSoft">) => (staysSoft ? SOFT_YIELD / YIELD : 1);
const AS_SOFT =
  "Steel that is not hardened bends like this at any edge that still cuts: harden it, or keep it from hard use.";

/** A blade that no fire hardens: told once, whatever its shape. */
const unhardened: Rule = ({ staysSoft }) =>
  staysSoft
    ? [
        found(
          "unhardened",
          "watch",
          `Nothing on its route hardens it: its edge yields at about ${Math.round((100 * SOFT_YIELD) / YIELD)} % of what the same shape takes hardened, and goes dull as soon.`,
          "Put hardening on the route; or let it be for soft work, and say so to whoever gets it.",
          "350 N/mm² soft against 2000 hardened: starting values",
        ),
      ]
    : [];

/** A body that yields sideways well before the thinnest edge its purpose asks for. */
export const weakBody: Rule = (judged) => {
  const { purpose, field, say } = judged;
  const reference = purpose && referenceBody(purpose);
  if (!purpose || !reference) return [];
  const from = purpose.behind[0] / 2 / tan(purpose.edgeAngle[0]);
  const share = (station: Station) => {
    const body = bodyStrength(field, station, from);
    return body ? (strengthOf(judged) * body.load) / reference : 1;
  };
  return stretches(
    clearStations(judged),
    (station) => station.behind !== null && station.height > 10 && share(station) < WEAK,
  ).map(({ from, to, stations }): Finding => {
    const least = Math.min(...stations.map(share));
    const e = Math.max(...judged.blade.edge.behind.map((row) => row.t), purpose.behind[0]) * 1.3;
    const thicker = Math.min(purpose.behind[1], Math.round(e * 100) / 100);
    return {
      id: "edge-body-weak",
      severity: least < WEAK / 2 ? "fix" : "watch",
      where: { x: [from, to] },
      measured: least,
      wanted: [WEAK, null],
      message: `Pushed sideways, the steel above the edge yields at ${Math.round(least * 100)} % of what the thinnest ${purpose.key} edge would take, ${say.along(from, to)}.`,
      advice: judged.staysSoft
        ? AS_SOFT
        : "A comparison, not a promise: leave more behind the edge, or a steeper bevel, if it will be twisted in the cut.",
      basis: STARTING_VALUE,
      remedies: [
        {
          words: `Leave ${say.length(thicker)} behind the edge.`,
          changes: judged.blade.edge.behind.map((_, i) => ({
            path: ["edge", "behind", i, "t"],
            value: thicker,
          })),
        },
        ...followTheCurve(judged),
      ],
    };
  });
};

/** An apex that yields well before one at the lowest angle its purpose asks for. */
export const weakApex: Rule = (judged) => {
  const { purpose, field, blade, say } = judged;
  if (!purpose) return [];
  const [least] = purpose.edgeAngle;
  const share = (station: Station) => (strengthOf(judged) * apexStrength(field, station)) / apexOf(least);
  return stretches(clearStations(judged), (station) => station.behind !== null && share(station) < WEAK).map(
    ({ from, to, stations }): Finding => ({
      id: "edge-apex-weak",
      severity: "watch",
      where: { x: [from, to] },
      measured: Math.min(...stations.map(share)),
      wanted: [WEAK, null],
      message: `The apex yields at ${Math.round(100 * Math.min(...stations.map(share)))} % of what an edge at ${least}° a side would take, ${say.along(from, to)}.`,
      advice: judged.staysSoft
        ? AS_SOFT
        : "A comparison, not a promise: sharpen at a higher angle for hard use.",
      basis: STARTING_VALUE,
      remedies: [
        {
          words: `Sharpen at ${least}° a side.`,
          changes: SIDES.filter((side) => blade.edge.angle[side] > 0).map((side) => ({
            path: ["edge", "angle", side],
            value: least,
          })),
        },
      ],
    }),
  );
};

/** Side load that a wedge of this angle a side takes at the contact depth, N/mm. */
function apexOf(angle: number): number {
  return (2 / 3) * YIELD * CONTACT_DEPTH * tan(angle) ** 2;
}

/** A tip that goes far sideways under a hand's push. */
export const tipFlexes: Rule = ({ field, blade, purpose, say, heldTo }) => {
  if (!purpose || purpose.flex === null) return [];
  const tip = blade.outline.spine[blade.outline.spine.length - 1]!.at[0];
  if (tip <= 20) return [];
  const goes = tipDeflection(field, SIDE_LOAD);
  const most = (purpose.flex * tip) / 100;
  if (goes === null || goes <= most) return [];
  const last = blade.thickness.length - 1;
  return [
    {
      id: "tip-flexes",
      severity: goes > 3 * most ? "fix" : "watch",
      where: { x: [tip * 0.6, tip] },
      measured: goes,
      wanted: [null, most],
      unit: "mm",
      message: `Under ${SIDE_LOAD} N sideways the point goes ${say.length(goes)}; ${purpose.name} should stay within ${say.length(most)}.`,
      advice: "Taper less, or start from thicker stock.",
      ...heldTo("flex"),
      remedies: [0.2, 0.5, 1, 1.6].map((more) => ({
        words: `End the taper ${say.length(more)} thicker.`,
        changes: [
          {
            path: ["thickness", last, "t"],
            value: Math.round((blade.thickness[last]!.t + more) * 100) / 100,
          },
        ],
      })),
    },
  ];
};

export const WILL_IT_STAND: readonly Rule[] = [unhardened, weakBody, weakApex, tipFlexes];
