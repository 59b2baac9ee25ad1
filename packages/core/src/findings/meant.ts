import { bevelOn } from "../blade/schema.ts";
import { read } from "../blade/table.ts";
import type { Finding } from "./finding.ts";
import { clearStations, type Judged, type Rule, stretches } from "./judged.ts";
import { STARTING_VALUE } from "./purposes.ts";

/** What is unlike on both sides, and so usually a slip: whoever means it says so, and it is not told again. */

/** An apex further from the centre than this share of half the flats is told of. Starting value. */
const FAR_OFF = 0.25;

/** An edge drawn so far from the centre that one side does nearly all the cutting. */
export const apexOffCentre: Rule = ({ blade, stations, say }) => {
  const { offset } = blade.edge;
  if (typeof offset !== "number" || offset === 0) return [];
  const middle = stations[Math.floor(stations.length / 2)]!;
  const most = (FAR_OFF * middle.flats) / 2;
  if (Math.abs(offset) <= most) return [];
  const side = offset > 0 ? "right" : "left";
  return [
    {
      id: "apex-off-centre",
      severity: "watch",
      where: { side },
      measured: Math.abs(offset),
      wanted: [null, most],
      unit: "mm",
      message: `The edge is drawn ${say.length(Math.abs(offset))} ${side} of centre, where half the flats is ${say.length(middle.flats / 2)}.`,
      advice: "Bring it to the centre, draw it in the face for a chisel edge, or say that it is meant.",
      basis: STARTING_VALUE,
      remedies: [
        { words: "Bring the edge to the centre.", changes: [{ path: ["edge", "offset"], value: 0 }] },
      ],
    },
  ];
};

/** Grind lines further apart than this are seen from the front. Starting value, as the bench has it. */
const LINES_APART = 0.5;
/** Little differences are told of by `sides-differ`, which makes both sides one. */
const PLUNGES_APART = { x: 3, lean: 5 } as const;

/** Grind lines that do not come to the same height on both sides. */
export const linesUnlike: Rule = (judged) => {
  const { blade, field, say } = judged;
  const [left, right] = [bevelOn(blade, "left"), bevelOn(blade, "right")];
  if (field.alike || left.kind === "none" || right.kind === "none") return [];
  const apart = (station: Judged["stations"][number]) => {
    const [a, b] = [station.left, station.right];
    if (a.grindLine === null || b.grindLine === null) return 0;
    return a.endsAt === "spine" && b.endsAt === "spine" ? 0 : Math.abs(a.grindLine - b.grindLine);
  };
  return stretches(clearStations(judged), (station) => apart(station) > LINES_APART)
    .slice(0, 1)
    .map(({ from, to, stations }): Finding => {
      const most = Math.max(...stations.map(apart));
      return {
        id: "grind-lines-unlike",
        severity: "watch",
        where: { x: [from, to] },
        measured: most,
        wanted: [0, LINES_APART],
        unit: "mm",
        message: `The grind lines of both sides stand up to ${say.length(most)} apart ${say.along(from, to)}.`,
        advice: "Give the side with the lower line a flatter angle, or say that it is meant.",
        basis: STARTING_VALUE,
        remedies: [
          {
            words: "Make the left side the same as the right.",
            changes: [{ path: ["bevels", "left"], value: "same" }],
          },
        ],
      };
    });
};

/** Plunges far from one another. */
export const plungesUnlike: Rule = ({ blade, say }) => {
  const [left, right] = [bevelOn(blade, "left"), bevelOn(blade, "right")];
  if (left.kind === "none" || right.kind === "none") return [];
  const [x, lean] = [
    Math.abs(left.plunge.x - right.plunge.x),
    Math.abs(left.plunge.lean - right.plunge.lean),
  ];
  if (x <= PLUNGES_APART.x && lean <= PLUNGES_APART.lean) return [];
  const by = x > PLUNGES_APART.x ? say.length(x) : `${lean.toFixed(1)}° of lean`;
  return [
    {
      id: "plunges-unlike",
      severity: "watch",
      where: {
        x: [Math.min(left.plunge.x, right.plunge.x), Math.max(left.plunge.x, right.plunge.x)],
      },
      measured: x > PLUNGES_APART.x ? x : lean,
      unit: x > PLUNGES_APART.x ? "mm" : "degrees",
      message: `The plunges are drawn ${by} apart.`,
      advice: "Mark both from one square, or say that it is meant.",
      basis: STARTING_VALUE,
      remedies: [
        {
          words: "Put the left plunge where the right one is.",
          changes: [{ path: ["bevels", "left", "plunge"], value: right.plunge }],
        },
      ],
    },
  ];
};

/** Sharpening that begins beyond this share of the edge leaves most of it blunt. Starting value. */
const LATE = 0.5;

/** An edge that is hardly sharpened at all. */
export const sharpenedLate: Rule = ({ blade, field, say }) => {
  const share = field.sharpFrom / field.edge.length;
  const isSharp = blade.edge.angle.left > 0 || blade.edge.angle.right > 0;
  if (!isSharp || share <= LATE) return [];
  const length = field.edge.length - field.sharpFrom;
  return [
    {
      id: "sharpened-late",
      severity: "watch",
      where: {},
      measured: share,
      wanted: [null, LATE],
      message: `Only the last ${say.length(length)} of the edge is sharpened, ${Math.round((1 - share) * 100)} % of it.`,
      advice: "Begin at the plunge, or say that it is meant.",
      basis: STARTING_VALUE,
      remedies:
        blade.edge.start === undefined
          ? []
          : [
              {
                words: "Begin sharpening at the plunge.",
                changes: [{ path: ["edge", "start"], value: undefined }],
              },
            ],
    },
  ];
};

/** A thickness that falls or rises by this much at least, this steeply, is a step. Starting values. */
const STEP = { least: 0.3, slope: 0.12 } as const;

/** Thickness that changes all at once. */
export const thicknessSteps: Rule = ({ blade, field, say }) =>
  blade.thickness.slice(1).flatMap((here, i): Finding[] => {
    const before = blade.thickness[i]!;
    const [by, over] = [Math.abs(here.t - before.t), here.x - before.x];
    const isOn = here.x > field.ring.left && before.x < field.ring.right;
    if (!isOn || by < STEP.least || by / over < STEP.slope) return [];
    return [
      {
        id: "thickness-steps",
        severity: "watch",
        where: { x: [before.x, here.x] },
        measured: by,
        unit: "mm",
        message: `Thickness goes from ${say.length(before.t)} to ${say.length(here.t)} ${say.along(before.x, here.x)}: a step, not a taper.`,
        advice: "Spread it over more of the blade: a step collects stress, and no belt grinds it.",
        basis: STARTING_VALUE,
        remedies: [],
      },
    ];
  });

/** Findings that a maker may say are meant so. */
export const MAY_BE_MEANT: readonly string[] = [
  "apex-off-centre",
  "grind-lines-unlike",
  "plunges-unlike",
  "sharpened-late",
  "thickness-steps",
  "sides-differ",
  "tang-short",
];

export const MEANT_RULES: readonly Rule[] = [
  apexOffCentre,
  linesUnlike,
  plungesUnlike,
  sharpenedLate,
  thicknessSteps,
];

/** Over the flats at x, mm. */
export const flatsAt = ({ field }: Judged, x: number) => read(field.thickness, x);
