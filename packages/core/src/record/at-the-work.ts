import type { Route } from "../route/schema.ts";
import { stageName } from "../route/stages.ts";
import type { WorkRow } from "../work/schema.ts";
import type { LogEntry } from "./log-entry.ts";

const MOMENTS = { began: "into the heat", through: "warm through", ended: "out of it" } as const;
const SHARPENED = { touch: "touched up", full: "sharpened", repair: "repaired" } as const;
const SAW = { skates: "a file skates", bites: "a file bites", mixed: "a file half bites" } as const;

/** A row of the work as the log tells of it; null for what the log has from elsewhere: ticks, notes, clocks, passes. */
export function atTheWork(row: WorkRow, route: Pick<Route, "stages">): LogEntry | null {
  const told = words(row);
  if (!told) return null;
  return {
    when: new Date(row.when).toISOString(),
    ...told,
    words: `${stageName(route, row.stage)}: ${told.words}`,
  };
}

function words(row: WorkRow): Pick<LogEntry, "kind" | "words"> | null {
  switch (row.what) {
    case "run": {
      const T = row.T === undefined ? "" : `, ${Math.round(row.T)} °C`;
      return { kind: "stage", words: `${MOMENTS[row.moment]}${T}` };
    }
    case "proof":
      return { kind: "reading", words: `${SAW[row.saw]} at the ${row.place}` };
    case "coupon":
      return { kind: "reading", words: `coupon at ${Math.round(row.T)} °C, ${SAW[row.saw]}` };
    case "snap":
      return { kind: "reading", words: `coupon at ${Math.round(row.T)} °C, ${row.grain} grain` };
    case "skin":
      return { kind: "reading", words: `skin found ${row.mm} mm deep` };
    case "set":
      return {
        kind: "reading",
        words: `${row.rows.length} ${row.rows.length === 1 ? "place" : "places"} read along it, ${row.face} face up`,
      };
    case "blow":
      return {
        kind: "correction",
        words: `struck ${row.count === 1 ? "once" : `${row.count} times`} at ${Math.round((row.from[0]! + row.to[0]!) / 2)} mm, ${row.face} face up`,
      };
    case "sharpened":
      return { kind: "stage", words: sharpenedWords(row) };
    default:
      return null;
  }
}

function sharpenedWords({ kind, edge, damage, height }: Extract<WorkRow, { what: "sharpened" }>): string {
  const which = edge === "second" ? ", second edge" : "";
  const deep = damage === undefined ? "" : `, damage ${damage} mm deep`;
  const high = height?.length ? `, ${height.map(({ h }) => `${h} mm`).join(", ")} high after it` : "";
  return `${SHARPENED[kind]}${which}${deep}${high}`;
}
