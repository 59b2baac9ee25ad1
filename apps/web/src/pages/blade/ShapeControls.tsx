import type { Blade, Hole } from "@true-spine/core/blade/schema.ts";
import { OWN_PURPOSE, PURPOSES } from "@true-spine/core/findings/purposes.ts";
import { STEELS } from "@true-spine/core/steel/steels.ts";
import { X } from "lucide-react";
import { useId, useState } from "react";
import { useFilePart, useScreen } from "../../blade/context.ts";
import { useEdit } from "../../blade/useEdit.ts";
import { AngleBox, LengthBox } from "../../parts/Box.tsx";
import { Caution } from "../../parts/Caution.tsx";
import { Choice, Group, SmallButton } from "../../parts/Group.tsx";
import { RowsTable } from "../../parts/RowsTable.tsx";

const CHAINS = ["spine", "edge", "tang"] as const;

/** The Shape page's own controls: what it is for, the taper, the outline by numbers, false edge and holes. */
export function ShapeControls() {
  return (
    <>
      <KnifeGroup />
      <ThicknessGroup />
      <OutlineGroup />
      <FalseEdgeGroup />
      <HolesGroup />
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
      aside={<SmallButton onClick={() => rail.setState({ panel: "limits" })}>limits …</SmallButton>}
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
  const id = useId();
  const [typed, setTyped] = useState<string | null>(null);
  const [why, setWhy] = useState<string | null>(null);
  return (
    <div>
      <div className="flex items-center justify-between gap-2">
        <label htmlFor={id} className="text-sm text-faint">
          Name
        </label>
        <input
          id={id}
          className={`h-8 w-44 rounded border bg-sheet px-2 font-semibold ${why ? "border-2 border-fix" : "border-frame"}`}
          value={typed ?? current}
          aria-invalid={why !== null}
          aria-describedby={why ? `${id}-why` : undefined}
          onFocus={() => visit(true)}
          onChange={(event) => {
            const name = event.currentTarget.value;
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
        />
      </div>
      {why && (
        <p id={`${id}-why`} role="alert" className="mt-1 text-xs text-fix">
          {why}
        </p>
      )}
    </div>
  );
}

/** Every node by its numbers: the same that are dragged on the drawing. Shared ends move together. */
function OutlineGroup() {
  const outline = useFilePart((file) => file.outline);
  const { edit, visit } = useEdit();
  const [chain, setChain] = useState<(typeof CHAINS)[number]>("edge");
  const nodes = outline[chain];
  return (
    <Group
      title="Outline"
      aside={
        <div className="flex gap-1">
          {CHAINS.map((name) => (
            <button
              key={name}
              type="button"
              aria-pressed={name === chain}
              onClick={() => setChain(name)}
              className={`rounded px-2 py-0.5 text-xs ${name === chain ? "bg-deep font-semibold text-on-deep" : "hover:bg-room"}`}
            >
              {name}
            </button>
          ))}
        </div>
      }
    >
      <div className="flex gap-2 text-[11px] text-faint" aria-hidden>
        <span className="w-5" />
        <span className="flex-1">from the junction</span>
        <span className="flex-1">up from the datum</span>
      </div>
      {nodes.map((node, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a node is its position in the chain
        <div key={`${chain}${i}`} className="flex items-start gap-2">
          <span className="w-5 pt-1.5 text-right text-xs text-faint">{i + 1}</span>
          {([0, 1] as const).map((axis) => (
            <LengthBox
              key={axis}
              className="min-w-0 flex-1"
              hideLabel
              label={`${chain} node ${i + 1}, ${axis === 0 ? "from the junction" : "up from the datum"}`}
              value={node.at[axis]}
              onVisit={visit}
              onCommit={(value) =>
                edit((copy) => {
                  const at: [number, number] = [...node.at];
                  at[axis] = value;
                  moveNode(copy, chain, i, at);
                })
              }
            />
          ))}
        </div>
      ))}
    </Group>
  );
}

/** Moves a node, and the ends of the other chains that meet it there. */
export function moveNode(
  copy: Blade,
  chain: (typeof CHAINS)[number],
  index: number,
  at: [number, number],
): void {
  const { spine, edge, tang } = copy.outline;
  const node = copy.outline[chain][index]!;
  const isEnd = index === copy.outline[chain].length - 1;
  const meets = {
    tip: [spine[spine.length - 1]!, edge[edge.length - 1]!],
    heel: [edge[0]!, tang[0]!],
    junction: [spine[0]!, tang[tang.length - 1]!],
  };
  const place =
    chain === "tang"
      ? isEnd
        ? "junction"
        : index === 0
          ? "heel"
          : null
      : isEnd
        ? "tip"
        : index > 0
          ? null
          : chain === "edge"
            ? "heel"
            : "junction";
  for (const end of place ? meets[place] : [node]) end.at = [...at];
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
            add one
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
      aside={
        <SmallButton onClick={() => press((copy) => void delete copy.falseEdge)}>leave it away</SmallButton>
      }
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

const NO_HOLES: Hole[] = [];

function HolesGroup() {
  const { edit, press, visit } = useEdit();
  const holes = useFilePart((file) => file.holes ?? NO_HOLES);
  const [why, setWhy] = useState<string | null>(null);
  return (
    <Group
      title="Holes"
      aside={
        <SmallButton
          onClick={() =>
            setWhy(
              press((copy) => {
                const tang = copy.outline.tang.map((node) => node.at);
                const x = holes.length > 0 ? Math.min(...holes.map((hole) => hole.x)) - 20 : -25;
                copy.holes = [...holes, { x, y: Math.min(...tang.map((at) => at[1])) / 2, d: 5 }];
              }),
            )
          }
        >
          add one
        </SmallButton>
      }
    >
      {holes.length === 0 && <p className="text-xs text-faint">None yet.</p>}
      {holes.length > 0 && (
        <div className="flex gap-1 pr-7 text-[11px] text-faint" aria-hidden>
          <span className="flex-1">from junction</span>
          <span className="flex-1">up</span>
          <span className="flex-1">across</span>
        </div>
      )}
      {holes.map((hole, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a hole is its position in the list
        <div key={i} className="flex items-start gap-1">
          {(["x", "y", "d"] as const).map((key) => (
            <LengthBox
              key={key}
              className="min-w-0 flex-1"
              hideLabel
              label={`Hole ${i + 1}, ${{ x: "from the junction", y: "up from the datum", d: "across" }[key]}`}
              value={hole[key]}
              onVisit={visit}
              onCommit={(value) =>
                edit((copy) => {
                  copy.holes![i]![key] = value;
                })
              }
            />
          ))}
          <button
            type="button"
            aria-label={`Take hole ${i + 1} away`}
            className="mt-1 rounded p-1 text-faint hover:bg-room"
            onClick={() => press((copy) => void copy.holes!.splice(i, 1))}
          >
            <X className="size-4" aria-hidden />
          </button>
        </div>
      ))}
      {why && (
        <p role="alert" className="text-xs text-fix">
          {why}
        </p>
      )}
    </Group>
  );
}
