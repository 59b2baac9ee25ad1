import type { Blade } from "../blade/schema.ts";
import type { Handle } from "../handle/schema.ts";
import { COOL_BY, hardenAt, subcriticalAt } from "../heat/recipe.ts";
import type { Heat } from "../heat/schema.ts";
import { knownOf } from "../heat/steel.ts";
import { type HeatReport, heatReport } from "../route/heat-report.ts";
import { withOp } from "../route/heats.ts";
import type { Route } from "../route/schema.ts";
import { freeName, withStage } from "../route/stages.ts";
import { instrumentsOf } from "../shop/instruments.ts";
import type { Shop } from "../shop/schema.ts";
import { EUTECTOID } from "../steel/critical.ts";
import { criticalPlate, fares, idealDiameter, SEVERITY } from "../steel/hardenability.ts";
import { STEELS } from "../steel/steels.ts";
import type { LengthUnit } from "../units/length.ts";
import { showTemperature } from "../units/temperature.ts";
import {
  ANDREWS,
  COMMON,
  finding,
  type Heated,
  type HeatFinding,
  type HeatRule,
  type HeatWork,
  hardening,
  NO_HEAT_WORK,
  opsIn,
} from "./heat-finding.ts";
import { AS_DONE } from "./heat-work.ts";
import { speechIn } from "./judged.ts";

/** Above what dissolves it: starting values. */
const COOL = { high: 30, low: 20 } as const;
const HOT = 100;

/** Too cool to dissolve its carbon, or so hot that grain grows. */
const heatOff: HeatRule = (asked) => {
  const { report, heat, blade } = asked;
  const known = knownOf(heat.steel, blade.steel);
  if (!report.steel || !known) return [];
  const isHigh = known.middle.C > EUTECTOID;
  const { ac1, austenite } = report.steel;
  const least = isHigh ? ac1.middle + COOL.high : austenite.middle + COOL.low;
  const most = (isHigh ? ac1.middle : austenite.middle) + HOT;
  const take = Math.round(Math.min(most, Math.max(least, hardenAt(known))));
  const offer = (id: string) => [
    { words: `Harden at ${showTemperature(take)}`, heat: withOp(opsIn(asked), heat, id, { T: take }) },
  ];
  return hardening(asked).flatMap(({ op }) => {
    if (op.T < least - 0.5)
      return [
        finding(
          "heat-cool",
          "fix",
          `Hardened at ${showTemperature(op.T, op.said)}: this steel wants at least ${showTemperature(least)}, ${Math.round(least - op.T)} °C more.`,
          "Cooler, its carbon stays undissolved and the edge stays soft.",
          ANDREWS,
          { offers: offer(op.id) },
        ),
      ];
    if (op.T > most + 0.5)
      return [
        finding(
          "heat-hot",
          "watch",
          `Hardened at ${showTemperature(op.T, op.said)}: above ${showTemperature(most)} grain grows and austenite stays in it.`,
          "Cooler, or know why: a coupon snapped shows the grain.",
          ANDREWS,
          { offers: offer(op.id) },
        ),
      ];
    return [];
  });
};

/**
 * An anneal above Ac1 that cools too fast: in air or a quenchant it is a normalize or a hardening; in ash or vermiculite a steel that
 * hardens in still air in this section may stay hard.
 */
const annealHardens: HeatRule = (asked) => {
  const { report, heat, blade, say } = asked;
  const known = knownOf(heat.steel, blade.steel);
  return report.ops.flatMap(({ op, name }) => {
    if (op.kind !== "anneal" || (op.medium === "oven" && (op.coolBy ?? COOL_BY) <= FASTEST)) return [];
    const from = report.steel?.ac1.middle ?? subcriticalAt(null);
    if (op.T < from) return [];
    const thick = report.thick.spine;
    const q = known ? criticalPlate(idealDiameter(known.middle), SEVERITY.air[0]) / thick : 0;
    const isAirHard = fares(q) !== "usually not";
    const isSlow = op.medium === "insulated" || op.medium === "oven";
    if (isSlow && !isAirHard) return [];
    const T = subcriticalAt(known);
    const words = isSlow
      ? `${name} cools too fast from ${showTemperature(op.T, op.said)}: a section of ${say.length(thick)} of this steel can harden in still air, and so may stay hard.`
      : `${name} at ${showTemperature(op.T, op.said)} cooled in ${op.medium ?? "air"} is ${isAirHard ? "a hardening" : "a normalize"}, not an anneal: the steel transforms above ${showTemperature(from)} and cools too fast.`;
    return [
      finding(
        "anneal-hardens",
        "fix",
        words,
        "Anneal below Ac1, or let the oven cool by 15 °C an hour.",
        "from memory of ASM Handbook 4; M. A. Grossmann, from memory of",
        {
          offers: [
            {
              words: `Anneal at ${showTemperature(T)} for 90 minutes`,
              heat: withOp(opsIn(asked), heat, op.id, { T, minutes: 90, medium: "oven", coolBy: COOL_BY }),
            },
            {
              words: "Cool in the oven by 15 °C an hour",
              heat: withOp(opsIn(asked), heat, op.id, { medium: "oven", coolBy: COOL_BY }),
            },
          ],
        },
      ),
    ];
  });
};

/** An oven that cools faster is no anneal for a steel that hardens in air, °C an hour. Source: from memory of ASM Handbook 4. */
const FASTEST = 20;

/** A normalize before the holes are drilled, on a steel that can harden in still air: the tang may be too hard to drill. */
const tangMayBeHard: HeatRule = (asked) => {
  const { report, heat, blade, route } = asked;
  const known = knownOf(heat.steel, blade.steel);
  if (!known) return [];
  const kinds = route.stages.map(({ kind }) => kind);
  const drill = kinds.indexOf("drill");
  const normalize = kinds.slice(0, Math.max(0, drill)).lastIndexOf("normalize");
  if (normalize < 0 || kinds.slice(normalize, drill).includes("anneal")) return [];
  const q = criticalPlate(idealDiameter(known.middle), SEVERITY.air[0]) / report.thick.spine;
  if (fares(q) === "usually not") return [];
  const stages = route.stages.toSpliced(drill, 0, { id: freeName(route.stages, "anneal"), kind: "anneal" });
  return [
    finding(
      "tang-may-be-hard",
      "watch",
      "This steel can harden in still air after normalizing: the tang may be too hard to drill.",
      "Anneal below Ac1 after normalizing, or drill the holes before.",
      "M. A. Grossmann, from memory of; common practice",
      { offers: [{ words: "Add an anneal before the holes", route: { ...route, stages } }] },
    ),
  ];
};

/** A magnet that has let go says too little. */
const magnetOnly: HeatRule = (asked) =>
  hardening(asked).flatMap(({ op }) => {
    const { steel } = asked.report;
    if (op.control !== "magnet" || !steel) return [];
    const short = [op.T - steel.magnet.high, op.T - steel.magnet.low].map((by) =>
      Math.max(0, Math.round(by)),
    );
    return [
      finding(
        "magnet-only",
        "watch",
        `The magnet lets go between ${showTemperature(steel.magnet.low)} and ${showTemperature(steel.magnet.high)}: still ${short[0]} to ${short[1]} °C short of the hardening heat.`,
        "Go on past it by colour, held against a known one; better, measure.",
        `${ANDREWS}; iron's Curie point, from memory of`,
      ),
    ];
  });

const notFalling: HeatRule = ({ report, heat }) => {
  const cycles = report.ops.filter(({ op }) => op.kind === "normalize").map(({ op }) => op);
  const is = cycles.slice(1).some((op, i) => op.T >= cycles[i]!.T);
  if (!is) return [];
  const fallen = cycles.map(({ T }) => T).toSorted((a, b) => b - a);
  const offered = fallen.every((T, i) => i === 0 || T < fallen[i - 1]!)
    ? [
        {
          words: `Normalize at ${fallen.join(", ")} °C`,
          heat: cycles.reduce((now, { id }, i) => withOp(now.ops, now, id, { T: fallen[i]! }), {
            ...heat,
            ops: opsIn({ report }),
          }),
        },
      ]
    : [];
  return [
    finding(
      "cycles-not-falling",
      "watch",
      `Normalizing at ${cycles.map(({ T }) => Math.round(T)).join(", ")} °C: each heat undoes what a cooler one before it did to the grain.`,
      "Each cooler than the last.",
      COMMON,
      { offers: offered },
    ),
  ];
};

/** Less than this between oven and oil is none, s: starting value. */
const LEAST_WINDOW = 2;
const windowShort: HeatRule = (asked) =>
  hardening(asked).flatMap(({ window }) =>
    window !== null && window < LEAST_WINDOW
      ? [
          finding(
            "window-short",
            "watch",
            `The edge, ${asked.say.length(asked.report.thick.edge)} thick, is below hardening heat after ${window.toFixed(1)} s in air.`,
            "Oil beside the oven, the edge left thicker, or edge first into it.",
            "radiation and still air; ± 25 %",
          ),
        ]
      : [],
  );

const sectionDoubtful: HeatRule = (asked) =>
  hardening(asked).flatMap(({ op, sections }) =>
    sections
      .filter(({ fares }) => fares !== "usually through")
      .map(({ place, thick, q, fares }) =>
        finding(
          "section-doubtful",
          place === "edge" ? "watch" : "note",
          `The ${place}, ${asked.say.length(thick)} thick, in ${op.medium ?? "its quenchant"}: ${fares === "usually not" ? "usually not hard through" : "the file decides"} (it would be at ${q[0].toFixed(1)} to ${q[1].toFixed(1)} of its thickness).`,
          place === "spine"
            ? "A spine that stays softer is no fault; the edge must skate under the file."
            : "A faster quenchant, a thinner edge, or a steel that hardens deeper.",
          "ASTM A255 and Grossmann, Asimow and Urban (1939), from memory of: it ranks",
        ),
      ),
  );

const clayUnfit: HeatRule = ({ report, route, blade }) => {
  const isClay = route.clay || report.ops.some(({ op: { kind } }) => kind === "clay");
  if (isClay && STEELS.some(({ name, family }) => name === blade.steel && family === "stainless"))
    return [
      finding(
        "clay-unfit",
        "watch",
        `${blade.steel} hardens in air: clay leaves no line on it.`,
        "Take a plain steel with little manganese.",
        COMMON,
      ),
    ];
  if (!isClay || !report.steel || report.steel.clay === "clear") return [];
  const { clay, ideal } = report.steel;
  return [
    finding(
      "clay-unfit",
      clay === "workable" ? "note" : "watch",
      `A clay line comes ${clay} on this steel: it hardens ${ideal.middle.toFixed(0)} mm deep in the round (${ideal.low.toFixed(0)} to ${ideal.high.toFixed(0)}).`,
      "Ask for the certificate, or take a steel with less manganese.",
      "common practice for manganese; ASTM A255, from memory of; limits are starting values",
    ),
  ];
};

/** Unlike the usual two cycles of an hour by more than this is said, °C. */
const UNLIKE = 3;
const temperUnlike: HeatRule = ({ report }) => {
  if (!report.tempers) return [];
  const { hotter, celsius } = report.tempers;
  if (Math.max(...hotter.map(Math.abs)) < UNLIKE) return [];
  const [low, high] = [Math.min(...hotter.map(Math.abs)), Math.max(...hotter.map(Math.abs))];
  const is = hotter[1] > 0 ? "hotter" : "cooler";
  const count = report.ops.filter(({ op }) => op.kind === "temper").length;
  return [
    finding(
      "temper-unlike",
      "note",
      `${count === 1 ? "This temper is" : `These ${count} tempers are`} like 2 × 1 h, ${low.toFixed(0)} to ${high.toFixed(0)} °C ${is} than ${showTemperature(celsius)}.`,
      "A recipe's figures are for its own times.",
      "J. H. Hollomon and L. D. Jaffe (1945), from memory of",
    ),
  ];
};

const unsourced: HeatRule = ({ report }) =>
  report.ops.some(({ op: { expect, source } }) => expect && !source)
    ? [
        finding(
          "hardness-unsourced",
          "note",
          "A hardness is expected and nobody says from where.",
          "Write down whose figure it is.",
          COMMON,
        ),
      ]
    : [];

/** The route leaves less for the skin than these heats make of it. */
const skinMore: HeatRule = ({ report, route, say }) => {
  if (report.leave === null || report.leave <= route.skin + 0.005) return [];
  const skin = Math.min(1, Math.ceil(report.leave * 100) / 100);
  return [
    finding(
      "skin-more",
      "watch",
      `These heats leave a skin without carbon ${say.length(report.leave / SKIN_SPREAD ** 2)} to ${say.length(report.leave)} deep; the route takes ${say.length(route.skin)} off, less than the deepest.`,
      `Leave ${say.length(skin)} for the skin, or keep air away with foil, a coat or a rich forge.`,
      "W. D. Callister; N. Birks and J. Jackson (1970), from memory of; × or ÷ 1.5",
      { offers: [{ words: `Leave ${say.length(skin)} for the skin`, route: { ...route, skin } }] },
    ),
  ];
};

/** A guard driven onto a tang that is as hard as the blade cracks one of the two. */
const tangHard: HeatRule = (asked) => {
  const { handle, route, heat, report } = asked;
  const kinds = new Set(handle?.parts.map(({ kind }) => kind));
  const isDriven = kinds.has("fitting") && kinds.has("block");
  const harden = hardening(asked).at(-1);
  const isDrawn = report.ops.some(
    ({ op: { kind, zone } }) => (kind === "draw" || kind === "anneal") && zone === "tang",
  );
  if (!isDriven || isDrawn || !harden || harden.op.zone === "edge") return [];
  const only = withOp(opsIn(asked), heat, harden.op.id, { zone: "edge" });
  return [
    finding(
      "tang-hard",
      "fix",
      "A guard goes over this tang, and nothing softens the tang after the quench.",
      "Draw it blue to grey before anything is driven on it; purple only springs. Or quench the edge alone.",
      COMMON,
      {
        offers: [
          {
            words: "Draw the tang after tempering",
            route: { ...route, stages: withStage(route.stages, "draw") },
          },
          { words: "Harden the edge alone", heat: only },
        ],
      },
    ),
  ];
};

const AS_PLANNED: readonly HeatRule[] = [
  heatOff,
  annealHardens,
  tangMayBeHard,
  magnetOnly,
  notFalling,
  windowShort,
  sectionDoubtful,
  clayUnfit,
  tangHard,
  skinMore,
  temperUnlike,
  unsourced,
];
const RANK = { fix: 0, watch: 1, note: 2 } as const;
/** The depth of a skin is known to this factor either way. Starting value. */
const SKIN_SPREAD = 1.5;
/** Standard normal deviate for 95 of 100. */
const COVERS = 1.96;

/** Judges a blade's heats as planned and as done, worst first. */
export function judgeHeat(
  blade: Blade,
  route: Route,
  heat: Heat,
  shop: Shop,
  {
    unit = "mm",
    work = NO_HEAT_WORK,
    handle = null,
    wanted = null,
    report = heatReport(blade, route, heat, shop),
  }: {
    unit?: LengthUnit;
    work?: HeatWork;
    handle?: Handle | null;
    wanted?: number | null;
    report?: HeatReport;
  } = {},
): HeatFinding[] {
  const { repeat, resolution } = instrumentsOf(shop).find(({ kind }) => kind === "hardness-tester")!;
  const asked: Heated = {
    blade,
    route,
    heat,
    report,
    handle,
    wanted,
    testerGive: COVERS * Math.hypot(repeat, resolution / Math.sqrt(12)),
    say: speechIn(unit),
    ...work,
  };
  return [...AS_PLANNED, ...AS_DONE]
    .flatMap((rule) => rule(asked))
    .sort((a, b) => RANK[a.severity] - RANK[b.severity]);
}
