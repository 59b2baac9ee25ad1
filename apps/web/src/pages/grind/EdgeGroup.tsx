import type { Blade, Side } from "@true-spine/core/blade/schema.ts";
import { tan } from "@true-spine/core/units/angle.ts";
import { useFilePart } from "../../blade/screen.ts";
import { useEdit } from "../../blade/useEdit.ts";
import { AngleBox, LengthBox } from "../../parts/Box.tsx";
import { Choice, Group, SmallButton } from "../../parts/Group.tsx";
import { RowsTable } from "../../parts/RowsTable.tsx";
import { tidy } from "../../rail/SpineView.tsx";

/** The edge: what is behind it, its angle, flat or convex, where its apex lies. */
export function EdgeGroup() {
  const { edit, press, visit } = useEdit();
  const edge = useFilePart((file) => file.edge);
  const isAlike = edge.angle.left === edge.angle.right;
  const place = typeof edge.offset === "number" ? "centre" : edge.offset;
  return (
    <Group
      title="Edge"
      aside={
        !isAlike && (
          <SmallButton
            onClick={() =>
              press((copy) => {
                copy.edge.angle.left = copy.edge.angle.right;
              })
            }
          >
            Make alike
          </SmallButton>
        )
      }
    >
      <RowsTable
        name="Behind the edge"
        placeName="along the edge"
        valueName="thick behind it"
        by="u"
        rows={edge.behind.map((row) => ({ place: row.u, value: row.t }))}
        put={(copy, rows) => {
          copy.edge.behind = rows.map((row) => ({ u: row.place, t: row.value }));
        }}
      />
      <AngleBox
        label={isAlike ? "Edge angle a side" : "Edge angle, right"}
        value={edge.angle.right}
        onVisit={visit}
        onCommit={(angle) =>
          edit((copy) => {
            copy.edge.angle.right = angle;
            if (isAlike && place === "centre") copy.edge.angle.left = angle;
          })
        }
      />
      {!(isAlike && place === "centre") && (
        <AngleBox
          label="Edge angle, left"
          value={edge.angle.left}
          onVisit={visit}
          onCommit={(angle) =>
            edit((copy) => {
              copy.edge.angle.left = angle;
            })
          }
        />
      )}
      <Choice
        label="Edge bevel"
        value={edge.kind ?? "flat"}
        options={[
          { value: "flat", name: "flat: stone or platen" },
          { value: "convex", name: "convex: slack belt, hand" },
        ]}
        onChange={(kind) =>
          press((copy) => {
            if (kind === "convex") Object.assign(copy.edge, { kind, bulge: firstBulge(copy.edge) });
            else {
              delete copy.edge.kind;
              delete copy.edge.bulge;
            }
          })
        }
      />
      {edge.bulge !== undefined && (
        <LengthBox
          label="Edge, out of its chord"
          value={edge.bulge}
          onVisit={visit}
          onCommit={(bulge) =>
            edit((copy) => {
              copy.edge.bulge = bulge;
            })
          }
        />
      )}
      <Choice
        label="The apex lies"
        value={place}
        options={[
          { value: "centre", name: "near the centre" },
          { value: "left-face", name: "in the left face" },
          { value: "right-face", name: "in the right face" },
        ]}
        onChange={(value) =>
          press((copy) => {
            if (value === "centre") Object.assign(copy.edge, { offset: 0, rightShare: 0.5 });
            else asChisel(copy, value as "left-face" | "right-face");
          })
        }
      />
      {typeof edge.offset === "number" && (
        <LengthBox
          label="Off centre, + right"
          value={edge.offset}
          onVisit={visit}
          onCommit={(offset) =>
            edit((copy) => {
              copy.edge.offset = offset;
            })
          }
        />
      )}
    </Group>
  );
}

/** How far a convex edge stands out of its chord at first, as a share of the chord where it is narrowest. */
const BULGE = 0.03;

function firstBulge({ behind, angle }: Blade["edge"]): number {
  const thin = Math.min(...behind.filter(({ t }) => t > 0).map(({ t }) => t / 2));
  const steep = Math.max(angle.left, angle.right);
  const chord = Number.isFinite(thin) && steep > 0 ? Math.hypot(thin, thin / tan(steep)) : 1;
  return Math.max(0.001, tidy(BULGE * chord));
}

/** A chisel: the apex in one face, everything ground on the other. */
function asChisel(copy: Blade, face: "left-face" | "right-face"): void {
  const flat: Side = face === "left-face" ? "left" : "right";
  const angle = Math.max(copy.edge.angle.left, copy.edge.angle.right);
  const cut =
    copy.bevels.right.kind === "none" && copy.bevels.left !== "same" ? copy.bevels.left : copy.bevels.right;
  Object.assign(copy.edge, {
    offset: face,
    rightShare: flat === "left" ? 1 : 0,
    angle: { left: flat === "left" ? 0 : angle, right: flat === "left" ? angle : 0 },
  });
  copy.bevels =
    flat === "left" ? { right: cut, left: { kind: "none" } } : { right: { kind: "none" }, left: cut };
}
