import { useLayoutEffect } from "react";

/** The keys that go on and back; a foot switch sends one of them. Every other key is left to the machine. */
const ON = [" ", "Enter", "PageDown", "ArrowRight"];
const BACK = ["Backspace", "PageUp", "ArrowLeft"];

/** On, back and a reading by keys, wherever the focus is: as soon as it can be seen, and by what is drawn then. */
export function useCardKeys({
  done,
  back,
  read,
  isOff,
}: {
  done: () => void;
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
      const act = ON.includes(event.key)
        ? done
        : BACK.includes(event.key)
          ? back
          : event.key.toLowerCase() === "r"
            ? read
            : null;
      if (!act) return;
      event.preventDefault();
      act();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [done, back, read, isOff]);
}
