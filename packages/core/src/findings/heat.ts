import type { Blade } from "../blade/schema.ts";
import { hardenAt } from "../heat/recipe.ts";
import type { Gate, Heat, HeatOp, HeatRun, Proof } from "../heat/schema.ts";
import { knownOf } from "../heat/steel.ts";
import { type HeatReport, heatReport, withOp } from "../route/heat-report.ts";
import type { Route } from "../route/schema.ts";
import type { Shop } from "../shop/schema.ts";
import { EUTECTOID } from "../steel/critical.ts";
import { STEELS } from "../steel/steels.ts";
import type { LengthUnit } from "../units/length.ts";
import { showTemperature } from "../units/temperature.ts";
import { type Offered, offering } from "./finding.ts";
import { type Speech, speechIn } from "./judged.ts";

/** What may be done about a heat at one press: its own document, or the route, as it would then be. */
export interface HeatOffer {
  readonly words: string;
  readonly heat?: Heat;
  readonly route?: Route;
}
export type HeatFinding = Offered<HeatOffer>;

/** What was done and seen of it. */
export interface HeatWork {
  readonly runs: readonly HeatRun[];
  readonly proofs: readonly Proof[];
  readonly gates: readonly Gate[];
  /** Stages that are done, by their ids. */
  readonly done: readonly string[];
}
export const NO_HEAT_WORK: HeatWork = { runs: [], proofs: [], gates: [], done: [] };

interface Asked extends HeatWork {
  readonly blade: Blade;
  readonly route: Route;
  readonly heat: Heat;
  readonly report: HeatReport;
  readonly say: Speech;
}
type Rule = (asked: Asked) => HeatFinding[];

const finding = offering<HeatOffer>;

const ANDREWS =
  "K. W. Andrews (1965) and the iron–carbon diagram, from memory of; spreads are starting values";
const COMMON = "common practice";
/** Above what dissolves it: starting values. */
const COOL = { high: 30, low: 20 } as const;
const HOT = 100;

const ops = ({ report }: Pick<Asked, "report">) => report.ops.map(({ op }) => op);
const hardening = ({ report }: Asked) => report.ops.filter(({ op }) => op.kind === "harden");

/** Too cool to dissolve its carbon, or so hot that grain grows. */
const heatOff: Rule = (asked) => {
  const { report, heat, blade } = asked;
  const known = knownOf(heat.steel, blade.steel);
  if (!report.steel || !known) return [];
  const isHigh = known.middle.C > EUTECTOID;
  const { ac1, austenite } = report.steel;
  const least = isHigh ? ac1.middle + COOL.high : austenite.middle + COOL.low;
  const most = (isHigh ? ac1.middle : austenite.middle) + HOT;
  const take = Math.round(Math.min(most, Math.max(least, hardenAt(known))));
  const offer = (id: string) => [
    { words: `Harden at ${showTemperature(take)}`, heat: withOp(ops(asked), heat, id, { T: take }) },
  ];
  return hardening(asked).flatMap(({ op }) => {
    if (op.T < least - 0.5)
      return [
        finding(
          "heat-cool",
          "fix",
          `Hardened at ${showTemperature(op.T)}: this steel wants at least ${showTemperature(least)}, ${Math.round(least - op.T)} °C more.`,
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
          `Hardened at ${showTemperature(op.T)}: above ${showTemperature(most)} grain grows and austenite stays in it.`,
          "Cooler, or know why: a coupon snapped shows the grain.",
          ANDREWS,
          { offers: offer(op.id) },
        ),
      ];
    return [];
  });
};

/** A magnet that has let go says too little. */
const magnetOnly: Rule = (asked) =>
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

const notFalling: Rule = ({ report, heat }) => {
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
            ops: ops({ report }),
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
const windowShort: Rule = (asked) =>
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

const sectionDoubtful: Rule = (asked) =>
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

const clayUnfit: Rule = ({ report, route, blade }) => {
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

/** Sure below this says so in every verdict, %: starting value. */
const SURE = 80;
const scrapUnproved: Rule = ({ heat, proofs }) => {
  const { from, sure } = heat.steel;
  if ((from !== "scrap" && sure >= SURE) || proofs.some(({ saw }) => saw === "skates")) return [];
  return [
    finding(
      "scrap-unproved",
      "watch",
      from === "scrap"
        ? `The steel is scrap, sure to ${Math.round(sure)} %: nobody knows yet that it hardens.`
        : `The steel is sure to ${Math.round(sure)} % only.`,
      "Harden a coupon of the same bar first, at three heats: the hardest with the finest grain is its own.",
      COMMON,
    ),
  ];
};

/** Hardened and nobody tried a file; or it bites. */
const fileTest: Rule = ({ route, report, proofs, done, heat }) => {
  const isDone = (id: string) => done.includes(id);
  const harden = report.ops.findLast(({ op }) => op.kind === "harden");
  if (!harden || !isDone(harden.op.id)) return [];
  const { skin, sections, op } = harden;
  // What was done to it since cannot be taken back by a file.
  const isPast = route.stages
    .slice(route.stages.findIndex(({ id }) => id === op.id) + 1)
    .some(({ id }) => isDone(id));
  const here = proofs.filter(({ after }) => after === op.id);
  const at = (place: Proof["place"]) => here.findLast((one) => one.place === place)?.saw;
  if (here.length === 0)
    return [
      finding(
        "no-file-test",
        isPast ? "watch" : "fix",
        "Hardened, and no file has been tried on it.",
        isPast
          ? "It has gone on since: try one at the tang or the spine before more is done to it."
          : "Edge, spine and tang, before it is tempered: a file skates on hard steel.",
        COMMON,
      ),
    ];
  if (at("edge") !== "bites" && at("edge") !== "mixed")
    return at("edge") === "skates" &&
      at("spine") === "bites" &&
      !report.ops.some(({ op: { kind } }) => kind === "clay")
      ? [
          finding(
            "hardness-mixed",
            "note",
            "The edge skates, the spine bites: its section cools too slowly there.",
            "No fault where the spine may be soft; else a faster quenchant.",
            COMMON,
          ),
        ]
      : [];
  const isCool = report.steel !== null && op.T < report.steel.austenite.low;
  const isThick = sections.some(({ place, fares }) => place === "edge" && fares === "usually not");
  const off = 2 * skin.depth;
  const why = isCool
    ? "It was too cool."
    : isThick
      ? "Its section is too thick for that quenchant."
      : heat.steel.from === "scrap"
        ? "It may be no steel that hardens: try a coupon."
        : "Normalize and harden it again, twice at most.";
  return [
    finding(
      "edge-soft",
      "fix",
      `A file ${at("edge") === "bites" ? "bites" : "half bites"} at the edge: it is soft, or its skin is.`,
      `Take ${off.toFixed(2)} mm off a side there and try again. Does it still bite: ${why}`,
      "common practice; diffusion of carbon, from memory of Callister and of Birks and Jackson",
    ),
  ];
};

/** Within so long of the quench, min: starting value. */
const TEMPER_WITHIN = 60;
const MINUTE = 60_000;
const temperLate: Rule = ({ runs, report }) => {
  const last = (kind: HeatOp["kind"]) =>
    runs.filter((run) => report.ops.some(({ op }) => op.id === run.op && op.kind === kind));
  const [quenched, tempered] = [last("harden").at(-1)?.ended, last("temper")[0]?.began];
  if (!quenched || !tempered) return [];
  const minutes = (Date.parse(tempered) - Date.parse(quenched)) / MINUTE;
  if (minutes <= TEMPER_WITHIN) return [];
  return [
    finding(
      "temper-late",
      "watch",
      `Tempered ${Math.round(minutes)} minutes after the quench.`,
      "Raw hard steel cracks on its own: look along the edge, within the hour next time.",
      `${COMMON}; starting value`,
    ),
  ];
};

const soakShort: Rule = ({ runs, report }) =>
  runs.flatMap(({ op: id, through, ended }) => {
    const op = report.ops.find((one) => one.op.id === id);
    if (!op || !through || !ended) return [];
    const held = (Date.parse(ended) - Date.parse(through)) / MINUTE;
    if (held >= op.op.minutes - 0.5) return [];
    return [
      finding(
        "soak-short",
        "watch",
        `${op.name}: held ${held.toFixed(0)} of ${op.op.minutes} minutes after it was warm through.`,
        "What dissolves takes its time: hold it again, or prove it with a file.",
        COMMON,
      ),
    ];
  });

/** Unlike the usual two cycles of an hour by more than this is said, °C. */
const UNLIKE = 3;
const temperUnlike: Rule = ({ report }) => {
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

const unsourced: Rule = ({ report }) =>
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
const skinMore: Rule = ({ report, route, say }) => {
  if (report.leave === null || report.leave <= route.skin + 0.005) return [];
  const skin = Math.min(1, Math.ceil(report.leave * 100) / 100);
  return [
    finding(
      "skin-more",
      "watch",
      `These heats leave a skin without carbon about ${say.length(report.leave / 1.5)} deep; the route takes ${say.length(route.skin)} off for it.`,
      "Leave more, or keep air away: foil, a coat, a rich forge.",
      "W. D. Callister; N. Birks and J. Jackson (1970), from memory of; × or ÷ 1.5",
      { offers: [{ words: `Leave ${say.length(skin)} for the skin`, route: { ...route, skin } }] },
    ),
  ];
};

const RULES: readonly Rule[] = [
  heatOff,
  fileTest,
  magnetOnly,
  notFalling,
  soakShort,
  windowShort,
  sectionDoubtful,
  clayUnfit,
  scrapUnproved,
  temperLate,
  skinMore,
  temperUnlike,
  unsourced,
];
const RANK = { fix: 0, watch: 1, note: 2 } as const;

/** Judges a blade's heats as planned and as done, worst first. */
export function judgeHeat(
  blade: Blade,
  route: Route,
  heat: Heat,
  shop: Shop,
  {
    unit = "mm",
    work = NO_HEAT_WORK,
    report = heatReport(blade, route, heat, shop),
  }: { unit?: LengthUnit; work?: HeatWork; report?: HeatReport } = {},
): HeatFinding[] {
  const asked = { blade, route, heat, report, say: speechIn(unit), ...work };
  return RULES.flatMap((rule) => rule(asked)).sort((a, b) => RANK[a.severity] - RANK[b.severity]);
}
