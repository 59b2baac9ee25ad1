import type { Blade } from "@true-spine/core/blade/schema.ts";
import type { ChainName } from "@true-spine/core/design/nodes.ts";

/** Moves a node, and the ends of the other chains that meet it there. */
export function moveNode(copy: Blade, chain: ChainName, index: number, at: [number, number]): void {
  const { spine, edge, tang } = copy.outline;
  const node = copy.outline[chain][index]!;
  const isEnd = index === copy.outline[chain].length - 1;
  const meets = {
    tip: [spine[spine.length - 1]!, edge[edge.length - 1]!],
    heel: [edge[0]!, tang[0]!],
    junction: [spine[0]!, tang[tang.length - 1]!],
  };
  const place =
    chain === "tang"
      ? isEnd
        ? "junction"
        : index === 0
          ? "heel"
          : null
      : isEnd
        ? "tip"
        : index > 0
          ? null
          : chain === "edge"
            ? "heel"
            : "junction";
  for (const end of place ? meets[place] : [node]) end.at = [...at];
}
