import type { Hole } from "@true-spine/core/blade/schema.ts";
import { anotherHole, holesAlong } from "@true-spine/core/design/drive.ts";
import { X } from "lucide-react";
import { useState } from "react";
import { useFilePart } from "../../blade/screen.ts";
import { useEdit } from "../../blade/useEdit.ts";
import { Alert } from "../../parts/Alert.tsx";
import { LengthBox } from "../../parts/Box.tsx";
import { Group, SmallButton } from "../../parts/Group.tsx";

const NO_HOLES: Hole[] = [];

/** Holes by their numbers, added one at a time or laid out evenly along the tang. */
export function HolesGroup() {
  const { edit, press, visit } = useEdit();
  const holes = useFilePart((file) => file.holes ?? NO_HOLES);
  const [why, setWhy] = useState<string | null>(null);
  return (
    <Group
      title="Holes"
      aside={
        <span className="flex gap-1">
          <SmallButton
            onClick={() =>
              setWhy(
                press((copy) => {
                  copy.holes = holesAlong(copy, Math.max(2, holes.length), holes[0]?.d ?? 5);
                }),
              )
            }
          >
            {holes.length > 2 ? `${holes.length} evenly spaced` : "Two evenly spaced"}
          </SmallButton>
          <SmallButton
            onClick={() =>
              setWhy(
                press((copy) => {
                  copy.holes = [...holes, anotherHole(copy, holes[0]?.d ?? 5)];
                }),
              )
            }
          >
            Add one
          </SmallButton>
        </span>
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
            aria-label={`Remove hole ${i + 1}`}
            className="mt-1 rounded p-1 text-faint hover:bg-room"
            onClick={() => press((copy) => void copy.holes!.splice(i, 1))}
          >
            <X className="size-4" aria-hidden />
          </button>
        </div>
      ))}
      {why && <Alert>{why}</Alert>}
    </Group>
  );
}
