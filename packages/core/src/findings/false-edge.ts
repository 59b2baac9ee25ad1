import { bevelOn, type CutBevel, type HeightRow, type Side } from "../blade/schema.ts";
import type { Station } from "../blade/station.ts";
import { read, table } from "../blade/table.ts";
import type { Finding, Remedy } from "./finding.ts";
import { type Judged, onSide, owner, type Rule, sidesOf, stretches, tipX } from "./judged.ts";

/** The false edge: whether it leaves a flat above the bevel, and how far it goes. */

/** How near the tip a meeting of false edge and bevel is only the point itself, mm. */
const POINT = 8;

/** A false edge that runs down into the primary bevel and leaves no flat between. */
export const falseEdgeMeetsBevel: Rule = (judged) => {
  const { blade, stations, say } = judged;
  const falseEdge = blade.falseEdge;
  if (!falseEdge) return [];
  return sidesOf(judged).flatMap((side) => {
    const bevel = bevelOn(blade, side);
    if (bevel.kind === "none") return [];
    // A bevel to the spine, or a second edge, is meant to meet it in a ridge.
    const isRidge = bevel.set === "full" || falseEdge.land === 0;
    // Everything comes together in the last few millimetres of a point: worth knowing, not worth mending.
    const isPoint = (from: number) => from > tipX(judged) - POINT;
    return stretches(stations, (station) => station[side].endsAt === "false-edge").map(
      ({ from, to, stations: here }): Finding => ({
        id: "false-edge-meets-bevel",
        severity: isRidge || isPoint(from) ? "note" : "fix",
        where: { ...onSide(judged, side), x: [from, to] },
        message: `The false edge meets the bevel ${say.along(from, to)}: no flat is left between them.`,
        advice: isRidge
          ? "Usual on a bevel to the spine and on a double edge; watch that the ridge between them runs clean."
          : "Lower the grind line there, or shorten the false edge.",
        basis: "geometry",
        remedies: isRidge || isPoint(from) ? [] : falseEdgeRemedies(judged, side, bevel, here, from, to),
      }),
    );
  });
};

function falseEdgeRemedies(
  judged: Judged,
  side: Side,
  bevel: CutBevel,
  here: readonly Station[],
  from: number,
  to: number,
): Remedy[] {
  const { say, blade } = judged;
  const remedies: Remedy[] = [];
  if (bevel.set === "height") {
    // The false edge takes a strip about as wide as the flats are thick there; the line goes below it.
    const free = Math.min(
      ...here.map((station) => station[side].grindLine! / heightOf(bevel.height, station.u)),
    );
    const lowered = loweredBetween(bevel.height, here[0]!.u, here[here.length - 1]!.u, free * 0.96);
    const by = Math.max(...here.map((s) => heightOf(bevel.height, s.u) - heightOf(lowered, s.u)));
    const path = ["bevels", owner(judged, side), "height"];
    remedies.push({
      words: `Lower the grind line there by up to ${say.length(by)}.`,
      changes: [{ path, value: lowered }],
    });
  }
  const { from: start, to: end } = blade.falseEdge!;
  if (to < end - 10) {
    const later = Math.ceil(to + 3);
    remedies.push({
      words: `Start the false edge at ${say.length(later)}.`,
      changes: [{ path: ["falseEdge", "from"], value: later }],
    });
  }
  if (from > start + 10) {
    const earlier = Math.floor(from - 3);
    remedies.push({
      words: `End the false edge at ${say.length(earlier)}.`,
      changes: [{ path: ["falseEdge", "to"], value: earlier }],
    });
  }
  remedies.push({ words: "Remove the false edge.", changes: [{ path: ["falseEdge"] }] });
  return remedies;
}

/** The height table brought down by a factor between two places, and left alone well outside them. */
function loweredBetween(rows: readonly HeightRow[], from: number, to: number, factor: number): HeightRow[] {
  const before = Math.max(0, from - 0.08);
  const after = Math.min(1, to + 0.08);
  const within = (u: number) => u >= from - 0.03 && u <= to + 0.03;
  const places = [
    before,
    Math.max(0, from - 0.03),
    Math.min(1, to + 0.03),
    after,
    ...rows.map((row) => row.u),
  ];
  const sorted = [...new Set(places)].sort((a, b) => a - b);
  return sorted.map((u) => ({ u, h: Number((heightOf(rows, u) * (within(u) ? factor : 1)).toFixed(3)) }));
}

/** A false edge that stops short of the tip: usual on some patterns, an oversight on others. */
export const falseEdgeShort: Rule = (judged) => {
  const { blade, say } = judged;
  const tip = tipX(judged);
  if (!blade.falseEdge || blade.falseEdge.to >= tip - 0.5) return [];
  const short = tip - blade.falseEdge.to;
  return [
    {
      id: "false-edge-short",
      severity: "note",
      where: { x: [blade.falseEdge.to, tip] },
      measured: short,
      unit: "mm",
      message: `The false edge ends ${say.length(short)} short of the tip.`,
      advice: "Usual where it must not meet the bevel; carry it on to the tip for a finer point.",
      basis: "common practice",
      remedies: [],
    },
  ];
};

/** A grind-line table read at u, mm. */
export function heightOf(rows: readonly HeightRow[], u: number): number {
  return read(
    table(
      rows,
      (row) => row.u,
      (row) => row.h,
    ),
    u,
  );
}

export const FALSE_EDGE_RULES: readonly Rule[] = [falseEdgeMeetsBevel, falseEdgeShort];
