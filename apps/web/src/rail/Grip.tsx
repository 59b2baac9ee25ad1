import { useRef } from "react";
import { useScreen } from "../blade/screen.ts";

const NUDGE_MM = 0.1;
const BIG_NUDGE_MM = 1;

/**
 * Something on a drawing that can be taken hold of: by pointer, or focused and nudged with the arrow keys,
 * 0.1 mm or with Shift 1 mm. `onMove` is given how far to go from where it was taken, in pixels' worth of mm.
 */
export function Grip({
  x,
  y,
  label,
  perMm,
  shape = "square",
  onMove,
  isVertical = true,
  isHorizontal = true,
  onDelete,
  perMmUp = perMm,
}: {
  x: number;
  y: number;
  label: string;
  perMm: number;
  perMmUp?: number;
  shape?: "square" | "round";
  isVertical?: boolean;
  isHorizontal?: boolean;
  /** What the Delete key does while it has the focus. */
  onDelete?: () => void;
  /** Moves by (dx, dy) mm, y up, from where the handle stood when it was taken hold of; a key moves it exactly. */
  onMove: (dx: number, dy: number, isStart: boolean, isByKey: boolean) => void;
}) {
  const { open } = useScreen();
  const from = useRef<{ x: number; y: number } | null>(null);
  const size = 4.5;
  const letGo = () => {
    from.current = null;
    open.end();
  };
  const grip = {
    className: "cursor-grab touch-none",
    onPointerDown: (event: React.PointerEvent<SVGElement>) => {
      event.stopPropagation();
      event.currentTarget.setPointerCapture(event.pointerId);
      from.current = { x: event.clientX, y: event.clientY };
      open.begin(true);
      onMove(0, 0, true, false);
    },
    onPointerMove: (event: React.PointerEvent<SVGElement>) => {
      if (!from.current) return;
      onMove(
        (event.clientX - from.current.x) / perMm,
        -(event.clientY - from.current.y) / perMmUp,
        false,
        false,
      );
    },
    onPointerUp: letGo,
    onPointerCancel: letGo,
  };
  const common = {
    className: "handle focus:outline-none",
    fill: "var(--color-layout)",
    stroke: shape === "round" ? "var(--color-grind)" : "var(--color-scribed)",
    strokeWidth: 1.6,
    tabIndex: 0,
    role: "button",
    "aria-label": `${label}. Arrow keys move it.`,
    onKeyDown: (event: React.KeyboardEvent) => {
      if (event.key === "Delete" && onDelete) {
        event.preventDefault();
        onDelete();
        return;
      }
      const step = event.shiftKey ? BIG_NUDGE_MM : NUDGE_MM;
      const [dx, dy] = {
        ArrowLeft: [-step, 0],
        ArrowRight: [step, 0],
        ArrowUp: [0, step],
        ArrowDown: [0, -step],
      }[event.key] ?? [0, 0];
      if ((dx !== 0 && isHorizontal) || (dy !== 0 && isVertical)) {
        event.preventDefault();
        event.stopPropagation();
        open.end();
        onMove(0, 0, true, true);
        onMove(dx!, dy!, false, true);
      }
    },
  };
  return (
    <g {...grip}>
      {/* A larger, unseen target for thumbs. */}
      <circle cx={x} cy={y} r={13} fill="transparent" />
      {shape === "square" ? (
        <rect x={x - size} y={y - size} width={2 * size} height={2 * size} {...common} />
      ) : (
        <circle cx={x} cy={y} r={size + 1} {...common} />
      )}
    </g>
  );
}
