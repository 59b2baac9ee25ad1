import type { StraightReport } from "@true-spine/core/inspect/straightness.ts";
import { pastBy, STAYS } from "@true-spine/core/straight/advice.ts";
import type { StraightSet } from "@true-spine/core/straight/schema.ts";
import { showLengthWithUnit } from "@true-spine/core/units/length.ts";
import { useState } from "react";
import { useSettings } from "../../app/settings.ts";
import { useScreen } from "../../blade/screen.ts";
import { CountBox, LengthBox } from "../../parts/Box.tsx";
import { Caution } from "../../parts/Caution.tsx";
import { Group, RecordButton } from "../../parts/Group.tsx";
import { strike } from "../../work/strike.ts";

const CAUTION =
  "Point toward you only unsharpened, taped, 250 mm off, with glasses on. A hard blade can snap; a hard hammer on a hard bit throws chips. Tape the edge. Hot steel looks cold.";
const DEGREES = 180 / Math.PI;

/** What to do about it: which face up, along which line, with what; and what was struck, written down. */
export function WorkGroup({
  report,
  words,
  stage,
  lastSet,
}: {
  report: StraightReport;
  words: string;
  stage: string;
  lastSet: StraightSet | undefined;
}) {
  const screen = useScreen();
  const unit = useSettings((settings) => settings.unit);
  const [count, setCount] = useState(1);
  const [past, setPast] = useState<number | null>(null);
  const { work, load, height, state, blows } = report;
  const [first] = work;
  const struck = () => {
    strike(screen, { report, stage, count, ...(lastSet ? { lastSet } : {}), past: past ?? undefined });
    setCount(1);
    setPast(null);
  };
  return (
    <Group title="What to do">
      <p className="text-sm">{toDo(report, words)}</p>
      {first && (
        <dl className="text-sm">
          {first.strikes.length > 0 && (
            <Row
              name={first.strikes.length > 1 ? "each of the lines takes" : "the line takes"}
              value={`${(first.strikes[0]!.turn * DEGREES).toFixed(2)}°`}
            />
          )}
          {load && (
            <Row
              name={load.isLearned ? "press past straight by, as here" : "press past straight by"}
              value={showLengthWithUnit(load.past, unit)}
            />
          )}
          {state === "temper" && (
            <Row
              name={`clamp past straight by (${Math.round(100 * (report.stays ?? STAYS))} % stays)`}
              value={showLengthWithUnit(Math.abs(pastBy(height, report.stays ?? STAYS)), unit)}
            />
          )}
          {state === "window" && report.window && (
            <Row
              name={`from ${Math.round(report.window.from)} °C until it stiffens at ${Math.round(report.window.to)}`}
              value={`about ${Math.round(report.window.seconds)} s`}
            />
          )}
          {blows.each && (
            <Row
              name={`a blow here, of ${blows.each.count}`}
              value={`${blows.each.median.toFixed(3)} ± ${blows.each.scatter.toFixed(3)}`}
            />
          )}
          {blows.next !== null && <Row name="begin with" value={`${blows.next} blows, then look`} />}
        </dl>
      )}
      {first?.advice.tool && (
        <>
          <CountBox
            label="Blows"
            value={count}
            most={500}
            onCommit={(value) => {
              setCount(value);
              return null;
            }}
          />
          {load && (
            <LengthBox
              label="Pressed past straight by"
              value={past ?? load.past}
              onCommit={(value) => {
                if (value < 0 || value > 100) return "From 0 to 100 mm.";
                setPast(value);
                return null;
              }}
            />
          )}
          <RecordButton onClick={struck}>Struck</RecordButton>
        </>
      )}
      {blows.made > 0 && (
        <p className="text-sm text-faint" role="status">
          {blows.made} {blows.made === 1 ? "blow" : "blows"} so far
          {report.rows === 0 ? ": read it again." : "."}
        </p>
      )}
      <Caution>{CAUTION}</Caution>
    </Group>
  );
}

/** What is to be done, in words. */
export function toDo(report: StraightReport, words: string): string {
  const { rows, best, work, isWithin, twist } = report;
  if (rows === 0 && !twist) return "Read it first.";
  if (best === null && work.length === 0) return "Straight, as far as these readings tell.";
  return isWithin ? `Within what is let stand: stop here. Else: ${words}` : words;
}

function Row({ name, value }: { name: string; value: string }) {
  return (
    <div className="flex justify-between gap-2 border-t border-rule py-1">
      <dt className="text-faint">{name}</dt>
      <dd className="font-semibold whitespace-nowrap">{value}</dd>
    </div>
  );
}
