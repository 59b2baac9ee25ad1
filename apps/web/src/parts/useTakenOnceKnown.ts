import { useEffect, useState } from "react";
import { useNotices } from "./Notices.tsx";

/**
 * Takes what is pressed once it is known of things as they stand: an offer that was worked out a moment ago knows nothing of what was
 * changed since, and would put it back. `offers` are those on show, by name; while `isOld` they are of how things stood. What was pressed and is
 * then not offered any more is told.
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
  useEffect(() => {
    if (waiting === null || isOld) return;
    setWaiting(null);
    take(waiting);
  });
  return { press: (name) => (isOld ? setWaiting(name) : take(name)), waiting };
}
