import { spansAt } from "../blade/outline.ts";
import { bevelOn } from "../blade/schema.ts";
import { lipUnder } from "../handle/holes.ts";
import { tidy } from "../units/tidy.ts";
import type { Finding } from "./finding.ts";
import { onSide, owner, type Rule, sidesOf, stretches } from "./judged.ts";

/** The smaller questions of whether it makes a blade: walls, weak tangs, faces that meet. */

/** A plunge radius smaller than the bevel is deep leaves a wall that belts cannot reach. */
export const plungeWall: Rule = (judged) => {
  const { field, blade, say } = judged;
  return sidesOf(judged).flatMap((side): Finding[] => {
    const cut = field.plunges[side];
    const bevel = bevelOn(blade, side);
    if (!cut || bevel.kind === "none" || bevel.pull === "straight") return [];
    // At the line itself the run-in stands `radius` high: what is missing to the flat above it is the wall.
    field.sampleAt(cut.x + 1e-6, cut.y + 1e-6);
    const half = field[side];
    const wall = half.flat - half.primary;
    if (!Number.isFinite(wall) || wall <= 0.05) return [];
    const radius = Math.ceil((cut.radius + wall) * 10) / 10;
    return [
      {
        id: "plunge-wall",
        severity: wall > 1 ? "watch" : "note",
        where: { ...onSide(judged, side), x: [cut.x, cut.x + Math.max(1, cut.radius)] },
        measured: wall,
        wanted: [null, 0],
        unit: "mm",
        message: `A plunge radius of ${say.length(cut.radius)} is smaller than the bevel is deep and leaves a wall ${say.length(wall)} high at its foot.`,
        advice:
          "Let the belt hang further over, or mean it: a wall is a place for a crack to start at the quench.",
        basis: "geometry",
        remedies: [
          {
            words: `Give the plunge a radius of ${say.length(radius)}.`,
            changes: [{ path: ["bevels", owner(judged, side), "plunge", "radius"], value: radius }],
          },
        ],
      },
    ];
  });
};

/** Least share of the tang's height that should stay beside a hole: a starting value. */
const LEAST_TANG = 0.45;

/** Too little steel left above and below a hole in the tang. */
export const tangHoleWeak: Rule = ({ blade, field, say }) =>
  (blade.holes ?? []).flatMap((hole, i): Finding[] => {
    if (hole.x > 0) return [];
    const span = spansAt(field.ring, hole.x).find(([bottom, top]) => hole.y > bottom && hole.y < top);
    if (!span) return [];
    const tall = span[1] - span[0];
    const left = (tall - hole.d) / tall;
    if (left >= LEAST_TANG) return [];
    const smaller = Math.floor(tall * (1 - LEAST_TANG) * 10) / 10;
    return [
      {
        id: "tang-hole-weak",
        severity: left < LEAST_TANG / 2 ? "fix" : "watch",
        where: { x: [hole.x - hole.d / 2, hole.x + hole.d / 2] },
        measured: tall - hole.d,
        wanted: [tall * LEAST_TANG, null],
        unit: "mm",
        message: `The hole ${say.along(hole.x, hole.x)} leaves ${say.length(tall - hole.d)} of a tang ${say.length(tall)} tall.`,
        advice: "Lighten the tang with more, smaller holes.",
        basis: "starting value, without a published source",
        remedies: [
          {
            words: `Drill it ${say.length(smaller)}.`,
            changes: [{ path: ["holes", i, "d"], value: smaller }],
          },
        ],
      },
    ];
  });

/** Least of a scale that should stay under the head of a bolt, mm: a starting value. */
const LEAST_LIP = 2;

/** Too little of a scale left under a bolt's head: it cracks when the bolt is drawn up. */
export const boltLipThin: Rule = ({ blade, handle, say }) =>
  (blade.holes ?? []).flatMap((hole, i): Finding[] => {
    const lip = lipUnder(hole, handle);
    if (lip === null || lip >= LEAST_LIP) return [];
    const depth = hole.counterbore!.depth + lip - LEAST_LIP;
    return [
      {
        id: "bolt-lip-thin",
        severity: lip <= 0 ? "fix" : "watch",
        where: { x: [hole.x - hole.d / 2, hole.x + hole.d / 2] },
        measured: lip,
        wanted: [LEAST_LIP, null],
        unit: "mm",
        message:
          lip <= 0
            ? `The counterbore of the bolt ${say.along(hole.x, hole.x)} goes through its scale.`
            : `Under the head of the bolt ${say.along(hole.x, hole.x)} only ${say.length(lip)} of the scale stays.`,
        advice: "Sink the head less, or take thicker scales.",
        basis: "starting value, without a published source",
        remedies:
          depth > 0
            ? [
                {
                  words: `Sink it ${say.length(depth)}.`,
                  changes: [{ path: ["holes", i, "counterbore", "depth"], value: tidy(depth) }],
                },
              ]
            : [],
      },
    ];
  });

/** Faces that meet within the steel above the edge: the blade is ground through there. */
export const facesMeet: Rule = (judged) => {
  const { field, stations, blade, say } = judged;
  const deepest = (station: (typeof stations)[number]) => {
    let least = 0;
    for (let k = 1; k <= 12; k++) {
      const s = (station.height * k) / 12.5;
      field.sampleAt(station.x + station.inward[0] * s, station.y + station.inward[1] * s);
      least = Math.min(least, field.right.lowest + field.left.lowest);
    }
    return -least;
  };
  return stretches(stations, (station) => deepest(station) > 1e-6).map(
    ({ from, to, stations: here }): Finding => {
      const through = Math.max(...here.map(deepest));
      return {
        id: "faces-meet",
        severity: "fix",
        where: { x: [from, to] },
        measured: through,
        wanted: [null, 0],
        unit: "mm",
        message: `The two faces pass ${say.length(through)} through one another ${say.along(from, to)}: the blade is ground through.`,
        advice: "Use thicker stock there, a flatter bevel, or more behind the edge.",
        basis: "geometry",
        remedies: [
          {
            words: `Use stock ${say.length(through + 0.5)} thicker.`,
            changes: blade.thickness.map((row, i) => ({
              path: ["thickness", i, "t"],
              value: Math.round((row.t + through + 0.5) * 100) / 100,
            })),
          },
        ],
      };
    },
  );
};

export const DETAILS: readonly Rule[] = [plungeWall, tangHoleWeak, boltLipThin, facesMeet];
