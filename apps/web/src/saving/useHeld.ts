import { useEffect, useState } from "react";
import { Refused } from "../api/client.ts";
import type { Kept } from "./held.ts";

const RETRY_MS = 1500;

/**
 * Holds something open while a page shows it. Without an answer of the server it is tried again by itself; `trouble` says so, or what
 * the server said instead.
 */
export function useHeld<T extends Kept>(
  hold: (id: string) => Promise<{ kept: T; release(): void }>,
  id: string,
): { kept: T | null; trouble: "away" | Refused | null } {
  const [kept, setKept] = useState<T | null>(null);
  const [trouble, setTrouble] = useState<"away" | Refused | null>(null);
  useEffect(() => {
    let isGone = false;
    let leave = () => {};
    let timer: ReturnType<typeof setTimeout>;
    const load = async () => {
      try {
        const held = await hold(id);
        if (isGone) {
          held.release();
          return;
        }
        leave = held.release;
        setTrouble(null);
        setKept(held.kept);
      } catch (error) {
        if (isGone) return;
        setTrouble(error instanceof Refused ? error : "away");
        if (!(error instanceof Refused)) timer = setTimeout(load, RETRY_MS);
      }
    };
    void load();
    return () => {
      isGone = true;
      clearTimeout(timer);
      leave();
    };
  }, [hold, id]);
  return { kept, trouble };
}
