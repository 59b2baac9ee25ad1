import { changed, example } from "../examples.ts";

/** A bar of 4, 30 wide: flat on both sides, 3° a side, 0.5 behind an edge of 18°. */
export const prism = changed(example("prism"), (copy) => {
  copy.edge.behind = [{ u: 0, t: 0.5 }];
  copy.edge.angle = { left: 18, right: 18 };
  copy.bevels.right = {
    kind: "flat",
    pull: "follow",
    set: "angle",
    angle: 3,
    plunge: { x: 0, lean: 0, radius: 0 },
  };
});
