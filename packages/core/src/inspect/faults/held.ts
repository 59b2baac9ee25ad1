import type { StageSteel } from "../../route/ladder.ts";
import { turnResponse } from "../response.ts";
import type { Spot } from "../schema.ts";
import type { Shape } from "./fault.ts";

/** Stood on an outline that is not square, one side is ground steeper and the other shallower, the edge held. */
export function outOfSquare(stage: StageSteel): Shape[] {
  return [
    {
      pattern: "out-of-square",
      unit: "°",
      faces: [],
      responses: [
        (spot: Spot) =>
          spot.what === "square"
            ? 1
            : turnResponse(stage, spot, "left", "edge") - turnResponse(stage, spot, "right", "edge"),
      ],
      steel: (by) => ({ outOfSquare: by, turned: { by: { left: by, right: -by }, about: "edge" } }),
    },
  ];
}

/** Both sides held at an angle that is off by as much, the edge or the line held. */
export function jigZero(stage: StageSteel): Shape[] {
  return (["edge", "line"] as const).map((about) => ({
    pattern: "jig-zero",
    unit: "°",
    faces: [],
    responses: [
      (spot: Spot) => turnResponse(stage, spot, "left", about) + turnResponse(stage, spot, "right", about),
    ],
    steel: (by) => ({ turned: { by: { left: by, right: by }, about } }),
  }));
}
