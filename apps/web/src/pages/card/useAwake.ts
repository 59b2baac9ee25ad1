import { useEffect } from "react";

/** Keeps the screen awake while a card is shown, where the browser can; taken up again when the page comes back. */
export function useAwake(): void {
  useEffect(() => {
    let lock: { release(): Promise<void> } | null = null;
    let isGone = false;
    const take = async () => {
      if (document.visibilityState !== "visible" || !navigator.wakeLock) return;
      try {
        const taken = await navigator.wakeLock.request("screen");
        if (isGone) await taken.release();
        else lock = taken;
      } catch {
        // A battery saver may refuse: the card works all the same.
      }
    };
    void take();
    document.addEventListener("visibilitychange", take);
    return () => {
      isGone = true;
      document.removeEventListener("visibilitychange", take);
      void lock?.release();
    };
  }, []);
}
