import type { Blade } from "@true-spine/core/blade/schema.ts";
import { useStore } from "zustand";
import { createBlade } from "../../api/blades.ts";
import { partName } from "../../blade/parts.ts";
import { useFilePart, useScreen } from "../../blade/screen.ts";
import { useNotices } from "../../parts/Notices.tsx";
import { whenInWords } from "../../parts/when.ts";
import { forgetDrafts, type LeftWork as Work } from "../../saving/drafts.ts";
import { newId } from "../../saving/id.ts";
import { LeftWorkDialog } from "../../saving/LeftWorkDialog.tsx";

/** What closed tabs left unsaved of this blade. */
export function LeftWork() {
  const { id, left, partOf, isSound, takeUp, trouble } = useScreen();
  const name = useFilePart((file) => file.name);
  const works = useStore(left, (state) => state.works);
  const isBusy = useStore(trouble, ({ status }) => status !== "saved");
  const bladeIn = ({ drafts }: Work) => drafts.find(({ what }) => what === id);
  const keepApart = async (work: Work) => {
    const { latest } = bladeIn(work)!.draft as { latest: Blade };
    const as = `${latest.name.slice(0, 90)} (unsaved, ${whenInWords(work.at)})`;
    await createBlade(newId(), { ...latest, name: as });
    await forgetDrafts(work.drafts);
    useNotices.getState().tell(`It is on the rack as ${as}.`);
  };
  return (
    <LeftWorkDialog
      works={works}
      name={name}
      partName={(what) => partName(partOf(what)).toLowerCase()}
      isSound={isSound}
      isBusy={isBusy}
      onOpen={takeUp}
      {...(works.every(bladeIn) ? { onKeepApart: keepApart } : {})}
      onGone={(gone) => left.setState({ works: works.filter((work) => work !== gone) })}
    />
  );
}
