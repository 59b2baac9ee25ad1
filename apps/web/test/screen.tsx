import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { fireEvent, render, screen as shown } from "@testing-library/react";
import type { Blade } from "@true-spine/core/blade/schema.ts";
import type { Documents } from "@true-spine/core/registry/documents.ts";
import type { WorkRow } from "@true-spine/core/work/schema.ts";
import type { ReactNode } from "react";
import { MemoryRouter, useLocation } from "react-router";
import { createStore } from "zustand";
import { BladeProvider, type BladeScreen, type JudgedState, type RailState } from "../src/blade/screen.ts";
import { type OpenBlade, openBlade } from "../src/blade/store.ts";
import { knife } from "./knife.ts";

/** A blade's screen without a server or workers behind it: what stands open, and what is shown of it. */
export interface Bench {
  readonly open: OpenBlade;
  readonly rail: BladeScreen["rail"];
  readonly judging: BladeScreen["judging"];
  /** What was recorded at the work. */
  rows(): readonly WorkRow[];
  /** The address the page stands at. */
  path(): string;
  file(): Blade;
  /** How many steps can be undone. */
  steps(): number;
  show(children: ReactNode): ReturnType<typeof render>;
}

export function bench(file: Blade = knife(), documents: Partial<Documents> = {}): Bench {
  const open = openBlade(file, documents);
  const rail = createStore<RailState>()(() => ({
    scribe: 50,
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
  const rows = createStore(() => ({ taken: [] as WorkRow[], struck: new Set<string>() }));
  const work = {
    state: rows,
    take: (row: WorkRow) => rows.setState(({ taken }) => ({ taken: [...taken, row] })),
    strike: (id: string) => rows.setState(({ struck }) => ({ struck: new Set([...struck, id]) })),
  };
  const readings = { state: createStore(() => ({ taken: [], struck: new Set<string>() })), strike: () => {} };
  const saved = createStore(() => ({ status: "saved", isKept: true, why: null }));
  const savings = { blade: { state: createStore(() => ({ revision: 3, theirs: null })) } };
  const screen = { id: "blade-1", open, rail, judging, readings, work, savings, trouble: saved };
  let at = "/";
  const Where = () => {
    at = useLocation().pathname;
    return null;
  };
  return {
    open,
    rail,
    judging,
    rows: () => rows.getState().taken,
    path: () => at,
    file: () => open.store.getState().file,
    steps: () => open.store.temporal.getState().pastStates.length,
    show: (children) =>
      render(
        <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { enabled: false } } })}>
          <MemoryRouter initialEntries={["/blades/blade-1/grind"]}>
            <Where />
            <BladeProvider value={screen as unknown as BladeScreen}>{children}</BladeProvider>
          </MemoryRouter>
        </QueryClientProvider>,
      ),
  };
}

/** Types into a box and leaves it. */
export function typeInto(label: string | RegExp, text: string): void {
  const box = shown.getByLabelText(label);
  fireEvent.focus(box);
  fireEvent.change(box, { target: { value: text } });
  fireEvent.blur(box);
}
