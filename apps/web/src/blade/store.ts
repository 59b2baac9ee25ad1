import { replaceEqualDeep } from "@tanstack/react-query";
import { parseBlade } from "@true-spine/core/blade/parse.ts";
import type { Blade } from "@true-spine/core/blade/schema.ts";
import { type DocumentKind, type Documents, parseDocument } from "@true-spine/core/document/documents.ts";
import type { Fault } from "@true-spine/core/document/fault.ts";
import { type Limits, NO_LIMITS } from "@true-spine/core/findings/limits.ts";
import { type Handle, NO_HANDLE } from "@true-spine/core/handle/schema.ts";
import { type TemporalState, temporal } from "zundo";
import { createStore, type StoreApi } from "zustand";
import { rememberField } from "./derived.ts";

const STEPS_KEPT = 200;
/** When the last edit began: the screen measures from here to what it drew. */
export const EDIT_MARK = "true-spine-edit";

export interface BladeState {
  /** Always sound: an edit that would not be is refused, and the blade stays as it was. */
  readonly file: Blade;
  /** What this blade is held to beside its purpose, and what is on its tang: parts of the same undo. */
  readonly limits: Limits;
  readonly handle: Handle;
}

/**
 * The open blade with its undo. One visit to a box, one drag, one press of a button is one step: between
 * `begin` and `end` only the first change is remembered.
 */
export interface OpenBlade {
  readonly store: StoreApi<BladeState> & { temporal: StoreApi<TemporalState<BladeState>> };
  /** Changes a copy; puts it in if it is sound, else says what is wrong and changes nothing. */
  edit(change: (copy: Blade) => void): readonly Fault[];
  /** Puts a whole file in, under the same condition. */
  replace(file: Blade): readonly Fault[];
  /** Puts another document of the blade in, if it is sound, as a step of its own. */
  put<K extends DocumentKind>(kind: K, document: Documents[K]): readonly Fault[];
  begin(): void;
  end(): void;
  undo(): void;
  redo(): void;
}

export function openBlade(
  file: Blade,
  { limits = NO_LIMITS, handle = NO_HANDLE }: Partial<Documents> = {},
): OpenBlade {
  const store = createStore<BladeState>()(
    temporal((): BladeState => ({ file, limits, handle }), {
      limit: STEPS_KEPT,
      equality: (a, b) => a.file === b.file && a.limits === b.limits && a.handle === b.handle,
    }),
  ) as OpenBlade["store"];
  let isOpen = false;
  const past = () => store.temporal.getState();
  const put = (next: Partial<BladeState>) => {
    store.setState(next);
    if (isOpen) past().pause();
  };
  const end = () => {
    isOpen = false;
    past().resume();
  };
  const replace = (next: Blade) => {
    performance.mark(EDIT_MARK);
    // Parts that have not changed keep their identity, so that only what shows a change is drawn again.
    const parsed = parseBlade(replaceEqualDeep(store.getState().file, next));
    if (!parsed.ok) return parsed.faults;
    rememberField(parsed.blade, parsed.field);
    put({ file: parsed.blade });
    return [];
  };
  return {
    store,
    edit(change) {
      const copy = structuredClone(store.getState().file);
      change(copy);
      return replace(copy);
    },
    replace,
    put(kind, document) {
      const parsed = parseDocument(kind, document);
      if (!parsed.ok) return parsed.faults;
      put({ [kind]: parsed.document });
      return [];
    },
    begin() {
      end();
      isOpen = true;
    },
    end,
    undo() {
      end();
      past().undo();
    },
    redo() {
      end();
      past().redo();
    },
  };
}

/** The first fault in words, for a box that was refused; null when there is none. */
export function whyNot(faults: readonly Fault[]): string | null {
  const [first] = faults;
  if (!first) return null;
  return `${first.message.charAt(0).toUpperCase()}${first.message.slice(1)}.`;
}
