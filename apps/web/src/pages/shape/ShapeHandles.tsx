import type { Blade, OutlineNode } from "@true-spine/core/blade/schema.ts";
import { canRemove, moveHandle, remove } from "@true-spine/core/design/nodes.ts";
import { memo, useRef } from "react";
import { moveNode } from "../../blade/move-node.ts";
import { useDrawnPart, useScreen } from "../../blade/screen.ts";
import { Grip } from "../../rail/Grip.tsx";
import { tidy } from "../../rail/SpineView.tsx";
import type { SidePlace } from "../../rail/side-place.ts";
import { PhotoHandles } from "./PhotoHandles.tsx";

const CHAINS = ["spine", "edge", "tang"] as const;
type Chain = (typeof CHAINS)[number];

/** The outline's nodes and their curve handles, to be taken hold of on the side view. */
export function ShapeHandles({ place }: { place: SidePlace }) {
  const outline = useDrawnPart((file) => file.outline);
  const nodes = CHAINS.flatMap((chain) =>
    outline[chain].map((node, i) => (
      <NodeHandles
        // biome-ignore lint/suspicious/noArrayIndexKey: a node is its position in the chain
        key={`${chain}${i}`}
        chain={chain}
        index={i}
        node={node}
        isInner={canRemove(outline[chain], i)}
        isShared={
          (chain === "edge" && i > 0 && i === outline.edge.length - 1) ||
          (chain === "tang" && (i === 0 || i === outline.tang.length - 1))
        }
        place={place}
      />
    )),
  );
  return (
    <>
      {nodes}
      <PhotoHandles place={place} />
    </>
  );
}

/** One node: itself, unless another chain already shows it, and its curve handles. Drawn again only when it moves. */
const NodeHandles = memo(function NodeHandles({
  chain,
  index,
  node,
  isInner,
  isShared,
  place,
}: {
  chain: Chain;
  index: number;
  node: OutlineNode;
  /** Neither end of its chain. */
  isInner: boolean;
  isShared: boolean;
  place: SidePlace;
}) {
  const { open, rail } = useScreen();
  const start = useRef<OutlineNode>(node);
  const { px, py, scale } = place;
  const [x, y] = node.at;
  if (px(x) < -20 || px(x) > scale.width + 20) return null;
  const moved = (from: readonly [number, number], dx: number, dy: number): [number, number] => [
    tidy(from[0] + dx),
    tidy(from[1] + dy),
  ];
  const drag =
    (change: (copy: Blade, dx: number, dy: number, isByKey: boolean) => void) =>
    (dx: number, dy: number, isStart: boolean, isByKey: boolean) => {
      if (isStart) {
        start.current = open.store.getState().file.outline[chain][index]!;
        rail.setState({ node: { chain, index } });
      }
      if (dx !== 0 || dy !== 0) open.edit((copy) => change(copy, dx, dy, isByKey));
    };
  const takeOut = () => {
    open.end();
    open.edit((copy) => remove(copy.outline[chain], index));
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
            <Grip
              shape="round"
              x={px(hx)}
              y={py(hy)}
              perMm={scale.perMm}
              label={`${chain} node ${index + 1}, curve ${key}`}
              onMove={drag((copy, dx, dy) => {
                moveHandle(copy.outline[chain][index]!, key, moved(start.current[key]!, dx, dy));
              })}
            />
          </g>
        );
      })}
      {!isShared && (
        <Grip
          x={px(x)}
          y={py(y)}
          perMm={scale.perMm}
          label={`${chain} node ${index + 1}`}
          onDelete={isInner ? takeOut : undefined}
          onMove={drag((copy, dx, dy, isByKey) => {
            const to = moved(start.current.at, dx, dy);
            moveNode(
              copy,
              chain,
              index,
              isByKey ? to : snapped(copy, start.current, to, REACH / scale.perMm),
            );
          })}
        />
      )}
    </g>
  );
});

/** How near to a level a node lets itself be drawn to it, pixels. */
const REACH = 4;

/** Level with the datum or with another node, when within reach: what was meant to be level is. */
function snapped(copy: Blade, from: OutlineNode, [x, y]: [number, number], reach: number): [number, number] {
  const others = CHAINS.flatMap((chain) => copy.outline[chain].map((node) => node.at)).filter(
    (at) => Math.hypot(at[0] - x, at[1] - y) > 4 * reach && at[1] !== from.at[1],
  );
  const level = [0, ...others.map((at) => at[1])].find((one) => Math.abs(one - y) < reach);
  return [x, level ?? y];
}
