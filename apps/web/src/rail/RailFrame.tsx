import { type ReactNode, useMemo } from "react";
import { fieldOf } from "../blade/derived.ts";
import { useFile, useRail, useStill } from "../blade/screen.ts";
import { AXIS_HEIGHT, Axis } from "./Axis.tsx";
import { Scribe } from "./Scribe.tsx";
import { ScribePad } from "./ScribePad.tsx";
import { type Scale, scaleFor } from "./scale.ts";
import { useSize } from "./useSize.ts";
import { fittedView, type View } from "./zoom.ts";

const MARGIN = { left: 64, right: 28 };
/** How much of a stretch its margins show beyond either end, as a share of it. */
const SEEN_BEYOND = 0.025;

export interface Frame {
  /** The x axis that all strips share. */
  readonly scale: Scale;
  /** What the strips have for their heights together, px. */
  readonly room: number;
}

function isBeyond(now: View, still: View): boolean {
  const more = SEEN_BEYOND * (still.to - still.from);
  return now.from < still.from - more || now.to > still.to + more;
}

/** Strips of the open blade, one above the other on one x axis, with the scribe through all of them. */
export function RailFrame({ children }: { children: (frame: Frame) => ReactNode }) {
  const file = useFile();
  const fit = useRail((state) => state.fit);
  const near = useRail((state) => state.view);
  const [ref, size] = useSize<HTMLDivElement>();
  const fitted = fittedView(fieldOf(file).ring, fit);
  const all = useStill(fitted, (still) => isBeyond(fitted, still));
  const { from, to } = near ?? all;
  const width = Math.max(200, size.width);
  // The same scale object while it is the same scale: the axis and the grid are then not drawn again.
  const scale = useMemo(() => scaleFor(from, to, width, MARGIN), [from, to, width]);
  return (
    <div ref={ref} className="relative h-full touch-none overflow-hidden select-none">
      {size.width > 0 && (
        <ScribePad scale={scale} all={all}>
          {children({ scale, room: Math.max(0, size.height - AXIS_HEIGHT) })}
          <Axis scale={scale} />
          <Scribe scale={scale} height={size.height} />
        </ScribePad>
      )}
    </div>
  );
}
