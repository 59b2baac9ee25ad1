import { abrasiveName } from "@true-spine/core/abrasive/schema.ts";
import type { RouteReport } from "@true-spine/core/route/report.ts";
import type { Route } from "@true-spine/core/route/schema.ts";
import { nameOf, STAGES } from "@true-spine/core/route/stages.ts";
import { csvOf } from "./csv.ts";

/** A route's figures as CSV: a line for each stage and place, lengths mm, angles degrees a side. */
export function writeRouteCsv(route: Route, report: RouteReport): string {
  const n = (value: number | null, digits = 3) => (value === null ? "" : Number(value.toFixed(digits)));
  const rows = report.stages.flatMap((stage, i) =>
    stage.targets.map((reading, k) => ({
      stage: stage.name,
      done: route.stages[i]?.done ?? "",
      place: reading.place,
      "x (mm)": n(reading.x),
      "flats (mm)": n(reading.flats),
      "edge (mm)": n(reading.edge),
      "works on": stage.work.on,
      "stop at (mm)": n(stage.work.stop[k]!),
      "line left (mm)": n(stage.work.line.left[k]!),
      "line right (mm)": n(stage.work.line.right[k]!),
      "angle left (°)": n(stage.work.angle.left[k]!),
      "angle right (°)": n(stage.work.angle.right[k]!),
      "still on left face (mm)": n(stage.left.faces.left),
      "still on right face (mm)": n(stage.left.faces.right),
      "still on flats (mm)": n(stage.left.flats),
      belts: stage.belts?.planned.ok
        ? stage.belts.planned.sequence.steps.map(({ belt }) => abrasiveName(belt)).join(" > ")
        : "",
      "takes (min)": n(stage.minutes, 1),
    })),
  );
  return csvOf(rows);
}

/**
 * The stages that a day was set for, as a calendar file of whole days. Source of the layout: RFC 5545, with lines folded
 * at 75 octets and commas, semicolons and line ends escaped. `stamp` is when it is written; `minutes`, by a stage's id, what a heat takes
 * with warming and cooling.
 */
export function writeCalendar(
  name: string,
  id: string,
  route: Route,
  stamp: Date,
  minutes: ReadonlyMap<string, number> = new Map(),
): string {
  const when = stamp.toISOString().replace(/[-:]|\.\d+/g, "");
  const events = route.stages.flatMap((one) => {
    const { id: stageId, kind, planned, note } = one;
    if (!planned) return [];
    const day = planned.replaceAll("-", "");
    const stage = nameOf(one, route.stages);
    const { words } = STAGES[kind];
    const takes = minutes.get(stageId ?? "");
    const told = [words, takes && `About ${inHours(takes)}, warming and cooling with it.`, note];
    return [
      "BEGIN:VEVENT",
      `UID:${id}-${stageId}@true-spine`,
      `DTSTAMP:${when}`,
      `DTSTART;VALUE=DATE:${day}`,
      `SUMMARY:${escaped(`${name}: ${stage}`)}`,
      `DESCRIPTION:${escaped(told.filter(Boolean).join(" "))}`,
      "END:VEVENT",
    ];
  });
  const lines = [
    "BEGIN:VCALENDAR",
    "VERSION:2.0",
    "PRODID:-//True Spine//route//EN",
    ...events,
    "END:VCALENDAR",
  ];
  return `${lines.flatMap(folded).join("\r\n")}\r\n`;
}

/** Minutes as a day is planned by: rounded up to five. */
function inHours(minutes: number): string {
  const all = 5 * Math.ceil(minutes / 5);
  const [hours, rest] = [Math.floor(all / 60), all % 60];
  return [hours > 0 && `${hours} h`, (rest > 0 || hours === 0) && `${rest} min`].filter(Boolean).join(" ");
}

const escaped = (text: string) => text.replace(/[\\;,]/g, (sign) => `\\${sign}`).replace(/\r?\n/g, "\\n");

const OCTETS = 75;

/** A content line in pieces of at most 75 octets, each after the first begun with a space. */
function folded(line: string): string[] {
  const pieces: string[] = [];
  let piece = "";
  for (const sign of line) {
    if (new TextEncoder().encode(piece + sign).length > OCTETS) {
      pieces.push(piece);
      piece = " ";
    }
    piece += sign;
  }
  return [...pieces, piece];
}
