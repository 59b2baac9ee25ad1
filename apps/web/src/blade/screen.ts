import type { Blade } from "@true-spine/core/blade/schema.ts";
import type { ChainName } from "@true-spine/core/design/nodes.ts";
import { purposeLearned, purposeWithin } from "@true-spine/core/findings/limits.ts";
import { type Purpose, purposeOf } from "@true-spine/core/findings/purposes.ts";
import type { DocumentKind, Documents } from "@true-spine/core/registry/documents.ts";
import { createContext, useContext, useMemo, useRef } from "react";
import { type StoreApi, useStore } from "zustand";
import type { View } from "../rail/zoom.ts";
import type { Trouble } from "../saving/trouble.ts";
import { useLearned } from "../shop/useLearned.ts";
import type { WorkFailed } from "../workers/asking.ts";
import type { Judged } from "./judged.ts";
import type { BladeSession } from "./session.ts";

export type Panel = "commands" | "keys" | "history" | "limits" | "export";

/** The part of the screen's state that is not the blade: where the scribe stands, what the rail shows. */
export interface RailState {
  /** Scribe, mm from the junction. */
  readonly scribe: number;
  readonly fit: "whole" | "blade";
  /** The stretch looked at more closely; null while all of it is shown. */
  readonly view: View | null;
  /** Where the pointer was last seen over the strips, mm; what the S key drops the scribe at. */
  readonly pointer: number;
  /** Another blade of the rack laid under this one, to be held against. */
  readonly ghost: { readonly id: string; readonly file: Blade } | null;
  /** Which dialog is open over the page. */
  readonly panel: Panel | null;
  /** The node of the outline that was last taken hold of. */
  readonly node: { readonly chain: ChainName; readonly index: number } | null;
  /** Whether what is dragged on one side is moved as much on the other, where the sides are not the same. */
  readonly sides: "together" | "apart";
  /** Whether the edge is also drawn as the other way of pulling would leave it. */
  readonly isOtherPullShown: boolean;
  /** Whether the photo under the blade can be taken hold of. */
  readonly isLayingPhoto: boolean;
  readonly isTrayOpen: boolean;
  /** Why something found is meant so, as far as it is typed: the finding itself comes and goes under it. */
  readonly meant: { readonly of: string; readonly reason: string } | null;
  readonly isSolidOpen: boolean;
}

/** Findings and whole-blade figures, which come from the worker a moment after the drawing. */
export interface JudgedState {
  readonly judged: Judged | null;
  readonly trouble: WorkFailed | null;
  tryAgain(): void;
}

export interface BladeScreen extends BladeSession {
  readonly id: string;
  readonly rail: StoreApi<RailState>;
  readonly judging: StoreApi<JudgedState>;
}

const Screen = createContext<BladeScreen | null>(null);
export const BladeProvider = Screen.Provider;

export function useScreen(): BladeScreen {
  const screen = useContext(Screen);
  if (!screen) throw new Error("Used outside an open blade.");
  return screen;
}

export function useFile(): Blade {
  return useStore(useScreen().open.store, (state) => state.file);
}

/** A part of the file for a drawing; drawn again only when that part changes. */
export function useDrawnPart<T>(pick: (file: Blade) => T): T {
  return useStore(useScreen().open.store, (state) => pick(state.file));
}

/** A part of the file for a box: it follows a drag a moment later, so that the drawing keeps up with the hand. */
export function useFilePart<T>(pick: (file: Blade) => T): T {
  return useStore(useScreen().open.boxes, (state) => pick(state.file));
}

/**
 * A part of the drawing's own frame: while something is dragged it stays as it was when it was taken hold of, so that
 * what is dragged moves and the rest stands still; unless it must follow, because what is dragged would leave the sheet.
 */
export function useStill<T>(now: T, mustFollow: (still: T) => boolean = () => false): T {
  const isDragging = useStore(useScreen().open.drag, (state) => state.isOn);
  const still = useRef(now);
  if (!isDragging || mustFollow(still.current)) still.current = now;
  return still.current;
}

/** Another document of the blade, as it stands on this screen. */
export function useDocument<K extends DocumentKind>(kind: K): Documents[K] {
  return useStore(useScreen().open.store, (state) => state[kind] as Documents[K]);
}

/** What the blade is for, with the limits changed for it put in; undefined where that is not said. */
export function usePurpose(): Purpose | undefined {
  const use = useFilePart((file) => file.use);
  const limits = useDocument("limits");
  const learned = useLearned();
  return useMemo(() => {
    const purpose = purposeOf(use);
    return purpose && purposeWithin(purposeLearned(purpose, learned), limits);
  }, [use, limits, learned]);
}

/** One word for all that saves itself here: the most troubled of them, and why. */
export function useSaveStatus(): Trouble & { revision: number } {
  const { savings, trouble } = useScreen();
  const revision = useStore(savings.blade.state, (state) => state.revision);
  return { ...useStore(trouble), revision };
}

export function useRail<T>(pick: (state: RailState) => T): T {
  return useStore(useScreen().rail, pick);
}

export function useJudged(): Judged | null {
  return useStore(useScreen().judging, (state) => state.judged);
}
