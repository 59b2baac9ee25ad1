import { useState } from "react";
import { useBladeNames } from "../../api/blades.ts";
import { SmallButton } from "../../parts/Group.tsx";
import { PlainButton } from "../../parts/PlainButton.tsx";
import { Question } from "../../parts/Question.tsx";
import { SearchBox } from "../../parts/SearchBox.tsx";

/** Which blades a run is made of, in the order they were made. */
export function PickBlades({
  picked,
  onKeep,
  onClose,
}: {
  picked: readonly string[];
  onKeep: (blades: string[]) => void;
  onClose: () => void;
}) {
  const [search, setSearch] = useState("");
  const { data } = useBladeNames();
  const { data: archived } = useBladeNames(true);
  const [blades, setBlades] = useState<readonly string[]>(picked);
  const rows = (data ?? []).filter(({ name }) => name.toLowerCase().includes(search.toLowerCase()));
  const nameOf = (id: string) => {
    const known = data?.find((row) => row.id === id)?.name;
    if (known) return known;
    const put = archived?.find((row) => row.id === id)?.name;
    if (put) return `${put} (archived)`;
    return data && archived ? "a deleted blade" : "…";
  };
  const free = rows.filter(({ id }) => !blades.includes(id));
  const move = (i: number, by: 1 | -1) => {
    const next = [...blades];
    const [one] = next.splice(i, 1);
    next.splice(i + by, 0, one!);
    setBlades(next);
  };
  return (
    <Question title="Blades of the run" isOpen onClose={onClose} wide>
      <div className="grid grid-cols-2 gap-5">
        <div>
          <SearchBox label="Search by name" placeholder="name" text={search} onText={setSearch} />
          <ul aria-label="On the rack" className="mt-2 max-h-72 overflow-y-auto">
            {free.map(({ id, name }) => (
              <li key={id} className="flex items-center gap-2 border-b border-rule py-1 text-sm">
                <span className="min-w-0 flex-1 truncate">{name}</span>
                <SmallButton label={`Add ${name}`} onClick={() => setBlades([...blades, id])}>
                  Add
                </SmallButton>
              </li>
            ))}
          </ul>
          {free.length > 1 && (
            <div className="mt-2">
              {/* The rack shows the newest first; a run goes from the first made to the last. */}
              <SmallButton onClick={() => setBlades([...blades, ...free.map(({ id }) => id).reverse()])}>
                Add all {free.length} shown
              </SmallButton>
            </div>
          )}
        </div>
        <div>
          <p className="h-8 text-sm font-semibold">In the order they were made: {blades.length}</p>
          <ol aria-label="Of the run" className="mt-2 max-h-80 overflow-y-auto">
            {blades.map((id, i) => (
              <li key={id} className="flex items-center gap-1 border-b border-rule py-1 text-sm">
                <span className="min-w-0 flex-1 truncate">
                  {i + 1}. {nameOf(id)}
                </span>
                {i > 0 && (
                  <SmallButton label={`${nameOf(id)} earlier`} onClick={() => move(i, -1)}>
                    ↑
                  </SmallButton>
                )}
                {i < blades.length - 1 && (
                  <SmallButton label={`${nameOf(id)} later`} onClick={() => move(i, 1)}>
                    ↓
                  </SmallButton>
                )}
                <SmallButton
                  label={`Remove ${nameOf(id)}`}
                  onClick={() => setBlades(blades.filter((one) => one !== id))}
                >
                  Remove
                </SmallButton>
              </li>
            ))}
          </ol>
        </div>
      </div>
      <div className="mt-5 flex justify-end gap-2">
        <PlainButton onClick={onClose}>Cancel</PlainButton>
        <PlainButton kind="main" onClick={() => onKeep([...blades])}>
          Keep these {blades.length}
        </PlainButton>
      </div>
    </Question>
  );
}
