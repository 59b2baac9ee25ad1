import { compileField, type Field } from "../blade/field.ts";
import { isInside } from "../blade/outline.ts";
import type { Blade } from "../blade/schema.ts";
import { SIDES, type Side } from "../blade/schema.ts";
import { constant } from "../blade/table.ts";
import type { ForgeBar } from "../forge/bar.ts";
import { type Blank, blankOf } from "../forge/blank.ts";
import { forgingRange } from "../forge/heat.ts";
import { barRate } from "../forge/map.ts";
import { type Forge, type ForgeFault, NO_FORGE } from "../forge/schema.ts";
import { BARS, stockOfRound } from "../route/bar.ts";
import { type Forging, forgingOf } from "../route/forging.ts";
import { stageSteel } from "../route/ladder.ts";
import type { Route } from "../route/schema.ts";
import { targetsAt } from "../route/targets.ts";
import type { Shop } from "../shop/schema.ts";
import { radians } from "../units/angle.ts";
import type { LengthUnit } from "../units/length.ts";
import { type Offered, offering } from "./finding.ts";
import { type Speech, speechIn } from "./judged.ts";

/** What may be done at one press: the route, or what is chosen at the fire, as it would then be. */
export interface ForgeOffer {
  readonly words: string;
  readonly route?: Route;
  readonly forge?: Forge;
}
export type ForgeFinding = Offered<ForgeOffer>;

interface Asked {
  readonly blade: Blade;
  readonly route: Route;
  readonly forge: Forge;
  readonly shop: Shop;
  readonly forging: Forging;
  /** Faults seen at the fire. */
  readonly seen: readonly Seen[];
  readonly say: Speech;
}
/** A fault that was seen, from where to where and how deep, mm. */
export interface Seen {
  readonly fault: ForgeFault;
  readonly x: readonly number[];
  readonly depth: number;
}

type Rule = (asked: Asked) => ForgeFinding[];

const finding = offering<ForgeOffer>;

const barShort: Rule = ({ forging: { bar, map }, route, say }) => {
  if (bar.length === null || bar.length >= map.total) return [];
  const wanted = Math.ceil(map.total);
  return [
    finding(
      "forge-bar-short",
      "fix",
      `Needs ${say.length(map.total)} of bar with ${say.length(map.spare)} to spare and the cut; the bar is ${say.length(bar.length)}.`,
      "Take a longer bar, or a heavier one.",
      "geometry, volumes that are kept; spare: starting value",
      {
        measured: bar.length,
        wanted: [map.total, null],
        unit: "mm",
        offers: [
          {
            words: `Take ${say.length(wanted)} of it`,
            route: { ...route, bar: { ...route.bar!, length: wanted } },
          },
        ],
      },
    ),
  ];
};

/** No bar is thickened by drawing it out. */
const barThin: Rule = ({ forging, route, say }) => {
  const { bar, map, blank, sections, work } = forging;
  const thickest = Math.max(...sections.map(({ T, isBolster }) => (isBolster ? 0 : T)));
  const upset = map.rows.reduce((a, b) => (b.rate > a.rate ? b : a));
  const does = (other: ForgeBar) =>
    sections.every((section) => barRate(section, other, Math.min(60, work.blade)) <= 1);
  const isThin = bar.shape === "flat" && bar.t < thickest - 1e-9;
  if (!isThin && upset.rate <= 1 + 1e-9) return [];
  const stock = bar.shape === "flat" ? BARS.find((t) => t >= thickest && does({ ...bar, t })) : undefined;
  const across =
    bar.shape === "round"
      ? Array.from({ length: 61 - Math.ceil(bar.d) }, (_, i) => Math.ceil(bar.d) + i).find((d) =>
          does({ ...bar, d }),
        )
      : undefined;
  const offers: ForgeOffer[] = across
    ? [
        {
          words: `Take a round ${say.length(across)} across`,
          route: { ...route, stock: stockOfRound(across), bar: { ...route.bar!, diameter: across } },
        },
      ]
    : stock
      ? [{ words: `Take bar ${say.length(stock)} thick`, route: { ...route, stock } }]
      : [];
  return [
    finding(
      "forge-bar-thin",
      "fix",
      isThin
        ? `The bar is ${say.length(bar.shape === "flat" ? bar.t : 0)} thick; the blank is ${say.length(thickest)}.`
        : `The bar has less steel than the blank ${say.along(upset.x, upset.x)}: it would have to be upset there.`,
      "Take a thicker bar, or upset it there: beyond three diameters free it buckles.",
      "geometry; from memory of ASM Handbook 14",
      { where: isThin ? {} : { x: [Math.min(upset.x, blank.right), upset.x] }, offers },
    ),
  ];
};

const barNarrow: Rule = ({ forging: { bar, forms }, route, say }) => {
  if (bar.shape === "round" || forms.spreadNeeded <= forms.spread + 0.1) return [];
  const widest = Math.max(...forms.forms.find(({ step }) => step === "point")!.at.map(({ width }) => width));
  const wide = Math.ceil(widest * 2) / 2;
  const isAtAll = Number.isFinite(forms.spreadNeeded);
  return [
    finding(
      "forge-bar-narrow",
      "watch",
      isAtAll
        ? `${Math.round(100 * forms.spreadNeeded)} % of the thinning must go sideways; drawn like this about ${Math.round(100 * forms.spread)} % does.`
        : `The bar is ${say.length(bar.w)} wide and not thinned where the blank needs ${say.length(widest)}.`,
      "Peen it wider at the start, or take a wider bar.",
      "A. Tomlinson and J. D. Stringer (1959), from memory of",
      {
        offers: [
          {
            words: `Take bar ${say.length(wide)} wide`,
            route: { ...route, bar: { surface: "rolled", ...route.bar, width: wide } },
          },
        ],
      },
    ),
  ];
};

/** Stretches looked at along and up a section for steel that is missing. */
const ALONG = 26;
const UP = 9;

/** Less than this missing is none, mm. */
const LEAST_SHORT = 1e-3;

/** Where the most is missing of what later stages need and their skin, inside the finished outline. */
function shortest(floor: Field, blank: Blank, skin: number) {
  let worst: { short: number; x: number; side: Side } = { short: 0, x: 0, side: "right" };
  for (let i = 1; i < ALONG; i++) {
    const x = blank.left + ((blank.right - blank.left) * i) / ALONG;
    for (const [low, high] of blank.spans(x)) {
      for (let k = 1; k < UP; k++) {
        const y = low + ((high - low) * k) / UP;
        if (!isInside(floor.ring, x, y)) continue;
        floor.sampleAt(x, y);
        const wanted = SIDES.map((side) => floor[side].lowest + skin);
        SIDES.forEach((side, n) => {
          const short = wanted[n]! - blank.half(side, x, y);
          if (short > worst.short) worst = { short, x, side };
        });
      }
    }
  }
  return worst;
}

/** Steel that later stages need and the blank does not have: on its faces, or at its edge. */
const skinGone: Rule = ({ blade, route, shop, forge, forging: { blank }, say }) => {
  const stage = stageSteel(
    blade,
    route,
    shop,
    route.stages.find(({ kind }) => kind === "forge")?.id ?? "",
    forge,
  );
  const next = route.stages.find(({ kind }) => kind === "rough" || kind === "finish");
  const ground = next && targetsAt(stageSteel(blade, route, shop, next.id, forge))[1];
  const beta = radians(ground?.angle.right ?? ground?.angle.left ?? 0);
  const found: ForgeFinding[] = [];
  const needs = ground ? ground.edge + (2 * route.skin) / Math.cos(beta) : 0;
  if (ground && forge.blank.edge < needs - 1e-9) {
    const edge = Math.ceil(needs * 10) / 10;
    found.push(
      finding(
        "forge-skin",
        "fix",
        `The edge is left ${say.length(forge.blank.edge)}; ${say.length(needs)} must be there for what is ground after it and its skin.`,
        "Leave the edge thicker at the fire, or less for the oven.",
        "geometry",
        {
          measured: forge.blank.edge,
          wanted: [needs, null],
          unit: "mm",
          offers: [
            {
              words: `Leave ${say.length(edge)}`,
              forge: { ...forge, blank: { ...forge.blank, edge: Math.min(8, edge) } },
            },
          ],
        },
      ),
    );
  }
  const still = {
    flats: stage.left.flats,
    faces: { left: constant(stage.left.faces.left), right: constant(stage.left.faces.right) },
    edgeBevel: false,
    falseEdge: false,
  };
  const floor = compileField(blade, still);
  const worst = shortest(floor, blank, route.skin);
  if (worst.short > LEAST_SHORT && found.length === 0) {
    const finished = compileField(blade);
    const enough = Array.from({ length: 60 }, (_, i) => Math.round(20 * forge.blank.flats + i + 1) / 20)
      .filter((flats) => flats <= 3)
      .map((flats) => ({ ...forge, blank: { ...forge.blank, flats } }))
      .find((more) => shortest(floor, blankOf(finished, more, stage.left), route.skin).short <= LEAST_SHORT);
    found.push(
      finding(
        "forge-skin",
        "fix",
        `${say.length(worst.short)} is missing on the ${worst.side} ${say.along(worst.x, worst.x)}: the skin would stay in the blade.`,
        "Leave more on the flats at the fire, or a thicker edge.",
        "geometry; skin: starting value",
        {
          where: { side: worst.side, x: [worst.x, worst.x] },
          offers: enough ? [{ words: `Leave ${say.length(enough.blank.flats)} a side`, forge: enough }] : [],
        },
      ),
    );
  }
  return found;
};

/** Straightened on wood beyond this an edge buckles, degrees: starting value. */
const MOST_TURN = 10;

const turns: Rule = ({ forge, forging: { sweep, sure, toWidth } }) => {
  if (sweep.turn <= MOST_TURN) return [];
  const spread =
    toWidth.count === 0 && !toWidth.isSaid ? 1 : Math.min(1, (2 * toWidth.u) / (1 - toWidth.mean));
  const before = Math.round(100 * sure) / 100;
  return [
    finding(
      "forge-turn",
      "watch",
      `Setting the bevels down sweeps it up ${sweep.turn.toFixed(0)} ± ${(sweep.turn * spread).toFixed(0)}°, its tip ${sweep.lift.toFixed(0)} mm.`,
      sure > 0
        ? "Bend what is sure of it the other way beforehand; the rest goes on wood while the edge is over 3."
        : "Straighten it on wood, edge down, when half of the turn is there, at an edge of about 3.5: how this steel moves here has not been measured yet.",
      "S. Timoshenko (1925), from memory of; ± 50 % until pieces of this shop were measured",
      {
        measured: sweep.turn,
        wanted: [null, MOST_TURN],
        unit: "degrees",
        offers:
          before > forge.turn.before
            ? [
                {
                  words: `Bend ${Math.round(100 * before)} % of it beforehand`,
                  forge: {
                    ...forge,
                    turn: { ...forge.turn, before, after: Math.round(100 * (1 - before)) / 100 },
                  },
                },
              ]
            : [],
      },
    ),
  ];
};

const heats: Rule = ({ blade, forge }) => {
  const range = forgingRange(blade.steel);
  if (!range) return [];
  const { from, stop } = forge.heat;
  const basis = "from memory of ASM Handbook 14 and the tool-steel tables";
  const change = (heat: Forge["heat"]) => ({ ...forge, heat });
  return [
    ...(from > range.most
      ? [
          finding(
            "forge-hot",
            "fix",
            `${blade.steel} crumbles above ${range.most} °C; it is to be taken to ${from}.`,
            "Take it out sooner: sparks and it is burnt.",
            basis,
            {
              offers: [
                {
                  words: `Take it to ${range.most}`,
                  forge: change({ from: range.most, stop: Math.min(stop, range.most - 50) }),
                },
              ],
            },
          ),
        ]
      : []),
    ...(stop < range.least
      ? [
          finding(
            "forge-cold",
            "watch",
            `${blade.steel} cracks under the hammer below ${range.least} °C; work goes on to ${stop}.`,
            "Stop at that colour and put it back into the fire.",
            basis,
            {
              offers: [
                {
                  words: `Stop at ${range.least}`,
                  forge: change({ from: Math.max(from, range.least + 50), stop: range.least }),
                },
              ],
            },
          ),
        ]
      : []),
  ];
};

/** Less in hand than this is none, s: starting value. */
const LEAST_SECONDS = 5;

const seconds: Rule = ({ forging: { work } }) =>
  work.steps.flatMap(({ step, seconds: inHand, deformation }) =>
    deformation > 0 && inHand < LEAST_SECONDS
      ? [
          finding(
            "forge-seconds",
            "watch",
            `Only about ${inHand.toFixed(0)} s in hand for ${STEP_NAMES[step]} before it is too cold.`,
            "Edge last, the spine deep in the fire, the anvil warm; short heats, light blows.",
            "radiation and still air, EN 1993-1-2 from memory of; × or ÷ 1.5",
          ),
        ]
      : [],
  );

const order: Rule = ({ forge }) => {
  const [planish, bevel] = [forge.order.indexOf("planish"), forge.order.indexOf("bevel")];
  if (planish < 0 || bevel < 0 || planish > bevel) return [];
  return [
    finding(
      "forge-order",
      "watch",
      "The ricasso is dressed before the bevels are set down: its corner folds over as they come.",
      "Planish last, when the bevels stand.",
      "common practice",
      { offers: [{ words: "Planish last", forge: { ...forge, order: NO_FORGE.order } }] },
    ),
  ];
};

const SEEN_WORDS: Readonly<Record<ForgeFault, { name: string; does: string }>> = {
  "cold-shut": {
    name: "A fold",
    does: "Grind it out, or cut the piece back behind it: never hammer it in.",
  },
  burnt: { name: "Burnt steel", does: "It crumbles: cut back to sound steel." },
  crack: { name: "A crack", does: "Stop. Cut off beyond its end." },
};

/** What was seen goes deeper than there is to clean off: it would stay in the blade. */
const seenTooDeep: Rule = ({ seen, forge, forging: { blank }, say }) =>
  seen.flatMap(({ fault, x, depth }) => {
    const [from, to] = [x[0]!, x[1]!];
    const isOff = from > blank.right || to < blank.left;
    const spare = forge.blank.flats;
    if (isOff || (fault === "cold-shut" && depth <= spare)) return [];
    const { name, does } = SEEN_WORDS[fault];
    return [
      finding(
        "forge-seen",
        "fix",
        `${name} ${say.along(from, to)}, ${say.length(depth)} deep${fault === "cold-shut" ? `: ${say.length(spare)} a side comes off there` : ""}.`,
        `${does} Then work the blank out anew from what is left.`,
        "common practice",
        { where: { x: [from, to] } },
      ),
    ];
  });

/** What a step is called in a sentence. */
export const STEP_NAMES: Readonly<Record<Forging["work"]["steps"][number]["step"], string>> = {
  preform: "drawing it flat",
  point: "the point",
  taper: "the taper",
  tang: "the tang",
  bevel: "the bevels",
  straighten: "straightening",
  planish: "planishing",
};

const RULES: readonly Rule[] = [
  barShort,
  barThin,
  barNarrow,
  skinGone,
  turns,
  heats,
  seconds,
  order,
  seenTooDeep,
];
const RANK = { fix: 0, watch: 1, note: 2 } as const;

/** Judges the way from the bar to the blank, worst first. */
export function judgeForging(
  blade: Blade,
  route: Route,
  forge: Forge,
  shop: Shop,
  {
    unit = "mm",
    seen = [],
    forging = forgingOf(blade, route, forge, shop),
  }: { unit?: LengthUnit; seen?: readonly Seen[]; forging?: Forging | null } = {},
): ForgeFinding[] {
  if (!forging) return [];
  const asked = { blade, route, forge, shop, forging, seen, say: speechIn(unit) };
  return RULES.flatMap((rule) => rule(asked)).sort((a, b) => RANK[a.severity] - RANK[b.severity]);
}
