import { type Route, STAGE_KINDS, type Stage, type StageKind, type WorkedOn } from "./schema.ts";

/** When a stage can be done at all, and what it is: the trade's own order of work. Source: common practice. */
export interface StageFacts {
  readonly name: string;
  readonly words: string;
  readonly on: WorkedOn;
  /** Stages that must not have been done before it, with the reason. */
  readonly notAfter: readonly { readonly kind: StageKind; readonly why: string }[];
  /** The usual cautions for the work. */
  readonly caution: string;
}

const BELT =
  "Eyes, ears and a respirator; no gloves, nothing loose. Once the edge is thin it is sharp: edge trailing.";
const soft = (what: string) => ({
  kind: "harden" as const,
  why: `${what} only while the steel is soft: hardened, it would have to be annealed and hardened again.`,
});

const HOT =
  "Hot steel looks cold: tongs, gloves for the heat, eyes. A forge indoors makes carbon monoxide: ventilate.";
const BURNT = { kind: "handle" as const, why: "The handle would burn." };

export const STAGES: Readonly<Record<StageKind, StageFacts>> = {
  stock: {
    name: "Stock",
    on: "nothing",
    words: "A bar near the finished thickness, wide enough for the outline.",
    notAfter: [],
    caution: "Saw and shear edges cut: gloves for handling, none at the saw.",
  },
  forge: {
    name: "Forge",
    on: "nothing",
    words: "Tang and point, then the taper, plunge and bevels heel to tip; three normalizing heats.",
    notAfter: [soft("Forging is done")],
    caution: "Hot steel looks cold; gloves and eyes; indoors the forge makes carbon monoxide: ventilate.",
  },
  profile: {
    name: "Profile",
    on: "outline",
    words: "To the outline, square to the flats; spare metal stays at a fine tip.",
    notAfter: [
      { kind: "layout", why: "The lines are scribed from the outline: cutting it later moves them." },
      { kind: "handle", why: "The scales are fitted to the outline." },
    ],
    caution: `${BELT} A disc kicks back when its cut closes.`,
  },
  drill: {
    name: "Holes, choil, notches",
    on: "nothing",
    words: "Pins, lightening holes, choil and spine notches.",
    notAfter: [
      soft("Holes are drilled and notches filed"),
      { kind: "handle", why: "The pins go through the holes." },
    ],
    caution:
      "Clamp the blade, with a stop pin: a drill snatches. No gloves at the drill. A drill that does not cut: stop, it work-hardens the hole; is it annealed? Punch lightly.",
  },
  flats: {
    name: "Flats",
    on: "flats",
    words: "Clean and true to thickness; deep scratches out before hardening.",
    notAfter: [{ kind: "layout", why: "Lines scribed on flats that are ground later are gone." }],
    caution: BELT,
  },
  layout: {
    name: "Layout",
    on: "nothing",
    words: "Marking fluid, two centre lines on the edge, grind line and plunges on both sides.",
    notAfter: [{ kind: "rough", why: "There is nothing left to scribe the grind line on." }],
    caution: "Marking fluid is a solvent: ventilate, no flame.",
  },
  rough: {
    name: "Rough bevels",
    on: "bevels",
    words: "Both sides by turns on the coarse belt, the edge left thick.",
    notAfter: [],
    caution: BELT,
  },
  harden: {
    name: "Harden and temper",
    on: "nothing",
    words: "Harden, straighten while it can be, temper twice.",
    notAfter: [
      { kind: "handle", why: "The handle would burn." },
      { kind: "sharpen", why: "A thin edge cracks and loses its carbon in the heat." },
    ],
    caution:
      "Quench oil flames: lid, extinguisher, never water. A freshly hardened blade can shatter. Hot steel looks cold.",
  },
  normalize: {
    name: "Normalize",
    on: "nothing",
    words: "A heat and still air, each cooler than the last: fine grain, no strain.",
    notAfter: [soft("Normalizing is done"), BURNT],
    caution: HOT,
  },
  anneal: {
    name: "Anneal",
    on: "nothing",
    words: "Softened to be drilled or filed: slow cooling.",
    notAfter: [BURNT],
    caution: HOT,
  },
  clay: {
    name: "Clay",
    on: "nothing",
    words: "Clay on the spine, thin along the line, dried slowly.",
    notAfter: [soft("Clay goes on")],
    caution: "Damp clay spits in the heat: dry it slowly, eyes and face covered.",
  },
  plates: {
    name: "Between plates",
    on: "nothing",
    words: "Straight and still while it cools through.",
    notAfter: [BURNT],
    caution: HOT,
  },
  temper: {
    name: "Temper",
    on: "nothing",
    words: "Within the hour after the quench, all of it, through and held.",
    notAfter: [BURNT],
    caution: "Oil left on it smokes in an oven: wipe it first, ventilate. Raw hard it shatters when dropped.",
  },
  draw: {
    name: "Draw the tang or the spine",
    on: "nothing",
    words: "Softened by colour, the edge in water or a heat sink.",
    notAfter: [BURNT],
    caution: HOT,
  },
  true: {
    name: "Flats again",
    on: "flats",
    words: "Scale and skin off, the flats true: everything is measured from them.",
    notAfter: [{ kind: "handle", why: "The scales lie on the flats." }],
    caution: BELT,
  },
  tip: {
    name: "Trim the tip",
    on: "tip",
    words: "The metal that was spared at the tip comes off, about P120, light and dipped often.",
    notAfter: [{ kind: "handle", why: "The blade is held by its tang." }],
    caution: `${BELT} A thin tip burns first.`,
  },
  finish: {
    name: "Finish bevels",
    on: "bevels",
    words: "Wet and cool; the grind line climbs to its place.",
    notAfter: [{ kind: "sharpen", why: "A sharpened edge is ground away with the bevel." }],
    caution: `${BELT} Wet grinding only behind a residual-current device.`,
  },
  grits: {
    name: "Finer belts",
    on: "bevels",
    words: "Each belt takes the scratches of the one before.",
    notAfter: [{ kind: "sharpen", why: "A sharpened edge is ground away with the bevel." }],
    caution: BELT,
  },
  hand: {
    name: "Hand finish",
    on: "nothing",
    words: "Along the blade, on a block, until no scratch lies across.",
    notAfter: [
      { kind: "etch", why: "Rubbing takes the etch off again." },
      { kind: "sharpen", why: "The hand runs along the edge." },
    ],
    caution: "The edge is thin: tape it, wipe away from it.",
  },
  handle: {
    name: "Handle",
    on: "handle",
    words: "Scale fronts finished, faces dry and scratched, glue, pins.",
    notAfter: [{ kind: "sharpen", why: "The edge stays blunt or taped while the handle is worked." }],
    caution:
      "The edge is thin and cuts: tape it. Wood, horn and resin dust: respirator. Epoxy and solvent vapours: ventilate. A hot tang is pushed home with a stick, not with fingers.",
  },
  spine: {
    name: "Spine edge",
    on: "spine",
    words: "The spine and its corners, about P220, so that a thumb may rest there.",
    notAfter: [{ kind: "handle", why: "Belt and grit meet the scales." }],
    caution: BELT,
  },
  "false-edge": {
    name: "False edge",
    on: "false edge",
    words: "Off the spine on both sides, after the hand finish: its line is the last to be drawn.",
    notAfter: [
      { kind: "etch", why: "Grinding takes the etch off again." },
      { kind: "sharpen", why: "A sharpened edge cuts the hand that turns the blade over." },
    ],
    caution: `${BELT} Sharpened, a second edge may be against local law.`,
  },
  etch: {
    name: "Etch and mark",
    on: "nothing",
    words: "Timed dips, neutralized, dried, oiled; the maker's mark.",
    notAfter: [
      { kind: "handle", why: "Acid creeps under the scales, and the mark is made on a bare blade." },
      { kind: "sharpen", why: "The acid dulls a finished edge." },
    ],
    caution:
      "Ferric chloride: gloves, goggles, ventilation; neutralize, dispose of it by local rules. Blasting or tumbling instead: its dust sealed in, no sparks near it.",
  },
  sharpen: {
    name: "Sharpen",
    on: "edge",
    words: "A burr along the whole edge, the other side, finer, strop; then try it.",
    notAfter: [],
    caution:
      "A sharpened blade stays taped till the end. A buffer snatches: edge trailing, low on the wheel.",
  },
  own: {
    name: "A stage of your own",
    on: "nothing",
    words: "Whatever is done here that has no stage of its own.",
    notAfter: [],
    caution: BELT,
  },
};

/**
 * Name of a stage among those of its route: its own, else that of its kind and the one edge it works on. Stages that would have the same
 * name are numbered in their order: "Temper 1", "Temper 2".
 */
export function nameOf(stage: Stage, among: readonly Stage[]): string {
  const name = unnumbered(stage);
  const same = among.filter((one) => unnumbered(one) === name);
  const at = same.findIndex(({ id }) => id === stage.id);
  return same.length > 1 && at >= 0 ? `${name} ${at + 1}` : name;
}

const unnumbered = ({ name, kind, edge }: Stage): string =>
  name ?? `${STAGES[kind].name}${edge ? `, ${edge} edge` : ""}`;

/** What a stage works on. */
export function workedOn({ on, kind }: Pick<Stage, "on" | "kind">): WorkedOn {
  return kind === "own" ? (on ?? "nothing") : STAGES[kind].on;
}

/** A way of working: which stages in which order, and what is left for the oven. Source: common practice, three schools. */
export interface School {
  readonly key: "soft" | "hard" | "close";
  readonly name: string;
  readonly words: string;
  readonly stages: readonly StageKind[];
  /** mm a side on each bevel face. Starting values. */
  readonly oven: number;
}

const END: readonly StageKind[] = ["grits", "hand", "false-edge", "etch", "handle", "sharpen"];

export const SCHOOLS: readonly School[] = [
  {
    key: "soft",
    name: "most of it soft",
    words: "Most of the bevel before hardening, the edge left thick for the oven.",
    stages: ["stock", "profile", "drill", "flats", "layout", "rough", "harden", "true", "finish", ...END],
    oven: 0.25,
  },
  {
    key: "hard",
    name: "all of it hard",
    words: "No bevel before hardening: for thin stock and true flats.",
    stages: ["stock", "profile", "drill", "flats", "harden", "true", "layout", "rough", "finish", ...END],
    oven: 0.05,
  },
  {
    key: "close",
    name: "nearly to the apex",
    words: "Soft and nearly to the apex, for a zero bevel in thin stock.",
    stages: ["stock", "profile", "drill", "flats", "layout", "rough", "harden", "true", "finish", ...END],
    oven: 0.05,
  },
];

/** What must have been left undone and was not, when these are done in this order: one line for each, with its reason. */
export function outOfOrder(done: readonly StageKind[]): { kind: StageKind; after: StageKind; why: string }[] {
  return done.flatMap((kind, i) =>
    STAGES[kind].notAfter.flatMap(({ kind: late, why }) =>
      done.slice(0, i).includes(late) ? [{ kind, after: late, why }] : [],
    ),
  );
}

/**
 * Stages with one more, at its usual place: before the first that usually comes after it. Forged steel is normalized and annealed after
 * the forge, before it is profiled and drilled.
 */
export function withStage(stages: readonly Stage[], added: StageKind | Stage): Stage[] {
  const stage = typeof added === "string" ? { id: freeName(stages, added), kind: added } : added;
  const forge = stages.findLastIndex(({ kind }) => kind === "forge");
  if (forge >= 0 && AFTER_FORGE.includes(stage.kind)) {
    const isBefore = ({ kind }: Stage) =>
      AFTER_FORGE.includes(kind) && AFTER_FORGE.indexOf(kind) <= AFTER_FORGE.indexOf(stage.kind);
    let at = forge + 1;
    while (at < stages.length && isBefore(stages[at]!)) at++;
    return stages.toSpliced(at, 0, stage);
  }
  // One of the maker's own goes last, before the edge.
  const rank = (kind: StageKind) => STAGE_KINDS.indexOf(kind === "own" ? "sharpen" : kind);
  const at = stages.findIndex(({ kind }) =>
    stage.kind === "own" ? kind === "sharpen" : rank(kind) > rank(stage.kind),
  );
  return at < 0 ? [...stages, stage] : stages.toSpliced(at, 0, stage);
}

/** Heats that follow the forge, in their order. */
const AFTER_FORGE: readonly StageKind[] = ["normalize", "anneal"];

/** What kind a stage is, by its name on a route; what stood on the route before is known where its name is a kind. Null else. */
export function kindOf(route: Pick<Route, "stages"> | null, id: string): StageKind | null {
  const stage = route?.stages.find((one) => one.id === id);
  return stage?.kind ?? STAGE_KINDS.find((kind) => kind === id) ?? null;
}

/** What a stage is called in words; its own name where the route no longer has it. */
export function stageName(route: Pick<Route, "stages"> | null, id: string): string {
  const stage = route?.stages.find((one) => one.id === id);
  if (route && stage) return nameOf(stage, route.stages);
  const kind = kindOf(route, id);
  return kind ? STAGES[kind].name : id;
}

/** A name for one more stage of a kind: the kind itself, or with a number where that is taken. */
export function freeName(stages: readonly Stage[], kind: StageKind): string {
  const taken = new Set(stages.map(({ id }) => id));
  for (let n = 1; ; n++) {
    const name = n === 1 ? kind : `${kind}-${n}`;
    if (!taken.has(name)) return name;
  }
}
