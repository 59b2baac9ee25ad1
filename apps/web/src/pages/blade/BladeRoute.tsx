import { useQueryClient } from "@tanstack/react-query";
import type { BladeWithFile } from "@true-spine/core/contract.ts";
import { type ReactNode, useEffect, useState } from "react";
import { Link, useParams } from "react-router";
import { createStore } from "zustand";
import { Refused } from "../../api/client.ts";
import { BladeProvider, type BladeScreen, type JudgedState, type RailState } from "../../blade/context.ts";
import { type Record as BladeRecord, openRecord } from "../../blade/record.ts";
import { useNotices } from "../../parts/Notices.tsx";
import { BladeScreenView } from "./BladeScreenView.tsx";

const RETRY_MS = 1500;

/** Opens a blade: from the server, or from what this browser still owes it. */
export function BladeRoute() {
  const { id = "" } = useParams();
  return <WithBlade key={id} id={id} view={(row) => <BladeScreenView row={row} />} />;
}

type Opened = { screen: BladeScreen; row: BladeWithFile };

/** Whatever shows an open blade, once it is. */
export function WithBlade({ id, view }: { id: string; view: (row: BladeWithFile) => ReactNode }) {
  const [opened, setOpened] = useState<Opened | null>(null);
  const [trouble, setTrouble] = useState<"away" | "missing" | null>(null);
  const queries = useQueryClient();
  useEffect(() => {
    let isGone = false;
    let stop = () => {};
    let timer: ReturnType<typeof setTimeout>;
    const load = async () => {
      try {
        const record = await openRecord(id, () => void queries.invalidateQueries({ queryKey: ["blades"] }));
        if (isGone) {
          record.stop();
          return;
        }
        stop = record.stop;
        if (record.isBroughtBack)
          useNotices.getState().tell("Brought back what was not saved when this blade was last open here.");
        setTrouble(null);
        setOpened({ screen: screenOf(id, record), row: record.row });
      } catch (error) {
        if (isGone) return;
        const isMissing = error instanceof Refused && error.status === 404;
        setTrouble(isMissing ? "missing" : "away");
        if (!isMissing) timer = setTimeout(load, RETRY_MS);
      }
    };
    void load();
    return () => {
      isGone = true;
      clearTimeout(timer);
      stop();
    };
  }, [id, queries]);

  if (opened) {
    return <BladeProvider value={opened.screen}>{view(opened.row)}</BladeProvider>;
  }
  return (
    <div className="p-10">
      {trouble === null && <p className="text-faint">Fetching the blade …</p>}
      {trouble === "away" && (
        <p role="alert">The server does not answer. Trying again by itself; nothing is lost.</p>
      )}
      {trouble === "missing" && (
        <div role="alert">
          <p>There is no such blade on the rack. It may have been thrown away.</p>
          <Link to="/" className="mt-4 inline-block rounded bg-deep px-4 py-2 font-semibold text-on-deep">
            To the rack
          </Link>
        </div>
      )}
    </div>
  );
}

/** The screen around an open record: where the scribe stands, what is shown, what was found. */
function screenOf(id: string, { open, savings, readings }: BladeRecord): BladeScreen {
  const { spine } = open.store.getState().file.outline;
  const tip = spine[spine.length - 1]!.at[0];
  const rail = createStore<RailState>()(() => ({
    scribe: Math.round(tip * 0.4),
    fit: "blade",
    view: null,
    pointer: 0,
    ghost: null,
    panel: null,
    node: null,
    isTrayOpen: false,
    sides: "apart",
    isOtherPullShown: false,
    isLayingPhoto: false,
    isSolidOpen: false,
  }));
  const judging = createStore<JudgedState>()(() => ({ judged: null }));
  return { id, open, savings, readings, rail, judging };
}
