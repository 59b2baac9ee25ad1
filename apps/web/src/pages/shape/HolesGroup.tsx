import type { Blade, Hole, HoleUse } from "@true-spine/core/blade/schema.ts";
import { anotherHole, evenlyBetween, holesAlong, pairsAlong } from "@true-spine/core/design/holes.ts";
import { HOLE_USES, lipUnder } from "@true-spine/core/handle/holes.ts";
import { showLengthWithUnit } from "@true-spine/core/units/length.ts";
import { X } from "lucide-react";
import { useState } from "react";
import { useSettings } from "../../app/settings.ts";
import { useDocument, useFilePart } from "../../blade/screen.ts";
import { useEdit } from "../../blade/useEdit.ts";
import { Alert } from "../../parts/Alert.tsx";
import { LengthBox } from "../../parts/Box.tsx";
import { Choice, Group, SmallButton } from "../../parts/Group.tsx";

const NO_HOLES: Hole[] = [];
/** How much wider than the bolt its head is, and how deep it is sunk, at first; mm. Starting values. */
const HEAD = { wider: 3, depth: 2.5 } as const;

/** Holes by their numbers, added one at a time, in pairs, or laid out evenly along the tang. */
export function HolesGroup() {
  const { press } = useEdit();
  const holes = useFilePart((file) => file.holes ?? NO_HOLES);
  const [why, setWhy] = useState<string | null>(null);
  const d = holes[0]?.d ?? 5;
  const button = (name: string, make: (copy: Blade) => Hole[]) => (
    <SmallButton
      onClick={() =>
        setWhy(
          press((copy) => {
            copy.holes = make(copy);
          }),
        )
      }
    >
      {name}
    </SmallButton>
  );
  return (
    <Group title="Holes" aside={button("Add one", (copy) => [...holes, anotherHole(copy, d)])}>
      <div className="flex flex-wrap gap-1">
        {button(`${holes.length > 2 ? holes.length : "Two"} along the tang`, (copy) =>
          holesAlong(copy, Math.max(2, holes.length), d).map((hole, i) => ({ ...holes[i], ...hole })),
        )}
        {button("Pairs along it", (copy) => pairsAlong(copy, Math.max(2, Math.ceil(holes.length / 2)), d))}
        {holes.length > 2 && button("Even between first and last", () => evenlyBetween(holes))}
      </div>
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
        <HoleRow key={i} hole={hole} i={i} />
      ))}
      {why && <Alert>{why}</Alert>}
    </Group>
  );
}

/** One hole: where, how wide, what for, and how the head of a bolt is sunk. */
function HoleRow({ hole, i }: { hole: Hole; i: number }) {
  const { edit, press, visit } = useEdit();
  const unit = useSettings((settings) => settings.unit);
  const lip = lipUnder(hole, useDocument("handle"));
  const { counterbore } = hole;
  const changed = (change: (hole: Hole) => void) => (copy: Blade) => change(copy.holes![i]!);
  return (
    <div className="flex flex-col gap-1 border-b border-rule pb-1.5 last:border-0">
      <div className="flex items-start gap-1">
        {(["x", "y", "d"] as const).map((key) => (
          <LengthBox
            key={key}
            className="min-w-0 flex-1"
            hideLabel
            isJudgedAtRest
            label={`Hole ${i + 1}, ${{ x: "from the junction", y: "up from the datum", d: "across" }[key]}`}
            value={hole[key]}
            onVisit={visit}
            onCommit={(value) =>
              edit(
                changed((one) => {
                  one[key] = value;
                }),
              )
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
      <Choice
        label={`Hole ${i + 1} is for`}
        value={hole.for ?? ""}
        options={[
          { value: "", name: "not said" },
          ...Object.entries(HOLE_USES).map(([value, name]) => ({ value, name })),
        ]}
        onChange={(use) =>
          press(
            changed((one) => {
              one.for = (use || undefined) as HoleUse | undefined;
              if (one.for === undefined) delete one.for;
              if (use === "bolt") one.counterbore ??= { d: one.d + HEAD.wider, depth: HEAD.depth };
              else delete one.counterbore;
            }),
          )
        }
      />
      {counterbore && (
        <>
          {(["d", "depth"] as const).map((key) => (
            <LengthBox
              key={key}
              isJudgedAtRest
              label={`Bolt ${i + 1}, head ${key === "d" ? "across" : "sunk"}`}
              value={counterbore[key]}
              onVisit={visit}
              onCommit={(value) =>
                edit(
                  changed((one) => {
                    one.counterbore![key] = value;
                  }),
                )
              }
            />
          ))}
          <p className="text-xs text-faint">
            {lip === null
              ? "Put scales on the tang, and what stays under the head stands here."
              : lip > 0
                ? `${showLengthWithUnit(lip, unit)} of the scale stays under the head.`
                : "It goes through the scale."}
          </p>
        </>
      )}
    </div>
  );
}
