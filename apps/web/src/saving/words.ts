import type { SaveStatus } from "./saving.ts";

/** What a save's status is called, wherever it is shown. */
const SAVE_WORDS: Readonly<Record<SaveStatus, string>> = {
  saved: "saved",
  unsaved: "not saved yet",
  saving: "saving …",
  away: "server away: kept here, trying again",
  conflict: "saved elsewhere too: choose",
  refused: "not saved",
};

/** The same, with what this browser could not keep: then only this page has it. */
export function saveWords(status: SaveStatus, isKept: boolean): string {
  if (status === "away" && !isKept) {
    return "server away, and this browser has no room: keep this page open, trying again";
  }
  return SAVE_WORDS[status];
}
