import type { Correction } from "@true-spine/core/inspect/correct.ts";
import type { OpenBlade } from "../blade/store.ts";
import { newId } from "../saving/id.ts";

/** Puts corrections on the route of a stage as steps to do, as one step of the undo. */
export function putCorrections(open: OpenBlade, stage: string, corrections: readonly Correction[]): void {
  const now = open.store.getState().check;
  const when = new Date().toISOString();
  open.end();
  open.put({
    check: {
      ...now,
      corrections: [
        ...now.corrections,
        ...corrections.map((one) => ({
          id: newId(),
          when,
          stage,
          side: one.side,
          ...(one.edge ? { edge: one.edge } : {}),
          from: one.from,
          to: one.to,
          off: one.off.map(({ x, t }) => ({ x, t })),
          passes: one.passes,
          ...(one.belt ? { belt: one.belt } : {}),
          why: inWords(one),
        })),
      ],
    },
  });
}

const inWords = ({ side, edge, from, to, most, passes, belt, why }: Correction) =>
  `${side === "left" ? "Left" : "Right"} face${edge ? " of the second edge" : ""} from ${from} to ${to} mm, ${REASON[why]}: ${most.toFixed(2)} mm off at its most, about ${passes} passes${belt ? ` with ${belt}` : ""}.`;

const REASON = { thick: "proud of its line", centre: "to bring the edge to the centre" } as const;

/** Takes corrections off the route again. */
export function dropCorrections(open: OpenBlade, ids: readonly string[]): void {
  const now = open.store.getState().check;
  open.end();
  open.put({
    check: { ...now, corrections: now.corrections.filter(({ id }) => !ids.includes(id)) },
  });
}
