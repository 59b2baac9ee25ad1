import { SIDES } from "../blade/schema.ts";
import { type Edge, type EdgeStep, NO_THIN } from "../edge/schema.ts";
import { withStep } from "../edge/steps.ts";
import { apexFor, apexStands, demandOf, knownTrials } from "../edge/trials.ts";
import type { EdgeAsked, EdgeReport, StepReport } from "../route/edge-report.ts";
import type { ThinReport } from "../route/thin-report.ts";
import type { LengthUnit } from "../units/length.ts";
import { type NotJudged, type Offered, offering } from "./finding.ts";
import { type Speech, speechIn } from "./judged.ts";

/** What may be done about it at a press: the edge document so changed. */
export interface EdgeOffer {
  readonly words: string;
  readonly edge: Edge;
}
export type EdgeFinding = Offered<EdgeOffer>;

interface Read {
  readonly asked: EdgeAsked;
  readonly report: EdgeReport;
  /** How it is to be thinned; null where nobody asked. */
  readonly thin: ThinReport | null;
  readonly say: Speech;
}
type Rule = (read: Read) => EdgeFinding[];

/** Starting values: proud heels, short lives, settings that wander. */
const PROUD = 0.3;
const SHORT_YEARS = 3;
const LOOKED_AHEAD = 5;
const VARIES = 1;
const TALL_TIMES = 2;
const GEOMETRY = "geometry";
const STARTING = "starting value, without a published source";

const stepName = ({ kind }: EdgeStep) =>
  ({ rough: "rough", finish: "finish", micro: "micro-bevel", strop: "strop" })[kind];

const liesOnFace: Rule = ({ report }) =>
  report.steps.flatMap(({ step, settings, tool, isFlat }) => {
    if (tool.holds.kind !== "stone" || step.kind === "strop" || isFlat) return [];
    const places = report.places.filter((_, i) =>
      SIDES.some((side) => step.angle[side] > 0 && !settings[side][i]!.isFree),
    );
    if (places.length === 0) return [];
    return [
      offering<EdgeOffer>(
        "edge-lies-on-face",
        "fix",
        `At ${Math.max(step.angle.left, step.angle.right).toFixed(1)}° the face lies on the stone at ${places.map(({ place }) => place).join(", ")}: its edge is not reached.`,
        "Raise the angle until nothing but the edge touches.",
        GEOMETRY,
        { where: { x: [places[0]!.x, places.at(-1)!.x] } },
      ),
    ];
  });

const swallows: Rule = ({ asked, report, say }) => {
  const high = Math.min(...report.places.map((one) => one.high ?? Number.POSITIVE_INFINITY));
  return report.steps.flatMap(({ step }, i) => {
    if (step.kind !== "micro" || step.facet === undefined || step.facet < high) return [];
    const smaller = Math.max(0.02, Math.round(high * 25) / 100);
    return [
      offering<EdgeOffer>(
        "micro-swallows-edge",
        "fix",
        `A micro-bevel ${say.length(step.facet)} high leaves nothing of an edge bevel ${say.length(high)} high.`,
        "Make it smaller, or let it be the edge bevel.",
        GEOMETRY,
        {
          measured: step.facet,
          wanted: [null, high],
          unit: "mm",
          offers: [
            {
              words: `Make it ${say.length(smaller)} high`,
              edge: withStep(asked.edge, asked.which, stepsOf(report), i, { facet: smaller }),
            },
          ],
        },
      ),
    ];
  });
};

const stepsOf = ({ steps }: EdgeReport) => steps.map(({ step }) => step);

const startsCoarse: Rule = ({ asked, report }) =>
  report.steps.flatMap((one, i) => {
    const first = one.ladder?.ok ? one.ladder.sequence.steps[0]!.belt.microns : one.step.to;
    if (one.step.kind === "strop" || Math.max(first, one.step.to) <= report.bevelAt * (1 + 1e-9)) return [];
    return [
      offering<EdgeOffer>(
        "edge-starts-coarse",
        "watch",
        `The ${stepName(one.step)} ends at ${Math.round(one.step.to)} µm, coarser than the ${Math.round(report.bevelAt)} µm its bevel was left at.`,
        "Drop it: a deeper scratch in the edge is a notch.",
        "common practice",
        report.steps.length > 1
          ? {
              offers: [
                {
                  words: `Drop the ${stepName(one.step)}`,
                  edge: withStep(asked.edge, asked.which, stepsOf(report), i, null),
                },
              ],
            }
          : {},
      ),
    ];
  });

const tallAtPlunge: Rule = ({ report, say }) => {
  const { atPlunge, places } = report;
  const middle = places[1]?.high ?? null;
  if (!atPlunge || middle === null || atPlunge.high <= TALL_TIMES * middle) return [];
  return [
    offering<EdgeOffer>(
      "edge-tall-at-plunge",
      "watch",
      `Beside the plunge the edge bevel is ${say.length(atPlunge.high)} high, ${say.length(middle)} in the middle.`,
      "A notch at the heel, or sharpening that begins further along.",
      STARTING,
      {
        where: { x: [atPlunge.x, atPlunge.x] },
        measured: atPlunge.high,
        wanted: [null, TALL_TIMES * middle],
        unit: "mm",
      },
    ),
  ];
};

const lifeShort: Rule = ({ report: { life, wear } }) =>
  life.until && life.years !== null && life.years < SHORT_YEARS
    ? [
        offering<EdgeOffer>(
          "edge-life-short",
          "watch",
          `It wants thinning after ${Math.round(life.until.n)} sharpenings, at the ${life.until.place}: ${life.years.toFixed(1)} years at ${wear.perYear} a year.`,
          "A lower bevel, or less behind the edge, lasts longer.",
          STARTING,
          { measured: life.until.lost, unit: "mm" },
        ),
      ]
    : [];

const varies: Rule = ({ report }) =>
  report.steps.flatMap((one, i) =>
    one.step.kind !== "strop" &&
    one.varies !== null &&
    one.varies > VARIES &&
    report.steps.findIndex(({ step }) => step.tool === one.step.tool) === i
      ? [
          offering<EdgeOffer>(
            "edge-setting-varies",
            "note",
            `Set for the middle, ${one.tool.name} gives ${backs(one)
              .map((back) => `${back.toFixed(1)}°`)
              .join(" / ")} at heel, middle and tip.`,
            one.tool.holds.kind === "rod"
              ? "Clamp it again for the tip, or set it three times."
              : "Set it three times: heel, middle, tip.",
            GEOMETRY,
          ),
        ]
      : [],
  );
const backs = ({ settings, step }: StepReport) =>
  settings[step.angle.right > 0 ? "right" : "left"].flatMap(({ back }) => (back === null ? [] : [back]));

const stubProud: Rule = ({ report: { life, wear }, say }) => {
  if (!life.stub || wear.perYear <= 0) return [];
  const proud = LOOKED_AHEAD * wear.perYear * life.each;
  if (proud < PROUD) return [];
  const { from, to } = life.stub;
  return [
    offering<EdgeOffer>(
      "heel-stub-proud",
      "note",
      `After ${LOOKED_AHEAD} years the heel stands ${say.length(proud)} proud, ${say.along(from, to)}.`,
      "Notch it while it is soft.",
      STARTING,
      { where: { x: [from, to] }, measured: proud, wanted: [null, PROUD], unit: "mm" },
    ),
  ];
};

/** What trials of its own steel show an edge has to stand, in a material that failed a stronger one. */
const underTrial: Rule = ({ asked: { blade, shop }, report }) => {
  const steel = blade.steel;
  const trials = knownTrials(shop).filter((one) => steel !== undefined && one.steel === steel);
  const angle = Math.min(
    ...report.steps.flatMap(({ step }) =>
      step.kind === "strop" ? [] : [Math.max(step.angle.left, step.angle.right)],
    ),
  );
  if (!Number.isFinite(angle)) return [];
  const failed = [...new Set(trials.map(({ material }) => material))].flatMap((material) => {
    const { lo, isUnsettled } = demandOf(
      trials.filter((one) => one.material === material && (one.use === undefined || one.use === blade.use)),
      "apex",
    );
    return lo !== null && !isUnsettled && apexStands(angle) <= lo ? [{ material, lo }] : [];
  });
  if (failed.length === 0) return [];
  const worst = failed.reduce((a, b) => (b.lo > a.lo ? b : a));
  return [
    offering<EdgeOffer>(
      "edge-under-trial",
      "watch",
      `At ${angle.toFixed(1)}° its apex stands no more than one that failed in ${worst.material}.`,
      `Steepen it above ${apexFor(worst.lo).toFixed(1)}°, or keep it from ${failed.map(({ material }) => material).join(", ")}.`,
      "the shop's own trials, and common practice where those are of it",
      { measured: angle, wanted: [apexFor(worst.lo), null], unit: "degrees" },
    ),
  ];
};

const runsOut: Rule = ({ asked, thin }) =>
  thin?.runsOut
    ? [
        offering<EdgeOffer>(
          "thinning-runs-out",
          "watch",
          `Thinned all over, its line passes the spine at ${thin.places.flatMap((one) => (one.runsOut ? [one.place] : [])).join(", ")}.`,
          "Thin it about its line, or by a facet of its own.",
          GEOMETRY,
          {
            offers: [
              {
                words: "Thin it about its line",
                edge: { ...asked.edge, thin: { ...(asked.edge.thin ?? NO_THIN), way: "hinge" } },
              },
            ],
          },
        ),
      ]
    : [];

const RULES: readonly Rule[] = [
  underTrial,
  runsOut,
  liesOnFace,
  swallows,
  startsCoarse,
  tallAtPlunge,
  lifeShort,
  varies,
  stubProud,
];
const RANK = { fix: 0, watch: 1, note: 2 } as const;

/** What an edge's steps and its life come to, worst first. */
export function judgeEdge(
  asked: EdgeAsked,
  report: EdgeReport,
  unit: LengthUnit,
  thin: ThinReport | null = null,
): EdgeFinding[] {
  const read = { asked, report, thin, say: speechIn(unit) };
  return RULES.flatMap((rule) => rule(read)).sort((a, b) => RANK[a.severity] - RANK[b.severity]);
}

/** What had nothing to be judged by. */
export function edgeNotJudged({ life, wear }: EdgeReport): NotJudged[] {
  return [
    ...(wear.perYear > 0 ? [] : [{ id: "edge-life-short", why: "Nobody said how often it is sharpened." }]),
    ...(life.isZero
      ? [
          {
            id: "edge-life-short",
            why: "A bevel to the apex loses its whole face instead: it stays as thin.",
          },
        ]
      : []),
  ];
}
