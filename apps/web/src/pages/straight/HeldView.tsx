import { ringPoints } from "@true-spine/core/blade/outline.ts";
import type { Strike } from "@true-spine/core/inspect/straightness.ts";
import { tipPoints } from "@true-spine/core/straight/advice.ts";
import { fieldOf } from "../../blade/derived.ts";
import { useFile } from "../../blade/screen.ts";
import { pathThrough } from "../../rail/scale.ts";
import { useSize } from "../../rail/useSize.ts";

const PAD = 14;
const TITLE = 22;

/** The blade as it is held: level, edge toward you, that face up, with the lines to work along. */
export function HeldView({
  face,
  strikes,
  isLarge = false,
}: {
  face: "left" | "right";
  strikes: readonly Strike[];
  isLarge?: boolean;
}) {
  const [ref, { width, height }] = useSize<HTMLDivElement>();
  const file = useFile();
  const { ring } = fieldOf(file);
  const perMm = Math.min(
    (width - 2 * PAD) / (ring.right - ring.left),
    (height - TITLE - 2 * PAD) / (ring.top - ring.bottom),
  );
  // Edge toward you, a face's tip points to that side: seen on its left face it is the drawing turned over.
  const tip = tipPoints(face);
  const px = (x: number) =>
    tip === "left" ? width - PAD - (x - ring.left) * perMm : PAD + (x - ring.left) * perMm;
  const top = TITLE + (height - TITLE - (ring.top - ring.bottom) * perMm) / 2;
  const py = (y: number) => top + (ring.top - y) * perMm;
  const words = `${face} face up, edge toward you, tip to the ${tip}`;
  return (
    <div ref={ref} className="h-full">
      {width > 0 && (
        <svg width={width} height={height} role="img" aria-label={`As it is held: ${words}`}>
          <text x={10} y={16} className={`fill-ink font-semibold ${isLarge ? "text-lg" : "text-[13px]"}`}>
            As it is held
          </text>
          <text
            x={isLarge ? 140 : 104}
            y={16}
            className={`fill-faint ${isLarge ? "text-base" : "text-[11px]"}`}
          >
            {words}
          </text>
          <path
            d={pathThrough(ringPoints(ring), px, py, true)}
            fill="var(--color-sheet)"
            stroke="var(--color-ink)"
            strokeWidth={1.4}
          />
          {strikes
            .filter((strike) => strike.face === face)
            .map(({ x, from, to }) => (
              <path
                key={`${x} ${from[0]}`}
                d={`M${px(from[0])} ${py(from[1])}L${px(to[0])} ${py(to[1])}`}
                stroke="var(--color-scribe)"
                strokeWidth={isLarge ? 6 : 4}
                strokeLinecap="round"
              />
            ))}
        </svg>
      )}
    </div>
  );
}
