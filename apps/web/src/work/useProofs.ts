import type { FileProof } from "@true-spine/core/heat/schema.ts";
import { proofsAt } from "@true-spine/core/work/joined.ts";
import { useWorkRows } from "./useWorkRows.ts";

/** What a file does on steel, in a word. */
export const SAW_NAMES: Readonly<Record<FileProof["saw"], string>> = {
  skates: "skates",
  bites: "bites",
  mixed: "half and half",
};

/** What a file last said of a place after one heat; undefined where none was tried. */
export function useProofs(op: string): (place: FileProof["place"]) => FileProof["saw"] | undefined {
  const proofs = proofsAt(useWorkRows()).filter(
    (one): one is FileProof => one.what === "file" && one.after === op,
  );
  return (place) => proofs.findLast((one) => one.place === place)?.saw;
}
