/** How long what was deleted is listed, to be taken back. */
export const KEPT_FOR = "30 days";
