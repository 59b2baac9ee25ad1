import type { Blade } from "@true-spine/core/blade/schema.ts";
import type { BladeState } from "@true-spine/core/registry/contract.ts";

/**
 * The demo workshop: two people in a converted boat shed on a made-up estuary, who make a few dozen knives a
 * year to order. Everything here is invented: one blade finished, one midway, one with honest faults.
 */
interface DemoBlade {
  readonly id: string;
  readonly state: BladeState;
  /** Earlier revisions, oldest first, each with the save key it was made with. */
  readonly history: readonly { readonly label?: string; readonly saveKey: string; readonly file: Blade }[];
  readonly file: Blade;
}

/** A tall kitchen knife, finished: full flat, thin, the plunge behind the heel so that the whole heel cuts. */
const larder: Blade = {
  format: "true-spine/blade",
  version: 1,
  name: "Larder 180",
  outline: {
    spine: [
      { at: [0, 0] },
      { at: [95, -0.6], back: [-35, 0.2], ahead: [40, -0.3] },
      { at: [181, -30], back: [-16, 16] },
    ],
    edge: [
      { at: [12, -46] },
      { at: [90, -47.5], back: [-40, 0], ahead: [45, 0] },
      { at: [181, -30], back: [-22, -11] },
    ],
    tang: [
      { at: [12, -46], ahead: [-1, 9] },
      { at: [2, -24], back: [4, -6], ahead: [-3, 3] },
      { at: [-6, -22], back: [2, -0.5] },
      { at: [-112, -25], back: [40, 0], ahead: [-5, 0] },
      { at: [-118, -12], back: [0, -7], ahead: [0, 7] },
      { at: [-112, -0.5], back: [-4, 0], ahead: [40, 0] },
      { at: [0, 0], back: [-30, 0] },
    ],
  },
  thickness: [
    { x: -118, t: 2.4 },
    { x: -8, t: 2.6 },
    { x: 8, t: 2.6 },
    { x: 181, t: 1 },
  ],
  edge: {
    behind: [
      { u: 0, t: 0.3 },
      { u: 1, t: 0.22 },
    ],
    angle: { left: 14, right: 14 },
    rightShare: 0.5,
    offset: 0,
  },
  bevels: {
    right: { kind: "flat", pull: "follow", set: "full", plunge: { x: 6, lean: 14, radius: 6 } },
    left: "same",
  },
  holes: [
    { x: -25, y: -12, d: 5 },
    { x: -58, y: -12.5, d: 8 },
    { x: -92, y: -12.5, d: 5 },
  ],
  use: "kitchen",
  steel: "1095",
};

/** A field knife midway: ground rough, its distal taper and grind line still being settled. */
const fenHook: Blade = {
  format: "true-spine/blade",
  version: 1,
  name: "Fen hook",
  outline: {
    spine: [
      { at: [0, 0] },
      { at: [60, 1], back: [-20, 0], ahead: [30, 0.5] },
      { at: [125, -9], back: [-22, 9] },
    ],
    edge: [
      { at: [8, -30] },
      { at: [70, -31], back: [-20, 0], ahead: [26, 0] },
      { at: [125, -9], back: [-8, -12] },
    ],
    tang: [
      { at: [8, -30] },
      { at: [4, -24] },
      { at: [-104, -25], back: [40, 2], ahead: [-5, 0] },
      { at: [-112, -14], back: [0, -7], ahead: [0, 8] },
      { at: [-104, 0], back: [-5, 0] },
      { at: [0, 0] },
    ],
  },
  thickness: [
    { x: -112, t: 2.6 },
    { x: -10, t: 4 },
    { x: 10, t: 4 },
    { x: 125, t: 1.6 },
  ],
  edge: {
    behind: [
      { u: 0, t: 0.55 },
      { u: 1, t: 0.42 },
    ],
    angle: { left: 18, right: 18 },
    rightShare: 0.5,
    offset: 0,
  },
  bevels: {
    right: {
      kind: "flat",
      pull: "follow",
      set: "height",
      height: [
        { u: 0, h: 22 },
        { u: 0.6, h: 22 },
        { u: 1, h: 10 },
      ],
      plunge: { x: 12, lean: 10, radius: 4 },
    },
    left: "same",
  },
  falseEdge: { from: 85, to: 118, angle: 20, land: 1.2, radius: 3 },
  holes: [
    { x: -22, y: -12, d: 6.35 },
    { x: -56, y: -12, d: 9 },
    { x: -90, y: -12.5, d: 6.35 },
  ],
  use: "field",
  steel: "1084",
};

/** A camp chopper with honest faults: pulled straight round a deep belly, sharpened too fine, drilled at the rim. */
const bracken: Blade = {
  format: "true-spine/blade",
  version: 1,
  name: "Bracken chopper",
  outline: {
    spine: [
      { at: [0, 0] },
      { at: [130, 2], back: [-45, 0], ahead: [45, 0] },
      { at: [228, -14], back: [-30, 14] },
    ],
    edge: [
      { at: [16, -40] },
      { at: [120, -47], back: [-50, 0], ahead: [55, 0] },
      { at: [228, -14], back: [-8, -24] },
    ],
    tang: [
      { at: [16, -40] },
      { at: [6, -28] },
      { at: [-110, -29], back: [40, 3], ahead: [-7, 0] },
      { at: [-126, -24], back: [4, -6], ahead: [-3, 5] },
      { at: [-122, 0], back: [-4, -8] },
      { at: [0, 0] },
    ],
  },
  thickness: [
    { x: -126, t: 4.4 },
    { x: 20, t: 5.2 },
    { x: 228, t: 2.8 },
  ],
  edge: {
    behind: [{ u: 0, t: 0.9 }],
    angle: { left: 16, right: 16 },
    rightShare: 0.5,
    offset: 0,
  },
  bevels: {
    right: {
      kind: "flat",
      pull: "straight",
      set: "angle",
      angle: 4,
      restAngle: 0,
      plunge: { x: 22, lean: 0, radius: 5 },
    },
    left: "same",
  },
  holes: [
    { x: -30, y: -14, d: 6.35 },
    { x: -104, y: -5.2, d: 7 },
  ],
  use: "chopper",
  steel: "5160",
};

const with_ = (blade: Blade, change: (copy: Blade) => void): Blade => {
  const copy = structuredClone(blade);
  change(copy);
  return copy;
};

export const DEMO_BLADES: readonly DemoBlade[] = [
  {
    id: "0b8f6c52-6f3e-4a51-9c1d-7d2f30a4c003",
    state: "design",
    history: [
      {
        label: "as drawn with the customer",
        saveKey: "0b8f6c52-6f3e-4a51-9c1d-7d2f30a40301",
        file: with_(bracken, (copy) => {
          copy.thickness = [
            { x: -126, t: 5 },
            { x: 228, t: 5 },
          ];
        }),
      },
    ],
    file: bracken,
  },
  {
    id: "0b8f6c52-6f3e-4a51-9c1d-7d2f30a4c002",
    state: "in work",
    history: [
      {
        label: "pattern from card",
        saveKey: "0b8f6c52-6f3e-4a51-9c1d-7d2f30a40201",
        file: with_(fenHook, (copy) => {
          copy.thickness = [
            { x: -112, t: 4 },
            { x: 125, t: 4 },
          ];
          delete copy.falseEdge;
        }),
      },
      {
        label: "tapered both ways",
        saveKey: "0b8f6c52-6f3e-4a51-9c1d-7d2f30a40202",
        file: with_(fenHook, (copy) => delete copy.falseEdge),
      },
    ],
    file: fenHook,
  },
  {
    id: "0b8f6c52-6f3e-4a51-9c1d-7d2f30a4c001",
    state: "finished",
    history: [
      {
        label: "first drawing",
        saveKey: "0b8f6c52-6f3e-4a51-9c1d-7d2f30a40101",
        file: with_(larder, (copy) => {
          copy.edge.behind = [{ u: 0, t: 0.35 }];
        }),
      },
    ],
    file: larder,
  },
];
