import type { Route } from "./schema.ts";

/**
 * What a reading of the very edge says about the steel still there: whether what follows can still be done, and what
 * becomes of the finished edge where it cannot. Lengths mm. Source: geometry, as the stage's own steel has it.
 */
export interface EdgeRead {
  readonly read: number;
  /** What it should have read at this stage, and will read with nothing left on the faces. */
  readonly planned: number;
  readonly bare: number;
  /** How much thicker the edge is for each millimetre on both faces: 2/cos β on a flat bevel, what it is on others. */
  readonly perFace: number;
  /** What the finer belts and the hand after this stage must take off each face. */
  readonly needed: number;
}

export interface Standing {
  /** Still on each face. */
  readonly left: number;
  /** Still to go at this stage before its own line, on each face; negative: past it. */
  readonly toGo: number;
  /** Missing on each face for what must still be done; 0 where there is enough. */
  readonly short: number;
  /** How much thinner the finished edge comes out where it is short. */
  readonly thinner: number;
}

export function standingAfter({ read, planned, bare, perFace, needed }: EdgeRead): Standing {
  const left = (read - bare) / perFace;
  const short = Math.max(0, needed - left);
  return { left, toGo: (read - planned) / perFace, short, thinner: short * perFace };
}

/**
 * A route planned anew for steel that went past its line by `past` on each face: what was to come off with the bevels
 * after the oven is less by as much, as far as there was something spare. What is short beyond that stays short.
 */
export function replanned(route: Route, past: number): Route {
  const oven = Math.max(0, Math.round((route.oven - Math.max(0, past)) * 1e4) / 1e4);
  return { ...route, oven };
}

/** What stands for a thickness where no caliper reaches: a drill, a coin, a stack of feelers. */
export interface StandIn {
  readonly name: string;
  readonly thickness: number;
}

/** Source: US Mint coin specifications, from memory. */
const COINS: readonly StandIn[] = [
  { name: "a dime", thickness: 1.35 },
  { name: "a quarter dollar", thickness: 1.75 },
];

/** What a maker means by a coin, mm: "dime", "a quarter"; null for anything else. */
export function standInNamed(text: string): number | null {
  const said = text.trim().toLowerCase().replace(/^an? /, "");
  return COINS.find(({ name }) => name.replace("a ", "").split(" ")[0] === said)?.thickness ?? null;
}

/** The nearest drill (every tenth of a millimetre), feelers (every twentieth), and a coin where one is near. */
export function standInsFor(thickness: number): StandIn[] {
  const drill = Math.max(0.3, Math.round(thickness * 10) / 10);
  const feelers = Math.max(0.05, Math.round(thickness * 20) / 20);
  return [
    { name: `a ${drill.toFixed(1)} mm drill`, thickness: drill },
    { name: `feelers to ${feelers.toFixed(2)}`, thickness: feelers },
    ...COINS.filter((coin) => Math.abs(coin.thickness - thickness) <= 0.08),
  ];
}
