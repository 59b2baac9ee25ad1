import { type ReactNode, useRef } from "react";
import { useScreen } from "../blade/screen.ts";
import type { Scale } from "./scale.ts";
import { panned, pinched, type View, zoomed } from "./zoom.ts";

/**
 * Anywhere on the strips takes hold of the scribe; handles on the drawings keep the pointer to themselves. The wheel
 * looks nearer or further at the pointer, and so do two fingers.
 */
export function ScribePad({ scale, all, children }: { scale: Scale; all: View; children: ReactNode }) {
  const { rail } = useScreen();
  const left = useRef(0);
  /** Where each finger or button is down: pixels from the left of the strips, the mm it took hold of. */
  const held = useRef(new Map<number, { px: number; mm: number }>());
  const find = (event: React.PointerEvent<HTMLDivElement>) => {
    left.current = event.currentTarget.getBoundingClientRect().left;
  };
  const go = (x: number) => {
    rail.setState({ scribe: clampToScale(scale, Math.round(x * 10) / 10) });
  };
  const letGo = (event: React.PointerEvent<HTMLDivElement>) => {
    held.current.delete(event.pointerId);
  };
  return (
    <div
      className="absolute inset-0 cursor-col-resize"
      onWheel={(event) => {
        const view = { from: scale.from, to: scale.to };
        const isPan = event.shiftKey || Math.abs(event.deltaX) > Math.abs(event.deltaY);
        const by = (event.deltaX + (event.shiftKey ? event.deltaY : 0)) / scale.perMm;
        rail.setState({
          view: isPan
            ? panned(view, all, by)
            : zoomed(view, all, scale.mm(event.clientX - left.current), event.deltaY < 0 ? 1.25 : 0.8),
        });
      }}
      onPointerEnter={find}
      onPointerDown={(event) => {
        if (event.button !== 0) return;
        find(event);
        event.currentTarget.setPointerCapture(event.pointerId);
        const px = event.clientX - left.current;
        held.current.set(event.pointerId, { px, mm: scale.mm(px) });
        if (held.current.size === 1) go(scale.mm(px));
      }}
      onPointerMove={(event) => {
        const px = event.clientX - left.current;
        rail.setState({ pointer: scale.mm(px) });
        const finger = held.current.get(event.pointerId);
        if (!finger) return;
        held.current.set(event.pointerId, { ...finger, px });
        const [one, two] = [...held.current.values()];
        if (one && two) rail.setState({ view: pinched(scale, all, one, two) });
        else go(scale.mm(px));
      }}
      onPointerUp={letGo}
      onPointerCancel={letGo}
    >
      {children}
    </div>
  );
}

function clampToScale(scale: { from: number; to: number }, x: number): number {
  return Math.min(scale.to, Math.max(scale.from, x));
}
