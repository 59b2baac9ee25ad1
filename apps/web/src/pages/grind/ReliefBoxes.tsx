import type { Blade, CutBevel, Side } from "@true-spine/core/blade/schema.ts";
import { useState } from "react";
import { linesOf } from "../../blade/derived.ts";
import { useScreen } from "../../blade/screen.ts";
import { useEdit } from "../../blade/useEdit.ts";
import { Alert } from "../../parts/Alert.tsx";
import { AngleBox, LengthBox } from "../../parts/Box.tsx";
import { SmallButton } from "../../parts/Group.tsx";

type Relief = NonNullable<Extract<CutBevel, { kind: "flat"; pull: "follow" }>["relief"]>;

/** A second slope above the shoulder, or an eased shoulder: at its own angle up to a height above the edge. */
export function ReliefBoxes({
  side,
  title,
  relief,
}: {
  side: Side;
  title: string;
  relief: Relief | undefined;
}) {
  const { open } = useScreen();
  const { edit, press, visit } = useEdit();
  const [why, setWhy] = useState<string | null>(null);
  const put = (next: Relief | undefined) => (copy: Blade) => {
    const bevel = copy.bevels[side];
    if (bevel === "same" || bevel.kind !== "flat" || bevel.pull !== "follow") return;
    if (next) bevel.relief = next;
    else delete bevel.relief;
  };
  if (!relief) {
    return (
      <div>
        <SmallButton
          label={`Ease the shoulder of the ${title.toLowerCase()}`}
          onClick={() => setWhy(press(put(firstRelief(open.store.getState().file, side))))}
        >
          Ease the shoulder
        </SmallButton>
        {why && <Alert className="mt-1">{why}</Alert>}
      </div>
    );
  }
  return (
    <>
      <AngleBox
        label="Relief, angle a side"
        value={relief.angle}
        onVisit={visit}
        onCommit={(angle) => edit(put({ ...relief, angle }))}
      />
      <LengthBox
        label="Relief, up from the edge"
        value={relief.height}
        onVisit={visit}
        onCommit={(height) => edit(put({ ...relief, height }))}
      />
      <div>
        <SmallButton onClick={() => press(put(undefined))}>No relief</SmallButton>
      </div>
    </>
  );
}

/** Steeper than the bevel by so much, and so far above the edge bevel, at first. */
const [STEEPER, HIGHER] = [3, 1.5];

function firstRelief(file: Blade, side: Side): Relief {
  const { stations } = linesOf(file);
  const known = stations.map((station) => station[side]).filter(({ primaryAngle }) => primaryAngle !== null);
  const steepest = Math.max(3, ...known.map(({ primaryAngle }) => primaryAngle!));
  const tallest = Math.max(0, ...known.map(({ edgeBevel }) => edgeBevel ?? 0));
  return { angle: Math.ceil(steepest + STEEPER), height: Math.round((tallest + HIGHER) * 10) / 10 };
}
