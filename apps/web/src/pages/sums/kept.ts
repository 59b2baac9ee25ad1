import { create } from "zustand";
import { persist } from "zustand/middleware";

/** What is typed into a sum's boxes, as it was typed. */
export type Typed = Readonly<Record<string, string>>;

/** A question that was answered on this device. */
export interface Asked {
  readonly sum: string;
  readonly typed: Typed;
  /** Its answer in a line, in the unit it was read in. */
  readonly said: string;
  readonly at: number;
}

/** How many are kept. */
const KEPT = 20;
/** Changes of one question within so long are one question, ms. */
const SAME_MS = 60_000;

interface KeptSums {
  readonly typed: Readonly<Record<string, Typed>>;
  /** Ids of instruments by what they read. */
  readonly readWith: Readonly<Record<string, string>>;
  readonly asked: readonly Asked[];
  type(sum: string, typed: Typed): void;
  read(as: string, instrument: string): void;
  keep(asked: Asked): void;
}

/** Sums as this browser keeps them: what stands in the boxes, and the last questions that were answered. */
export const useSums = create<KeptSums>()(
  persist(
    (set) => ({
      typed: {},
      readWith: {},
      asked: [],
      type: (sum, typed) => set((was) => ({ typed: { ...was.typed, [sum]: typed } })),
      read: (as, instrument) => set((was) => ({ readWith: { ...was.readWith, [as]: instrument } })),
      keep: (asked) =>
        set((was) => {
          const [last, ...before] = was.asked;
          const isSame = last?.sum === asked.sum && asked.at - last.at < SAME_MS;
          const others = (isSame ? before : was.asked).filter(
            (one) => one.sum !== asked.sum || JSON.stringify(one.typed) !== JSON.stringify(asked.typed),
          );
          return { asked: [asked, ...others].slice(0, KEPT) };
        }),
    }),
    {
      name: "true-spine-sums",
      partialize: ({ typed, readWith, asked }) => ({ typed, readWith, asked }),
    },
  ),
);
