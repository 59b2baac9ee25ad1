import { SHARPENINGS, type Sharpening, USUAL_WEAR } from "@true-spine/core/edge/schema.ts";
import type { EdgeReport } from "@true-spine/core/route/edge-report.ts";
import { parseLength, showLengthWithUnit } from "@true-spine/core/units/length.ts";
import { useState } from "react";
import { useSettings } from "../../app/settings.ts";
import { useScreen } from "../../blade/screen.ts";
import { LengthBox, NumberRow } from "../../parts/Box.tsx";
import { Choice, Group, SmallButton } from "../../parts/Group.tsx";
import { TextBox } from "../../parts/TextBox.tsx";
import { record } from "../../work/useWorkRows.ts";
import type { useEdgeDocument } from "./useEdgeDocument.ts";
import { fine } from "./words.ts";

/** How it wears: how often it is sharpened, what that takes, and when it wants thinning. */
export function LifeGroup({
  report,
  edit,
}: {
  report: EdgeReport;
  edit: ReturnType<typeof useEdgeDocument>;
}) {
  const unit = useSettings((settings) => settings.unit);
  const { life } = report;
  const wear = edit.edge.wear ?? USUAL_WEAR;
  return (
    <Group title="Its life">
      <p className="text-sm" role="status">
        {lifeWords(report)}
      </p>
      <NumberRow
        label="Sharpened a year, times"
        value={wear.perYear}
        least={0}
        most={400}
        onChange={(perYear) => edit.wear({ perYear })}
      />
      <NumberRow
        label="Thin it again at, times as thick"
        value={wear.k}
        least={1.1}
        most={4}
        onChange={(k) => edit.wear({ k })}
      />
      <LengthBox
        label="A sharpening takes"
        value={wear.full}
        onVisit={edit.visit}
        onCommit={(full) => (full < 0.001 || full > 2 ? "From 0.001 to 2 mm." : edit.wear({ full }))}
      />
      <LengthBox
        label="A touch-up takes"
        value={wear.touch}
        onVisit={edit.visit}
        onCommit={(touch) => (touch < 0.001 || touch > 1 ? "From 0.001 to 1 mm." : edit.wear({ touch }))}
      />
      <p className="text-sm text-faint">
        Held {life.touchUp.steeper}° steeper, a touch-up leaves a facet{" "}
        {showLengthWithUnit(life.touchUp.high, unit, fine(unit))} high.
      </p>
      <p className="text-xs text-faint">
        {life.taken
          ? `By the heights read here: ${showLengthWithUnit(life.taken.each, unit, fine(unit))} ± ${showLengthWithUnit(1.96 * life.taken.u, unit, fine(unit))} each, over ${Math.round(life.taken.count)}${life.taken.isKnown ? ": that counts." : "; it counts once known within a quarter."}`
          : "Starting values, × or ÷ 2, until heights read over some sharpenings say more."}
      </p>
    </Group>
  );
}

/** When it wants thinning, in a sentence. */
export function lifeWords({ life, wear }: Pick<EdgeReport, "life" | "wear">): string {
  if (life.isZero) return "A bevel to the apex: each sharpening takes its whole face, and it stays as thin.";
  if (!life.until) return "It never comes to be that much thicker within its own height.";
  const n = Math.round(life.until.n);
  const first = `It wants thinning after ${n} sharpenings, at the ${life.until.place} first`;
  if (life.years === null) return `${first}.`;
  return `${first}: ${life.years.toFixed(1)} years at ${wear.perYear} a year.`;
}

const NAMES: Readonly<Record<Sharpening, string>> = {
  touch: "touched up",
  full: "sharpened",
  repair: "a chip ground out",
};

/** What was done to it, written down: what it was, and how high the blade is in the middle after it. */
export function DoneGroup({ report, stage }: { report: EdgeReport; stage: string }) {
  const screen = useScreen();
  const unit = useSettings((settings) => settings.unit);
  const [kind, setKind] = useState<Sharpening>("full");
  const [height, setHeight] = useState("");
  const [deep, setDeep] = useState("");
  const [why, setWhy] = useState<string | null>(null);
  const [whyDeep, setWhyDeep] = useState<string | null>(null);
  const { which, places, life } = report;
  const keep = () => {
    const read = height.trim() === "" ? null : parseLength(height, unit);
    if (read && !read.ok) {
      setWhy(read.why);
      return;
    }
    const high = places[1]!;
    if (read?.ok && (read.mm <= 0 || read.mm > 2 * high.height)) {
      setWhy(`The blade is ${showLengthWithUnit(high.height, unit)} high there as drawn.`);
      return;
    }
    const chip = kind === "repair" ? parseLength(deep, unit) : null;
    if (chip && !(chip.ok && chip.mm > 0 && chip.mm <= 10)) {
      setWhyDeep(chip.ok ? "More than nothing, and no more than 10 mm." : "Say how deep the chip was.");
      return;
    }
    record(screen, {
      stage,
      what: "sharpened",
      kind,
      ...(chip?.ok ? { damage: Math.round(chip.mm * 1e4) / 1e4 } : {}),
      ...(which === "second" ? { edge: "second" } : {}),
      ...(read?.ok ? { height: [{ u: high.u, h: Math.round(read.mm * 1e4) / 1e4 }] } : {}),
    });
    setHeight("");
    setWhy(null);
    setDeep("");
    setWhyDeep(null);
  };
  return (
    <Group title="Done">
      <Choice
        label="It was"
        value={kind}
        options={SHARPENINGS.map((value) => ({ value, name: NAMES[value] }))}
        onChange={(next) => setKind(next as Sharpening)}
      />
      {kind === "repair" && (
        <TextBox
          label="Chip, deep"
          labelled="beside"
          size="small"
          align="right"
          width="w-20"
          inputMode="decimal"
          text={deep}
          why={whyDeep}
          onText={setDeep}
          onEnter={keep}
        />
      )}
      <TextBox
        label="Blade's height in the middle after it"
        labelled="beside"
        size="small"
        align="right"
        width="w-20"
        inputMode="decimal"
        text={height}
        why={why}
        onText={setHeight}
        onEnter={keep}
      />
      <SmallButton onClick={keep}>Write it down</SmallButton>
      {life.lost > 0 && (
        <p className="text-sm text-faint" role="status">
          {life.done.toFixed(life.done % 1 === 0 ? 0 : 1)} so far, {showLengthWithUnit(life.lost, unit)} of
          height gone.
        </p>
      )}
    </Group>
  );
}
