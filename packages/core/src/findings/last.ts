import type { Station } from "../blade/station.ts";
import { read } from "../blade/table.ts";
import { clampBehind, edgeAngleLow, edgePlace, followTheCurve } from "./cut.ts";
import { edgeAngleAt, edgeThickness, isZeroEdge } from "./edge-section.ts";
import type { Finding } from "./finding.ts";
import { clearStations, type Rule, stretches, tipX } from "./judged.ts";

/** Will it last: whether enough steel stands where the work will load it. */

/** Thickness behind the edge below the purpose's range. */
export const behindTooThin: Rule = (judged) => {
  const { purpose, field, say } = judged;
  if (!purpose || purpose.behind[0] === 0) return [];
  const least = purpose.behind[0];
  const edge = (s: Station) => edgeThickness(field, s, purpose);
  return stretches(clearStations(judged), (s) => (edge(s)?.t ?? least) < least - 0.005).map(
    ({ from, to, stations }): Finding => {
      const thinnest = Math.min(...stations.map((s) => edge(s)!.t));
      return {
        id: "behind-edge-thin",
        severity: thinnest < least / 2 ? "fix" : "watch",
        where: { x: [from, to] },
        measured: thinnest,
        wanted: purpose.behind,
        unit: "mm",
        message: `${edgePlace(judged, stations)} is down to ${say.length(thinnest)} ${say.along(from, to)}; ${purpose.name} wants ${say.length(least)} or more.`,
        advice: "Stop grinding sooner, or keep the knife for lighter work.",
        ...judged.heldTo("behind"),
        remedies: [...clampBehind(judged, least, null), ...followTheCurve(judged)],
      };
    },
  );
};

/** How far behind the tip the tip's thickness is judged, mm. */
const BEHIND_TIP = 5;

/** Thickness over the flats near the tip below what the purpose allows. */
export const tipTooThin: Rule = (judged) => {
  const { blade, purpose, field, say } = judged;
  if (!purpose || purpose.tip === null) return [];
  const tip = tipX(judged);
  const x = tip - BEHIND_TIP;
  const here = read(field.thickness, x);
  const least = purpose.tip;
  if (here >= least) return [];
  const last = blade.thickness.length - 1;
  const changes = blade.thickness.flatMap((row, i) =>
    row.t < least && (row.x > x || i === last) ? [{ path: ["thickness", i, "t"], value: least }] : [],
  );
  return [
    {
      id: "tip-thin",
      severity: here < least / 2 ? "fix" : "watch",
      where: { x: [x, tip] },
      measured: here,
      wanted: [least, null],
      unit: "mm",
      message: `${say.length(BEHIND_TIP)} behind the tip it is ${say.length(here)} over the flats; ${purpose.name} wants ${say.length(least)} or more.`,
      advice: "End the distal taper thicker, or take the point's last millimetres off.",
      ...judged.heldTo("tip"),
      remedies: changes.length > 0 ? [{ words: `End the taper at ${say.length(least)}.`, changes }] : [],
    },
  ];
};

/** A bevel ground to nothing at the edge by a face too flat to stand. */
export const zeroEdgeTooFine: Rule = (judged) => {
  const { purpose, field, say } = judged;
  if (!purpose) return [];
  const least = Math.min(purpose.edgeAngle[0], 10);
  const atEdge = (s: Station) => {
    const { left, right } = edgeAngleAt(field, s);
    return Math.min(left ?? 90, right ?? 90);
  };
  return stretches(
    clearStations(judged),
    (s) => s.edge < 0.02 && isZeroEdge(field, s) && atEdge(s) < least,
  ).map(({ from, to, stations }): Finding => {
    const finest = Math.min(...stations.map(atEdge));
    const leave = Math.max(purpose.behind[0], 0.1);
    return {
      id: "zero-edge-fine",
      severity: "fix",
      where: { x: [from, to] },
      measured: finest,
      wanted: [least, null],
      unit: "degrees",
      message: `The bevel runs to nothing at the edge at ${finest.toFixed(1)}° a side ${say.along(from, to)}: an edge that fine folds.`,
      advice: "Leave a little behind the edge and sharpen it, or grind the bevel steeper.",
      basis: "common practice",
      remedies: [
        {
          words: `Leave ${say.length(leave)} behind the edge.`,
          changes: judged.blade.edge.behind.map((_, i) => ({
            path: ["edge", "behind", i, "t"],
            value: leave,
          })),
        },
      ],
    };
  });
};

export const WILL_IT_LAST: readonly Rule[] = [behindTooThin, tipTooThin, edgeAngleLow, zeroEdgeTooFine];
