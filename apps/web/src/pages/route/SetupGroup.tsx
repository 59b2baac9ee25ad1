import {
  angleFrom,
  otherSide,
  readingFor,
  type Setup,
  zeroProcedure,
} from "@true-spine/core/grind/setups.ts";
import { FLATS_LOST, type StageReport } from "@true-spine/core/route/report.ts";
import { bevelSetups, type NamedSetup } from "@true-spine/core/shop/schema.ts";
import { showLength, showLengthWithUnit } from "@true-spine/core/units/length.ts";
import { inUnit } from "@true-spine/core/units/sentence.ts";
import { useState } from "react";
import { useSettings } from "../../app/settings.ts";
import { NumberBox } from "../../parts/Box.tsx";
import { Choice, Group } from "../../parts/Group.tsx";
import { useShop } from "../../shop/shop.ts";
import { OverhangRead } from "./OverhangRead.tsx";

/** The shop's set-up for this stage: what it reads itself, how it is brought back, what a tenth of a degree is worth. */
export function SetupGroup({
  stage,
  named,
  onSetup,
}: {
  stage: StageReport;
  named: NamedSetup | undefined;
  onSetup: (id: string) => void;
}) {
  const unit = useSettings((settings) => settings.unit);
  const { shop } = useShop();
  if (!named) {
    return (
      <Group title="Set-up">
        <p className="text-xs text-faint">
          The stores name no set-up. Add one there, and its own reading stands here.
        </p>
      </Group>
    );
  }
  const { setup } = named;
  const { work } = stage;
  const side = work.angle.right.some((one) => one !== null) ? "right" : "left";
  const angles = work.angle[side];
  const single = work.single[side];
  const say = (angle: number | null) => {
    if (angle === null) return "–";
    const { value, unit: of } = readingFor(setup, angle);
    return of === "°" ? `${value.toFixed(1)}°` : showLengthWithUnit(value, unit);
  };
  const other = (angle: number | null) => {
    if (angle === null) return "–";
    const { value, unit: of } = readingFor(otherSide(setup), angle);
    return of === "°" ? `${value.toFixed(1)}°` : showLengthWithUnit(value, unit);
  };
  const { datum, also } = readingFor(setup, single ?? angles.find((one) => one !== null) ?? 5);
  const tenth = stage.tenth;
  const line = work.line[side][1]!;
  return (
    <Group title="Set-up">
      <Choice
        label="Held by"
        value={named.id}
        options={bevelSetups(shop).map((one) => ({ value: one.id, name: one.name }))}
        onChange={onSetup}
      />
      <p className="text-sm">
        {single !== null ? (
          <>
            Set it to <strong>{say(single)}</strong>
          </>
        ) : (
          <>
            No single angle exists: <strong>{angles.map(say).join(" · ")}</strong> at heel, middle and tip
          </>
        )}
        {setup.kind === "arm" && <>, the other side {angles.map(other).join(" · ")}</>}
        <span className="block text-xs text-faint">{inUnit(datum, unit)}</span>
        {also && single !== null && (
          <span className="block text-xs text-faint">
            or {also.value.toFixed(1)}° {also.datum}
          </span>
        )}
      </p>
      <Reads
        key={`${named.id} ${stage.kind}`}
        setup={setup}
        first={angles.find((one) => one !== null) ?? 5}
      />
      <ol className="list-decimal pl-4 text-xs">
        {zeroProcedure(setup).map((line) => (
          <li key={line}>{inUnit(line, unit)}</li>
        ))}
      </ol>
      {work.on === "bevels" && <OverhangRead stage={stage} setup={named} />}
      {work.on === "bevels" && line !== null && stage.again !== null && (
        <p className="text-xs">
          Found again after each flat lost another {showLengthWithUnit(FLATS_LOST, unit)}: the same reading
          puts the line at {showLength(stage.again, unit, unit === "mm" ? 1 : undefined)} instead of{" "}
          {showLength(line, unit, unit === "mm" ? 1 : undefined)} in the middle.
        </p>
      )}
      {tenth && (
        <p className="text-xs">
          0.1° is {showLengthWithUnit(tenth.edge, unit)} at the edge with the line held, or{" "}
          {showLengthWithUnit(tenth.line, unit, unit === "mm" ? 1 : undefined)} of line with the edge held,
          both sides together.
        </p>
      )}
    </Group>
  );
}

/** The other way round: what angle a reading of the set-up holds a side at. */
function Reads({ setup, first }: { setup: Setup; first: number }) {
  const [reads, setReads] = useState(Math.round(readingFor(setup, first).value * 100) / 100);
  const held = angleFrom(setup, reads);
  return (
    <div className="flex flex-wrap items-center gap-2 text-sm text-faint">
      <span aria-hidden>When it reads</span>
      <NumberBox label="What the set-up reads" value={reads} least={-360} most={2000} onChange={setReads} />
      <span>
        {held === null
          ? "no angle reads that"
          : `a side is held at ${held.toFixed(2)}° from the centre plane, ${(2 * held).toFixed(2)}° inclusive`}
      </span>
    </div>
  );
}
