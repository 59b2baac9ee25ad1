import type { Blade } from "../blade/schema.ts";
import type { Forge, ForgeFault } from "../forge/schema.ts";
import type { Forging } from "../route/forging.ts";
import type { Route } from "../route/schema.ts";
import type { Shop } from "../shop/schema.ts";
import { type Offered, offering } from "./finding.ts";
import type { Speech } from "./judged.ts";

/** What may be done at one press: the route, or what is chosen at the fire, as it would then be. */
export interface ForgeOffer {
  readonly words: string;
  readonly route?: Route;
  readonly forge?: Forge;
}
export type ForgeFinding = Offered<ForgeOffer>;

/** What a rule of the fire is asked about. */
export interface Forged {
  readonly blade: Blade;
  readonly route: Route;
  readonly forge: Forge;
  readonly shop: Shop;
  readonly forging: Forging;
  /** Faults seen at the fire. */
  readonly seen: readonly Seen[];
  readonly say: Speech;
}
/** A fault that was seen, from where to where and how deep, mm. */
export interface Seen {
  readonly fault: ForgeFault;
  readonly x: readonly number[];
  readonly depth: number;
}

export type ForgeRule = (asked: Forged) => ForgeFinding[];

export const finding = offering<ForgeOffer>;
