import type { Blade, SecondBevel, Side } from "@true-spine/core/blade/schema.ts";
import { secondBevelOn } from "@true-spine/core/blade/second.ts";
import { useState } from "react";
import { useFilePart } from "../../blade/screen.ts";
import { useEdit } from "../../blade/useEdit.ts";
import { Alert } from "../../parts/Alert.tsx";
import { AngleBox, LengthBox } from "../../parts/Box.tsx";
import { Caution } from "../../parts/Caution.tsx";
import { Group, SmallButton } from "../../parts/Group.tsx";
import { RowsTable } from "../../parts/RowsTable.tsx";
import { Segmented } from "../../parts/Segmented.tsx";
import { tidy } from "../../rail/SpineView.tsx";

type SecondEdge = NonNullable<Blade["secondEdge"]>;
const KINDS = ["flat", "hollow", "convex"] as const;
const SETS = ["height", "angle", "full"] as const;

/** The blade's other sharpened edge, on its spine: where it begins, what is behind it, its bevels. */
export function SecondEdgeGroup() {
  const { edit, press, visit } = useEdit();
  const second = useFilePart((file) => file.secondEdge);
  const [why, setWhy] = useState<string | null>(null);
  if (!second) {
    return (
      <Group title="Second edge">
        <p className="text-xs text-faint">One edge. A false edge is set on Shape.</p>
        <div>
          <SmallButton
            onClick={() =>
              setWhy(
                press((copy) => {
                  delete copy.falseEdge;
                  copy.secondEdge = firstSecond(copy);
                }),
              )
            }
          >
            Grind a second edge
          </SmallButton>
          {why && <Alert className="mt-1">{why}</Alert>}
        </div>
        <Caution>Double edges, blade length and carry are matters of local law.</Caution>
      </Group>
    );
  }
  const bevel = secondBevelOn(second, "right");
  const put = (change: (own: SecondEdge) => void) => (copy: Blade) => change(copy.secondEdge!);
  const isAlike = second.angle.left === second.angle.right;
  return (
    <Group title="Second edge">
      <LengthBox
        label="Begins, from the junction"
        value={second.from}
        onVisit={visit}
        onCommit={(from) =>
          edit(
            put((own) => {
              own.from = from;
            }),
          )
        }
      />
      <RowsTable
        name="Behind the second edge"
        placeName="along it"
        valueName="thick behind it"
        by="u"
        rows={second.behind.map(({ v, t }) => ({ place: v, value: t }))}
        put={(copy, rows) => {
          copy.secondEdge!.behind = rows.map(({ place, value }) => ({ v: place, t: value }));
        }}
      />
      <AngleBox
        label={isAlike ? "Second edge, angle a side" : "Second edge, angle right"}
        value={second.angle.right}
        onVisit={visit}
        onCommit={(angle) =>
          edit(
            put((own) => {
              own.angle = { left: isAlike ? angle : own.angle.left, right: angle };
            }),
          )
        }
      />
      {bevel.kind !== "none" && (
        <>
          <Segmented
            label="Kind of second bevel"
            options={KINDS}
            value={bevel.kind}
            onChange={(kind) => press(put((own) => setBevel(own, asKind(bevel, kind))))}
          />
          <Segmented
            label="How the second bevel is set"
            options={bevel.kind === "flat" ? SETS : (["height", "full"] as const)}
            names={{ height: "grind line", angle: "angle", full: "to the edge" }}
            value={bevel.set}
            onChange={(set) => press(put((own) => setBevel(own, asSet(bevel, set))))}
          />
          {bevel.set === "height" && (
            <RowsTable
              name="Second grind line"
              placeName="along it"
              valueName="down from it"
              by="u"
              rows={bevel.height.map(({ v, h }) => ({ place: v, value: h }))}
              put={(copy, rows) => {
                const own = copy.secondEdge!.bevels.right;
                if (own.kind === "none" || own.set !== "height") return;
                own.height = rows.map(({ place, value }) => ({ v: place, h: value }));
              }}
            />
          )}
          {bevel.set === "angle" && (
            <AngleBox
              label="Second bevel, angle a side"
              value={bevel.angle}
              onVisit={visit}
              onCommit={(angle) => edit(put((own) => setBevel(own, { ...bevel, angle })))}
            />
          )}
          {bevel.kind === "hollow" && (
            <LengthBox
              label="Second wheel, across"
              value={bevel.wheelDiameter}
              onVisit={visit}
              onCommit={(wheelDiameter) => edit(put((own) => setBevel(own, { ...bevel, wheelDiameter })))}
            />
          )}
          {bevel.kind === "convex" && (
            <LengthBox
              label="Second bulge, out of the chord"
              value={bevel.bulge}
              onVisit={visit}
              onCommit={(bulge) => edit(put((own) => setBevel(own, { ...bevel, bulge })))}
            />
          )}
          <AngleBox
            label="Start leans to the tip"
            value={bevel.runIn.lean}
            onVisit={visit}
            onCommit={(lean) =>
              edit(put((own) => setBevel(own, { ...bevel, runIn: { ...bevel.runIn, lean } })))
            }
          />
          <LengthBox
            label="Radius at the start"
            value={bevel.runIn.radius}
            onVisit={visit}
            onCommit={(radius) =>
              edit(put((own) => setBevel(own, { ...bevel, runIn: { ...bevel.runIn, radius } })))
            }
          />
        </>
      )}
      <div>
        <SmallButton onClick={() => press((copy) => void delete copy.secondEdge)}>No second edge</SmallButton>
      </div>
      <Caution>Double edges, blade length and carry are matters of local law.</Caution>
    </Group>
  );
}

function setBevel(own: SecondEdge, bevel: SecondBevel): void {
  own.bevels.right = bevel;
}

type Cut = Exclude<SecondBevel, { kind: "none" }>;

function asKind(old: Cut, kind: (typeof KINDS)[number]): SecondBevel {
  const { runIn } = old;
  const set =
    old.set === "full" ? ({ set: "full" } as const) : ({ set: "height", height: heightsOf(old) } as const);
  if (kind === "flat") return { kind, ...set, runIn };
  return kind === "hollow"
    ? { kind, wheelDiameter: 254, ...set, runIn }
    : { kind, bulge: 0.1, ...set, runIn };
}

function asSet(old: Cut, set: (typeof SETS)[number]): SecondBevel {
  const { runIn } = old;
  if (set === "angle") return { kind: "flat", set, angle: 8, runIn };
  const shape =
    old.kind === "hollow"
      ? ({ kind: "hollow", wheelDiameter: old.wheelDiameter } as const)
      : old.kind === "convex"
        ? ({ kind: "convex", bulge: old.bulge } as const)
        : ({ kind: "flat" } as const);
  return set === "full" ? { ...shape, set, runIn } : { ...shape, set, height: heightsOf(old), runIn };
}

const heightsOf = (old: Cut) => (old.set === "height" ? old.height : [{ v: 0, h: 6 }]);

/** Where it begins at first, as a share of the blade's length, and how deep its bevel is, of the blade's height. */
const [BEGINS, DEEP] = [0.5, 0.25];

/** A second edge as the first is sharpened, over the fore half of the spine. */
function firstSecond(file: Blade): SecondEdge {
  const tip = file.outline.spine[file.outline.spine.length - 1]!.at[0];
  const heel = file.outline.edge[0]!.at[1];
  const side: Side = file.edge.angle.right > 0 ? "right" : "left";
  const angle = Math.max(10, file.edge.angle[side]);
  const height = Math.max(3, Math.round(Math.abs(heel) * DEEP));
  return {
    from: Math.round(tip * BEGINS),
    behind: file.edge.behind.map(({ u, t }) => ({ v: u, t: tidy(Math.max(t, 0.2)) })),
    angle: { left: angle, right: angle },
    bevels: {
      right: {
        kind: "flat",
        set: "height",
        height: [
          { v: 0, h: height },
          { v: 1, h: Math.max(2, Math.round(height / 2)) },
        ],
        runIn: { lean: 0, radius: 4 },
      },
      left: "same",
    },
  };
}
