import { OWN_PURPOSE, PURPOSES } from "@true-spine/core/findings/purposes.ts";
import { STEELS } from "@true-spine/core/steel/steels.ts";
import { useState } from "react";
import { useFilePart, useScreen } from "../../blade/screen.ts";
import { useEdit } from "../../blade/useEdit.ts";
import { AngleBox, LengthBox } from "../../parts/Box.tsx";
import { Caution } from "../../parts/Caution.tsx";
import { Choice, Group, SmallButton } from "../../parts/Group.tsx";
import { Hint } from "../../parts/Hint.tsx";
import { RowsTable } from "../../parts/RowsTable.tsx";
import { TextBox } from "../../parts/TextBox.tsx";
import { GhostGroup } from "../blade/GhostGroup.tsx";
import { CutsGroup } from "./CutsGroup.tsx";
import { DimensionsGroup } from "./DimensionsGroup.tsx";
import { HandleGroup } from "./HandleGroup.tsx";
import { HolesGroup } from "./HolesGroup.tsx";
import { OutlineGroup } from "./OutlineGroup.tsx";
import { PhotoGroup } from "./PhotoGroup.tsx";

/** The Shape page's own controls: what it is for, the taper, the outline by numbers, false edge and holes. */
export function ShapeControls() {
  return (
    <>
      <Hint
        name="shape"
        lines={[
          "Drag a square to move a node of the outline, a round to bend its curve; Tab and arrow keys do the same.",
          "On the spine view drag a square for thickness. A value on a drawing can be clicked and typed over.",
          "The red line is the scribe: drag it, or ← and →. The section on the right is cut there.",
          "Ctrl+Z takes anything back. Press ? for all keys.",
        ]}
      />
      <KnifeGroup />
      <ThicknessGroup />
      <DimensionsGroup />
      <OutlineGroup />
      <CutsGroup />
      <FalseEdgeGroup />
      <HolesGroup />
      <HandleGroup />
      <PhotoGroup />
      <GhostGroup />
      <Caution>
        No gloves at drill, saw or belt; clamp the blade, a drill snatches. Blade length, double edges and
        carry are matters of local law.
      </Caution>
    </>
  );
}

function ThicknessGroup() {
  const thickness = useFilePart((file) => file.thickness);
  return (
    <Group title="Thickness over the flats">
      <RowsTable
        name="Thickness"
        placeName="from the junction"
        valueName="thick"
        by="x"
        rows={thickness.map((row) => ({ place: row.x, value: row.t }))}
        put={(copy, rows) => {
          copy.thickness = rows.map((row) => ({ x: row.place, t: row.value }));
        }}
      />
    </Group>
  );
}

function KnifeGroup() {
  const steel = useFilePart((file) => file.steel);
  const use = useFilePart((file) => file.use);
  const { press } = useEdit();
  const { rail } = useScreen();
  const steels = STEELS.map((steel) => steel.name);
  const named = steel && !steels.includes(steel) ? [...steels, steel] : steels;
  const uses = [...PURPOSES, OWN_PURPOSE].map((purpose) => purpose.key);
  const known = use && !uses.includes(use) ? [...uses, use] : uses;
  return (
    <Group
      title="Knife"
      aside={<SmallButton onClick={() => rail.setState({ panel: "limits" })}>Limits …</SmallButton>}
    >
      <NameBox />
      <Choice
        label="What for"
        value={use ?? ""}
        options={[{ value: "", name: "not said" }, ...known.map((key) => ({ value: key, name: key }))]}
        onChange={(key) =>
          press((copy) => {
            if (key) copy.use = key;
            else delete copy.use;
          })
        }
      />
      <Choice
        label="Steel"
        value={steel ?? ""}
        options={[{ value: "", name: "not said" }, ...named.map((name) => ({ value: name, name }))]}
        onChange={(name) =>
          press((copy) => {
            if (name) copy.steel = name;
            else delete copy.steel;
          })
        }
      />
    </Group>
  );
}

function NameBox() {
  const current = useFilePart((file) => file.name);
  const { edit, visit } = useEdit();
  const [typed, setTyped] = useState<string | null>(null);
  const [why, setWhy] = useState<string | null>(null);
  return (
    <TextBox
      label="Name"
      width="w-44"
      text={typed ?? current}
      why={why}
      onFocus={() => visit(true)}
      onText={(name) => {
        setTyped(name);
        setWhy(
          name.trim() === ""
            ? "A blade needs a name."
            : edit((copy) => {
                copy.name = name;
              }),
        );
      }}
      onBlur={() => {
        if (!why) setTyped(null);
        visit(false);
      }}
      onEscape={() => {
        setTyped(null);
        setWhy(null);
      }}
    />
  );
}

function FalseEdgeGroup() {
  const { edit, press, visit } = useEdit();
  const falseEdge = useFilePart((file) => file.falseEdge);
  const tip = useFilePart((file) => file.outline.spine[file.outline.spine.length - 1]!.at[0]);
  if (!falseEdge) {
    return (
      <Group
        title="False edge"
        aside={
          <SmallButton
            onClick={() =>
              press((copy) => {
                copy.falseEdge = {
                  from: Math.round(tip * 0.7),
                  to: Math.round(tip * 0.94),
                  angle: 20,
                  land: 1.2,
                  radius: 3,
                };
              })
            }
          >
            Add one
          </SmallButton>
        }
      >
        <p className="text-xs text-faint">None. A bevel off the spine toward the tip, both sides.</p>
      </Group>
    );
  }
  const put = (key: "from" | "to" | "land" | "radius" | "angle") => (value: number) =>
    edit((copy) => {
      copy.falseEdge![key] = value;
    });
  return (
    <Group
      title="False edge"
      aside={<SmallButton onClick={() => press((copy) => void delete copy.falseEdge)}>Remove</SmallButton>}
    >
      <LengthBox label="From" value={falseEdge.from} onVisit={visit} onCommit={put("from")} />
      <LengthBox label="To" value={falseEdge.to} onVisit={visit} onCommit={put("to")} />
      <AngleBox label="Angle a side" value={falseEdge.angle} onVisit={visit} onCommit={put("angle")} />
      <LengthBox
        label="Land left at the spine"
        value={falseEdge.land}
        onVisit={visit}
        onCommit={put("land")}
      />
      <LengthBox
        label="Run-in radius"
        value={falseEdge.radius ?? 0}
        onVisit={visit}
        onCommit={put("radius")}
      />
    </Group>
  );
}
