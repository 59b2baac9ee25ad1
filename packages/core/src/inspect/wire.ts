import { STAGE_ID } from "../route/schema.ts";
import { INSTRUMENT_KINDS, type InstrumentKind } from "../shop/instrument.ts";
import { QUANTITIES, type Quantity } from "./quantity.ts";
import type { Spot } from "./schema.ts";

/**
 * What an instrument and the server say to each other, a line at a time: see docs/instruments.md. Nothing here trusts a line
 * before it reads as one.
 */
export const LONGEST_LINE = 200;
export const UNITS = ["mm", "in", "deg", "hrc"] as const;
export type WireUnit = (typeof UNITS)[number];

/** How a simulated instrument may be told to behave. */
export const BEHAVIOURS = ["well", "noisy", "biased", "stuck", "garbage", "away"] as const;
export type Behaviour = (typeof BEHAVIOURS)[number];

export type FromInstrument =
  | {
      readonly say: "hello";
      readonly kind: InstrumentKind;
      readonly id: string;
      readonly isSimulated: boolean;
    }
  | {
      readonly say: "read";
      readonly value: number;
      readonly unit: WireUnit;
      /** The press it answers, where that had a number. */
      readonly press?: number;
    }
  | { readonly say: "bye" };

const MM = { mm: 1, in: 25.4 } as const;

/** A press's number: the reading that answers it says it again. */
const PRESS = /^\d{1,9}$/;
export const MOST_PRESS = 999_999_999;

/** Reads a line of an instrument; null where it is none. */
export function fromInstrument(line: string): FromInstrument | null {
  if (line.length > LONGEST_LINE) return null;
  const [word, ...rest] = line.trim().split(/ +/);
  if (word === "HELLO" && (rest.length === 2 || (rest.length === 3 && rest[2] === "simulated"))) {
    const kind = INSTRUMENT_KINDS.find((one) => one === rest[0]);
    if (!kind || !/^[a-z0-9-]{1,40}$/.test(rest[1]!)) return null;
    return { say: "hello", kind, id: rest[1]!, isSimulated: rest.length === 3 };
  }
  if (word === "READ" && (rest.length === 2 || rest.length === 3)) {
    const unit = UNITS.find((one) => one === rest[1]);
    if (!unit || !/^[+-]?\d{1,4}(\.\d{1,6})?$/.test(rest[0]!)) return null;
    if (rest[2] !== undefined && !PRESS.test(rest[2])) return null;
    const press = rest[2] === undefined ? {} : { press: Number(rest[2]) };
    return { say: "read", value: Number(rest[0]), unit, ...press };
  }
  return word === "BYE" && rest.length === 0 ? { say: "bye" } : null;
}

/** A reading in the unit its quantity is kept in, or null where an instrument's unit says nothing of it. */
export function valueIn(unit: WireUnit, value: number, of: "mm" | "°" | "HRC"): number | null {
  if (of === "mm") return unit === "mm" || unit === "in" ? value * MM[unit] : null;
  if (of === "°") return unit === "deg" ? value : null;
  return unit === "hrc" ? value : null;
}

/** Where a simulated instrument is held: which blade at which stage, and the spot. */
export interface Held {
  readonly blade: string;
  readonly stage: string;
  readonly spot: Spot;
}

export type ToInstrument =
  | { readonly say: "welcome" }
  | { readonly say: "sorry"; readonly why: string }
  | { readonly say: "place"; readonly held: Held }
  | { readonly say: "press"; readonly press?: number }
  | { readonly say: "behave"; readonly how: Behaviour };

/** A line to an instrument, without its end. */
export function toInstrument(message: ToInstrument): string {
  switch (message.say) {
    case "welcome":
      return "WELCOME";
    case "sorry":
      return `SORRY ${message.why}`;
    case "press":
      return message.press === undefined ? "PRESS" : `PRESS ${message.press}`;
    case "behave":
      return `BEHAVE ${message.how}`;
    case "place": {
      const { blade, stage, spot } = message.held;
      const { what, u, x, side, height, edge } = spot;
      const more = Object.entries({ u, x, side, height, edge }).flatMap(([key, value]) =>
        value === undefined ? [] : [`${key}=${value}`],
      );
      return ["PLACE", blade, stage, what, ...more].join(" ");
    }
  }
}

/** Reads a line of the server; null where it is none. */
export function atInstrument(line: string): ToInstrument | null {
  const [word, ...rest] = line.trim().split(/ +/);
  if (word === "WELCOME") return { say: "welcome" };
  if (word === "SORRY") return { say: "sorry", why: rest.join(" ") };
  if (word === "PRESS") {
    if (rest.length === 0) return { say: "press" };
    return rest.length === 1 && PRESS.test(rest[0]!) ? { say: "press", press: Number(rest[0]) } : null;
  }
  if (word === "BEHAVE") {
    const how = BEHAVIOURS.find((one) => one === rest[0]);
    return how ? { say: "behave", how } : null;
  }
  if (word !== "PLACE") return null;
  const [blade, stage, whatWord, ...more] = rest;
  const what = QUANTITIES.find((one): one is Quantity => one === whatWord);
  if (!blade || !stage || !STAGE_ID.test(stage) || !what) return null;
  const said = new Map(more.map((pair) => pair.split("=") as [string, string]));
  const number = (key: string) => (said.has(key) ? { [key]: Number(said.get(key)) } : {});
  const side = said.get("side");
  const spot: Spot = {
    what,
    ...number("u"),
    ...number("x"),
    ...number("height"),
    ...(side === "left" || side === "right" ? { side } : {}),
    ...(said.get("edge") === "second" ? { edge: "second" } : {}),
  };
  return { say: "place", held: { blade, stage, spot } };
}

/** Whether it lives, as a page shows it. */
export interface InstrumentState {
  readonly id: string;
  readonly kind: InstrumentKind;
  readonly isSimulated: boolean;
  readonly state: "here" | "away" | "nonsense";
  readonly last: { readonly value: number; readonly unit: WireUnit; readonly at: number } | null;
}

/** What the server streams to a page. */
export type BenchEvent =
  | { readonly event: "instruments"; readonly instruments: readonly InstrumentState[]; readonly port: number }
  | {
      readonly event: "reading";
      readonly id: string;
      readonly kind: InstrumentKind;
      readonly value: number;
      readonly unit: WireUnit;
      readonly press?: number;
    };
