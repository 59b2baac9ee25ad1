import { QUANTITY } from "../inspect/quantity.ts";
import { type Check, type Reading, sideWords } from "../inspect/schema.ts";
import type { DocumentState, RevisionRow } from "../registry/contract.ts";
import type { Route } from "../route/schema.ts";
import { nameOf, stageName } from "../route/stages.ts";
import { INSTRUMENT_NAMES } from "../shop/instrument.ts";
import type { Shop } from "../shop/schema.ts";
import type { WorkRow } from "../work/schema.ts";
import { atTheWork } from "./at-the-work.ts";
import type { LogEntry } from "./log-entry.ts";

export interface Happened {
  readonly revisions: readonly RevisionRow[];
  readonly documents: readonly DocumentState[];
  readonly route: Route;
  readonly check: Check;
  readonly readings: readonly Reading[];
  readonly struck: ReadonlySet<string>;
  readonly shop: Shop;
  /** Rows of the work that stand. */
  readonly work: readonly WorkRow[];
}

const DOCUMENT_WORDS: Readonly<Record<DocumentState["kind"], string>> = {
  limits: "Its limits were changed",
  handle: "The handle was changed",
  photo: "The photo under it was changed",
  photoPlace: "The photo was moved",
  route: "The route was changed",
  forge: "What is chosen at the fire was changed",
  heat: "The steel or its heats were changed",
  check: "What was decided on Check was changed",
  straight: "What is known of its build was changed",
  edge: "How its edge is kept was changed",
};

/** What happened to a blade in the order of time, newest first. Saves of one document within ten minutes are one entry. */
export function logOf({
  revisions,
  documents,
  route,
  check,
  readings,
  struck,
  shop,
  work,
}: Happened): LogEntry[] {
  const entries: LogEntry[] = [
    ...revisions.map(({ number, label, createdAt }) => ({
      when: iso(createdAt),
      kind: "revision" as const,
      words: `Revision ${number}${label ? `: ${label}` : ""}`,
    })),
    ...together(documents).map(({ kind, createdAt, times }) => ({
      when: createdAt,
      kind: kind === "photo" || kind === "photoPlace" ? ("photo" as const) : ("document" as const),
      words: `${DOCUMENT_WORDS[kind]}${times > 1 ? `, ${times} times` : ""}`,
    })),
    ...route.stages.flatMap((stage): LogEntry[] => {
      const { done, note, setup } = stage;
      const name = nameOf(stage, route.stages);
      const used = shop.setups.find(({ id }) => id === setup)?.name;
      if (!done) return [];
      return [
        { when: iso(done), kind: "stage", words: `${name} done` },
        ...(used ? [{ when: iso(done), kind: "set-up" as const, words: `${name} with the ${used}` }] : []),
        ...(note ? [{ when: iso(done), kind: "note" as const, words: `${name}: ${note}` }] : []),
      ];
    }),
    ...readings.map((one): LogEntry => {
      const { name, unit } = QUANTITY[one.what];
      const figure = unit === "mm" ? `${one.value} mm` : `${one.value}${unit === "°" ? "°" : ` ${unit}`}`;
      const where =
        one.u === undefined
          ? one.x === undefined
            ? ""
            : ` at ${one.x} mm`
          : ` at ${Math.round(one.u * 100)} % of ${one.edge ? "it" : "the edge"}`;
      const by =
        one.by === "hand"
          ? ""
          : one.by === "instrument"
            ? `, by the ${INSTRUMENT_NAMES[QUANTITY[one.what].instrument]}`
            : one.by === "card"
              ? ", on the card"
              : ", from a file";
      return {
        when: iso(one.when),
        kind: "reading",
        words: `${stageName(route, one.stage)}: ${name}${sideWords(one)}${one.side || one.edge ? "," : ""}${where} read ${figure}${by}${struck.has(one.id) ? "; struck out" : ""}${one.past ? "; past the line" : ""}${one.note ? `; ${one.note}` : ""}`,
      };
    }),
    ...work.flatMap((row) => atTheWork(row, route) ?? []),
    ...check.corrections.flatMap((one): LogEntry[] => [
      { when: iso(one.when), kind: "correction", words: `Correction: ${one.why}` },
      ...(one.done
        ? [{ when: iso(one.done), kind: "correction" as const, words: `Correction done: ${one.why}` }]
        : []),
    ]),
    ...check.accepted.map(
      ({ when, words, reason }): LogEntry => ({
        when: iso(when),
        kind: "deviation",
        words: `Accepted as it is: ${words} Reason: ${reason}`,
      }),
    ),
  ];
  return entries.sort((a, b) => b.when.localeCompare(a.when));
}

/** The database's own spelling of a time, and a card's, as one. */
const iso = (when: string) => new Date(when).toISOString();

const TOGETHER_MS = 10 * 60 * 1000;

function together(documents: readonly DocumentState[]) {
  const runs: { kind: DocumentState["kind"]; createdAt: string; times: number; last: number }[] = [];
  for (const { kind, createdAt } of documents) {
    const at = Date.parse(createdAt);
    const open = runs.findLast((run) => run.kind === kind);
    if (open && at - open.last < TOGETHER_MS) {
      open.times++;
      open.last = at;
      open.createdAt = new Date(at).toISOString();
    } else runs.push({ kind, createdAt: new Date(at).toISOString(), times: 1, last: at });
  }
  return runs;
}
