import type { Point } from "@true-spine/formats/drawing.ts";
import { cornersOf, type Laid, type Marks } from "@true-spine/formats/outline-from.ts";
import { useState } from "react";
import { pathThrough } from "../../rail/scale.ts";

export const MARKS = ["junction", "tip", "heel"] as const;
export type Mark = (typeof MARKS)[number];
/** In parts of the drawing's size. */
const SHORTEST_LINE = 0.02;

/** How far points reach. */
export function boxOf(points: readonly Point[]) {
  const xs = points.map((point) => point[0]);
  const ys = points.map((point) => point[1]);
  return { left: Math.min(...xs), right: Math.max(...xs), bottom: Math.min(...ys), top: Math.max(...ys) };
}

/** The drawing as it is laid: its places to click, its closed gaps ringed; or a line to draw on it, where `onLine` waits for one. */
export function DrawingView({
  placed,
  points,
  marks,
  mark,
  onPut,
  onLine,
}: {
  placed: Laid;
  points: readonly Point[];
  marks: Marks;
  mark: Mark;
  onPut: (at: Point) => void;
  onLine?: (line: readonly [Point, Point]) => void;
}) {
  const [line, setLine] = useState<readonly [Point, Point] | null>(null);
  const { left, right, bottom, top } = boxOf(points);
  const size = Math.max(right - left, 1);
  const pad = size * 0.06;
  const view = `${left - pad} ${-top - pad} ${size + 2 * pad} ${top - bottom + 2 * pad}`;
  const pointed = (event: React.PointerEvent<SVGSVGElement>): Point | null => {
    const screen = event.currentTarget.getScreenCTM();
    if (!screen) return null;
    const { x, y } = new DOMPoint(event.clientX, event.clientY).matrixTransform(screen.inverse());
    return [x, -y];
  };
  const down = (event: React.PointerEvent<SVGSVGElement>) => {
    const at = pointed(event);
    if (!at) return;
    if (onLine) {
      event.currentTarget.setPointerCapture(event.pointerId);
      setLine([at, at]);
      return;
    }
    const corners = cornersOf(placed.path).map((corner) => corner.at);
    onPut(nearestOf(points, corners, at, size * 0.02));
  };
  const move = (event: React.PointerEvent<SVGSVGElement>) => {
    const at = line && pointed(event);
    if (at) setLine([line[0], at]);
  };
  const up = () => {
    if (!line) return;
    const [from, to] = line;
    setLine(null);
    // A tap is no line.
    if (Math.hypot(to[0] - from[0], to[1] - from[1]) > size * SHORTEST_LINE) onLine?.(line);
  };
  return (
    <svg
      viewBox={view}
      className="h-64 w-full cursor-crosshair select-none bg-layout"
      role="img"
      aria-label="The drawing, with junction, tip and heel marked"
      style={{ touchAction: "none" }}
      onPointerDown={down}
      onPointerMove={move}
      onPointerUp={up}
      onPointerCancel={() => setLine(null)}
    >
      <path
        d={pathThrough(
          points,
          (x) => x,
          (y) => -y,
          true,
        )}
        fill="var(--color-layout-steel)"
        stroke="var(--color-scribed)"
        strokeWidth={1.4}
        vectorEffect="non-scaling-stroke"
      />
      {placed.holes.map(({ at, diameter }) => (
        <circle
          key={at.join()}
          cx={at[0]}
          cy={-at[1]}
          r={diameter / 2}
          fill="var(--color-layout)"
          stroke="var(--color-scribed)"
          strokeWidth={1.2}
          vectorEffect="non-scaling-stroke"
        />
      ))}
      {placed.gaps.map(([from, to]) => (
        <circle
          key={`${from.join()} ${to.join()}`}
          cx={(from[0] + to[0]) / 2}
          cy={-(from[1] + to[1]) / 2}
          r={size * 0.012}
          fill="none"
          stroke="var(--color-grind)"
          strokeWidth={2.5}
          vectorEffect="non-scaling-stroke"
        />
      ))}
      {line && (
        <line
          x1={line[0][0]}
          y1={-line[0][1]}
          x2={line[1][0]}
          y2={-line[1][1]}
          stroke="var(--color-scribe)"
          strokeWidth={2}
          vectorEffect="non-scaling-stroke"
        />
      )}
      {MARKS.map((one) => {
        const [x, y] = marks[one];
        const isChosen = one === mark;
        return (
          <g key={one}>
            <circle
              cx={x}
              cy={-y}
              r={size * (isChosen ? 0.012 : 0.008)}
              fill={isChosen ? "var(--color-scribe)" : "var(--color-grind)"}
            />
            <text
              x={x}
              y={-y + (one === "heel" ? size * 0.045 : -size * 0.022)}
              fontSize={size * 0.026}
              textAnchor={one === "tip" ? "end" : "middle"}
              fill="var(--color-scribed)"
            >
              {one}
            </text>
          </g>
        );
      })}
    </svg>
  );
}

/** The corner within reach of a click, or else the nearest point of the outline. */
function nearestOf(points: readonly Point[], corners: readonly Point[], to: Point, reach: number): Point {
  const off = ([x, y]: Point) => Math.hypot(x - to[0], y - to[1]);
  const nearest = (all: readonly Point[]) =>
    all.reduce((best, point) => (off(point) < off(best) ? point : best), all[0]!);
  const corner = corners.length > 0 ? nearest(corners) : null;
  return corner && off(corner) < reach ? corner : nearest(points);
}
