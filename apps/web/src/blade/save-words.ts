import type { SaveStatus } from "./saving.ts";

/** What a save's status is called, wherever it is shown. */
export const SAVE_WORDS: Readonly<Record<SaveStatus, string>> = {
  saved: "saved",
  unsaved: "not saved yet",
  saving: "saving …",
  away: "server away: kept here, trying again",
  conflict: "saved elsewhere too: choose",
  refused: "not saved",
};
