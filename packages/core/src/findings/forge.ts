import type { Blade } from "../blade/schema.ts";
import type { ForgeBar } from "../forge/bar.ts";
import { forgingRange } from "../forge/heat.ts";
import { barRate } from "../forge/map.ts";
import { type Forge, NO_FORGE } from "../forge/schema.ts";
import { SEEN_FAULTS } from "../forge/seen.ts";
import { BARS, stockOfRound } from "../route/bar.ts";
import { type Forging, forgingOf } from "../route/forging.ts";
import type { Route } from "../route/schema.ts";
import type { Shop } from "../shop/schema.ts";
import type { LengthUnit } from "../units/length.ts";
import { type ForgeFinding, type ForgeOffer, type ForgeRule, finding, type Seen } from "./forge-finding.ts";
import { skinGone } from "./forge-skin.ts";
import { speechIn } from "./judged.ts";

const barShort: ForgeRule = ({ forging: { bar, map }, route, say }) => {
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
const barThin: ForgeRule = ({ forging, route, say }) => {
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

const barNarrow: ForgeRule = ({ forging: { bar, forms }, route, say }) => {
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

/** Straightened on wood beyond this an edge buckles, degrees: starting value. */
const MOST_TURN = 10;

const turns: ForgeRule = ({ forge, forging: { sweep, sure, toWidth } }) => {
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

const heats: ForgeRule = ({ blade, forge }) => {
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

const seconds: ForgeRule = ({ forging: { work } }) =>
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

const order: ForgeRule = ({ forge }) => {
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

/** What was seen goes deeper than there is to clean off: it would stay in the blade. */
const seenTooDeep: ForgeRule = ({ seen, forge, forging: { blank }, say }) =>
  seen.flatMap(({ fault, x, depth }) => {
    const [from, to] = [x[0]!, x[1]!];
    const isOff = from > blank.right || to < blank.left;
    const spare = forge.blank.flats;
    if (isOff || (fault === "cold-shut" && depth <= spare)) return [];
    const { name, does } = SEEN_FAULTS[fault];
    return [
      finding(
        "forge-seen",
        "fix",
        `${name[0]!.toUpperCase()}${name.slice(1)} ${say.along(from, to)}, ${say.length(depth)} deep${fault === "cold-shut" ? `: ${say.length(spare)} a side comes off there` : ""}.`,
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

const RULES: readonly ForgeRule[] = [
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
