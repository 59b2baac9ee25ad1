import { placeAt } from "../blade/chain.ts";
import { spansAt } from "../blade/outline.ts";
import type { Finding } from "./finding.ts";
import { type Judged, onSide, owner, type Rule, sidesOf } from "./judged.ts";

/** What is cut on a board is cut with all of the heel, where that is tall and drops below the handle, mm. Starting values. */
const ON_A_BOARD = ["kitchen", "slicer", "single bevel"];
const TALL_HEEL = 38;
const DROPS = 8;

/** Why the plunge of a blade of this build belongs back at the heel or behind it; null where it may stand ahead. Source: common practice. */
function whyBack({
  field,
  handle,
  purpose,
}: Judged): { stub: string; advice: string; lean: number | null } | null {
  const heel = placeAt(field.edge, 0);
  const isGuarded = handle?.parts.some(
    (part) => part.kind === "fitting" && part.to > -1 && part.to < heel.x + 12,
  );
  if (isGuarded)
    return {
      stub: "in front of the guard that leaves a blunt stub",
      advice: "With a guard the plunge goes back, up into the curve of the ricasso.",
      lean: null,
    };
  const tang = spansAt(field.ring, -4)[0];
  const isOnBoard = purpose !== undefined && ON_A_BOARD.includes(purpose.key);
  if (isOnBoard && tang && -heel.y >= TALL_HEEL && tang[0] - heel.y >= DROPS)
    return {
      stub: "the heel of a tall blade stays blunt there",
      advice:
        "On a tall kitchen blade the plunge stands behind the heel, leaning with the handle: the whole heel is sharp.",
      lean: 8,
    };
  return null;
}

/** Steel left unsharpened between heel and plunge, or a plunge behind the heel. */
export const plungePlace: Rule = (judged) => {
  const { field, blade, say } = judged;
  if (blade.edge.start !== undefined) return [];
  const heel = placeAt(field.edge, 0);
  const back = whyBack(judged);
  return sidesOf(judged).flatMap((side): Finding[] => {
    const cut = field.plunges[side];
    if (!cut) return [];
    const ahead = cut.x - heel.x;
    if (ahead > 0.5) {
      const isFar = back !== null || ahead > 8;
      const to = Math.round((back ? heel.x - 1 : heel.x + 4) * 100) / 100;
      const path = ["bevels", owner(judged, side), "plunge"];
      return [
        {
          id: "plunge-ahead-of-heel",
          severity: isFar ? "watch" : "note",
          where: { ...onSide(judged, side), x: [heel.x, cut.x] },
          measured: ahead,
          unit: "mm",
          message: `The plunge stands ${say.length(ahead)} ahead of the heel${back ? `: ${back.stub}` : " and leaves a stub there that is not sharpened"}.`,
          advice:
            back?.advice ??
            "Usual on a full tang without a guard. A sharpening choil removes the stub; a guard hides it only if the plunge goes back.",
          basis: "common practice",
          remedies: isFar
            ? [
                {
                  words: `Bring the plunge back to ${say.length(to)} from the junction${back?.lean ? `, leaning ${back.lean}°` : ""}.`,
                  changes: [
                    { path: [...path, "x"], value: to },
                    ...(back?.lean ? [{ path: [...path, "lean"], value: back.lean }] : []),
                  ],
                },
              ]
            : [],
        },
      ];
    }
    if (ahead >= -0.5) return [];
    return [
      {
        id: "plunge-behind-heel",
        severity: "note",
        where: { ...onSide(judged, side), x: [cut.x, heel.x] },
        measured: -ahead,
        unit: "mm",
        message: `The plunge stands ${say.length(-ahead)} behind the heel: the whole heel is sharp.`,
        advice: "Right for a tall kitchen blade. Where a finger chokes up to the heel, bring it ahead.",
        basis: "common practice",
        remedies: [],
      },
    ];
  });
};
