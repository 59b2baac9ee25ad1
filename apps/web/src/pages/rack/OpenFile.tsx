import { parseBladeText } from "@true-spine/core/blade/parse.ts";
import type { Fault } from "@true-spine/core/document/fault.ts";
import { LONGEST_FILE } from "@true-spine/core/document/read-json.ts";
import { useRef, useState } from "react";
import { useNavigate } from "react-router";
import { createBlade } from "../../api/blades.ts";
import { PlainButton, Question } from "../../parts/Dialog.tsx";

/** Opens a blade file from this machine; a file with faults is refused with every one of them. */
export function OpenFile({ onDone }: { onDone: () => void }) {
  const input = useRef<HTMLInputElement>(null);
  const navigate = useNavigate();
  const [refused, setRefused] = useState<{ name: string; faults: readonly Fault[] } | null>(null);
  const open = async (file: File) => {
    if (file.size > LONGEST_FILE * 4) {
      setRefused({ name: file.name, faults: [{ path: "$", message: "the file is too large for a blade" }] });
      return;
    }
    const parsed = parseBladeText(await file.text());
    if (!parsed.ok) {
      setRefused({ name: file.name, faults: parsed.faults });
      return;
    }
    const id = crypto.randomUUID();
    try {
      await createBlade(id, parsed.blade);
      onDone();
      navigate(`/blades/${id}/grind`);
    } catch (error) {
      const message = error instanceof Error ? error.message : "it could not be saved";
      setRefused({ name: file.name, faults: [{ path: "$", message }] });
    }
  };
  return (
    <>
      <PlainButton onClick={() => input.current?.click()}>Open a file</PlainButton>
      <input
        ref={input}
        type="file"
        accept=".json,application/json"
        aria-label="Blade file"
        tabIndex={-1}
        className="sr-only"
        onChange={(event) => {
          const file = event.currentTarget.files?.[0];
          event.currentTarget.value = "";
          if (file) void open(file);
        }}
      />
      <Question
        title="This file is not a sound blade"
        isOpen={refused !== null}
        onClose={() => setRefused(null)}
      >
        <p className="text-faint">{refused?.name} was not opened. What is wrong, and where:</p>
        <ul className="mt-3 max-h-80 overflow-auto">
          {refused?.faults.map((fault) => (
            <li key={fault.path + fault.message} className="border-t border-rule py-1.5 text-sm">
              <code className="font-semibold">{fault.path}</code> {fault.message}
            </li>
          ))}
        </ul>
        <div className="mt-4 flex justify-end">
          <PlainButton onClick={() => setRefused(null)}>Close</PlainButton>
        </div>
      </Question>
    </>
  );
}
