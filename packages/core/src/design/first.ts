import { compileField } from "../blade/field.ts";
import { bladeLength, handleLength, heelHeight } from "../blade/measure.ts";
import { compileRing } from "../blade/outline.ts";
import { parseBlade } from "../blade/parse.ts";
import { type Bevel, type Blade, bevelOn, type Hole, type Outline, type Plunge } from "../blade/schema.ts";
import { stationAt } from "../blade/station.ts";
import { judge } from "../findings/judge.ts";
import { type Speech, speechIn } from "../findings/judged.ts";
import { OWN_PURPOSE, type Purpose, purposeOf } from "../findings/purposes.ts";
import type { LengthUnit } from "../units/length.ts";
import { FAMILIES, valuesOf } from "./families.ts";
import { type Family, type Tang, tangHeight, type Values } from "./family.ts";

/** How a first blade may be ground. */
export const GRINDS = ["full flat", "saber", "hollow", "convex", "zero bevel", "chisel"] as const;
export type Grind = (typeof GRINDS)[number];

/** What a first blade is asked for. Lengths mm. */
export interface Answers {
  readonly name: string;
  readonly use: string;
  readonly family: string;
  readonly values: Values;
  readonly tang: Tang;
  readonly grind: Grind;
  /** Thickness of the finished blade at its thickest, 0.8…10. */
  readonly stock: number;
  /** Whether its flats stay alike from end to end, to be tapered later or never. */
  readonly isUntapered?: boolean;
  readonly steel?: string;
  /** Behind the edge, mm, and its angle a side, degrees, as of a knife that is known; else by what the purpose leaves fewest findings on. */
  readonly edge?: { readonly behind: number; readonly angle: number };
  /** An outline of the maker's own, and the holes in it, instead of the family's. */
  readonly drawn?: { readonly outline: Outline; readonly holes: readonly Hole[] };
}

/** One choice that was made, and why: each can be changed afterwards. */
export interface Reason {
  readonly what: string;
  readonly because: string;
}

export type FirstBlade =
  | { readonly ok: true; readonly blade: Blade; readonly reasons: readonly Reason[]; readonly open: number }
  | { readonly ok: false; readonly why: string };

interface Start {
  readonly family: string;
  readonly values: Values;
  readonly stock: number;
  readonly grinds: readonly Grind[];
}

/** Where a purpose starts: outline, sizes, stock, and the grinds it is made with. Source: common practice, and our own. */
export const STARTS: Readonly<Record<string, Start>> = {
  slicer: {
    family: "slicer",
    values: { length: 240, height: 36 },
    stock: 2,
    grinds: ["full flat", "convex", "chisel"],
  },
  kitchen: {
    family: "kitchen",
    values: { length: 190, height: 46 },
    stock: 2.2,
    grinds: ["full flat", "convex"],
  },
  pocket: {
    family: "drop",
    values: { length: 80, height: 22 },
    stock: 2.5,
    grinds: ["full flat", "hollow", "saber"],
  },
  carving: { family: "sheep's foot", values: { length: 70, height: 18 }, stock: 3, grinds: ["zero bevel"] },
  field: {
    family: "drop",
    values: { length: 120, height: 30 },
    stock: 4,
    grinds: ["full flat", "saber", "hollow"],
  },
  chopper: { family: "drop", values: { length: 230, height: 48 }, stock: 5, grinds: ["convex", "full flat"] },
  marking: {
    family: "marking",
    values: { length: 45, height: 18 },
    stock: 2,
    grinds: ["chisel", "zero bevel"],
  },
  "single bevel": { family: "slicer", values: { length: 240, height: 34 }, stock: 3.5, grinds: ["chisel"] },
  guarded: {
    family: "drop",
    values: { length: 160, height: 32 },
    stock: 4.8,
    grinds: ["saber", "full flat"],
  },
  display: { family: "double edge", values: { length: 180, height: 34 }, stock: 4.2, grinds: ["saber"] },
};

/** Four fingers and room for the palm: what a hand of this breadth holds, mm. Source: common practice, 100–115. */
export function handleFor(breadth: number): number {
  return Math.min(140, Math.max(90, breadth + 25));
}

/**
 * Draws a complete first blade: the family's outline, and the grind, edge and taper that its purpose's limits leave
 * fewest findings on, out of a few hundred sound combinations at most. `open` is how many findings are left.
 */
export function firstBlade(answers: Answers, unit: LengthUnit = "mm"): FirstBlade {
  const family = FAMILIES.find((one) => one.key === answers.family);
  if (!family) return { ok: false, why: `There is no outline called “${answers.family}”.` };
  const values = valuesOf(family, answers.values);
  const tang = family.tangs.includes(answers.tang) ? answers.tang : family.tangs[0]!;
  const purpose = purposeOf(answers.use) ?? OWN_PURPOSE;
  let best: { blade: Blade; cost: number; trial: Trial } | null = null;
  let fault = "";
  for (const trial of trials(answers.grind)) {
    const parsed = parseBlade(draw({ ...answers, values, tang }, family, purpose, trial));
    if (!parsed.ok) {
      fault ||= parsed.faults[0]!.message;
      continue;
    }
    const { findings } = judge(parsed.blade, parsed.field);
    const cost = findings.reduce((sum, { severity }) => sum + { fix: 100, watch: 10, note: 0 }[severity], 0);
    if (!best || cost < best.cost) best = { blade: parsed.blade, cost, trial };
    if (cost === 0) break;
  }
  if (!best) return { ok: false, why: `These sizes make no blade: ${fault}.` };
  const open = judge(best.blade).findings.filter((finding) => finding.severity !== "note").length;
  return {
    ok: true,
    blade: best.blade,
    reasons: reasons(best.blade, family, tang, purpose, speechIn(unit)),
    open,
  };
}

/** One combination of what the purpose leaves free. Shares are of the purpose's range, or of the blade's height. */
interface Trial {
  readonly behind: number;
  readonly height: number | "full";
  readonly taper: number;
  readonly bulge: number;
}

/** Height of each bevel of a double edge, of the blade's own. */
const DOUBLE = 0.45;

function* trials(grind: Grind): Generator<Trial> {
  const heights: Record<Grind, readonly Trial["height"][]> = {
    "full flat": ["full"],
    saber: [0.72, 0.8, 0.88, 0.94],
    hollow: [0.6, 0.7, 0.8, 0.9, "full"],
    convex: ["full"],
    "zero bevel": [0.45],
    chisel: ["full", 0.7],
  };
  const bulges = grind === "convex" ? [0.12, 0.2, 0.06, 0.03] : [0];
  for (const behind of [0.5, 0.3, 0.7, 0.1, 0.9]) {
    for (const height of heights[grind]) {
      for (const taper of [0.5, 0.65, 0.8, 0.95, 0.4]) {
        for (const bulge of bulges) yield { behind, height, taper, bulge };
      }
    }
  }
}

type Drawing = Answers & { readonly tang: Tang };

function draw(answers: Drawing, family: Family, purpose: Purpose, trial: Trial): Blade {
  const { values, tang, grind, stock } = answers;
  const { length, height, handle } = sizesOf(answers);
  const outline = answers.drawn?.outline ?? family.outline(values, tang);
  const heel = outline.edge[0]!.at[0];
  const [thin, thick] = bounded(purpose.behind, [0.3, 0.6]);
  const [fine, strong] = bounded(purpose.edgeAngle, [15, 20]);
  const isZero = grind === "zero bevel" || (grind === "chisel" && thin === 0);
  const behind = answers.edge?.behind ?? (isZero ? 0 : round(thin + trial.behind * (thick - thin)));
  const isChisel = grind === "chisel";
  const isDouble = family.key === "double edge";
  const usual = isZero || isDouble ? strong : Math.round((fine + strong) / 2);
  // Ground on one side only, that side is the whole edge.
  const edgeAngle = answers.edge?.angle ?? (isChisel ? 2 * usual : usual);
  // By how it is built: back at the heel with a guard, behind a tall heel and leaning with the handle, else just ahead of it.
  const isTall = family.key === "kitchen";
  const plunge: Plunge = {
    x: round(heel + (isDouble ? 14 : isTall || tang === "hidden" ? -1 : 3)),
    lean: isDouble || tang === "hidden" ? 0 : isTall ? 8 : 5,
    radius: round(Math.min(6, Math.max(1, stock * 1.1))),
  };
  const blade: Blade = {
    format: "true-spine/blade",
    version: 1,
    name: answers.name,
    outline,
    thickness: answers.isUntapered
      ? [{ x: 0, t: stock }]
      : [
          { x: round(-handle), t: round(stock * (tang === "full" ? 0.75 : 0.9)) },
          { x: 0, t: stock },
          { x: round(heel + 4), t: stock },
          { x: length, t: round(Math.max(stock * trial.taper, (purpose.tip ?? 0.5) * 1.05, 0.4)) },
        ],
    edge: {
      behind: [{ u: 0, t: behind }],
      angle: { left: isChisel ? 0 : edgeAngle, right: edgeAngle },
      rightShare: isChisel ? 1 : 0.5,
      offset: isChisel ? "left-face" : 0,
      ...(isDouble ? { start: round(plunge.x + 4) } : {}),
    },
    bevels: { right: { kind: "none" }, left: isChisel ? { kind: "none" } : "same" },
    use: answers.use,
    ...(answers.steel ? { steel: answers.steel } : {}),
  };
  if (answers.drawn) {
    if (answers.drawn.holes.length > 0) blade.holes = [...answers.drawn.holes];
  } else if (tang === "full") {
    blade.holes = holesAlong(handle, family.key === "marking" ? height : tangHeight(height));
  }
  blade.bevels.right = bevelOf(
    blade,
    grind,
    isZero,
    purpose,
    isDouble ? DOUBLE : trial.height,
    trial.bulge,
    plunge,
  );
  if (isDouble) blade.secondEdge = asAbove(blade, plunge);
  return blade;
}

/** The edge once more on the spine: as thick behind, as sharp, its bevel as deep, begun abreast of the plunge. */
function asAbove({ edge, bevels }: Blade, { x, radius }: Plunge): NonNullable<Blade["secondEdge"]> {
  const { right } = bevels;
  const runIn = { lean: 0, radius };
  const rows =
    right.kind !== "none" && right.set === "height"
      ? ({ set: "height", height: right.height.map(({ u, h }) => ({ v: u, h })) } as const)
      : ({ set: "full" } as const);
  const shape =
    right.kind === "hollow"
      ? ({ kind: "hollow", wheelDiameter: right.wheelDiameter } as const)
      : right.kind === "convex"
        ? ({ kind: "convex", bulge: right.bulge } as const)
        : ({ kind: "flat" } as const);
  return {
    from: edge.start ?? x,
    behind: edge.behind.map(({ u, t }) => ({ v: u, t })),
    angle: { ...edge.angle },
    bevels: { right: { ...shape, ...rows, runIn }, left: "same" },
  };
}

function sizesOf({ values, drawn }: Drawing): Record<"length" | "height" | "handle", number> {
  if (!drawn)
    return { length: values.length ?? 100, height: values.height ?? 25, handle: values.handle ?? 112 };
  const ring = compileRing(drawn.outline);
  return { length: bladeLength(ring), height: heelHeight(ring), handle: handleLength(ring) };
}

function bevelOf(
  blade: Blade,
  grind: Grind,
  isZero: boolean,
  purpose: Purpose,
  height: Trial["height"],
  bulge: number,
  plunge: Plunge,
): Bevel {
  const [fine, strong] = bounded(purpose.edgeAngle, [12, 16]);
  if (isZero) {
    const angle = Math.round(((fine + strong) / 2) * (grind === "chisel" ? 2 : 1));
    return { kind: "flat", pull: "follow", set: "angle", angle, plunge };
  }
  const kind =
    grind === "hollow"
      ? ({ kind: "hollow", wheelDiameter: 250 } as const)
      : grind === "convex"
        ? ({ kind: "convex", bulge } as const)
        : ({ kind: "flat" } as const);
  if (height === "full") return { ...kind, pull: "follow", set: "full", plunge };
  return { ...kind, pull: "follow", set: "height", height: heightRows(blade, height), plunge };
}

/** Rows of grind-line height at a share of the blade's own height along its edge. */
function heightRows(blade: Blade, share: number): { u: number; h: number }[] {
  const field = compileField(blade);
  const tallAt = (u: number) => stationAt(field, Math.min(0.985, Math.max(0.02, u))).height;
  const level = share * tallAt(0.1);
  return HEIGHT_PLACES.map((u) => {
    const tall = tallAt(u);
    // Level along the blade. Toward the tip one bevel runs up to the spine, and two, above and below, keep apart.
    const most = share > 0.5 ? (share + (0.97 - share) * u ** 4) * tall : share * (1 - 0.25 * u ** 6) * tall;
    return { u, h: round(share > 0.5 ? Math.min(level, most) : most) };
  });
}

const HEIGHT_PLACES = [0, 0.25, 0.5, 0.6, 0.7, 0.8, 0.9, 0.95, 1] as const;

/** Pin holes along a full tang, in the middle of it. */
function holesAlong(handle: number, tall: number): Blade["holes"] {
  const d = Math.min(5, Math.floor(tall / 3.2));
  return [0.22, 0.78].map((share) => ({ x: round(-handle * share), y: round(-tall / 2), d }));
}

function bounded(range: readonly [number, number], usual: [number, number]): [number, number] {
  return Number.isFinite(range[1]) && range[1] < 90 ? [range[0], range[1]] : usual;
}

function reasons(blade: Blade, family: Family, tang: Tang, purpose: Purpose, say: Speech): Reason[] {
  const bevel = bevelOn(blade, "right");
  const behind = blade.edge.behind[0]!.t;
  const tip = blade.thickness[blade.thickness.length - 1]!;
  const angle = Math.max(blade.edge.angle.left, blade.edge.angle.right);
  const within = (text: string) => `${purpose.name} wants ${text}: a starting value`;
  return [
    { what: family.name, because: family.words.replace(/\.$/, "") },
    {
      what: tang === "full" ? "full tang with scales" : "hidden tang with a guard",
      because:
        tang === "full"
          ? "simple to fit, strong, and its holes set the balance"
          : "the guard sits on the shoulders; the plunge may go back to them",
    },
    {
      what: behind > 0 ? `${say.length(behind)} behind the edge` : "ground to nothing at the edge",
      because: Number.isFinite(purpose.behind[1])
        ? within(`${say.length(purpose.behind[0])} to ${say.length(purpose.behind[1])}`)
        : "a usual middle, since no limits are set",
    },
    {
      what:
        Math.min(blade.edge.angle.left, blade.edge.angle.right) === 0
          ? `${angle}° on the one side at the edge, as ${angle / 2}° a side`
          : `${angle}° a side at the edge`,
      because: within(`${purpose.edgeAngle[0]}° to ${purpose.edgeAngle[1]}°`),
    },
    {
      what: grindInWords(bevel, say),
      because: "of the ways to grind it so, the one that leaves least to find fault with",
    },
    blade.thickness.length > 1
      ? {
          what: `taper to ${say.length(tip.t)} at the tip`,
          because: "thin enough to cut, thick enough that the point stands under a side push",
        }
      : { what: `${say.length(tip.t)} from end to end`, because: "as you said: no taper" },
  ];
}

function grindInWords(bevel: Bevel, say: Speech): string {
  if (bevel.kind === "none") return "not ground";
  if (bevel.set === "angle") return `${bevel.angle}° a side, from the edge up`;
  const kind = bevel.kind === "hollow" ? `hollow off a ${say.length(bevel.wheelDiameter)} wheel` : bevel.kind;
  if (bevel.set === "full") return `${kind}, to the spine`;
  return `${kind}, grind line ${say.length(Math.max(...bevel.height.map((row) => row.h)))} up`;
}

function round(value: number): number {
  return Math.round(value * 100) / 100;
}
