import { edgeOf, type Knife, middleOf, parseKnives } from "@true-spine/core/edge/knives.ts";
import { PURPOSES } from "@true-spine/core/findings/purposes.ts";
import { showLengthWithUnit } from "@true-spine/core/units/length.ts";
import { useMemo, useState } from "react";
import { useBladeNames } from "../../api/blades.ts";
import { useSettings } from "../../app/settings.ts";
import { Choice, Group } from "../../parts/Group.tsx";
import { PlainButton } from "../../parts/PlainButton.tsx";
import { useTitle } from "../../parts/useTitle.ts";
import { newId } from "../../saving/id.ts";
import { ShopPage } from "../../shop/ShopPage.tsx";
import { ShopAwaited } from "../../shop/ShopSaved.tsx";
import { useShop } from "../../shop/shop.ts";
import { takeIn } from "../../shop/take-in.ts";
import { KnifeGroup } from "./KnifeGroup.tsx";
import { KnivesTable } from "./KnivesTable.tsx";
import { type Measured, ofBlade, ofKnife } from "./measured.ts";
import { SizesChart } from "./SizesChart.tsx";

const HEIGHTS = [0.5, 1, 2, 5] as const;

/** Knives that were measured, beside one another and beside the rack's blades at one height, and for what they are thick enough. */
export function Knives() {
  useTitle("Knives");
  const { shop, put, saving, isAway } = useShop();
  const unit = useSettings((settings) => settings.unit);
  const { data: rack } = useBladeNames();
  const [picked, setPicked] = useState<string | null>(null);
  const [height, setHeight] = useState<number>(1);
  const [beside, setBeside] = useState("");
  const [use, setUse] = useState("field");
  const [why, setWhy] = useState<string | null>(null);
  const knives = shop.knives ?? [];
  const all = useMemo<Measured[]>(
    () => [...knives.map(ofKnife), ...(rack ?? []).flatMap((row) => ofBlade(row) ?? [])],
    [knives, rack],
  );
  const chosen = knives.find(({ id }) => id === picked) ?? knives[0] ?? null;
  const against = all.find(({ key }) => key === beside) ?? null;
  const putKnives = (next: Knife[]) => put({ ...shop, knives: next });
  const add = () => {
    const id = newId();
    const made: Knife = {
      id,
      name: `Knife ${knives.length + 1}`,
      length: 120,
      places: [{ at: "middle", e: 0.5, d: 0.77 }],
    };
    setWhy(putKnives([...knives, made]));
    setPicked(id);
  };
  const take = async (file: File) => {
    const taken = await takeIn(file, parseKnives);
    if (!taken.ok) return setWhy(taken.why);
    const known = new Set(knives.map(({ id }) => id));
    setWhy(putKnives([...knives, ...taken.knives.knives.filter(({ id }) => !known.has(id))]));
  };
  if (!saving) return <ShopAwaited isAway={isAway} what="the knives" />;
  return (
    <ShopPage
      title="Knives"
      saving={saving}
      file={knives.length > 0 ? { format: "true-spine/knives", version: 1, knives } : null}
      onTake={take}
      more={
        <PlainButton kind="main" onClick={add}>
          Add a knife
        </PlainButton>
      }
      why={why}
      asideLabel="The knife that is chosen"
      aside={
        <>
          {chosen && (
            <KnifeGroup
              key={chosen.id}
              knife={chosen}
              put={(next) => putKnives(knives.map((one) => (one.id === next.id ? next : one)))}
              onRemove={() => setWhy(putKnives(knives.filter((one) => one !== chosen)))}
            />
          )}
          <Group title="Compared">
            <Choice
              label="So far up"
              value={String(height)}
              options={[
                ...HEIGHTS.map((y) => ({ value: String(y), name: showLengthWithUnit(y, unit) })),
                ...(chosen ? [{ value: "own", name: "its own edge bevel" }] : []),
              ]}
              onChange={(next) =>
                setHeight(next === "own" && chosen ? edgeOf(middleOf(chosen)).d : Number(next))
              }
            />
            <Choice
              label="Beside"
              value={against?.key ?? ""}
              options={[
                { value: "", name: "nothing" },
                ...all.map(({ key, name }) => ({ value: key, name })),
              ]}
              onChange={setBeside}
            />
            <Choice
              label="Band of"
              value={use}
              options={PURPOSES.map(({ key, name }) => ({ value: key, name }))}
              onChange={setUse}
            />
          </Group>
        </>
      }
    >
      {all.length === 0 ? (
        <div className="max-w-prose">
          <h2 className="text-lg font-bold">No knife measured yet</h2>
          <p className="mt-1 text-sm text-faint">
            Measure those you know: behind the edge, how high its bevel is, and 5 mm up. Beside them a new
            blade's figures mean something.
          </p>
        </div>
      ) : (
        <>
          <h2 className="sr-only">Length against thickness</h2>
          <SizesChart all={all} height={height} use={use} />
          <KnivesTable
            all={all}
            height={height}
            against={against}
            chosen={chosen?.id ?? null}
            onPick={setPicked}
          />
        </>
      )}
    </ShopPage>
  );
}
