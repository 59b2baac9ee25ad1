import { ringPoints } from "@true-spine/core/blade/outline.ts";
import type { Blade } from "@true-spine/core/blade/schema.ts";
import { DOCUMENT_KINDS, type DocumentKind } from "@true-spine/core/registry/documents.ts";
import { showLength, showLengthWithUnit } from "@true-spine/core/units/length.ts";
import { useState } from "react";
import { useStore } from "zustand";
import { createBlade } from "../../api/blades.ts";
import { useSettings } from "../../app/settings.ts";
import { fieldOf } from "../../blade/derived.ts";
import { partName } from "../../blade/parts.ts";
import { useFile, useScreen } from "../../blade/screen.ts";
import { useNotices } from "../../parts/Notices.tsx";
import { PlainButton } from "../../parts/PlainButton.tsx";
import { Question } from "../../parts/Question.tsx";
import { SavedElsewhere } from "../../parts/SavedElsewhere.tsx";
import { pathThrough } from "../../rail/scale.ts";
import { newId } from "../../saving/id.ts";

/** Two hands on one blade: both versions are shown, and nothing is deleted before the maker has chosen. */
export function BladeConflict() {
  return (
    <>
      <FileConflict />
      {DOCUMENT_KINDS.map((kind) => (
        <DocumentConflict key={kind} kind={kind} words={partName(kind)} />
      ))}
    </>
  );
}

function DocumentConflict({ kind, words }: { kind: DocumentKind; words: string }) {
  const { savings } = useScreen();
  const saving = savings[kind];
  const theirs = useStore(saving.state, (state) => state.theirs);
  if (!theirs) return null;
  return (
    <SavedElsewhere
      title={`${words} was saved elsewhere while you worked on it`}
      onTake={() => saving.takeTheirs()}
      onKeep={() => saving.keepMine()}
    >
      Another tab or another person saved it as number {theirs.revision}. Choose which one stands.
    </SavedElsewhere>
  );
}

function FileConflict() {
  const { savings } = useScreen();
  const saving = savings.blade;
  const mine = useFile();
  const theirs = useStore(saving.state, (state) => state.theirs);
  const tell = useNotices((board) => board.tell);
  const [isBusy, setIsBusy] = useState(false);
  if (!theirs) return null;
  const takeTheirs = () => saving.takeTheirs();
  const keepBoth = async () => {
    setIsBusy(true);
    try {
      await createBlade(newId(), { ...mine, name: `${mine.name.slice(0, 105)} (my version)` });
      takeTheirs();
      tell("Your version is on the rack as a blade of its own.");
    } catch {
      tell("The copy could not be made yet: the server is away. Both versions are still here.");
    } finally {
      setIsBusy(false);
    }
  };
  return (
    <Question title="This blade was saved elsewhere while you worked on it" isOpen wide onClose={() => {}}>
      <p className="text-faint">
        Another tab or another person saved revision {theirs.revision}. Nothing is lost: choose which one
        stands. The other stays in the history, or as a blade of its own.
      </p>
      <div className="mt-4 grid grid-cols-2 gap-4">
        <Version title="On this screen" file={mine} />
        <Version title={`Saved elsewhere, revision ${theirs.revision}`} file={theirs.file} />
      </div>
      <div className="mt-5 flex justify-end gap-2">
        <PlainButton onClick={() => void keepBoth()} disabled={isBusy}>
          Keep both
        </PlainButton>
        <PlainButton onClick={takeTheirs}>Take theirs</PlainButton>
        <PlainButton kind="main" onClick={() => saving.keepMine()}>
          Keep mine
        </PlainButton>
      </div>
    </Question>
  );
}

function Version({ title, file }: { title: string; file: Blade }) {
  const unit = useSettings((settings) => settings.unit);
  const say = (rows: readonly number[]) =>
    `${rows
      .slice(0, -1)
      .map((mm) => `${showLength(mm, unit)} / `)
      .join("")}${showLengthWithUnit(rows[rows.length - 1]!, unit)}`;
  const { ring } = fieldOf(file);
  const box = `${ring.left - 4} ${-ring.top - 4} ${ring.right - ring.left + 8} ${ring.top - ring.bottom + 8}`;
  const bevel = file.bevels.right;
  return (
    <div>
      <h3 className="font-semibold">{title}</h3>
      <svg viewBox={box} className="mt-1 h-28 w-full bg-layout" role="img" aria-label={`Outline, ${title}`}>
        <path
          d={pathThrough(
            ringPoints(ring),
            (x) => x,
            (y) => -y,
            true,
          )}
          fill="var(--color-layout-steel)"
          stroke="var(--color-scribed)"
          strokeWidth={0.7}
        />
      </svg>
      <p className="mt-1 text-sm text-faint">
        {file.name}: {say(file.thickness.map((row) => row.t))} thick,{" "}
        {say(file.edge.behind.map((row) => row.t))} behind the edge, {file.edge.angle.right}° edge,{" "}
        {bevel.kind} bevel
        {bevel.kind !== "none" && bevel.set === "height" && ` ${say(bevel.height.map((row) => row.h))} up`}
      </p>
    </div>
  );
}
