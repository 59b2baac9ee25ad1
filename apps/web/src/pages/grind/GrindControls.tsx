import type { Bevel, Blade, CutBevel, Side } from "@true-spine/core/blade/schema.ts";
import { bevelOn } from "@true-spine/core/blade/schema.ts";
import { linesOf } from "../../blade/derived.ts";
import { useFilePart, useRail, useScreen } from "../../blade/screen.ts";
import { useEdit } from "../../blade/useEdit.ts";
import { AngleBox, LengthBox } from "../../parts/Box.tsx";
import { Caution } from "../../parts/Caution.tsx";
import { Group } from "../../parts/Group.tsx";
import { Hint } from "../../parts/Hint.tsx";
import { RowsTable } from "../../parts/RowsTable.tsx";
import { Segmented } from "../../parts/Segmented.tsx";
import { tidy } from "../../rail/SpineView.tsx";
import { GhostGroup } from "../blade/GhostGroup.tsx";
import { CoreGroup } from "./CoreGroup.tsx";
import { EdgeGroup } from "./EdgeGroup.tsx";
import { PullGroup } from "./PullGroup.tsx";
import { ReliefBoxes } from "./ReliefBoxes.tsx";
import { SecondEdgeGroup } from "./SecondEdgeGroup.tsx";

/** The Grind page's own controls: bevel, plunge, edge. */
export function GrindControls() {
  const { press } = useEdit();
  const isSame = useFilePart((file) => file.bevels.left === "same");
  return (
    <>
      <Hint
        name="grind"
        lines={[
          "Drag the rounds on the side view: the grind line up and down, the plunge along the edge, its lean by the top.",
          "Give the left side its own bevel to drag left and right apart.",
          "Findings are in the tray at the bottom: F opens it, a click takes the scribe there.",
        ]}
      />
      <BevelGroup side="right" title={isSame ? "Bevel" : "Bevel, right"} />
      {!isSame && <BevelGroup side="left" title="Bevel, left" />}
      <Group title="Left side">
        <Segmented
          label="Left side"
          options={["same", "own"]}
          names={{ same: "as right", own: "its own" }}
          value={isSame ? "same" : "own"}
          onChange={(value) =>
            press((copy) => {
              copy.bevels.left = value === "same" ? "same" : structuredClone(copy.bevels.right);
            })
          }
        />
        {!isSame && <DraggedGroup />}
      </Group>
      <PullGroup />
      <EdgeGroup />
      <SecondEdgeGroup />
      <CoreGroup />
      <GhostGroup />
      <Caution>
        Eyes, ears and a respirator at the belt; no gloves, nothing loose. Once the edge is thin it is sharp:
        edge trailing. Wet grinding only behind a residual-current device. Training and the maker of your
        machine come first.
      </Caution>
    </>
  );
}

/** Whether a line dragged on one side takes the other side's with it. */
function DraggedGroup() {
  const { rail } = useScreen();
  const sides = useRail((state) => state.sides);
  return (
    <div className="flex items-center justify-between gap-2">
      <span className="text-sm text-faint">Dragged</span>
      <span className="w-44">
        <Segmented
          label="Left and right dragged"
          options={["together", "apart"]}
          value={sides}
          onChange={(value) => rail.setState({ sides: value })}
        />
      </span>
    </div>
  );
}

const KINDS = ["flat", "hollow", "convex", "none"] as const;
type Setting = "height" | "angle" | "full" | "straight";

function BevelGroup({ side, title }: { side: Side; title: string }) {
  const { open } = useScreen();
  const { edit, press, visit } = useEdit();
  const bevel = useFilePart((file) => bevelOn(file, side));
  const now = () => open.store.getState().file;
  const put = (change: (bevel: Bevel) => Bevel) => (copy: Blade) => {
    copy.bevels[side] = change(structuredClone(bevel));
  };
  const setting: Setting =
    bevel.kind === "none" ? "height" : bevel.pull === "straight" ? "straight" : bevel.set;
  const settings: Setting[] =
    bevel.kind === "flat" ? ["height", "angle", "full", "straight"] : ["height", "full"];
  return (
    <>
      <Group title={title}>
        <Segmented
          label={`Kind of ${title.toLowerCase()}`}
          options={KINDS}
          value={bevel.kind}
          onChange={(kind) => press(put((old) => asKind(now(), side, old, kind)))}
        />
        {bevel.kind !== "none" && (
          <Segmented
            label={`How the ${title.toLowerCase()} is set`}
            options={settings}
            names={{ height: "grind line", angle: "angle", full: "to spine", straight: "straight" }}
            value={setting}
            onChange={(next) => press(put((old) => asSetting(now(), side, old as CutBevel, next)))}
          />
        )}
        {bevel.kind !== "none" && bevel.set === "height" && (
          <RowsTable
            name={`Grind line${side === "left" ? ", left" : ""}`}
            placeName="along the edge"
            valueName="up from the edge"
            by="u"
            rows={bevel.height.map((row) => ({ place: row.u, value: row.h }))}
            put={(copy, rows) => {
              const target = copy.bevels[side];
              if (target === "same" || target.kind === "none" || target.set !== "height") return;
              target.height = rows.map((row) => ({ u: row.place, h: row.value }));
            }}
          />
        )}
        {bevel.kind === "flat" && bevel.set === "angle" && (
          <AngleBox
            label="Angle a side"
            value={bevel.angle}
            onVisit={visit}
            onCommit={(angle) => edit(put((old) => ({ ...old, angle }) as Bevel))}
          />
        )}
        {bevel.kind === "flat" && bevel.pull === "straight" && (
          <AngleBox
            label="Rest climbs to tip"
            value={bevel.restAngle ?? 0}
            onVisit={visit}
            onCommit={(restAngle) => edit(put((old) => ({ ...old, restAngle }) as Bevel))}
          />
        )}
        {bevel.kind === "hollow" && (
          <LengthBox
            label="Wheel, across"
            value={bevel.wheelDiameter}
            onVisit={visit}
            onCommit={(wheelDiameter) => edit(put((old) => ({ ...old, wheelDiameter }) as Bevel))}
          />
        )}
        {bevel.kind === "flat" && bevel.pull === "follow" && (
          <ReliefBoxes side={side} title={title} relief={bevel.relief} />
        )}
        {bevel.kind === "convex" && (
          <LengthBox
            label="Bulge outside the chord"
            value={bevel.bulge}
            onVisit={visit}
            onCommit={(bulge) => edit(put((old) => ({ ...old, bulge }) as Bevel))}
          />
        )}
      </Group>
      {bevel.kind !== "none" && (
        <Group title={side === "left" ? "Plunge, left" : title === "Bevel" ? "Plunge" : "Plunge, right"}>
          <LengthBox
            label="From the junction"
            value={bevel.plunge.x}
            onVisit={visit}
            onCommit={(x) => edit(put((old) => withPlunge(old, { x })))}
          />
          <AngleBox
            label="Lean to the tip"
            value={bevel.plunge.lean}
            onVisit={visit}
            onCommit={(lean) => edit(put((old) => withPlunge(old, { lean })))}
          />
          <LengthBox
            label="Radius it leaves"
            value={bevel.plunge.radius}
            onVisit={visit}
            onCommit={(radius) => edit(put((old) => withPlunge(old, { radius })))}
          />
        </Group>
      )}
    </>
  );
}

function withPlunge(bevel: Bevel, change: Partial<CutBevel["plunge"]>): Bevel {
  return bevel.kind === "none" ? bevel : { ...bevel, plunge: { ...bevel.plunge, ...change } };
}

/** Grind-line heights as the blade stands, so that a new way of setting the bevel starts from what is there. */
function heightsNow(file: Blade, side: Side): { u: number; h: number }[] {
  const { stations } = linesOf(file);
  const known = stations.filter((station) => station[side].grindLine !== null);
  if (known.length === 0) return [{ u: 0, h: 15 }];
  const pick = [0, 0.5, 1].map((share) => known[Math.round(share * (known.length - 1))]!);
  return [...new Set(pick)].map((station, i, all) => ({
    u: i === 0 ? 0 : i === all.length - 1 ? 1 : Math.round(station.u * 100) / 100,
    h: tidy(station[side].grindLine!),
  }));
}

function angleNow(file: Blade, side: Side): number {
  const angles = linesOf(file).stations.flatMap((station) => station[side].primaryAngle ?? []);
  const middle = angles[Math.floor(angles.length / 2)] ?? 4;
  return Math.max(0.1, Math.round(middle * 10) / 10);
}

function plungeOf(file: Blade, bevel: Bevel): CutBevel["plunge"] {
  if (bevel.kind !== "none") return bevel.plunge;
  const other = file.bevels.right.kind !== "none" ? file.bevels.right : file.bevels.left;
  if (other !== "same" && other.kind !== "none") return structuredClone(other.plunge);
  return { x: file.outline.edge[0]!.at[0] + 4, lean: 0, radius: 4 };
}

function asKind(file: Blade, side: Side, old: Bevel, kind: (typeof KINDS)[number]): Bevel {
  if (kind === "none") return { kind };
  const plunge = plungeOf(file, old);
  const isFull = old.kind !== "none" && old.set === "full";
  const set = isFull
    ? ({ set: "full" } as const)
    : ({
        set: "height",
        height: old.kind !== "none" && old.set === "height" ? old.height : heightsNow(file, side),
      } as const);
  if (kind === "flat") return { kind, pull: "follow", ...set, plunge };
  if (kind === "hollow") return { kind, pull: "follow", wheelDiameter: 500, ...set, plunge };
  return { kind, pull: "follow", bulge: 0.1, ...set, plunge };
}

function asSetting(file: Blade, side: Side, old: CutBevel, setting: Setting): Bevel {
  const { plunge } = old;
  const shape =
    old.kind === "hollow"
      ? ({ kind: "hollow", wheelDiameter: old.wheelDiameter } as const)
      : old.kind === "convex"
        ? ({ kind: "convex", bulge: old.bulge } as const)
        : ({ kind: "flat" } as const);
  if (setting === "height")
    return { ...shape, pull: "follow", set: "height", height: heightsNow(file, side), plunge };
  if (setting === "full") return { ...shape, pull: "follow", set: "full", plunge };
  const pull = setting === "straight" ? "straight" : "follow";
  return { kind: "flat", pull, set: "angle", angle: angleNow(file, side), plunge } as Bevel;
}
