import {
  type Batch,
  DAMAGES,
  type Damage,
  FORCE,
  MATERIALS,
  type Next,
} from "@true-spine/core/edge/trials.ts";
import { PURPOSES } from "@true-spine/core/findings/purposes.ts";
import { STEELS } from "@true-spine/core/steel/steels.ts";
import { useEffect, useState } from "react";
import { useBladeNames } from "../../api/blades.ts";
import { Alert } from "../../parts/Alert.tsx";
import { AngleBox, LengthBox, NumberRow } from "../../parts/Box.tsx";
import { Caution } from "../../parts/Caution.tsx";
import { Choice, Group, RecordButton, SmallButton } from "../../parts/Group.tsx";
import { newId } from "../../saving/id.ts";
import type { Draft } from "./draft.ts";
import { DAMAGE_NAMES } from "./words.ts";

/** One batch of cuts, written down: what it was, and what was found of its edge. */
export function BatchGroup({
  draft,
  setDraft,
  next,
  onKeep,
}: {
  draft: Draft;
  setDraft: (draft: Draft) => void;
  next: Next | null;
  onKeep: (batch: Batch) => string | null;
}) {
  const { data: rack } = useBladeNames();
  const [why, setWhy] = useState<string | null>(null);
  const change = (some: Partial<Draft>) => {
    setWhy(null);
    setDraft({ ...draft, ...some });
    return null;
  };
  const keep = () => {
    const { depth, ...rest } = draft;
    const batch: Batch = {
      ...rest,
      ...(rest.damage !== "none" && depth ? { depth } : {}),
      id: newId(),
      when: new Date().toISOString(),
    };
    const refused = onKeep(batch);
    setWhy(refused);
    if (!refused) setDraft({ ...draft, damage: "none", depth: undefined } as Draft);
  };
  // A blade that is no longer on the rack is no blade to try.
  useEffect(() => {
    if (draft.blade && rack && !rack.some(({ id }) => id === draft.blade)) setDraft(withoutBlade(draft));
  }, [draft, rack, setDraft]);
  const isDropped = draft.drop !== undefined;
  return (
    <Group title="The next batch">
      <Choice
        label="Blade"
        value={draft.blade ?? ""}
        options={[
          { value: "", name: "none of the rack" },
          ...(rack ?? []).map(({ id, name }) => ({ value: id, name })),
        ]}
        onChange={(id) => {
          const row = rack?.find((one) => one.id === id);
          if (!row) return setDraft(withoutBlade(draft));
          change({
            blade: row.id,
            revision: row.revision,
            ...(row.steel ? { steel: row.steel } : {}),
            ...(row.use ? { use: row.use } : {}),
          });
        }}
      />
      <NumberRow
        label="Ground anew, times"
        value={draft.edge ?? 1}
        least={1}
        most={1000}
        isWhole
        onChange={(edge) => change({ edge })}
      />
      <Choice
        label="Steel"
        value={draft.steel ?? ""}
        options={[...new Set([draft.steel ?? "", ...STEELS.map(({ name }) => name)])].map((name) => ({
          value: name,
          name: name || "not said",
        }))}
        onChange={(steel) => change({ steel })}
      />
      <NumberRow
        label="Hardness, HRC (0: not read)"
        value={draft.hrc ?? 0}
        least={0}
        most={72}
        onChange={(hrc) => setDraft(hrc >= 10 ? { ...draft, hrc } : withoutHrc(draft))}
      />
      <Choice
        label="For"
        value={draft.use ?? "field"}
        options={PURPOSES.map(({ key, name }) => ({ value: key, name }))}
        onChange={(use) => change({ use })}
      />
      <LengthBox
        label="Behind the edge, least"
        value={draft.least}
        onCommit={(least) => (least > 10 ? "10 mm at most." : change({ least }))}
      />
      <LengthBox
        label="Behind the edge, most"
        value={draft.most}
        onCommit={(most) => (most > 10 ? "10 mm at most." : change({ most }))}
      />
      <AngleBox
        label="Angle a side"
        value={draft.angle}
        onCommit={(angle) => (angle <= 0 || angle > 60 ? "Above 0, to 60°." : change({ angle }))}
      />
      <AngleBox
        label="Bevel above it (0: not known)"
        value={draft.bevel ?? 0}
        onCommit={(bevel) => {
          if (bevel > 45) return "45° at most.";
          setDraft(bevel > 0 ? { ...draft, bevel } : withoutBevel(draft));
          return null;
        }}
      />
      <Choice
        label="In"
        value={draft.material}
        options={[...new Set([...MATERIALS, draft.material])].map((name) => ({ value: name, name }))}
        onChange={(material) => change({ material })}
      />
      <NumberRow
        label="Cuts"
        value={draft.cuts}
        least={1}
        most={100_000}
        isWhole
        onChange={(cuts) => change({ cuts })}
      />
      <Choice
        label="By"
        value={isDropped ? "drop" : "force"}
        options={[
          { value: "force", name: "a push" },
          { value: "drop", name: "a drop" },
        ]}
        onChange={(how) => {
          const { force: _, drop: __, ...rest } = draft;
          setDraft(how === "drop" ? { ...rest, drop: { kg: 1, m: 0.5 } } : { ...rest, force: FORCE });
        }}
      />
      {draft.drop ? (
        <>
          <NumberRow
            label="Dropped, kg"
            value={draft.drop.kg}
            least={0.01}
            most={100}
            onChange={(kg) => change({ drop: { ...draft.drop!, kg } })}
          />
          <NumberRow
            label="From, m"
            value={draft.drop.m}
            least={0.01}
            most={10}
            onChange={(m) => change({ drop: { ...draft.drop!, m } })}
          />
        </>
      ) : (
        <NumberRow
          label="Pushed, N"
          value={draft.force ?? FORCE}
          least={1}
          most={5000}
          onChange={(force) => change({ force })}
        />
      )}
      <Choice
        label="What went"
        value={draft.damage}
        options={DAMAGES.map((value) => ({ value, name: DAMAGE_NAMES[value] }))}
        onChange={(damage) => change({ damage: damage as Damage })}
      />
      {draft.damage !== "none" && (
        <LengthBox
          label="How deep"
          value={draft.depth ?? 0}
          onCommit={(depth) => (depth > 20 ? "20 mm at most." : change({ depth }))}
        />
      )}
      {why && <Alert>{why}</Alert>}
      <RecordButton onClick={keep}>Write it down</RecordButton>
      {next && (next.do === "thinner" || next.do === "thicker" || next.do === "steeper") && (
        <SmallButton
          onClick={() =>
            change({
              ...(next.do === "steeper" ? {} : { least: next.to[0], most: next.to[1] }),
              angle: next.angle,
              edge: (draft.edge ?? 1) + 1,
            })
          }
        >
          Set it up for the next
        </SmallButton>
      )}
      <Caution>
        Eye protection and a clear space: an edge can break off, and cans cut. Blade tied to nothing.
      </Caution>
    </Group>
  );
}

function withoutBlade({ blade: _, revision: __, ...rest }: Draft): Draft {
  return rest;
}
function withoutHrc({ hrc: _, ...rest }: Draft): Draft {
  return rest;
}
function withoutBevel({ bevel: _, ...rest }: Draft): Draft {
  return rest;
}
