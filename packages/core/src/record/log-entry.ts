/** Everything that happened to a blade, by kind. */
export const LOG_KINDS = [
  "revision",
  "stage",
  "set-up",
  "reading",
  "correction",
  "deviation",
  "note",
  "photo",
  "document",
] as const;
export type LogKind = (typeof LOG_KINDS)[number];

export interface LogEntry {
  readonly when: string;
  readonly kind: LogKind;
  readonly words: string;
}
