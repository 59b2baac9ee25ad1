import type { ReactNode } from "react";
import { PlainButton } from "./PlainButton.tsx";
import { Question } from "./Question.tsx";

/** Two hands on one thing: nothing is thrown away before somebody has chosen which one stands. */
export function SavedElsewhere({
  title,
  children,
  onTake,
  onKeep,
}: {
  title: string;
  children: ReactNode;
  onTake: () => void;
  onKeep: () => void;
}) {
  return (
    <Question title={title} isOpen onClose={() => {}}>
      <p className="text-faint">{children}</p>
      <div className="mt-5 flex justify-end gap-2">
        <PlainButton onClick={onTake}>Take theirs</PlainButton>
        <PlainButton kind="main" onClick={onKeep}>
          Keep mine
        </PlainButton>
      </div>
    </Question>
  );
}
