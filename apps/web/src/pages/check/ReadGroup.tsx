import type { Line } from "@true-spine/core/inspect/bench.ts";
import { QUANTITY } from "@true-spine/core/inspect/quantity.ts";
import { sideWords } from "@true-spine/core/inspect/schema.ts";
import { stageName } from "@true-spine/core/route/stages.ts";
import { type LengthUnit, showLengthWithUnit } from "@true-spine/core/units/length.ts";
import { useEffect, useRef, useState } from "react";
import { useSettings } from "../../app/settings.ts";
import { useDocument } from "../../blade/screen.ts";
import { Choice, Group, SmallButton } from "../../parts/Group.tsx";
import { TextBox } from "../../parts/TextBox.tsx";
import { readFigure, showFigure, takesOf, unitOf } from "../../readings/figures.ts";
import { stagesToCheck } from "./stage.ts";

/** The next reading: where, how, what it should be; typed and entered, or read by pressing the instrument's button. */
export function ReadGroup({
  stage,
  onStage,
  line,
  lines,
  onPress,
  toBox,
  onTake,
  onStep,
}: {
  stage: string;
  onStage: (stage: string) => void;
  line: Line | null;
  lines: readonly Line[];
  /** Presses the instrument that is here for it; null where none is. */
  onPress: (() => void) | null;
  /** Every change of it puts the cursor back into the box. */
  toBox: number;
  onTake: (value: number, typed?: LengthUnit) => void;
  onStep: (by: 1 | -1) => void;
}) {
  const route = useDocument("route");
  const unit = useSettings((settings) => settings.unit);
  const [text, setText] = useState("");
  const [why, setWhy] = useState<string | null>(null);
  const box = useRef<HTMLInputElement>(null);
  const isHere = line !== null;
  const asked = useRef(toBox);
  useEffect(() => {
    if (!isHere) return;
    // By itself it does not take the cursor out of a box or a list: whoever is choosing a stage is let choose.
    const isHeld = document.activeElement?.matches("input, select, textarea") ?? false;
    if (toBox !== asked.current || !isHeld) box.current?.focus({ preventScroll: true });
    asked.current = toBox;
  }, [isHere, toBox]);
  const read = lines.filter(({ figure, isDoubted }) => figure || isDoubted).length;
  const first = lines.filter(({ isFirst }) => isFirst);
  const firstRead = first.filter(({ figure, isDoubted }) => figure || isDoubted).length;
  const isRest = first.length > 0 && firstRead === first.length;
  const doubted = lines.filter(({ isDoubted }) => isDoubted).length;
  const enter = () => {
    if (!line) return;
    if (text.trim() === "") {
      if (onPress) onPress();
      else setWhy("Type what it reads, then Enter.");
      return;
    }
    const figure = readFigure(line.spot.what, text, unit);
    if (!figure.ok) {
      setWhy(figure.why);
      return;
    }
    setText("");
    setWhy(null);
    onTake(figure.value, figure.typed);
  };
  return (
    <Group
      title="Next reading"
      aside={
        <span className="text-xs text-faint" role="status">
          {read} of {lines.length} read
          {!isRest && first.length > 0 && `, ${firstRead} of the ${first.length} to read first`}
          {doubted > 0 && `, ${doubted} doubted`}
        </span>
      }
    >
      <Choice
        label="After"
        value={stage}
        options={stagesToCheck(route).map((id) => ({ value: id, name: stageName(route, id) }))}
        onChange={onStage}
        onFigure={() => box.current?.focus({ preventScroll: true })}
      />
      {isRest && read === first.length && read < lines.length && (
        <p className="text-xs">
          The {first.length} that tell the most are read. The rest of the round finds what they cannot: waves,
          a single dip, the flats between.
        </p>
      )}
      {line && (
        <>
          <p className="text-lg leading-tight font-bold first-letter:uppercase">
            {QUANTITY[line.spot.what].name}
            <span className="text-accent">{sideWords(line.spot)}</span>
          </p>
          <p className="text-sm">
            <Place line={line} />
            <span className="text-faint">{QUANTITY[line.spot.what].how}</span>
          </p>
          <div className="flex items-end gap-3">
            <TextBox
              label={`What it reads, ${unitOf(line.spot.what, unit)}`}
              labelled="above"
              className="min-w-0 flex-1"
              size="large"
              align="right"
              inputMode="decimal"
              inputRef={box}
              takes={takesOf(line.spot.what)}
              text={text}
              why={why}
              onText={(typed) => {
                setText(typed);
                setWhy(null);
              }}
              onEnter={enter}
              onKey={(event) => {
                if (event.key !== "ArrowDown" && event.key !== "ArrowUp") return;
                event.preventDefault();
                onStep(event.key === "ArrowDown" ? 1 : -1);
              }}
            />
            <p className="w-28 shrink-0 pb-1 text-right">
              <span className="block text-xs text-faint">should show</span>
              <span className="block text-2xl font-bold">{showFigure(line.spot.what, line.shows, unit)}</span>
              <span className="block text-xs text-faint">
                ± {showFigure(line.spot.what, line.target.band, unit)}
              </span>
            </p>
          </div>
          <div className="flex flex-wrap items-center gap-2">
            <SmallButton onClick={() => onStep(-1)}>Previous</SmallButton>
            <SmallButton onClick={() => onStep(1)}>Next</SmallButton>
            {onPress && <SmallButton onClick={onPress}>Press its button (Enter)</SmallButton>}
          </div>
          <p className="text-xs text-faint">
            with the {line.instrument}
            {Math.abs(line.shows - line.target.value) > 0.002 &&
              `; its jaws touch ${showLengthWithUnit(line.shows - line.target.value, unit)} more on this slope, which is taken off`}
            . ↑ ↓ go along the list.
          </p>
        </>
      )}
      {!line && (
        <p className="text-sm text-faint">
          {lines.length > 0
            ? "All of the round is read. Choose a place in the list to read it again."
            : "Nothing of this stage is read at the bench."}
        </p>
      )}
    </Group>
  );
}

function Place({ line }: { line: Line }) {
  const unit = useSettings((settings) => settings.unit);
  const { at } = QUANTITY[line.spot.what];
  if (at === "whole") return null;
  const height = line.spot.height;
  return (
    <strong className="font-semibold">
      at {showLengthWithUnit(line.target.x, unit, unit === "mm" ? 0 : undefined)} from the junction
      {height !== undefined && `, ${showLengthWithUnit(height, unit, unit === "mm" ? 0 : undefined)} up`}.{" "}
    </strong>
  );
}
