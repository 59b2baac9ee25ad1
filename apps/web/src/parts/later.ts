import { type ComponentType, createElement, lazy, useState } from "react";

/** A part of the program that is fetched when it is first shown, or ahead of that. */
export type Later<P = object> = ComponentType<P> & { readonly load: () => Promise<unknown> };

export function later<P extends object = object>(load: () => Promise<ComponentType<P>>): Later<P> {
  let here: ComponentType<P> | null = null;
  const fetched = async () => {
    here ??= await load();
    return here;
  };
  const Fetched = lazy(async () => ({ default: await fetched() }));
  // What is here already is shown at once: waiting, once shown, stays for a third of a second.
  const Shown = (props: P) => {
    const [Part] = useState<ComponentType<P>>(() => here ?? (Fetched as unknown as ComponentType<P>));
    return createElement(Part, props);
  };
  return Object.assign(Shown, { load: fetched });
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
