import { useEffect, useRef, useState } from "react";
import { useNotices } from "./Notices.tsx";

/**
 * Takes what is pressed once it is known of things as they stand: an offer that was worked out a moment ago knows nothing of what was
 * changed since, and would put it back. `offers` are those on show, by name; while `isOld` they are of how things stood. What was pressed and is
 * then not offered any more is told, and so is what was still waited for when its page was left.
 */
export function useTakenOnceKnown<Offer>(
  offers: ReadonlyMap<string, Offer>,
  isOld: boolean,
  onTake: (offer: Offer) => void,
): { press(name: string): void; waiting: string | null } {
  const [waiting, setWaiting] = useState<string | null>(null);
  const take = (name: string) => {
    const offer = offers.get(name);
    if (offer !== undefined) onTake(offer);
    else useNotices.getState().tell("As things stand now that is not offered any more: look again.");
  };
  const left = useRef<string | null>(null);
  left.current = waiting;
  useEffect(() => {
    if (waiting === null || isOld) return;
    setWaiting(null);
    // What is taken may take its own button away with it.
    left.current = null;
    take(waiting);
  });
  useEffect(
    () => () => {
      if (left.current !== null)
        useNotices
          .getState()
          .tell("What was pressed last was not done: its page was left before it was worked out.");
    },
    [],
  );
  return { press: (name) => (isOld ? setWaiting(name) : take(name)), waiting };
}
