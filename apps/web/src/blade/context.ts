import type { Blade } from "@true-spine/core/blade/schema.ts";
import { createContext, useContext } from "react";
import { type StoreApi, useStore } from "zustand";
import type { Judged } from "./judging.ts";
import type { Saving } from "./saving.ts";
import type { OpenBlade } from "./store.ts";

/** The part of the screen's state that is not the blade: where the scribe stands, what the rail shows. */
export interface RailState {
  /** Scribe, mm from the junction. */
  readonly scribe: number;
  readonly fit: "whole" | "blade";
  /** Where the pointer was last seen over the strips, mm; what the S key drops the scribe at. */
  readonly pointer: number;
  readonly isTrayOpen: boolean;
  readonly isSolidOpen: boolean;
}

/** Findings and whole-blade figures, which come from the worker a moment after the drawing. */
export interface JudgedState {
  readonly judged: Judged | null;
}

export interface BladeScreen {
  readonly id: string;
  readonly open: OpenBlade;
  readonly saving: Saving;
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

/** A part of the file; drawn again only when that part changes. */
export function useFilePart<T>(pick: (file: Blade) => T): T {
  return useStore(useScreen().open.store, (state) => pick(state.file));
}

export function useRail<T>(pick: (state: RailState) => T): T {
  return useStore(useScreen().rail, pick);
}

export function useJudged(): Judged | null {
  return useStore(useScreen().judging, (state) => state.judged);
}
