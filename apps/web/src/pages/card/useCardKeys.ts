import { useLayoutEffect } from "react";

/**
 * Keys that mark a step as done, and keys that only show another step. They are apart, so that looking ahead changes nothing. A foot
 * switch sends one of them. Every other key is left to the machine.
 */
const DONE = [" ", "Enter"];
const NEXT = ["PageDown", "ArrowRight"];
const BACK = ["Backspace", "PageUp", "ArrowLeft"];

/** Keys of the card, wherever the focus is: mark as done, show the next or the previous step, enter a reading. */
export function useCardKeys({
  done,
  next,
  back,
  read,
  isOff,
}: {
  done: () => void;
  next: () => void;
  back: () => void;
  read: () => void;
  isOff: boolean;
}) {
  useLayoutEffect(() => {
    if (isOff) return;
    const onKey = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey || event.repeat) return;
      const isOnControl = (event.target as HTMLElement).matches("button, a, input, select");
      // On a button they press it.
      if (isOnControl && (event.key === "Enter" || event.key === " ")) return;
      const act = actOf(event.key, { done, next, back, read });
      if (!act) return;
      event.preventDefault();
      act();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [done, next, back, read, isOff]);
}

function actOf<Act>(key: string, acts: Record<"done" | "next" | "back" | "read", Act>): Act | null {
  if (DONE.includes(key)) return acts.done;
  if (NEXT.includes(key)) return acts.next;
  if (BACK.includes(key)) return acts.back;
  return key.toLowerCase() === "r" ? acts.read : null;
}
