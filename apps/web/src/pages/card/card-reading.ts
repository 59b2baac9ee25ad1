import type { Side } from "@true-spine/core/blade/schema.ts";
import { type Reading, spotKey } from "@true-spine/core/inspect/schema.ts";
import type { StageReport } from "@true-spine/core/route/report.ts";
import type { TakenReading } from "@true-spine/core/route/schema.ts";
import { newId } from "../../saving/id.ts";

/** A share of the edge as readings name it. */
const named = (u: number) => Math.round(u * 1000) / 1000;

/** What the card asks for as a reading of its own: heel, middle and tip are shares of the edge. */
export function toReading(taken: TakenReading, stage: StageReport, side: Side): Reading {
  const { u } = stage.targets.find(({ place }) => place === taken.place)!;
  return {
    id: newId(),
    when: taken.when,
    stage: stage.id,
    what: taken.what === "line" ? "line" : stage.kind === "sharpen" ? "behind" : "edge",
    u: named(u),
    ...(taken.what === "line" ? { side } : {}),
    value: taken.value,
    by: "card",
    ...(taken.past ? { past: true } : {}),
  };
}

/** The stage's last reading that lies at one of the card's places, wherever it was taken; null where there is none. */
export function lastOnCard(readings: readonly Reading[], stage: StageReport): TakenReading | null {
  const places = new Map(
    stage.targets.flatMap(({ place, u }) => {
      const at = { u: named(u) };
      return [
        [spotKey({ what: "edge", ...at }), place],
        [spotKey({ what: "behind", ...at }), place],
        [spotKey({ what: "line", ...at, side: "left" }), place],
        [spotKey({ what: "line", ...at, side: "right" }), place],
      ] as const;
    }),
  );
  const last = readings.findLast((one) => one.stage === stage.id && places.has(spotKey(one)));
  if (!last) return null;
  return {
    when: last.when,
    what: last.what === "line" ? "line" : "edge",
    place: places.get(spotKey(last))!,
    value: last.value,
    ...(last.past ? { past: true } : {}),
  };
}
