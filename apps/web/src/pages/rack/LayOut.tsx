import type { Answers, FirstBlade } from "@true-spine/core/design/first.ts";
import { STARTS } from "@true-spine/core/design/first.ts";
import { PURPOSES } from "@true-spine/core/findings/purposes.ts";
import { type LengthUnit, showLengthWithUnit } from "@true-spine/core/units/length.ts";
import { inUnit } from "@true-spine/core/units/sentence.ts";
import type { ReadDrawing } from "@true-spine/formats/contours.ts";
import { flattened, type Point } from "@true-spine/formats/drawing.ts";
import {
  cornersOf,
  guessMarks,
  type Laid,
  type Laying,
  laid,
  type Marks,
  outlineFrom,
} from "@true-spine/formats/outline-from.ts";
import { useMemo, useState } from "react";
import { useNavigate } from "react-router";
import { createBlade } from "../../api/blades.ts";
import { useSettings } from "../../app/settings.ts";
import { Alert } from "../../parts/Alert.tsx";
import { LengthBox } from "../../parts/Box.tsx";
import { Choice, SmallButton } from "../../parts/Group.tsx";
import { PlainButton } from "../../parts/PlainButton.tsx";
import { Question } from "../../parts/Question.tsx";
import { refusedWords, useRefused, WithRefusals } from "../../parts/refusals.tsx";
import { Segmented } from "../../parts/Segmented.tsx";
import { TextBox } from "../../parts/TextBox.tsx";
import { pathThrough } from "../../rail/scale.ts";
import { newId } from "../../saving/id.ts";
import { askOnce } from "../../workers/asking.ts";

const MARKS = ["junction", "tip", "heel"] as const;
type Mark = (typeof MARKS)[number];
/** A pixel, where a file tells no unit. Source: CSS Values, 96 to the inch. */
const GUESSED_UNIT = 25.4 / 96;

/** A drawing somebody else made, laid out as a blade: its scale confirmed, and what is spine, edge and tang said. */
export function LayOut(props: LayOutProps) {
  return (
    <WithRefusals>
      <Layout {...props} />
    </WithRefusals>
  );
}

interface LayOutProps {
  drawing: ReadDrawing;
  name: string;
  onClose: () => void;
}

function Layout({ drawing, name: fileName, onClose }: LayOutProps) {
  const refused = refusedWords(useRefused());
  const unit = useSettings((settings) => settings.unit);
  const navigate = useNavigate();
  const [laying, setLaying] = useState<Laying>({
    contour: 0,
    mmPerUnit: drawing.mmPerUnit ?? GUESSED_UNIT,
    flipX: false,
    flipY: false,
    turn: 0,
  });
  const placed = useMemo(() => laid(drawing, laying), [drawing, laying]);
  const [moved, setMoved] = useState<{ on: Laid; marks: Marks } | null>(null);
  const marks = useMemo(
    () => (moved?.on === placed ? moved.marks : guessMarks(placed.path)),
    [moved, placed],
  );
  const [mark, setMark] = useState<Mark>("tip");
  const [name, setName] = useState(fileName.replace(/\.[a-z]+$/i, "").slice(0, 100));
  const [use, setUse] = useState("field");
  const [stock, setStock] = useState(STARTS.field!.stock);
  const [why, setWhy] = useState<string | null>(null);
  const [isBusy, setIsBusy] = useState(false);
  const points = useMemo(() => flattened(placed.path, 0.05), [placed]);
  const box = boxOf(points);
  const put = (at: Point) => setMoved({ on: placed, marks: { ...marks, [mark]: at } });
  const step = (by: 1 | -1) => {
    const corners = cornersOf(placed.path).map(({ at }) => at);
    if (corners.length === 0) return;
    const now = corners.findIndex(([x, y]) => Math.hypot(x - marks[mark][0], y - marks[mark][1]) < 0.01);
    put(corners[(now + by + corners.length) % corners.length]!);
  };
  const change = (some: Partial<Laying>) => setLaying({ ...laying, ...some });
  const start = async () => {
    const drawn = outlineFrom(placed, marks);
    if (!drawn.ok) {
      setWhy(inUnit(drawn.why, unit));
      return;
    }
    setIsBusy(true);
    try {
      const made = await dressed({ name: name.trim() || "From a drawing", use, stock, drawn }, unit);
      if (!made.ok) {
        setWhy(inUnit(made.why, unit));
        return;
      }
      const id = newId();
      await createBlade(id, made.blade);
      navigate(`/blades/${id}/shape`);
    } catch (error) {
      setWhy(error instanceof Error ? error.message : "The blade could not be saved.");
    } finally {
      setIsBusy(false);
    }
  };
  const whole = box.right - box.left;
  return (
    <Question title={`Lay out ${fileName}`} isOpen onClose={onClose} wide>
      <DrawingView placed={placed} points={points} marks={marks} mark={mark} onPut={put} />
      <div className="mt-3 grid grid-cols-2 gap-x-6 gap-y-2.5">
        <div className="flex flex-col gap-2.5">
          <p className="text-sm text-faint">
            Choose a place, then click it on the outline, or step from corner to corner.
          </p>
          <div className="flex gap-2">
            <div className="flex-1">
              <Segmented label="Place to set" options={MARKS} value={mark} onChange={setMark} />
            </div>
            <SmallButton label="To the corner before" onClick={() => step(-1)}>
              ‹ corner
            </SmallButton>
            <SmallButton label="To the next corner" onClick={() => step(1)}>
              corner ›
            </SmallButton>
          </div>
          <div className="flex gap-2">
            <SmallButton onClick={() => change({ flipX: !laying.flipX })}>Mirror left to right</SmallButton>
            <SmallButton onClick={() => change({ flipY: !laying.flipY })}>Turn upside down</SmallButton>
            <SmallButton onClick={() => change({ turn: (laying.turn + 90) % 360 })}>Turn by 90°</SmallButton>
          </div>
          {drawing.contours.length > 1 && (
            <Choice
              label="Outline"
              value={String(laying.contour)}
              options={drawing.contours.slice(0, 20).map((_, i) => ({
                value: String(i),
                name: i === 0 ? "the largest" : `number ${i + 1} by size`,
              }))}
              onChange={(value) => change({ contour: Number(value) })}
            />
          )}
        </div>
        <div className="flex flex-col gap-2.5">
          <LengthBox
            label="Whole length"
            value={whole}
            onCommit={(mm) => {
              if (!(mm >= 20 && mm <= 1500))
                return `Must be ${showLengthWithUnit(20, unit)} to ${showLengthWithUnit(1500, unit)}.`;
              change({ mmPerUnit: (laying.mmPerUnit * mm) / whole });
              return null;
            }}
          />
          <p className={`text-xs ${drawing.mmPerUnit === null ? "font-semibold text-fix" : "text-faint"}`}>
            {drawing.mmPerUnit === null
              ? "The file tells no unit: this length is a guess. Say how long the whole of it is."
              : "By the file's own unit. Correct it if it is not what you know."}
          </p>
          <Choice
            label="What for"
            value={use}
            options={PURPOSES.map(({ key, name: words }) => ({ value: key, name: words }))}
            onChange={(next) => {
              setUse(next);
              setStock(STARTS[next]!.stock);
            }}
          />
          <LengthBox
            label="Bar, thick"
            value={stock}
            onCommit={(value) => {
              if (value < 0.8 || value > 10)
                return `Must be ${showLengthWithUnit(0.8, unit)} to ${showLengthWithUnit(10, unit)}.`;
              setStock(value);
              return null;
            }}
          />
          <TextBox label="Name" width="w-44" maxLength={120} text={name} onText={setName} />
        </div>
      </div>
      {drawing.notes.length > 0 && (
        <ul className="mt-3 list-disc pl-5 text-sm text-faint">
          {drawing.notes.map((note) => (
            <li key={note}>{note}</li>
          ))}
        </ul>
      )}
      {(why ?? refused) && <Alert className="mt-3">{why ?? refused}</Alert>}
      <div className="mt-4 flex justify-end gap-2">
        <PlainButton onClick={onClose}>Cancel</PlainButton>
        <PlainButton kind="main" disabled={isBusy || refused !== null} onClick={() => void start()}>
          {isBusy ? "Putting it on the rack …" : "Make a blade of it"}
        </PlainButton>
      </div>
    </Question>
  );
}

type Dressing = Pick<Answers, "name" | "use" | "stock" | "drawn">;

/** The outline ground within its purpose, looked for in a worker. */
async function dressed(some: Dressing, unit: LengthUnit): Promise<FirstBlade> {
  const start = STARTS[some.use] ?? STARTS.field!;
  const family = start.family === "double edge" ? "drop" : start.family;
  const answers = {
    ...some,
    family,
    values: {},
    tang: "full",
    grind: start.grinds[0]!,
    steel: "1084",
  } as const;
  return askOnce("design", async (design) => await design.first(answers, unit));
}

function boxOf(points: readonly Point[]) {
  const xs = points.map((point) => point[0]);
  const ys = points.map((point) => point[1]);
  return { left: Math.min(...xs), right: Math.max(...xs), bottom: Math.min(...ys), top: Math.max(...ys) };
}

function DrawingView({
  placed,
  points,
  marks,
  mark,
  onPut,
}: {
  placed: Laid;
  points: readonly Point[];
  marks: Marks;
  mark: Mark;
  onPut: (at: Point) => void;
}) {
  const { left, right, bottom, top } = boxOf(points);
  const size = Math.max(right - left, 1);
  const pad = size * 0.06;
  const view = `${left - pad} ${-top - pad} ${size + 2 * pad} ${top - bottom + 2 * pad}`;
  const click = (event: React.PointerEvent<SVGSVGElement>) => {
    const screen = event.currentTarget.getScreenCTM();
    if (!screen) return;
    const { x, y } = new DOMPoint(event.clientX, event.clientY).matrixTransform(screen.inverse());
    onPut(
      nearestOf(
        points,
        cornersOf(placed.path).map(({ at }) => at),
        [x, -y],
        size * 0.02,
      ),
    );
  };
  return (
    <svg
      viewBox={view}
      className="h-64 w-full cursor-crosshair bg-layout"
      role="img"
      aria-label="The drawing, with junction, tip and heel marked"
      onPointerDown={click}
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
