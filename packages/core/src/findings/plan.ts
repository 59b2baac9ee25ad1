import { passOf } from "../abrasive/cutting.ts";
import { abrasiveName } from "../abrasive/schema.ts";
import { LARGEST_STEP } from "../abrasive/sequence.ts";
import { thickestOf } from "../blade/measure.ts";
import { compileRing } from "../blade/outline.ts";
import type { Blade } from "../blade/schema.ts";
import { SETTING_STEP } from "../grind/setups.ts";
import type { Handle } from "../handle/schema.ts";
import { fitOf, mustBeForged, thinnedTo, widestInRound } from "../route/bar.ts";
import type { RouteReport, StageReport } from "../route/report.ts";
import type { Route } from "../route/schema.ts";
import { outOfOrder, STAGES, withStage } from "../route/stages.ts";
import type { Shop } from "../shop/schema.ts";
import type { LengthUnit } from "../units/length.ts";
import { type Finding, type Offered, offering } from "./finding.ts";
import { type Speech, speechIn } from "./judged.ts";

/** What may be done about a plan at one press: the blade, or the route, as it would then be. */
export interface PlanOffer {
  readonly words: string;
  readonly blade?: Blade;
  readonly route?: Route;
}

export type PlanFinding = Offered<PlanOffer>;

/** Is the plan sound: the route, its belts and its stock, against the blade it is to become. */
interface Plan {
  readonly blade: Blade;
  readonly route: Route;
  readonly report: RouteReport;
  readonly shop: Shop;
  readonly handle: Handle | null;
  readonly say: Speech;
}

type PlanRule = (plan: Plan) => PlanFinding[];

const finding = (
  id: string,
  severity: Finding["severity"],
  message: string,
  advice: string,
  basis = "geometry",
  offers: readonly PlanOffer[] = [],
): PlanFinding => offering<PlanOffer>(id, severity, message, advice, basis, { offers });

const at = ({ report }: Plan, kind: StageReport["kind"]) =>
  report.stages.find((stage) => stage.kind === kind);

const isDone = ({ stages }: Route, id: string) =>
  stages.some((stage) => stage.id === id && stage.done !== undefined);

/** A stage whose belts cannot take out the scratches before them, or are not there. */
const beltCannotReach: PlanRule = ({ report, route }) =>
  report.stages.flatMap(({ id, name, belts }) =>
    belts && !belts.planned.ok && !isDone(route, id)
      ? [
          finding(
            "belt-cannot-reach",
            "fix",
            `${name}: no sequence over what is on hand does it. ${belts.planned.why}`,
            "Put the missing belt into the stores, or finish coarser.",
            "common practice",
          ),
        ]
      : [],
  );

/** A step longer than usual: it is worked, and costs passes and minutes. */
const stepTooLarge: PlanRule = ({ report, route }) =>
  report.stages.flatMap(({ id, name, belts }) => {
    const steps = belts?.planned.ok && !isDone(route, id) ? belts.planned.sequence.steps : [];
    return steps.slice(1).flatMap(({ belt, minutes, depth }, i) => {
      const before = steps[i]!.belt;
      const times = before.microns / belt.microns;
      if (times <= LARGEST_STEP * (1 + 1e-9)) return [];
      // What a belt between the two would have taken of these scratches.
      const share = 1 - LARGEST_STEP / times;
      const passes = Math.max(1, Math.round((share * depth) / passOf(belt.microns)));
      return [
        finding(
          "belt-step-large",
          "watch",
          `${name}: ${abrasiveName(belt)} is ${times.toFixed(1)} times as fine as ${abrasiveName(before)} before it: about ${passes} more passes and ${Math.max(1, Math.round(share * minutes))} more minutes than with a belt between.`,
          "A belt between the two saves time, and scratches that show only after the etch.",
          "common practice: about double, two and a half at most",
        ),
      ];
    });
  });

/** Less to come off after hardening than the skin that the oven leaves. */
const skinStays: PlanRule = (plan) => {
  const hard = at(plan, "harden");
  if (!hard) return [];
  const { route, say } = plan;
  // A ground bar as thick as the blade leaves its flats as they come: they are told apart.
  const isAsGround = route.bar?.surface === "ground" && hard.left.flats < 1e-6;
  const faces = Math.min(hard.left.faces.left, hard.left.faces.right);
  const flats = isAsGround ? Number.POSITIVE_INFINITY : hard.left.flats;
  const least = hard.isBevelled ? Math.min(faces, flats) : flats;
  if (isAsGround && least >= route.skin - 1e-6)
    return [
      finding(
        "flats-as-ground",
        "note",
        `The bar is as thick as the blade: nothing comes off the flats, and the skin of ${say.length(route.skin)} that the oven leaves stays on them.`,
        "Protect the flats from air in the oven with foil or a coat, or take a thicker bar.",
        "common practice",
      ),
    ];
  if (least >= route.skin - 1e-6) return [];
  return [
    finding(
      "skin-stays",
      "fix",
      `Only ${say.length(least)} comes off a side after hardening; the skin without carbon is ${say.length(route.skin)}.`,
      "Grind flats and bevels again after hardening, or the edge stays soft.",
      "common practice",
    ),
  ];
};

/** Done in an order that something does not allow. */
const orderWrong: PlanRule = ({ route }) =>
  outOfOrder(route.stages.map((stage) => stage.kind)).map(({ kind, after, why }) =>
    finding(
      "order-of-work",
      "watch",
      `${STAGES[kind].name} stands after ${STAGES[after].name.toLowerCase()}. ${why}`,
      "Drag it to where it can be done, or leave it where you know why.",
      "common practice",
    ),
  );

/** A bevel that no one setting of a jig grinds: which gives, the line or the angle. */
const noSingleAngle: PlanRule = (plan) => {
  const rough = at(plan, "rough") ?? at(plan, "finish");
  if (!rough) return [];
  const ground = rough.targets.flatMap(({ angle, grindLine, height }) => {
    const at = { angle: angle.right ?? angle.left, line: grindLine.right ?? grindLine.left, height };
    return at.angle === null || at.line === null ? [] : [{ ...at, angle: at.angle, line: at.line }];
  });
  const angles = ground.map(({ angle }) => angle);
  const [least, most] = [Math.min(...angles), Math.max(...angles)];
  if (ground.length < 2 || most - least <= SETTING_STEP) return [];
  const middle = angles[Math.floor(angles.length / 2)]!;
  const slope = (angle: number) => Math.tan((angle * Math.PI) / 180);
  const held = ground.map(({ angle, line, height }) => {
    const moved = (line * slope(angle)) / slope(middle);
    return moved < height ? plan.say.length(moved) : "out over the spine";
  });
  return [
    finding(
      "no-single-angle",
      "note",
      `No one setting grinds this bevel: its angle runs from ${least.toFixed(1)}° to ${most.toFixed(1)}° a side.`,
      `A jig held at ${middle.toFixed(1)}° moves the line: about ${held.join(", ")} at heel, middle and tip. Give up the line or the one setting.`,
    ),
  ];
};

/** A bar too thin for what must be on it, or a thinner one that would do. */
const stockWrong: PlanRule = ({ route, blade, shop, say }) => {
  // A round bar is as thick as it is forged.
  if (route.bar?.diameter !== undefined) return [];
  const { needed, standard, gives } = fitOf(blade, route, shop);
  const thick = thickestOf(blade);
  const take = (bar: number): PlanOffer => ({
    words: `Take a ${say.length(bar)} bar`,
    route: { ...route, stock: bar },
  });
  if (route.stock < needed - 1e-6) {
    const thinner = Math.floor(gives * 100 + 1e-6) / 100;
    const offers = [
      ...(thinner > thick / 2
        ? [{ words: `Thin the blade to ${say.length(thinner)}`, blade: thinnedTo(blade, thinner) }]
        : []),
      take(standard),
    ];
    return [
      finding(
        "stock-thin",
        "fix",
        `The bar is ${say.length(route.stock)} thick and gives a blade of ${say.length(Math.max(0, gives))}; this blade is ${say.length(thick)} at its thickest, and with what comes off the flats it needs ${say.length(needed)}.`,
        "One of the two gives way: the blade, or the bar.",
        "geometry",
        offers,
      ),
    ];
  }
  if (route.bar || route.stock <= standard + 1e-6) return [];
  return [
    finding(
      "stock-thick",
      "note",
      `A bar of ${say.length(standard)} would do; this one is ${say.length(route.stock)}.`,
      "The rest is ground to dust, by you.",
      "common practice: standard thicknesses of bar",
      [take(standard)],
    ),
  ];
};

/** A bar in hand that the outline does not fit into. A forged blade is another matter. */
const barTooSmall: PlanRule = ({ route, blade, say }) => {
  const { bar } = route;
  if (!bar || route.stages.some(({ kind }) => kind === "forge")) return [];
  if (bar.diameter !== undefined && mustBeForged(blade, route)) {
    const widest = widestInRound(bar.diameter, thickestOf(blade));
    return [
      finding(
        "bar-round",
        "fix",
        `A round bar ${say.length(bar.diameter)} across gives a blade of ${say.length(thickestOf(blade))} no more than ${say.length(widest)} of width.`,
        "Forge it flat before it is profiled, or take a flat bar.",
        "geometry",
        [{ words: "Put forging first", route: { ...route, stages: withStage(route.stages, "forge") } }],
      ),
    ];
  }
  const { left, right, bottom, top } = compileRing(blade.outline);
  const sides = [
    ["wide", bar.width, top - bottom],
    ["long", bar.length, right - left],
  ] as const;
  return sides.flatMap(([way, has, needs]) =>
    has !== undefined && has < needs - 1e-6
      ? [
          finding(
            `bar-not-${way}`,
            "fix",
            `The bar is ${say.length(has)} ${way}; the outline needs ${say.length(needs)}.`,
            "Take another bar, or lay the outline out smaller.",
          ),
        ]
      : [],
  );
};

/** So much left for the oven that the rough bevel has hardly been begun. */
const roughTooThick: PlanRule = (plan) => {
  const rough = at(plan, "rough");
  const thin = rough?.targets.find(({ edge, flats }) => edge > 0.85 * flats);
  if (!rough || !thin) return [];
  const { say } = plan;
  return [
    finding(
      "rough-bevel-none",
      "watch",
      `At the ${thin.place} the rough edge is to stay ${say.length(thin.edge)} on steel ${say.length(thin.flats)} thick: there is hardly a bevel to grind.`,
      "Leave less for the oven, or grind this blade after hardening.",
    ),
  ];
};

/** A bit that rounds over more than a scale is thick. */
const roundOverTooLarge: PlanRule = ({ handle, say }) =>
  (handle?.parts ?? []).flatMap((part) =>
    part.kind === "scales" && (part.roundOver ?? 0) > part.thickness + 1e-9
      ? [
          finding(
            "round-over-large",
            "watch",
            `The round-over bit has a radius of ${say.length(part.roundOver!)}; a scale is ${say.length(part.thickness)} thick.`,
            "The bit cuts into the tang's edge: take a smaller one, its height set to its radius.",
            "common practice",
          ),
        ]
      : [],
  );

/** What is judged of the work before a stage is no longer news once that stage is done. */
const until =
  (kind: StageReport["kind"], rule: PlanRule): PlanRule =>
  (plan) =>
    plan.route.stages.some((stage) => stage.kind === kind && stage.done !== undefined) ? [] : rule(plan);
/** Once the outline is cut, or the flats are clean, the bar is gone. */
const ofBar = (rule: PlanRule) => until("profile", until("flats", rule));

const RULES: readonly PlanRule[] = [
  beltCannotReach,
  ofBar(stockWrong),
  ofBar(barTooSmall),
  until("harden", skinStays),
  orderWrong,
  stepTooLarge,
  until("harden", roughTooThick),
  roundOverTooLarge,
  noSingleAngle,
];
const RANK = { fix: 0, watch: 1, note: 2 } as const;

/** Every judgement of a plan, worst first. */
export function judgePlan(
  blade: Blade,
  route: Route,
  report: RouteReport,
  shop: Shop,
  { unit = "mm", handle = null }: { unit?: LengthUnit; handle?: Handle | null } = {},
): PlanFinding[] {
  const plan = { blade, route, report, shop, handle, say: speechIn(unit) };
  return RULES.flatMap((rule) => rule(plan)).sort((a, b) => RANK[a.severity] - RANK[b.severity]);
}
