import { abrasiveName } from "@true-spine/core/abrasive/schema.ts";
import { bevelOn, SIDES } from "@true-spine/core/blade/schema.ts";
import type { StageReport } from "@true-spine/core/route/report.ts";
import { overhangFor, withOverhang } from "@true-spine/core/shop/overhang.ts";
import type { NamedSetup } from "@true-spine/core/shop/schema.ts";
import { showLengthWithUnit } from "@true-spine/core/units/length.ts";
import { useState } from "react";
import { useSettings } from "../../app/settings.ts";
import { useDocument, useFilePart } from "../../blade/screen.ts";
import { LengthBox } from "../../parts/Box.tsx";
import { RecordButton } from "../../parts/Group.tsx";
import { useShop } from "../../shop/shop.ts";

/** How far the belt hangs past the platen for this plunge; what it left is read once and remembered for belt and set-up. */
export function OverhangRead({ stage, setup }: { stage: StageReport; setup: NamedSetup }) {
  const unit = useSettings((settings) => settings.unit);
  const { shop, put } = useShop();
  const stock = useDocument("route").stock;
  const radius = useFilePart((file) =>
    Math.max(
      ...SIDES.map((side) => {
        const bevel = bevelOn(file, side);
        return bevel.kind === "none" ? 0 : bevel.plunge.radius;
      }),
    ),
  );
  const planned = stage.belts?.planned;
  const belt = planned?.ok ? planned.sequence.steps[0]?.belt : undefined;
  if (!belt) return null;
  const name = abrasiveName(belt);
  const { past, by } = overhangFor(shop, belt.id, setup.id, radius, stock);
  const say = (mm: number) => showLengthWithUnit(mm, unit);
  return (
    <div className="flex flex-col gap-1 text-xs">
      <p>
        {by
          ? `Belt ${say(past)} past the platen, the same on both sides: ${name} on this set-up left ${say(by.radius)} with ${say(by.past)}; ${say(radius)} is wanted.`
          : `Belt past the platen for a soft plunge: start with the stock's thickness, ${say(past)}, the same on both sides. Read what it leaves, and it is remembered for ${name} on this set-up.`}
      </p>
      <Read
        key={`${belt.id} ${setup.id}`}
        first={{ past: by?.past ?? past, radius: by?.radius ?? Math.max(radius, 0.1) }}
        onKeep={(read) => put(withOverhang(shop, { belt: belt.id, setup: setup.id, ...read }))}
      />
    </div>
  );
}

interface ReadOff {
  readonly past: number;
  readonly radius: number;
}

const MOST = 50;

/** What it hung past and what it left, kept together. */
function Read({ first, onKeep }: { first: ReadOff; onKeep: (read: ReadOff) => string | null }) {
  const [read, setRead] = useState(first);
  const [why, setWhy] = useState<string | null>(null);
  const box = (label: string, key: keyof ReadOff) => (
    <LengthBox
      label={label}
      value={read[key]}
      onCommit={(mm) => {
        if (mm <= 0 || mm > MOST) return `More than 0, ${MOST} mm at the most.`;
        setRead((was) => ({ ...was, [key]: mm }));
        return null;
      }}
    />
  );
  return (
    <>
      {box("It hung past by", "past")}
      {box("and left a radius of", "radius")}
      <div>
        <RecordButton onClick={() => setWhy(onKeep(read))}>Remember it</RecordButton>
        {why && <span role="alert"> {why}</span>}
      </div>
    </>
  );
}
