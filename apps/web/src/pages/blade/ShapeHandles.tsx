import type { Blade, OutlineNode } from "@true-spine/core/blade/schema.ts";
import { memo, useRef } from "react";
import { useFilePart, useScreen } from "../../blade/context.ts";
import { Handle } from "../../rail/Handle.tsx";
import type { SidePlace } from "../../rail/SideView.tsx";
import { tidy } from "../../rail/SpineView.tsx";
import { moveNode } from "./ShapeControls.tsx";

const CHAINS = ["spine", "edge", "tang"] as const;
type Chain = (typeof CHAINS)[number];

/** The outline's nodes and their curve handles, to be taken hold of on the side view. */
export function ShapeHandles({ place }: { place: SidePlace }) {
  const outline = useFilePart((file) => file.outline);
  return CHAINS.flatMap((chain) =>
    outline[chain].map((node, i) => (
      <NodeHandles
        // biome-ignore lint/suspicious/noArrayIndexKey: a node is its position in the chain
        key={`${chain}${i}`}
        chain={chain}
        index={i}
        node={node}
        isShared={
          (chain === "edge" && i > 0 && i === outline.edge.length - 1) ||
          (chain === "tang" && (i === 0 || i === outline.tang.length - 1))
        }
        place={place}
      />
    )),
  );
}

/** One node: itself, unless another chain already shows it, and its curve handles. Drawn again only when it moves. */
const NodeHandles = memo(function NodeHandles({
  chain,
  index,
  node,
  isShared,
  place,
}: {
  chain: Chain;
  index: number;
  node: OutlineNode;
  isShared: boolean;
  place: SidePlace;
}) {
  const { open } = useScreen();
  const start = useRef<OutlineNode>(node);
  const { px, py, scale } = place;
  const [x, y] = node.at;
  if (px(x) < -20 || px(x) > scale.width + 20) return null;
  const moved = (from: readonly [number, number], dx: number, dy: number): [number, number] => [
    tidy(from[0] + dx),
    tidy(from[1] + dy),
  ];
  const drag =
    (change: (copy: Blade, dx: number, dy: number) => void) => (dx: number, dy: number, isStart: boolean) => {
      if (isStart) start.current = open.store.getState().file.outline[chain][index]!;
      if (dx !== 0 || dy !== 0) open.edit((copy) => change(copy, dx, dy));
    };
  return (
    <g>
      {(["back", "ahead"] as const).map((key) => {
        const offset = node[key];
        if (!offset || (offset[0] === 0 && offset[1] === 0)) return null;
        const [hx, hy] = [x + offset[0], y + offset[1]];
        return (
          <g key={key}>
            <line
              x1={px(x)}
              y1={py(y)}
              x2={px(hx)}
              y2={py(hy)}
              stroke="var(--color-scribed-faint)"
              strokeWidth={0.8}
              opacity={0.7}
              pointerEvents="none"
            />
            <Handle
              shape="round"
              x={px(hx)}
              y={py(hy)}
              perMm={scale.perMm}
              label={`${chain} node ${index + 1}, curve ${key}`}
              onMove={drag((copy, dx, dy) => {
                copy.outline[chain][index]![key] = moved(start.current[key]!, dx, dy);
              })}
            />
          </g>
        );
      })}
      {!isShared && (
        <Handle
          x={px(x)}
          y={py(y)}
          perMm={scale.perMm}
          label={`${chain} node ${index + 1}`}
          onMove={drag((copy, dx, dy) => moveNode(copy, chain, index, moved(start.current.at, dx, dy)))}
        />
      )}
    </g>
  );
});
