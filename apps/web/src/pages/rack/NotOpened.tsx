import type { Fault } from "@true-spine/core/document/fault.ts";
import { PlainButton } from "../../parts/PlainButton.tsx";
import { Question } from "../../parts/Question.tsx";

/** Why a file was not opened: what is wrong with it, and where. */
export function NotOpened({
  name,
  faults,
  onClose,
}: {
  name: string;
  faults: readonly Fault[];
  onClose: () => void;
}) {
  return (
    <Question title="This file was not opened" isOpen onClose={onClose}>
      <p className="text-faint">{name} was not opened. What is wrong, and where:</p>
      <ul className="mt-3 max-h-80 overflow-auto">
        {faults.map((fault) => (
          <li key={fault.path + fault.message} className="border-t border-rule py-1.5 text-sm">
            {fault.path !== "$" && <code className="font-semibold">{fault.path}</code>} {fault.message}
          </li>
        ))}
      </ul>
      <div className="mt-4 flex justify-end">
        <PlainButton onClick={onClose}>Close</PlainButton>
      </div>
    </Question>
  );
}
