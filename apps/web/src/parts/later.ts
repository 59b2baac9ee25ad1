import { type ComponentType, type LazyExoticComponent, lazy } from "react";

/** A part of the program that is fetched when it is first shown, or ahead of that. */
export type Later<P = object> = LazyExoticComponent<ComponentType<P>> & {
  readonly load: () => Promise<unknown>;
};

export function later<P = object>(load: () => Promise<ComponentType<P>>): Later<P> {
  return Object.assign(
    lazy(async () => ({ default: await load() })),
    { load },
  );
}

/** Fetches parts one after the other while there is nothing else to do: they are then here when the network is not. */
export function fetchAhead(parts: readonly (() => Promise<unknown>)[]): void {
  const work = async () => {
    // What does not come now is asked for again when it is shown.
    for (const load of parts) await load().catch(() => {});
  };
  const whenIdle = window.requestIdleCallback ?? ((then: () => void) => setTimeout(then, 1000));
  whenIdle(() => void work());
}
