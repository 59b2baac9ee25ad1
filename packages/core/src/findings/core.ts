import { coreAtEdge, coreFace, coreLineAt } from "../blade/core.ts";
import { SIDES } from "../blade/schema.ts";
import { read } from "../blade/table.ts";
import type { Finding } from "./finding.ts";
import { clearStations, onSide, type Rule, sidesOf, stretches } from "./judged.ts";

/** A laminated blade lives by where its core comes out: at the edge, on the faces, and nowhere on the flats. */

/** How near the edge may come to leaving its core, mm: what a hand and a forge are off by. A starting value. */
const NEAR = 0.1;

/** The very edge is cladding, or nearly: it would not harden. */
const edgeLeavesCore: Rule = (judged) => {
  const { field, blade, say } = judged;
  if (!blade.core) return [];
  return stretches(judged.stations, (station) => coreAtEdge(field, station) < NEAR).map(
    ({ from, to, stations }): Finding => {
      const least = Math.min(...stations.map((station) => coreAtEdge(field, station)));
      return {
        id: "edge-leaves-core",
        severity: least <= 0 ? "fix" : "watch",
        where: { x: [from, to] },
        measured: least,
        wanted: [NEAR, null],
        unit: "mm",
        message:
          least <= 0
            ? `The edge lies ${say.length(-least)} outside the core ${say.along(from, to)}: it is cladding there, and stays soft.`
            : `The edge is within ${say.length(least)} of leaving the core ${say.along(from, to)}.`,
        advice:
          "Bring the edge to the core: take more off the face on the core's far side, or move the apex.",
        basis: "geometry",
        remedies:
          typeof blade.edge.offset === "number"
            ? [
                {
                  words: "Put the apex in the middle of the core.",
                  changes: [{ path: ["edge", "offset"], value: blade.core!.offset }],
                },
              ]
            : [],
      };
    },
  );
};

/** The core comes out within the edge bevel: the first sharpenings have cladding beside the edge. */
const coreWithinEdge: Rule = (judged) => {
  const { field, blade, say } = judged;
  if (!blade.core) return [];
  return sidesOf(judged).flatMap((side) =>
    stretches(clearStations(judged), (station) => {
      const line = coreLineAt(field, station, side);
      return line !== null && line <= (station[side].edgeBevel ?? 0);
    }).map(({ from, to, stations }): Finding => {
      const least = Math.min(...stations.map((station) => coreLineAt(field, station, side) ?? 0));
      return {
        id: "core-within-edge",
        severity: "watch",
        where: { ...onSide(judged, side), x: [from, to] },
        measured: least,
        unit: "mm",
        message: `The core comes out only ${say.length(least)} from the edge ${say.along(from, to)}, within the edge bevel: little of it is left to sharpen.`,
        advice: "Grind the bevels further, so that the core's line stands above the edge bevel.",
        basis: "geometry",
        remedies: [],
      };
    }),
  );
};

/** Flats no thicker than the core show it: no cladding is left there. */
const coreAtFlats: Rule = ({ blade, field, say }) => {
  const { core } = blade;
  if (!core) return [];
  const bare = (x: number) => SIDES.some((side) => read(field.thickness, x) / 2 <= coreFace(core, side));
  const xs = [...blade.thickness.map(({ x }) => x), 0].filter(
    (x) => x >= field.ring.left && x <= field.ring.right,
  );
  const places = xs.filter(bare).sort((a, b) => a - b);
  if (places.length === 0) return [];
  const [from, to] = [places[0]!, places[places.length - 1]!];
  return [
    {
      id: "core-at-flats",
      severity: "watch",
      where: { x: [from, to] },
      measured: Math.min(...places.map((x) => read(field.thickness, x))),
      wanted: [core.t, null],
      unit: "mm",
      message: `The flats are down to the core ${say.along(from, to)}: ${say.length(core.t)} thick, there is no cladding left on it.`,
      advice: "Leave the flats thicker there, or take a thinner core.",
      basis: "geometry",
      remedies: [],
    },
  ];
};

export const CORE_RULES: readonly Rule[] = [edgeLeavesCore, coreWithinEdge, coreAtFlats];
