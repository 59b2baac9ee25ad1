import type { Answers, FirstBlade } from "@true-spine/core/design/first.ts";
import { STARTS } from "@true-spine/core/design/first.ts";
import { PURPOSES } from "@true-spine/core/findings/purposes.ts";
import { type LengthUnit, showLength, showLengthWithUnit } from "@true-spine/core/units/length.ts";
import { inUnit } from "@true-spine/core/units/sentence.ts";
import type { ReadDrawing } from "@true-spine/formats/contours.ts";
import { flattened, type Path, type Point } from "@true-spine/formats/drawing.ts";
import {
  cornersOf,
  guessMarks,
  type Laid,
  type Laying,
  laid,
  levelled,
  type Marks,
  outlineFrom,
} from "@true-spine/formats/outline-from.ts";
import { useMemo, useState } from "react";
import { useNavigate } from "react-router";
import { createBlade } from "../../api/blades.ts";
import { useSettings } from "../../app/settings.ts";
import { Alert } from "../../parts/Alert.tsx";
import { LengthBox, NumberBox } from "../../parts/Box.tsx";
import { Choice, SmallButton } from "../../parts/Group.tsx";
import { PlainButton } from "../../parts/PlainButton.tsx";
import { Question } from "../../parts/Question.tsx";
import { useGuard, WithRefusals } from "../../parts/refusals.tsx";
import { Segmented } from "../../parts/Segmented.tsx";
import { TextBox } from "../../parts/TextBox.tsx";
import { newId } from "../../saving/id.ts";
import { askOnce } from "../../workers/asking.ts";
import { boxOf, DrawingView, MARKS, type Mark } from "./DrawingView.tsx";

/** How finely a run is measured that is only named by its size, mm. */
const ROUGHLY = 0.2;
/** Runs that are offered as the outline. */
const MOST_RUNS = 20;
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
  const { guard, why: refused } = useGuard();
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
  const [isLevelling, setIsLevelling] = useState(false);
  const [isSeen, setIsSeen] = useState(false);
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
  const level = (line: readonly [Point, Point]) => {
    const next = levelled(laying, line);
    if (next) setLaying(next);
    setIsLevelling(false);
  };
  const runInWords = (run: Path) => {
    const at = boxOf(flattened(run, ROUGHLY / laying.mmPerUnit));
    const say = (length: number) => showLength(length * laying.mmPerUnit, unit, unit === "mm" ? 0 : 2);
    return `${say(at.right - at.left)} × ${say(at.top - at.bottom)} ${unit}`;
  };
  const widest = Math.max(
    0,
    ...placed.gaps.map(([from, to]) => Math.hypot(to[0] - from[0], to[1] - from[1])),
  );
  return (
    <Question title={`Lay out ${fileName}`} isOpen onClose={onClose} wide>
      <DrawingView
        placed={placed}
        points={points}
        marks={marks}
        mark={mark}
        onPut={put}
        {...(isLevelling ? { onLine: level } : {})}
      />
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
            <SmallButton onClick={() => change({ turn: within180(laying.turn + 90) })}>
              Turn by 90°
            </SmallButton>
          </div>
          <div className="flex items-center gap-3">
            <span className="text-sm text-faint">Turned, + to the left</span>
            <NumberBox
              label="Turned, + to the left"
              unit="°"
              value={Math.round(laying.turn * 1000) / 1000}
              least={-180}
              most={180}
              onChange={(turn) => change({ turn })}
            />
          </div>
          <div>
            <SmallButton isPressed={isLevelling} onClick={() => setIsLevelling(!isLevelling)}>
              Level by a line
            </SmallButton>
            {isLevelling && (
              <span className="ml-2 text-sm text-faint" role="status">
                Draw a line along what shall be level, such as the spine.
              </span>
            )}
          </div>
          {drawing.contours.length > 1 && (
            <Choice
              label="Outline"
              value={String(laying.contour)}
              options={drawing.contours.slice(0, MOST_RUNS).map((run, i) => ({
                value: String(i),
                name: `${i === 0 ? "largest" : i + 1}: ${runInWords(run)}`,
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
      {placed.gaps.length > 0 && (
        <label className="mt-3 flex items-start gap-2 border-l-4 border-watch bg-room px-3 py-2 text-sm">
          <input
            type="checkbox"
            className="mt-0.5 size-4"
            checked={isSeen}
            onChange={(event) => setIsSeen(event.currentTarget.checked)}
          />
          {placed.gaps.length === 1
            ? `The gap that was closed, ${showLengthWithUnit(widest, unit)} wide, is ringed: a straight line is right there.`
            : `The ${placed.gaps.length} gaps that were closed are ringed, the widest ${showLengthWithUnit(widest, unit)}: straight lines are right there.`}
        </label>
      )}
      {(why ?? refused) && <Alert className="mt-3">{why ?? refused}</Alert>}
      <div className="mt-4 flex justify-end gap-2">
        <PlainButton onClick={onClose}>Cancel</PlainButton>
        <PlainButton
          kind="main"
          isBusy={isBusy}
          onClick={() => {
            if (isBusy) return;
            guard(() => {
              if (placed.gaps.length > 0 && !isSeen)
                setWhy("Confirm the closed gaps first: check the box above.");
              else void start();
            });
          }}
        >
          {isBusy ? "Putting it on the rack …" : "Make a blade of it"}
        </PlainButton>
      </div>
    </Question>
  );
}

const within180 = (turn: number) => (turn > 180 ? turn - 360 : turn);

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
