import { parseBlade } from "@true-spine/core/blade/parse.ts";
import { STARTING_SIZES, startingBlade } from "@true-spine/core/design/start.ts";
import { PURPOSES } from "@true-spine/core/findings/purposes.ts";
import { useState } from "react";
import { useNavigate } from "react-router";
import { createBlade } from "../../api/blades.ts";
import { LengthBox } from "../../parts/Box.tsx";
import { PlainButton, Question } from "../../parts/Dialog.tsx";
import { Choice } from "../../parts/Group.tsx";

const HANDLE = 112;
const RANGES = { length: [40, 400], height: [8, 90], stock: [0.8, 10] } as const;

/** Starts a blade from what it is for and how big: a plain drop point within its purpose's limits, to be changed. */
export function NewBlade({ isOpen, onClose }: { isOpen: boolean; onClose: () => void }) {
  const navigate = useNavigate();
  const [use, setUse] = useState("field");
  const [name, setName] = useState("");
  const [sizes, setSizes] = useState(STARTING_SIZES.field!);
  const [why, setWhy] = useState<string | null>(null);
  const size = (key: keyof typeof RANGES) => (value: number) => {
    const [least, most] = RANGES[key];
    if (value < least || value > most) return `Must be ${least} to ${most} mm.`;
    setSizes({ ...sizes, [key]: value });
    return null;
  };
  const start = async () => {
    const blade = startingBlade({ name: name.trim() || `New ${use} knife`, use, handle: HANDLE, ...sizes });
    const parsed = parseBlade(blade);
    if (!parsed.ok) {
      setWhy(`These sizes make no blade: ${parsed.faults[0]!.message}.`);
      return;
    }
    const id = crypto.randomUUID();
    try {
      await createBlade(id, parsed.blade);
      navigate(`/blades/${id}/shape`);
    } catch (error) {
      setWhy(error instanceof Error ? error.message : "The blade could not be saved.");
    }
  };
  return (
    <Question title="Start a blade" isOpen={isOpen} onClose={onClose}>
      <form
        className="flex flex-col gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          void start();
        }}
      >
        <Choice
          label="What for"
          value={use}
          options={PURPOSES.map((purpose) => ({ value: purpose.key, name: purpose.name }))}
          onChange={(next) => {
            setUse(next);
            setSizes(STARTING_SIZES[next]!);
          }}
        />
        <label className="flex items-center justify-between gap-2 text-sm text-faint">
          Name
          <input
            className="h-8 w-44 rounded border border-frame bg-sheet px-2 font-semibold text-ink"
            placeholder={`New ${use} knife`}
            maxLength={120}
            value={name}
            onChange={(event) => setName(event.currentTarget.value)}
          />
        </label>
        <LengthBox label="Blade, junction to tip" value={sizes.length} onCommit={size("length")} />
        <LengthBox label="Height at the heel" value={sizes.height} onCommit={size("height")} />
        <LengthBox label="Stock, thick" value={sizes.stock} onCommit={size("stock")} />
        <p className="text-sm text-faint">
          The edge, its angle and the taper start in the middle of what{" "}
          {PURPOSES.find((purpose) => purpose.key === use)?.name} wants. Those limits are starting values of
          our own; change them to what your shop has found.
        </p>
        {why && (
          <p role="alert" className="text-sm text-fix">
            {why}
          </p>
        )}
        <div className="mt-2 flex justify-end gap-2">
          <PlainButton onClick={onClose}>Leave it</PlainButton>
          <PlainButton kind="main" type="submit">
            Start
          </PlainButton>
        </div>
      </form>
    </Question>
  );
}
