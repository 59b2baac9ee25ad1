import {
  alike,
  changesBetween,
  demandOf,
  knownTrials,
  type LearnedLimit,
  limitFrom,
  nextOf,
  parseTrials,
  standingLimits,
} from "@true-spine/core/edge/trials.ts";
import { purposeOf } from "@true-spine/core/findings/purposes.ts";
import { type LengthUnit, showLengthWithUnit } from "@true-spine/core/units/length.ts";
import { useState } from "react";
import { useSettings } from "../../app/settings.ts";
import { SmallButton } from "../../parts/Group.tsx";
import { useTitle } from "../../parts/useTitle.ts";
import { ShopPage } from "../../shop/ShopPage.tsx";
import { ShopAwaited } from "../../shop/ShopSaved.tsx";
import { useShop } from "../../shop/shop.ts";
import { takeIn } from "../../shop/take-in.ts";
import { BatchesTable } from "./BatchesTable.tsx";
import { BatchGroup } from "./BatchGroup.tsx";
import { CompareGroup } from "./CompareGroup.tsx";
import { useDraft } from "./draft.ts";
import { MaterialsTable } from "./MaterialsTable.tsx";
import { lastEdge, nextWords } from "./words.ts";

/** Trials of edges: one change at a time, written down, and what they say of how thin and how fine the next may be. */
export function Trials() {
  useTitle("Trials");
  const { shop, put, saving, isAway } = useShop();
  const unit = useSettings((settings) => settings.unit);
  const { draft, put: setDraft } = useDraft();
  const [why, setWhy] = useState<string | null>(null);
  const own = shop.trials ?? [];
  const purpose = purposeOf(draft.use);
  // What is counted together: of the steel in hand, within a point of its hardness, done the same way.
  const mine = alike(own, draft);
  const all = alike(knownTrials(shop), draft);
  const edge = lastEdge(mine);
  const before = edge.length > 0 ? mine.at(-edge.length - 1) : undefined;
  const changes = before && edge[0] ? changesBetween(before, edge[0]) : [];
  const next = purpose ? nextOf(edge, { most: purpose.edgeAngle[1], demand: demandOf(all, "apex") }) : null;
  const ofUse = all.filter(({ use }) => use === undefined || use === draft.use);
  const offer = limitFrom(ofUse, { alpha: draft.angle, beta: draft.bevel ?? null });
  const limits = standingLimits(shop.limits ?? [], own);
  const standing = limits.findLast(({ use }) => use === draft.use) ?? null;
  const take = async (file: File) => {
    const taken = await takeIn(file, parseTrials);
    if (!taken.ok) return setWhy(taken.why);
    const known = new Set(own.map(({ id }) => id));
    setWhy(put({ ...shop, trials: [...own, ...taken.trials.batches.filter(({ id }) => !known.has(id))] }));
  };
  const putLimit = (limit: LearnedLimit | null) =>
    setWhy(
      put({
        ...shop,
        limits: [...(shop.limits ?? []).filter(({ use }) => use !== draft.use), ...(limit ? [limit] : [])],
      }),
    );
  if (!saving) return <ShopAwaited isAway={isAway} what="the trials" />;
  return (
    <ShopPage
      title="Trials"
      saving={saving}
      file={own.length > 0 ? { format: "true-spine/trials", version: 1, batches: own } : null}
      onTake={take}
      why={why}
      asideLabel="The next batch"
      aside={
        <>
          <BatchGroup
            draft={draft}
            setDraft={setDraft}
            next={next}
            onKeep={(batch) => put({ ...shop, trials: [...own, batch] })}
          />
          <CompareGroup />
        </>
      }
    >
      <section aria-label="What comes next" className="border-b border-rule pb-2">
        <p role="status" className="text-base font-semibold">
          {next ? nextWords(next, unit) : "Begin with the lightest material, at the thickest stage."}
        </p>
        <p className="text-sm text-faint">
          One change at a time; look after each material, light to hard.
          {changes.length > 1 &&
            ` The last edge differs from the one before in ${changes.join(" and ")}: two changes teach nothing, change one back.`}
        </p>
      </section>
      <MaterialsTable batches={all} />
      <section aria-label="What they allow" className="border-b border-rule py-2 text-sm">
        <h2 className="font-bold">What they allow {purpose?.name ?? "it"}</h2>
        {standing && (
          <p className="flex flex-wrap items-center gap-2" role="status">
            Moved by trials: {limitWords(standing, unit)}, {standing.evidence.length} batches,{" "}
            {standing.when.slice(0, 10)}.
            <SmallButton onClick={() => putLimit(null)}>Take it back</SmallButton>
          </p>
        )}
        {offer && purpose ? (
          <>
            <p>
              {limitWords({ angle: offer.angle ?? undefined, behind: offer.behind ?? undefined }, unit)} would
              do, by {offer.counted.n} {offer.counted.n === 1 ? "edge" : "edges"} ground anew of which{" "}
              {offer.counted.failed} failed: it may still fail {(100 * offer.counted.below).toFixed(0)} in 100
              (95 % sure). The usual is {purpose.edgeAngle[0]}° and{" "}
              {showLengthWithUnit(purpose.behind[0], unit)} at least.
            </p>
            <SmallButton
              onClick={() =>
                putLimit({
                  use: purpose.key,
                  when: new Date().toISOString(),
                  ...(offer.angle === null ? {} : { angle: round(offer.angle) }),
                  ...(offer.behind === null ? {} : { behind: round(offer.behind) }),
                  evidence: [...offer.evidence],
                })
              }
            >
              Yes, move the limit of {purpose.name}
            </SmallButton>
          </>
        ) : (
          <p className="text-faint">Nothing to move a limit by yet: sound and failed edges of this steel.</p>
        )}
      </section>
      <p className="flex items-center gap-3 py-2 text-sm text-faint">
        {shop.ownTrialsOnly
          ? "The starting rows are removed: only your own tests count."
          : "Rows marked common practice are starting rows. They were not cut in this shop and do not count as edges."}
        <SmallButton onClick={() => setWhy(put({ ...shop, ownTrialsOnly: !shop.ownTrialsOnly }))}>
          {shop.ownTrialsOnly ? "Restore the starting rows" : "Remove the starting rows"}
        </SmallButton>
      </p>
      <BatchesTable
        batches={all}
        unit={unit}
        onStrike={(id) => setWhy(put({ ...shop, trials: own.filter((one) => one.id !== id) }))}
      />
    </ShopPage>
  );
}

const round = (value: number) => Math.round(value * 1000) / 1000;

function limitWords({ angle, behind }: Partial<LearnedLimit>, unit: LengthUnit): string {
  return [
    ...(angle === undefined ? [] : [`${angle.toFixed(1)}° a side`]),
    ...(behind === undefined ? [] : [`${showLengthWithUnit(behind, unit)} behind the edge`]),
  ].join(" and ");
}
