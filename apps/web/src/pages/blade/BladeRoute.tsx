import { useQueryClient } from "@tanstack/react-query";
import type { Blade } from "@true-spine/core/blade/schema.ts";
import type { BladeWithFile } from "@true-spine/core/contract.ts";
import { useEffect, useState } from "react";
import { Link, useParams } from "react-router";
import { createStore } from "zustand";
import { readBlade } from "../../api/blades.ts";
import { Refused } from "../../api/client.ts";
import { BladeProvider, type BladeScreen, type JudgedState, type RailState } from "../../blade/context.ts";
import { takeDraftPlace } from "../../blade/drafts.ts";
import { startSaving } from "../../blade/saving.ts";
import { openBlade } from "../../blade/store.ts";
import { useNotices } from "../../parts/Notices.tsx";
import { BladeScreenView } from "./BladeScreenView.tsx";

const RETRY_MS = 1500;

/** Opens a blade: from the server, or from what this browser still owes it. */
export function BladeRoute() {
  const { id = "" } = useParams();
  return <Opening key={id} id={id} />;
}

type Opened = { screen: BladeScreen; row: BladeWithFile };

function Opening({ id }: { id: string }) {
  const [opened, setOpened] = useState<Opened | null>(null);
  const [trouble, setTrouble] = useState<"away" | "missing" | null>(null);
  const queries = useQueryClient();
  useEffect(() => {
    let isGone = false;
    let stop = () => {};
    let timer: ReturnType<typeof setTimeout>;
    const load = async () => {
      try {
        const row = await readBlade(id);
        const { place, left } = await takeDraftPlace(id);
        if (isGone) return;
        const result = assemble(
          id,
          row,
          place,
          left,
          () => void queries.invalidateQueries({ queryKey: ["blades"] }),
        );
        stop = result.stop;
        if (left)
          useNotices.getState().tell("Brought back what was not saved when this blade was last open here.");
        setTrouble(null);
        setOpened({ screen: result.screen, row });
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
    return (
      <BladeProvider value={opened.screen}>
        <BladeScreenView row={opened.row} />
      </BladeProvider>
    );
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

function assemble(
  id: string,
  row: BladeWithFile,
  place: Parameters<typeof startSaving>[2],
  left: Parameters<typeof startSaving>[3],
  onSaved: () => void,
): { screen: BladeScreen; stop: () => void } {
  const file: Blade = left?.latest ?? row.file;
  const open = openBlade(file);
  const channel = new BroadcastChannel(`true-spine:${id}`);
  const saving = startSaving(id, row.revision, place, left, (revision) => {
    channel.postMessage(revision);
    onSaved();
  });
  let fromElsewhere: Blade | null = null;
  const unsubscribe = open.store.subscribe((state, before) => {
    if (state.file !== before.file && state.file !== fromElsewhere) saving.changed(state.file);
  });
  // Another tab has saved: with nothing unsaved here, follow it; otherwise the next save will say so.
  channel.onmessage = async () => {
    if (saving.state.getState().status !== "saved") return;
    try {
      const fresh = await readBlade(id);
      if (saving.state.getState().status !== "saved") return;
      fromElsewhere = fresh.file;
      open.store.setState({ file: fresh.file });
      saving.follow(fresh.revision);
    } catch {
      // The server is away: the next save finds out.
    }
  };
  const tip = file.outline.spine[file.outline.spine.length - 1]!.at[0];
  const rail = createStore<RailState>()(() => ({
    scribe: Math.round(tip * 0.4),
    fit: "blade",
    pointer: 0,
    isTrayOpen: false,
    isSolidOpen: false,
  }));
  const judging = createStore<JudgedState>()(() => ({ judged: null }));
  const stop = () => {
    unsubscribe();
    channel.close();
    saving.stop();
  };
  return { screen: { id, open, saving, rail, judging }, stop };
}
