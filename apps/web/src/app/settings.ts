import type { LengthUnit } from "@true-spine/core/units/length.ts";
import { create } from "zustand";
import { persist } from "zustand/middleware";

export type Theme = "light" | "dark";

interface Settings {
  unit: LengthUnit;
  theme: Theme;
  hand: "right" | "left";
  /** Whether single letters do things: whoever speaks to the machine, or leans on it, may switch that off. */
  letterKeys: boolean;
  setHand(hand: "right" | "left"): void;
  setLetterKeys(letterKeys: boolean): void;
  /** Hints that were put away. */
  seen: readonly string[];
  see(hint: string): void;
  setUnit(unit: LengthUnit): void;
  setTheme(theme: Theme): void;
}

/** How this browser shows things. Nothing about a blade is kept here. */
export const useSettings = create<Settings>()(
  persist(
    (set) => ({
      unit: "mm",
      theme: "light",
      hand: "right",
      letterKeys: true,
      setHand: (hand) => set({ hand }),
      setLetterKeys: (letterKeys) => set({ letterKeys }),
      seen: [],
      see: (hint) => set(({ seen }) => ({ seen: [...seen, hint] })),
      setUnit: (unit) => set({ unit }),
      setTheme: (theme) => set({ theme }),
    }),
    { name: "true-spine-settings" },
  ),
);
