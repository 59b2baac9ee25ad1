import type { Blade } from "@true-spine/core/blade/schema.ts";
import { cutChoil, mirrorEdge, notchSpine, otherHand } from "@true-spine/core/design/cuts.ts";
import { useState } from "react";
import { useEdit } from "../../blade/useEdit.ts";
import { Alert } from "../../parts/Alert.tsx";
import { CountBox, LengthBox } from "../../parts/Box.tsx";
import { Group, SmallButton } from "../../parts/Group.tsx";

const NOTCH_BOXES = [
  ["from", "Notches from"],
  ["to", "Notches to"],
  ["count", "How many notches"],
  ["depth", "Notches, deep"],
] as const;

/** What is filed into an outline, and what turns it over. Each press is one step of undo. */
export function CutsGroup() {
  const { press } = useEdit();
  const [why, setWhy] = useState<string | null>(null);
  const [radius, setRadius] = useState(3);
  const [notches, setNotches] = useState({ from: 2, to: 24, count: 9, depth: 0.8 });
  const act = (change: (copy: Blade) => void) => () => {
    try {
      setWhy(press(change));
    } catch (error) {
      if (!(error instanceof RangeError)) throw error;
      setWhy(error.message);
    }
  };
  const put = (key: keyof typeof notches) => (value: number) => {
    setNotches({ ...notches, [key]: value });
    return null;
  };
  return (
    <Group title="Choil, notches, mirroring">
      <LengthBox
        label="Sharpening choil, radius"
        value={radius}
        onCommit={(mm) => {
          if (mm <= 0) return "A choil has a radius.";
          setRadius(mm);
          return null;
        }}
      />
      <div>
        <SmallButton onClick={act((copy) => cutChoil(copy, radius))}>Cut the choil at the heel</SmallButton>
      </div>
      <div className="flex gap-1 text-[11px] text-faint" aria-hidden>
        <span className="flex-1">from</span>
        <span className="flex-1">to</span>
        <span className="w-14">how many</span>
        <span className="flex-1">deep</span>
      </div>
      <div className="flex gap-1">
        {NOTCH_BOXES.map(([key, label]) =>
          key === "count" ? (
            <CountBox
              key={key}
              className="w-14"
              label={label}
              hideLabel
              value={notches.count}
              most={60}
              onCommit={put("count")}
            />
          ) : (
            <LengthBox
              key={key}
              className="min-w-0 flex-1"
              label={label}
              hideLabel
              value={notches[key]}
              onCommit={put(key)}
            />
          ),
        )}
      </div>
      <div>
        <SmallButton onClick={act((copy) => notchSpine(copy, notches))}>
          File notches into the spine
        </SmallButton>
      </div>
      <div className="flex gap-1">
        <SmallButton onClick={act(otherHand)}>For the other hand</SmallButton>
        <SmallButton onClick={act(mirrorEdge)}>Mirror edge and spine</SmallButton>
      </div>
      {why && <Alert>{why}</Alert>}
    </Group>
  );
}
