import { Menu, MenuButton, MenuItem, MenuItems } from "@headlessui/react";
import { BLADE_STATES, type BladeRow } from "@true-spine/core/registry/contract.ts";
import { EllipsisVertical } from "lucide-react";
import { useState } from "react";
import { copyBlade, deleteBlade, markBlade, readBlade, saveBlade, takeBackBlade } from "../../api/blades.ts";
import { useNotices } from "../../parts/Notices.tsx";
import { PlainButton } from "../../parts/PlainButton.tsx";
import { Question } from "../../parts/Question.tsx";
import { TextBox } from "../../parts/TextBox.tsx";
import { newId } from "../../saving/id.ts";

/** What can be done with a blade without opening it. Everything can be taken back. */
export function RowMenu({ row, onDone }: { row: BladeRow; onDone: () => void }) {
  const tell = useNotices((board) => board.tell);
  const [isRenaming, setIsRenaming] = useState(false);
  const act = async (work: () => Promise<unknown>, words: string, undo?: () => Promise<unknown>) => {
    try {
      await work();
      onDone();
      tell(words, undo && (() => void act(undo, "Taken back.")));
    } catch (error) {
      tell(
        error instanceof Error
          ? `${error.message} Nothing was changed.`
          : "That did not work; nothing was changed.",
      );
    }
  };
  const items: { name: string; run: () => void }[] = [
    { name: "Rename", run: () => setIsRenaming(true) },
    {
      name: "Copy",
      run: () => void act(() => copyBlade(row.id, newId()), `Copied ${row.name}.`),
    },
    ...BLADE_STATES.filter((state) => state !== row.state).map((state) => ({
      name: `Mark as ${state}`,
      run: () =>
        void act(
          () => markBlade(row.id, { state }),
          `${row.name} is marked as ${state}.`,
          () => markBlade(row.id, { state: row.state }),
        ),
    })),
    {
      name: row.archivedAt ? "Move to the rack" : "Archive",
      run: () =>
        void act(
          () => markBlade(row.id, { archived: !row.archivedAt }),
          row.archivedAt ? `${row.name} is back on the rack.` : `Archived ${row.name}.`,
          () => markBlade(row.id, { archived: !!row.archivedAt }),
        ),
    },
    {
      name: "Delete",
      run: () =>
        void act(
          () => deleteBlade(row.id),
          `Deleted ${row.name}. It can be taken back for 30 days.`,
          () => takeBackBlade(row.id),
        ),
    },
  ];
  return (
    <>
      <Menu>
        <MenuButton
          aria-label={`More for ${row.name}`}
          className="flex w-10 items-center justify-center rounded-r-md hover:bg-room"
        >
          <EllipsisVertical className="size-5" aria-hidden />
        </MenuButton>
        <MenuItems
          anchor="bottom end"
          className="z-30 w-48 rounded-md border border-rule bg-sheet py-1 shadow-lg focus:outline-none"
        >
          {items.map(({ name, run }) => (
            <MenuItem key={name}>
              <button
                type="button"
                onClick={run}
                className="block w-full px-3 py-2 text-left data-focus:bg-deep data-focus:text-on-deep"
              >
                {name}
              </button>
            </MenuItem>
          ))}
        </MenuItems>
      </Menu>
      <Rename
        row={row}
        isOpen={isRenaming}
        onClose={() => setIsRenaming(false)}
        onName={(name) => {
          setIsRenaming(false);
          void act(
            () => rename(row.id, name),
            `Renamed to ${name}.`,
            () => rename(row.id, row.name),
          );
        }}
      />
    </>
  );
}

async function rename(id: string, name: string): Promise<void> {
  const { file, revision } = await readBlade(id);
  await saveBlade(id, {
    file: { ...file, name },
    base: revision,
    saveKey: newId(),
    label: `named ${name}`.slice(0, 120),
  });
}

function Rename({
  row,
  isOpen,
  onClose,
  onName,
}: {
  row: BladeRow;
  isOpen: boolean;
  onClose: () => void;
  onName: (name: string) => void;
}) {
  const [name, setName] = useState(row.name);
  const why =
    name.trim() === ""
      ? "A blade needs a name."
      : name.length > 120
        ? "A name may be 120 characters long."
        : null;
  return (
    <Question title={`Rename ${row.name}`} isOpen={isOpen} onClose={onClose}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          if (!why) onName(name.trim());
        }}
      >
        <TextBox
          label="New name"
          labelled="above"
          size="usual"
          autoFocus
          text={name}
          why={why}
          onText={setName}
        />
        <div className="mt-5 flex justify-end gap-2">
          <PlainButton onClick={onClose}>Cancel</PlainButton>
          <PlainButton kind="main" type="submit" disabled={why !== null}>
            Rename
          </PlainButton>
        </div>
      </form>
    </Question>
  );
}
