import { useQueryClient } from "@tanstack/react-query";
import type { BladeWithFile } from "@true-spine/core/registry/contract.ts";
import { type ReactNode, useEffect, useMemo } from "react";
import { Link, useParams } from "react-router";
import { createStore } from "zustand";
import { Refused } from "../../api/client.ts";
import { BladeProvider, type BladeScreen, type JudgedState, type RailState } from "../../blade/screen.ts";
import { type BladeSession, holdSession } from "../../blade/session.ts";
import { useNotices } from "../../parts/Notices.tsx";
import { whenInWords } from "../../parts/when.ts";
import { useHeld } from "../../saving/useHeld.ts";
import { BladeScreenView } from "./BladeScreenView.tsx";
import { LeftWork } from "./LeftWork.tsx";
import { BLADE_PAGES } from "./pages.ts";

/** Opens a blade: from the server, or from what this browser still owes it. */
export function BladeRoute() {
  const { id = "", page } = useParams();
  useEffect(() => {
    // The page itself comes while the blade does.
    const shown = BLADE_PAGES.find(({ path }) => path === page);
    // What does not come now is asked for again when it is shown.
    shown?.Page.load().catch(() => {});
  }, [page]);
  return <WithBlade key={id} id={id} view={(row) => <BladeScreenView row={row} />} />;
}

/** Whatever shows an open blade, once it is. */
export function WithBlade({ id, view }: { id: string; view: (row: BladeWithFile) => ReactNode }) {
  const { kept: session, trouble } = useHeld(holdSession, id);
  const queries = useQueryClient();
  const screen = useMemo(() => session && screenOf(id, session), [id, session]);
  useEffect(() => {
    if (!session) return;
    tellOfWorkBroughtBack(session);
    return session.trouble.subscribe(({ status }) => {
      if (status === "saved") void queries.invalidateQueries({ queryKey: ["blades"] });
    });
  }, [session, queries]);

  if (screen) {
    return (
      <BladeProvider value={screen}>
        {view(screen.row)}
        <LeftWork />
      </BladeProvider>
    );
  }
  return (
    <div className="p-10">
      {trouble === null && <p className="text-faint">Fetching the blade …</p>}
      {trouble === "away" && (
        <p role="alert">The server does not answer. Trying again by itself; nothing is lost.</p>
      )}
      {trouble instanceof Refused && (
        <div role="alert">
          <p>
            {trouble.status === 404
              ? "There is no such blade on the rack. It may have been deleted: deleted blades can be taken back from the rack for 30 days."
              : `The blade cannot be shown: ${trouble.message}`}
          </p>
          <Link to="/" className="mt-4 inline-block rounded bg-deep px-4 py-2 font-semibold text-on-deep">
            To the rack
          </Link>
        </div>
      )}
    </div>
  );
}

const told = new WeakSet<BladeSession>();

/** Says once that earlier work stands here again, and from when it is. */
function tellOfWorkBroughtBack(session: BladeSession): void {
  const { broughtBack } = session;
  if (broughtBack === null || told.has(session)) return;
  told.add(session);
  const from = broughtBack > 0 ? `, from ${whenInWords(broughtBack)}` : "";
  useNotices.getState().tell(`Brought back what was not saved when this blade was last open here${from}.`);
}

/** The screen around an open blade: where the scribe stands, what is shown, what was found. */
function screenOf(id: string, session: BladeSession): BladeScreen {
  const { spine } = session.open.store.getState().file.outline;
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
    meant: null,
    sides: "apart",
    isOtherPullShown: false,
    isLayingPhoto: false,
    isSolidOpen: false,
  }));
  const judging = createStore<JudgedState>()(() => ({ judged: null, trouble: null, tryAgain: () => {} }));
  return { ...session, id, rail, judging };
}
