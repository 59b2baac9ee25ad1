import { replaceEqualDeep } from "@tanstack/react-query";
import { parseBlade } from "@true-spine/core/blade/parse.ts";
import type { Blade } from "@true-spine/core/blade/schema.ts";
import type { Fault } from "@true-spine/core/document/fault.ts";
import {
  DOCUMENT_KINDS,
  type DocumentKind,
  type Documents,
  NO_DOCUMENTS,
  parseDocument,
} from "@true-spine/core/registry/documents.ts";
import { inUnit } from "@true-spine/core/units/sentence.ts";
import { type TemporalState, temporal } from "zundo";
import { createStore, type StoreApi } from "zustand";
import { useSettings } from "../app/settings.ts";
import { rememberField } from "./derived.ts";

const STEPS_KEPT = 200;
const FOLLOW_MS = 100;
/** When the last edit began: the screen measures from here to what it drew. */
export const EDIT_MARK = "true-spine-edit";

/** The blade's file and its other documents, all parts of the same undo. */
export interface BladeState extends Documents {
  /** Always sound: an edit that would not be is refused, and the blade stays as it was. */
  readonly file: Blade;
}

/**
 * The open blade with its undo. One visit to a box, one drag, one press of a button is one step: between
 * `begin` and `end` only the first change is remembered.
 */
export interface OpenBlade {
  readonly store: StoreApi<BladeState> & { temporal: StoreApi<TemporalState<BladeState>> };
  /** The same for the boxes beside the drawing: while something is dragged they follow ten times a second. */
  readonly boxes: StoreApi<BladeState>;
  /** Whether something of it is being dragged on a drawing. */
  readonly drag: StoreApi<{ readonly isOn: boolean }>;
  /** Changes a copy; puts it in if it is sound, else says what is wrong and changes nothing. */
  edit(change: (copy: Blade) => void): readonly Fault[];
  /** Puts a whole file in, under the same condition. */
  replace(file: Blade): readonly Fault[];
  /** Puts the file, other documents of the blade, or both in, if all are sound, as one step; else changes nothing. */
  put(parts: Partial<BladeState>): readonly Fault[];
  begin(isDrag?: boolean): void;
  end(): void;
  undo(): void;
  redo(): void;
}

export function openBlade(file: Blade, documents: Partial<Documents> = {}): OpenBlade {
  const store = createStore<BladeState>()(
    temporal((): BladeState => ({ ...NO_DOCUMENTS, ...documents, file }), {
      limit: STEPS_KEPT,
      equality: (a, b) => a.file === b.file && DOCUMENT_KINDS.every((kind) => a[kind] === b[kind]),
    }),
  ) as OpenBlade["store"];
  const boxes = createStore<BladeState>()(() => store.getState());
  const drag = createStore(() => ({ isOn: false }));
  let isOpen = false;
  let following: ReturnType<typeof setTimeout> | undefined;
  const follow = () => {
    clearTimeout(following);
    following = undefined;
    boxes.setState(store.getState(), true);
  };
  store.subscribe(() => {
    if (drag.getState().isOn) following ??= setTimeout(follow, FOLLOW_MS);
    else follow();
  });
  const past = () => store.temporal.getState();
  const put = (next: Partial<BladeState>) => {
    store.setState(next);
    if (isOpen) past().pause();
  };
  const end = () => {
    isOpen = false;
    past().resume();
    if (!drag.getState().isOn) return;
    follow();
    drag.setState({ isOn: false });
  };
  const putAll = ({ file: next, ...documents }: Partial<BladeState>): readonly Fault[] => {
    for (const kind of Object.keys(documents) as DocumentKind[]) {
      const parsed = parseDocument(kind, documents[kind]);
      if (!parsed.ok) return parsed.faults;
    }
    if (!next) {
      put(documents);
      return [];
    }
    performance.mark(EDIT_MARK);
    // Parts that have not changed keep their identity, so that only what shows a change is drawn again.
    const parsed = parseBlade(replaceEqualDeep(store.getState().file, next));
    if (!parsed.ok) return parsed.faults;
    rememberField(parsed.blade, parsed.field);
    put({ ...documents, file: parsed.blade });
    return [];
  };
  const replace = (next: Blade) => putAll({ file: next });
  return {
    store,
    boxes,
    drag,
    edit(change) {
      const copy = structuredClone(store.getState().file);
      change(copy);
      return replace(copy);
    },
    replace,
    put: putAll,
    begin(isDrag = false) {
      end();
      isOpen = true;
      if (isDrag) drag.setState({ isOn: true });
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

/** The first fault in words and in the unit on show, for a box that was refused; null when there is none. */
export function whyNot(faults: readonly Fault[]): string | null {
  const [first] = faults;
  if (!first) return null;
  const message = inUnit(first.message, useSettings.getState().unit);
  return `${message.charAt(0).toUpperCase()}${message.slice(1)}.`;
}
