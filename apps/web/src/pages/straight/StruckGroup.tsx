import type { StruckHere } from "@true-spine/core/shop/struck.ts";
import { useState } from "react";
import { useScreen } from "../../blade/screen.ts";
import { Alert } from "../../parts/Alert.tsx";
import { Group, SmallButton } from "../../parts/Group.tsx";
import { useShop } from "../../shop/shop.ts";

const BUILT = { solid: "one steel", clad: "hard core", unknown: "build unknown" } as const;

/** What this shop's blades have said of blows, clampings and presses, and what this one would add. Nothing before one has. */
export function StruckGroup({ here }: { here: StruckHere | null }) {
  const { id } = useScreen();
  const { shop, put } = useShop();
  const [why, setWhy] = useState<string | null>(null);
  const records = shop.struck ?? [];
  const others = records.filter(({ blade }) => blade !== id);
  const isKept = others.length < records.length;
  if (!here && records.length === 0) return null;
  return (
    <Group title="What this shop has seen">
      <p className="text-sm" role="status">
        {records.length === 0
          ? "No blade of this shop has been kept yet."
          : `Kept of ${records.length} ${records.length === 1 ? "blade" : "blades"}: ${counted(records)}.`}
      </p>
      {here && (
        <p className="text-sm text-faint">
          This one, {BUILT[here.build]}: {counted([here])}.
        </p>
      )}
      {why && <Alert>{why}</Alert>}
      {here && (
        <SmallButton
          onClick={() =>
            setWhy(
              put({ ...shop, struck: [...others, { blade: id, when: new Date().toISOString(), ...here }] }),
            )
          }
        >
          {isKept ? "Keep what this blade says now" : "Keep what this blade says"}
        </SmallButton>
      )}
      {isKept && (
        <SmallButton onClick={() => setWhy(put({ ...shop, struck: others }))}>Forget it again</SmallButton>
      )}
    </Group>
  );
}

function counted(records: readonly StruckHere[]): string {
  const sum = (of: (one: StruckHere) => number) => records.reduce((all, one) => all + of(one), 0);
  const words = [
    [sum(({ blows }) => blows.length), "of blows"],
    [sum(({ shares }) => shares.length), "of clampings"],
    [sum(({ yields }) => yields.length), "of presses"],
  ] as const;
  return words
    .filter(([n]) => n > 0)
    .map(([n, what]) => `${n} ${what}`)
    .join(", ");
}
