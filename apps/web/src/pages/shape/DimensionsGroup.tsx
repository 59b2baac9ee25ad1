import { DRIVERS } from "@true-spine/core/design/drive.ts";
import { fieldOf } from "../../blade/derived.ts";
import { useFilePart } from "../../blade/screen.ts";
import { useEdit } from "../../blade/useEdit.ts";
import { LengthBox } from "../../parts/Box.tsx";
import { Group } from "../../parts/Group.tsx";

/** The chief measures: each typed over drives the outline, and keeps the others. */
export function DimensionsGroup() {
  const file = useFilePart((file) => file);
  const { ring } = fieldOf(file);
  const { edit, visit } = useEdit();
  return (
    <Group title="Dimensions">
      {DRIVERS.map(({ key, name, measure, set }) => {
        const value = measure(ring, file);
        if (value === null) return null;
        return (
          <LengthBox
            key={key}
            label={name}
            value={Math.round(value * 1e4) / 1e4}
            onVisit={visit}
            onCommit={(wanted) => edit((copy) => set(copy, wanted))}
          />
        );
      })}
    </Group>
  );
}
