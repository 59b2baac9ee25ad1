import { compileRing, type Ring, ringPoints, spansAt } from "@true-spine/core/blade/outline.ts";
import { memo } from "react";
import { useDocument, useDrawnPart } from "../blade/screen.ts";
import { pathThrough } from "./scale.ts";
import type { SidePlace } from "./side-place.ts";

/** What is on the tang, drawn thin: how far the scales reach, their pins, or the parts over a hidden tang. */
export const HandleOnKnife = memo(function HandleOnKnife({ place }: { place: SidePlace }) {
  const { parts, pins } = useDocument("handle");
  const outline = useDrawnPart((file) => file.outline);
  if (parts.length === 0) return null;
  const ring = compileRing(outline);
  const { px, py, scale } = place;
  return (
    <g fill="none" stroke="var(--color-scribed-faint)" strokeWidth={1} strokeDasharray="4 3">
      {parts.map((part, i) => {
        // biome-ignore lint/suspicious/noArrayIndexKey: a part is its position in the list
        if (part.kind === "scales") return <Scales key={i} front={part.front} ring={ring} place={place} />;
        const [low = -part.height / 2, high = part.height / 2] =
          spansAt(ring, (part.from + part.to) / 2)[0] ?? [];
        return (
          <rect
            // biome-ignore lint/suspicious/noArrayIndexKey: a part is its position in the list
            key={i}
            x={px(part.from)}
            y={py((low + high) / 2 + part.height / 2)}
            width={Math.max(1, (part.to - part.from) * scale.perMm)}
            height={part.height * scale.perMm}
          />
        );
      })}
      {pins.map((pin) => (
        <circle
          key={`${pin.x} ${pin.y}`}
          cx={px(pin.x)}
          cy={py(pin.y)}
          r={(pin.diameter / 2) * scale.perMm}
          fill="var(--color-scribed-faint)"
          opacity={0.5}
        />
      ))}
    </g>
  );
});

function Scales({ front, ring, place }: { front: number; ring: Ring; place: SidePlace }) {
  const { px, py } = place;
  const behind = ringPoints(ring).filter(([x]) => x <= front);
  const [low = 0, high = 0] = spansAt(ring, front)[0] ?? [];
  return (
    <>
      <path d={`M${px(front)} ${py(low)}V${py(high)}`} />
      <path d={pathThrough(behind, px, py)} strokeDasharray="1 3" />
    </>
  );
}
