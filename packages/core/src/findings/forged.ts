import type { Bench } from "../inspect/bench.ts";
import { type Finding, found } from "./finding.ts";
import type { Speech } from "./judged.ts";

/**
 * What can still be cleaned off a side of a blank at a place: half of what stands above the next stage, less what the edge is off centre
 * and the blade is bowed there. mm. Source: geometry.
 */
export function cleanUp(read: number, next: number, offCentre: number, bow: number): number {
  return (read - next) / 2 - Math.abs(offCentre) - Math.abs(bow);
}

type Work = Pick<Bench, "stage" | "figures" | "together" | "diagnosis"> & { readonly say: Speech };

/** What a blank's readings say beside its bands: whether it still cleans up, and which crests to dress. */
export function forgedFindings(work: Work): Finding[] {
  return work.stage.blank ? [...scantClean(work), ...rippleCrests(work)] : [];
}

/** Places that no longer clean up: the skin would stay in the blade. The worst of each kind. */
function scantClean({ stage, figures, together, say }: Work): Finding[] {
  const { left } = stage.forged!;
  const bow = figures.find(({ spot }) => spot.what === "bow")?.value ?? 0;
  const tip = stage.blank!.right;
  const bowAt = (x: number) => bow * (1 - (2 * (x / tip) - 1) ** 2);
  const offAt = (x: number) =>
    together.centre.reduce<{ far: number; k: number }>(
      (near, one) => (Math.abs(one.x - x) < near.far ? { far: Math.abs(one.x - x), k: one.value } : near),
      { far: NEAR, k: 0 },
    ).k;
  const at = (what: "edge" | "flats") =>
    figures
      .filter(({ spot }) => spot.what === what)
      .map((figure) => {
        const { x } = figure.target;
        const next = what === "edge" ? left.nextEdge : figure.target.value - 2 * left.flats;
        const k = what === "edge" ? offAt(x) : 0;
        return { figure, x, k, c: cleanUp(figure.value, next, k, bowAt(x)) };
      });
  return (["edge", "flats"] as const).flatMap((what) => {
    const worst = at(what).toSorted((a, b) => a.c - b.c)[0];
    const within = worst?.figure.uncertainty.u ?? 0;
    const needs = left.skin + within;
    if (!worst || worst.c >= needs) return [];
    const side = worst.k > 0 ? "right" : worst.k < 0 ? "left" : null;
    return [
      found(
        "forge-cleanup",
        "fix",
        `${say.length(Math.max(0, worst.c))} left to clean up${side ? ` on the ${side}` : " a side"} ${say.along(worst.x, worst.x)}, ${what === "edge" ? "at the edge" : "on the flats"}: ${say.length(needs)} is skin and what the reading is worth.`,
        "Dress it straight and centred before it is profiled; if it still falls short, see which blade is still in it.",
        "geometry; skin: starting value",
        {
          where: { ...(side ? { side } : {}), x: [worst.x, worst.x] },
          measured: worst.c,
          wanted: [needs, null],
          unit: "mm",
        },
      ),
    ];
  });
}
/** A reading of the centre speaks for places so near to it, mm. */
const NEAR = 30;

/** The crests of a ripple, each with what stands on it over the troughs: dressed on paper first. */
function rippleCrests({ figures, diagnosis, say }: Work): Finding[] {
  const ripple = diagnosis.found.find(({ pattern }) => pattern === "ripple");
  if (!ripple) return [];
  const edges = figures
    .filter(({ spot }) => spot.what === "edge")
    .toSorted((a, b) => a.target.x - b.target.x);
  const floor = Math.min(...edges.map(({ off }) => off));
  const crests = edges.filter(({ off }, i) => {
    const [before, after] = [edges[i - 1]?.off ?? -Infinity, edges[i + 1]?.off ?? -Infinity];
    return off >= before && off > after && off - floor > Math.abs(ripple.size);
  });
  if (crests.length === 0) return [];
  const worst = Math.max(...crests.map(({ off }) => off - floor));
  return [
    found(
      "forge-ripple",
      "watch",
      `The edge ripples by ${say.length(2 * Math.abs(ripple.size))}, about ${say.length(ripple.shape.ripple ?? 0)} from crest to crest: crests at ${crests.map(({ target }) => say.length(target.x)).join(", ")}.`,
      `Dress the crests only, up to ${say.length(worst)} in all, half from each side; ${say.length(Math.max(0, edges[0]!.target.value + floor))} is left in the troughs.`,
      "weighted least squares; causes: common practice",
      { where: { x: [crests[0]!.target.x, crests.at(-1)!.target.x] } },
    ),
  ];
}
