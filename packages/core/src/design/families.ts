import {
  bladeLength,
  crownOf,
  dipBelowChord,
  heelHeight,
  heelOf,
  heightAt,
  straightUntil,
  tipDrop,
} from "../blade/measure.ts";
import {
  bellied,
  belliedEdge,
  bellyAt,
  both,
  drop,
  easedSpine,
  type Family,
  handle,
  heelAt,
  height,
  length,
  mm,
  node,
  type Point,
  share,
  spineUntil,
  tangFrom,
  type Values,
} from "./family.ts";

/**
 * Outline families of the trade, each drawn from a few dimensions. A dimension can be read back off the outline
 * it made; every family makes a sound outline wherever its dimensions stand within their ranges.
 */
const dropPoint = bellied(
  "drop",
  "drop point",
  "The spine eases down to a strong tip on the line of the cut: field and small utility.",
  [length([50, 120, 260]), height([16, 30, 55]), handle, bellyAt, spineUntil, drop([0.1, 0.3, 0.6])],
  (values) => easedSpine(values, -values.height! * values.drop!),
);

const straightBack = bellied(
  "straight back",
  "straight back",
  "The spine runs straight to the tip: simple, and easy to guide with a finger on it.",
  [length([50, 130, 280]), height([16, 30, 55]), handle, bellyAt],
  ({ length = 0 }) => [node([0, 0]), node([length, 0])],
);

const trailing = bellied(
  "trailing",
  "trailing point",
  "The spine rises to the tip and gives the longest belly: skinning and slicing.",
  [
    length([60, 120, 220]),
    height([16, 28, 45]),
    handle,
    bellyAt,
    spineUntil,
    share(
      "rise",
      "tip above the spine, of the height",
      [0.05, 0.2, 0.4],
      (ring) => -tipDrop(ring) / heelHeight(ring),
    ),
  ],
  (values) => easedSpine(values, values.height! * values.rise!),
);

const clip = bellied(
  "clip",
  "clip point",
  "The spine is cut away in front, straight or hollow: a fine tip on a wide blade.",
  [
    length([60, 130, 260]),
    height([18, 30, 50]),
    handle,
    bellyAt,
    spineUntil,
    drop([0.15, 0.4, 0.6]),
    share("dip", "hollow of the clip, of the height", [0.01, 0.06, 0.12], (ring) => {
      return dipBelowChord(ring.spine, straightUntil(ring.spine)) / heelHeight(ring);
    }),
  ],
  ({ length = 0, height = 0, spine = 0, drop = 0, dip = 0 }) => {
    // A cubic with its handles a third along the chord and (4/3) of the dip inside it dips by exactly that at its middle.
    const [from, run, fall] = [length * spine, length * (1 - spine), height * drop];
    const chord = Math.hypot(run, fall);
    const inside = (4 / 3) * dip * height;
    const [nx, ny] = [(-fall / chord) * inside, (-run / chord) * inside];
    return [
      node([0, 0]),
      node([from, 0], undefined, [run / 3 + nx, -fall / 3 + ny]),
      node([length, -fall], [-run / 3 + nx, fall / 3 + ny]),
    ];
  },
);

const harpoon = bellied(
  "harpoon",
  "harpoon",
  "A rise on the spine for the thumb, then a clip: field knives held by the blade.",
  [
    length([80, 125, 220]),
    height([20, 32, 50]),
    handle,
    bellyAt,
    share(
      "crownAt",
      "rise stands, of the length",
      [0.35, 0.45, 0.55],
      (ring) => crownOf(ring).x / bladeLength(ring),
    ),
    mm("crown", "height of the rise", [1.5, 3, 6], (ring) => crownOf(ring).y),
    drop([0.1, 0.3, 0.5]),
  ],
  ({ length = 0, height = 0, crownAt = 0, crown = 0, drop = 0 }) => {
    const peak = length * crownAt;
    const step = crown * 1.6;
    const run = length - peak - step;
    return [
      node([0, 0]),
      node([peak * 0.6, 0], undefined, [peak * 0.15, 0]),
      node([peak, crown], [-peak * 0.15, 0]),
      node([peak + step, -0.6], [-step * 0.4, 0], [run * 0.35, 0]),
      node([length, -height * drop], [-run * 0.3, height * drop * 0.55]),
    ];
  },
);

const slicer = bellied(
  "slicer",
  "long slicer",
  "Long, low and nearly straight, its tip a little down: for one long draw.",
  [
    length([180, 240, 330]),
    height([22, 34, 50]),
    handle,
    share("belly", "belly begins, of the length", [0.7, 0.82, 0.92], bellyAt.measure),
    share("spine", "spine straight until, of the length", [0.6, 0.75, 0.85], spineUntil.measure),
    drop([0.2, 0.45, 0.7]),
  ],
  (values) => easedSpine(values, -values.height! * values.drop!),
);

const kitchen = bellied(
  "kitchen",
  "kitchen, tall heel",
  "A heel deep enough for the knuckles, a long gentle belly, a tip for fine work.",
  [
    length([120, 190, 280]),
    height([36, 46, 62]),
    handle,
    share("belly", "belly begins, of the length", [0.25, 0.45, 0.65], bellyAt.measure),
    spineUntil,
    drop([0.2, 0.45, 0.7]),
  ],
  (values) => easedSpine(values, -values.height! * values.drop!),
);

const spear: Family = {
  key: "spear",
  name: "spear point",
  words: "Spine and edge come down alike to a tip on the middle line: piercing, and even in the hand.",
  dimensions: [length([60, 120, 240]), height([16, 28, 45]), handle, bellyAt],
  tangs: both,
  outline(values, tang) {
    const { length = 0, height = 0, belly = 0, handle = 0 } = values;
    const tip: Point = [length, -height / 2];
    const edge = belliedEdge({ length, height, belly }, tip);
    const over = (offset?: Point): Point | undefined => offset && [offset[0], -offset[1]];
    const spine = edge.map(({ at, back, ahead }, i) =>
      node(i === 0 ? [0, 0] : [at[0], -height - at[1]], over(back), over(ahead)),
    );
    return { spine, edge, tang: tangFrom([heelAt(length), -height], height, handle, tang) };
  },
};

const sheepsFoot: Family = {
  key: "sheep's foot",
  name: "sheep's foot",
  words: "A dead straight edge and a spine rounded down to it: no point to slip, all edge on the board.",
  dimensions: [length([50, 90, 180]), height([16, 26, 45]), handle, spineUntil],
  tangs: both,
  outline({ length = 0, height = 0, handle = 0, spine = 0 }, tang) {
    const run = length * (1 - spine);
    const tip: Point = [length, -height];
    return {
      spine: [
        node([0, 0]),
        node([length * spine, 0], undefined, [run * 0.6, 0]),
        node(tip, [-run * 0.12, height * 0.5]),
      ],
      edge: [node([heelAt(length), -height]), node([...tip])],
      tang: tangFrom([heelAt(length), -height], height, handle, tang),
    };
  },
};

const cleaver: Family = {
  key: "cleaver",
  name: "cleaver",
  words: "Tall and square in front: mass over the edge, and a side to carry with.",
  dimensions: [
    length([120, 180, 240]),
    height([50, 80, 110]),
    handle,
    mm("lean", "front leans back", [2, 6, 20], (ring) => bladeLength(ring) - straightUntil(ring.spine).x),
    mm("lift", "edge rises to the front", [2, 5, 12], (ring) => heelHeight(ring) - tipDrop(ring)),
    share("belly", "edge straight until, of the length", [0.35, 0.5, 0.7], bellyAt.measure),
  ],
  tangs: ["full"],
  outline({ length = 0, height = 0, handle = 0, lean = 0, lift = 0, belly = 0 }, tang) {
    const tip: Point = [length, lift - height];
    const run = length * (1 - belly);
    return {
      spine: [node([0, 0]), node([length - lean, 0]), node(tip)],
      edge: [
        node([heelAt(length), -height]),
        node([length * belly, -height], undefined, [run * 0.45, 0]),
        node([...tip], [-run * 0.3, -lift * 0.8]),
      ],
      tang: tangFrom([heelAt(length), -height], height, handle, tang),
    };
  },
};

const marking: Family = {
  key: "marking",
  name: "marking knife",
  words: "One straight skewed edge on a narrow bar: scribes along a square, ground on one side.",
  dimensions: [
    length([20, 45, 80]),
    height([10, 18, 28]),
    handle,
    share("skew", "run of the skew, of the length", [0.3, 0.5, 0.85], (ring) => {
      return (bladeLength(ring) - heelOf(ring).x) / bladeLength(ring);
    }),
  ],
  tangs: ["full"],
  outline({ length = 0, height = 0, handle = 0, skew = 0 }) {
    const heel: Point = [length * (1 - skew), -height];
    return {
      spine: [node([0, 0]), node([length, 0])],
      edge: [node(heel), node([length, 0])],
      tang: [node([...heel]), node([-handle, -height]), node([-handle, 0]), node([0, 0])],
    };
  },
};

const doubleEdge: Family = {
  key: "double edge",
  name: "double edge",
  words:
    "Alike above and below, both ground: for display. Whether it may be made, owned or carried is local law.",
  dimensions: [
    length([100, 180, 300]),
    height([20, 30, 45]),
    handle,
    share("waist", "height where the point begins, of that at the guard", [0.6, 0.8, 0.95], (ring) => {
      return heightAt(ring, straightUntil(ring.spine).x) / heelHeight(ring);
    }),
    share("point", "point begins, of the length", [0.5, 0.65, 0.8], (ring) => {
      return straightUntil(ring.spine).x / bladeLength(ring);
    }),
  ],
  tangs: ["hidden", "full"],
  outline({ length = 0, height = 0, handle = 0, waist = 0, point = 0 }, tang) {
    const from = length * point;
    const run = length - from;
    const inset = (height * (1 - waist)) / 2;
    const slope = inset / from;
    const tip: Point = [length, -height / 2];
    const toTip: Point = [-run * 0.2, height * waist * 0.2];
    return {
      spine: [
        node([0, 0]),
        node([from, -inset], undefined, [run * 0.4, -run * 0.4 * slope]),
        node(tip, toTip),
      ],
      edge: [
        node([0, -height]),
        node([from, inset - height], undefined, [run * 0.4, run * 0.4 * slope]),
        node([...tip], [toTip[0], -toTip[1]]),
      ],
      tang: tangFrom([0, -height], height, handle, tang),
    };
  },
};

export const FAMILIES: readonly Family[] = [
  dropPoint,
  clip,
  spear,
  straightBack,
  sheepsFoot,
  trailing,
  kitchen,
  slicer,
  cleaver,
  harpoon,
  marking,
  doubleEdge,
];

/** A family's dimensions all at their usual, with some of them set. */
export function valuesOf(family: Family, some: Values = {}): Values {
  return Object.fromEntries(
    family.dimensions.map(({ key, low, usual, high }) => [
      key,
      Math.min(high, Math.max(low, some[key] ?? usual)),
    ]),
  );
}
