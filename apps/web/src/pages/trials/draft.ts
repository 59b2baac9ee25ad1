import { type Batch, CUTS, FORCE, MATERIALS, STAGES } from "@true-spine/core/edge/trials.ts";
import { create } from "zustand";
import { persist } from "zustand/middleware";

/** What is typed for the next batch. */
export type Draft = Omit<Batch, "id" | "when">;

const FIRST: Draft = {
  material: MATERIALS[2],
  cuts: CUTS,
  force: FORCE,
  least: STAGES[0]![0],
  most: STAGES[0]![1],
  angle: 10,
  edge: 1,
  steel: "1084",
  use: "field",
  damage: "none",
};

interface KeptDraft {
  readonly draft: Draft;
  put(draft: Draft): void;
}

/** The next batch as this browser keeps it until it is written down, whatever page is opened meanwhile. */
export const useDraft = create<KeptDraft>()(
  persist((set) => ({ draft: FIRST, put: (draft) => set({ draft }) }), {
    name: "true-spine-trial",
    partialize: ({ draft }) => ({ draft }),
  }),
);
export const forgetDraft = () => useDraft.setState({ draft: FIRST });
