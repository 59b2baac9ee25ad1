import type { Mark, Sketch } from "@true-spine/core/sums/sketch.ts";
import { useId } from "react";

const WIDTH = 320;
/** Tallest and lowest that a drawing is made, px. */
const HEIGHTS = [150, 420] as const;
const EDGE = 22;
/** What a letter takes, px. */
const LETTER = 6.6;
const STROKES = {
  size: "var(--color-grind)",
  scribed: "var(--color-scribe)",
  datum: "var(--color-scribed-faint)",
};

/** What a sum draws, as large as there is room, at one scale both ways. */
export function SketchView({ sketch, label }: { sketch: Sketch; label: string }) {
  const clip = useId();
  const lines = [...sketch.steel, ...(sketch.beside ?? []), ...sketch.marks.map(({ line }) => line)];
  const points = lines.flat();
  const xs = points.map(([x]) => x);
  const ys = points.map(([, y]) => y).filter((y) => sketch.tall === undefined || y <= sketch.tall);
  const [left, right] = [Math.min(...xs), Math.max(...xs)];
  const [low, high] = [Math.min(...ys, 0), sketch.tall ?? Math.max(...ys)];
  const written = (isLeft: boolean) =>
    Math.max(
      0,
      ...sketch.marks
        .filter((mark) => isUpSize(mark) === isLeft)
        .map(({ words = "" }) => words.length * LETTER),
    );
  const margin = { left: EDGE + written(true), right: EDGE + written(false) };
  const room = WIDTH - margin.left - margin.right;
  const times = Math.min(
    room / Math.max(right - left, 1e-6),
    (HEIGHTS[1] - 2 * EDGE) / Math.max(high - low, 1e-6),
    MOST,
  );
  const height = Math.max(HEIGHTS[0], (high - low) * times + 2 * EDGE);
  const middle = margin.left + room / 2;
  const px = (x: number) => middle + (x - (left + right) / 2) * times;
  const py = (y: number) => height / 2 - (y - (low + high) / 2) * times;
  const draw = (line: Mark["line"]) =>
    line.map(([x, y]) => `${px(x).toFixed(2)} ${py(y).toFixed(2)}`).join("L");
  const closed = (line: Mark["line"]) => (line.length === 0 ? "" : `M${draw(line)}Z`);
  const words = spread(
    sketch.marks.filter((mark) => mark.words !== undefined).map((mark) => wordAt(mark, px, py)),
  );
  return (
    <svg viewBox={`0 0 ${WIDTH} ${height}`} className="block w-full bg-layout" role="img" aria-label={label}>
      <clipPath id={clip}>
        <rect x={0} y={sketch.tall === undefined ? 0 : EDGE - 8} width={WIDTH} height={height} />
      </clipPath>
      <g clipPath={`url(#${clip})`}>
        <path
          d={sketch.steel.map(closed).join("")}
          fill="var(--color-layout-bevel)"
          stroke="var(--color-scribed)"
          strokeWidth={1.4}
          strokeLinejoin="round"
        />
        {sketch.beside && (
          <path
            d={sketch.beside.map(closed).join("")}
            fill="none"
            stroke="var(--color-scribed)"
            strokeDasharray="5 4"
            strokeWidth={1.2}
          />
        )}
        {sketch.marks.map((mark, i) => (
          <path
            // biome-ignore lint/suspicious/noArrayIndexKey: a mark is its position in the sketch
            key={i}
            d={`M${draw(mark.line)}`}
            fill="none"
            stroke={STROKES[mark.kind]}
            strokeWidth={mark.kind === "datum" ? 1 : 1.6}
            strokeDasharray={mark.kind === "datum" ? "6 4" : undefined}
          />
        ))}
      </g>
      {words.map(({ text, x, y, anchor }) => (
        <text
          key={`${text} ${x}`}
          x={x}
          y={y}
          textAnchor={anchor}
          className="fill-scribed text-[12px] font-medium"
        >
          {text}
        </text>
      ))}
    </svg>
  );
}

/** No sketch is drawn larger than so many pixels a millimetre. */
const MOST = 120;
const LINE = 15;

interface Word {
  readonly text: string;
  readonly x: number;
  readonly y: number;
  readonly anchor: "start" | "end";
}

const isUpright = (line: Mark["line"]) =>
  Math.abs(line[line.length - 1]![0] - line[0]![0]) < Math.abs(line[line.length - 1]![1] - line[0]![1]);
const isUpSize = ({ line, kind }: Pick<Mark, "line" | "kind">) => kind === "size" && isUpright(line);

/** A size across has its word at its right end, one up the left has it half way. */
function wordAt({ line, words, kind }: Mark, px: (x: number) => number, py: (y: number) => number): Word {
  const [first, last] = [line[0]!, line[line.length - 1]!];
  if (isUpSize({ line, kind })) {
    return { text: words!, x: px(first[0]) - 5, y: py((first[1] + last[1]) / 2) + 4, anchor: "end" };
  }
  const isUp = kind !== "size" && isUpright(line);
  return { text: words!, x: px(last[0]) + 5, y: py(last[1]) + (isUp ? -3 : 4), anchor: "start" };
}

/** Words one below the other where they would run into one another. */
function spread(words: readonly Word[]): Word[] {
  const free = { start: Number.NEGATIVE_INFINITY, end: Number.NEGATIVE_INFINITY };
  return [...words]
    .sort((a, b) => a.y - b.y)
    .map((word) => {
      const y = Math.max(word.y, free[word.anchor]);
      free[word.anchor] = y + LINE;
      return { ...word, y };
    });
}
