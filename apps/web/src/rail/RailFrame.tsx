import { type ReactNode, useMemo } from "react";
import { fieldOf } from "../blade/derived.ts";
import { useFile, useRail, useStill } from "../blade/screen.ts";
import { AXIS_HEIGHT, Axis } from "./Axis.tsx";
import { Scribe } from "./Scribe.tsx";
import { ScribePad } from "./ScribePad.tsx";
import { TITLE_HEIGHT } from "./Strip.tsx";
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

/** The stretch of x that shows all of it, at the scale at which it is not too tall. */
function wholeOf({ left, right, tall }: Within, share: number, width: number, height: number): View {
  const room = Math.max(20, (height - AXIS_HEIGHT) * share - TITLE_HEIGHT - 12);
  const across = width - MARGIN.left - MARGIN.right;
  const long = Math.max(right - left, (across * tall) / room);
  const middle = (left + right) / 2;
  return { from: middle - long / 2, to: middle + long / 2 };
}

function isBeyond(now: View, still: View): boolean {
  const more = SEEN_BEYOND * (still.to - still.from);
  return now.from < still.from - more || now.to > still.to + more;
}

/** A stretch at least so long that something so tall stands within the side view at true scale, mm. */
export interface Within {
  readonly left: number;
  readonly right: number;
  readonly tall: number;
}

/**
 * Strips of the open blade, one above the other on one x axis, with the scribe through all of them. The blade is in sight, up and down as
 * well, in the share of the height that its side view has, until it is looked at more closely; with `within` all of that is instead.
 */
export function RailFrame({
  children,
  share,
  within,
}: {
  children: (frame: Frame) => ReactNode;
  share: number;
  within?: Within;
}) {
  const file = useFile();
  const fit = useRail((state) => state.fit);
  const near = useRail((state) => state.view);
  const [ref, size] = useSize<HTMLDivElement>();
  const { ring } = fieldOf(file);
  const width = Math.max(200, size.width);
  const fitted = fittedView(ring, fit);
  const blade = { left: fitted.from, right: fitted.to, tall: ring.top - ring.bottom };
  const whole = wholeOf(within ?? blade, share, width, size.height);
  const all = useStill(whole, (still) => isBeyond(whole, still));
  const { from, to } = within ? whole : (near ?? all);
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
