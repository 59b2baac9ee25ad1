import { ringPoints } from "@true-spine/core/blade/outline.ts";
import type { Side } from "@true-spine/core/blade/schema.ts";
import type { StageReport } from "@true-spine/core/route/report.ts";
import { showLength } from "@true-spine/core/units/length.ts";
import { useSettings } from "../../app/settings.ts";
import { fieldOf, linesOf } from "../../blade/derived.ts";
import { useFile } from "../../blade/screen.ts";
import { pathThrough } from "../../rail/scale.ts";

const WIDTH = 1000;
const HEIGHT = 330;

/**
 * The blade as it is held at the belt: edge up, this side toward the belt, its tip the way it points then; turned over
 * for the left hand. Only this stage's own lines are on it.
 */
export function CardDrawing({ stage, side }: { stage: StageReport; side: Side }) {
  const file = useFile();
  const unit = useSettings((settings) => settings.unit);
  const hand = useSettings((settings) => settings.hand);
  const { ring } = fieldOf(file);
  const from = Math.max(ring.left, -28);
  const scale = Math.min((WIDTH - 80) / (ring.right - from), (HEIGHT - 50) / (ring.top - ring.bottom));
  // Edge up, the right side faces a right-hander with the tip to the left; every turn of that mirrors it.
  const isTipRight = (side === "right") === (hand === "left");
  const middleX = (from + ring.right) / 2;
  const middleY = (ring.top + ring.bottom) / 2;
  const px = (x: number) => WIDTH / 2 + (isTipRight ? 1 : -1) * (x - middleX) * scale;
  const py = (y: number) => HEIGHT / 2 + (y - middleY) * scale;
  // Sharpening, and what grinds nothing, has no line of the bevel's to work to.
  const isOnBevels = stage.work.on === "bevels";
  const lines = stage.grindLine[side];
  const plunge = linesOf(file).plunge[side];
  const reading = stage.targets[1]!;
  const line = reading.grindLine[side];
  const { stations } = linesOf(file);
  const middle = stations.reduce((a, b) => (Math.abs(b.u - reading.u) < Math.abs(a.u - reading.u) ? b : a));
  const tipSide = isTipRight ? "right" : "left";
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className="h-full w-full bg-layout"
      role="img"
      aria-label={`${side} side, edge up, tip to the ${tipSide}`}
    >
      <clipPath id="card-blade">
        <rect width={WIDTH} height={HEIGHT} />
      </clipPath>
      <g clipPath="url(#card-blade)">
        <path
          d={pathThrough(ringPoints(ring), px, py, true)}
          fill="var(--color-layout-steel)"
          stroke="var(--color-scribed)"
          strokeWidth={2}
        />
        {(file.holes ?? []).map((hole) => (
          <circle
            key={`${hole.x} ${hole.y}`}
            cx={px(hole.x)}
            cy={py(hole.y)}
            r={(hole.d / 2) * scale}
            fill="var(--color-layout)"
            stroke="var(--color-scribed)"
          />
        ))}
        {isOnBevels && (
          <g fill="none" stroke="var(--color-grind)" strokeWidth={4}>
            <path d={lines.map((one) => pathThrough(one, px, py)).join("")} />
            {plunge && <path d={pathThrough(plunge, px, py)} />}
          </g>
        )}
        {isOnBevels && line !== null && (
          <g>
            <line
              x1={px(middle.x)}
              y1={py(middle.y)}
              x2={px(middle.x + middle.inward[0] * line)}
              y2={py(middle.y + middle.inward[1] * line)}
              stroke="var(--color-scribed)"
              strokeWidth={2}
            />
            <text
              x={px(middle.x) + 12}
              y={py(middle.y + (middle.inward[1] * line) / 2) + 8}
              className="fill-scribed text-[26px] font-bold"
            >
              {showLength(line, unit, unit === "mm" ? 1 : undefined)}
            </text>
          </g>
        )}
      </g>
      <text x={18} y={HEIGHT - 16} className="fill-scribed-faint text-[20px]">
        {side} side · edge up · tip {tipSide}
      </text>
    </svg>
  );
}
