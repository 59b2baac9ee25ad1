import { useRef } from "react";
import { useFile, useScreen } from "../../blade/context.ts";
import { Handle } from "../../rail/Handle.tsx";
import type { SidePlace } from "../../rail/SideView.tsx";
import { tidy } from "../../rail/SpineView.tsx";
import { moveNode } from "./ShapeControls.tsx";

const CHAINS = ["spine", "edge", "tang"] as const;

/** The outline's nodes and their curve handles, to be taken hold of on the side view. */
export function ShapeHandles({ place }: { place: SidePlace }) {
  const file = useFile();
  const { open } = useScreen();
  const start = useRef(file);
  const { px, py, scale } = place;
  const take = (isStart: boolean) => {
    if (isStart) start.current = open.store.getState().file;
  };
  return (
    <g>
      {CHAINS.flatMap((chain) =>
        file.outline[chain].flatMap((node, i) => {
          const isShared =
            (chain === "edge" && i > 0 && i === file.outline.edge.length - 1) ||
            (chain === "tang" && (i === 0 || i === file.outline.tang.length - 1));
          const [x, y] = node.at;
          const isOut = px(x) < -20 || px(x) > scale.width + 20;
          if (isOut) return [];
          const curves = (["back", "ahead"] as const).flatMap((key) => {
            const offset = node[key];
            if (!offset || (offset[0] === 0 && offset[1] === 0)) return [];
            const [hx, hy] = [x + offset[0], y + offset[1]];
            return (
              // biome-ignore lint/suspicious/noArrayIndexKey: a node is its position in the chain
              <g key={`${chain}${i}${key}`}>
                <line
                  x1={px(x)}
                  y1={py(y)}
                  x2={px(hx)}
                  y2={py(hy)}
                  stroke="var(--color-scribed-faint)"
                  strokeWidth={0.8}
                  opacity={0.7}
                />
                <Handle
                  shape="round"
                  x={px(hx)}
                  y={py(hy)}
                  perMm={scale.perMm}
                  label={`${chain} node ${i + 1}, curve ${key}`}
                  onMove={(dx, dy, isStart) => {
                    take(isStart);
                    if (dx === 0 && dy === 0) return;
                    const from = start.current.outline[chain][i]![key]!;
                    open.edit((copy) => {
                      copy.outline[chain][i]![key] = [tidy(from[0] + dx), tidy(from[1] + dy)];
                    });
                  }}
                />
              </g>
            );
          });
          if (isShared) return curves;
          return [
            ...curves,
            <Handle
              // biome-ignore lint/suspicious/noArrayIndexKey: a node is its position in the chain
              key={`${chain}${i}`}
              x={px(x)}
              y={py(y)}
              perMm={scale.perMm}
              label={`${chain} node ${i + 1}`}
              onMove={(dx, dy, isStart) => {
                take(isStart);
                if (dx === 0 && dy === 0) return;
                const from = start.current.outline[chain][i]!.at;
                open.edit((copy) => moveNode(copy, chain, i, [tidy(from[0] + dx), tidy(from[1] + dy)]));
              }}
            />,
          ];
        }),
      )}
    </g>
  );
}
