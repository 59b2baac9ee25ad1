import type { Blow, SetKind, StraightSet } from "@true-spine/core/straight/schema.ts";
import { type Random, randomFrom, seedOf } from "./random.ts";

/**
 * A hidden blade on an anvil: a bar in short pieces, each with its own bend and turn, that blows change and instruments read. It shares nothing
 * with what the program makes of the readings. Lengths mm, turns radians; z to the right, the edge at negative y.
 */
export interface Bar {
  readonly length: number;
  readonly thick: number;
  readonly tall: number;
  /** Whether its sides are soft around a hard core. */
  readonly isClad: boolean;
  /** How it was bent before anyone struck it. */
  readonly bends: readonly { readonly at: number; readonly turn: number }[];
  /** Evenly bowed besides, 1/mm, and turned heel to tip. */
  readonly bow: number;
  readonly twist: number;
  /** The word its hand is drawn by. */
  readonly seed: string;
}

const PIECES = 800;
/** What one blow turns a bar 1 mm thick, radians mm²; a hand strikes a third harder or softer. */
const BLOW = 0.0055;
const HAND = 0.3;
/** A dent bends so far to each side of its line. */
const REACH = 4;
/** What the anvil is told of a blow. */
export type Struck = Pick<Blow, "face" | "from" | "to" | "count" | "state" | "tool">;
const SIDE = { left: -1, right: 1 } as const;

/** How far a straightedge's feelers and a finder's jaws are off, one standard deviation: mm, and degrees for a roll. */
export const READS: Readonly<Record<SetKind, { noise: number; step: number }>> = {
  gap: { noise: 0.03, step: 0.05 },
  rise: { noise: 0.02, step: 0.01 },
  edge: { noise: 0.02, step: 0.01 },
  roll: { noise: 0.1, step: 0.1 },
};

/** The bar after some blows: what is struck stays struck. */
export class Anvil {
  readonly #z: number[] = [];
  readonly #turn: number[] = [];
  readonly #step: number;

  constructor(
    readonly bar: Bar,
    blows: readonly Struck[],
  ) {
    this.#step = bar.length / PIECES;
    const kappa = Array.from({ length: PIECES + 1 }, () => bar.bow);
    const tau = Array.from({ length: PIECES + 1 }, () => bar.twist / bar.length);
    for (const { at, turn } of bar.bends) this.#spread(kappa, at, turn, this.#step);
    for (const [nth, blow] of blows.entries()) this.#strike(kappa, tau, blow, nth);
    let [slope, z, turn] = [0, 0, 0];
    for (let i = 0; i <= PIECES; i++) {
      this.#z.push(z);
      this.#turn.push(turn);
      z += this.#step * (slope + (kappa[i]! * this.#step) / 2);
      slope += kappa[i]! * this.#step;
      turn += tau[i]! * this.#step;
    }
  }

  /** A turn laid into the pieces about a place. */
  #spread(into: number[], at: number, turn: number, reach: number): void {
    const [from, to] = [at - reach, at + reach].map((x) =>
      Math.max(0, Math.min(PIECES, Math.round(x / this.#step))),
    ) as [number, number];
    const each = turn / ((to - from + 1) * this.#step);
    for (let i = from; i <= to; i++) into[i]! += each;
  }

  #strike(kappa: number[], tau: number[], { face, from, to, count, state, tool }: Struck, nth: number): void {
    const { thick, isClad, seed } = this.bar;
    if (state === "raw" || tool === "clamp") return;
    const random = randomFrom(seedOf(`${seed} ${nth}`));
    // Hard steel grows where it is dented; soft steel gives way under what presses on it.
    const grows = state === "hard" && !isClad;
    const toward = grows ? SIDE[face] : -SIDE[face];
    let turn = 0;
    for (let i = 0; i < count; i++) turn += (BLOW / thick ** 2) * (1 + HAND * (2 * random.next() - 1));
    // Bent about its line: the middle goes to where `toward` says, so the slope turns the other way.
    const [dx, dy] = [to[0]! - from[0]!, to[1]! - from[1]!];
    const long = Math.hypot(dx, dy) || 1;
    const across: [number, number] = [dy / long, -dx / long];
    const x = (from[0]! + to[0]!) / 2;
    this.#spread(kappa, x, -toward * turn * across[0] ** 2, REACH);
    this.#spread(tau, x, -toward * turn * across[0] * across[1], REACH);
  }

  zAt(x: number): number {
    return this.#at(this.#z, x);
  }

  turnAt(x: number): number {
    return this.#at(this.#turn, x);
  }

  #at(rows: readonly number[], x: number): number {
    const i = Math.max(0, Math.min(PIECES - 1, Math.floor(x / this.#step)));
    const share = x / this.#step - i;
    return rows[i]! + share * (rows[i + 1]! - rows[i]!);
  }

  /** A straightedge from the first place to the last, or a finder, on the face that lies up: what each place shows. `half` is the steel's own half thickness. */
  read(
    kind: SetKind,
    face: StraightSet["face"],
    places: readonly { readonly x: number; readonly y: number }[],
    half: (x: number, y: number) => number,
    random: Random,
    own: (x: number) => number = () => 0,
  ): StraightSet["rows"] {
    const f = SIDE[face];
    const { noise, step } = READS[kind];
    const stands = places.map(({ x, y }) => {
      if (kind === "roll") return (-f * this.turnAt(x) * 180) / Math.PI;
      const up = f * (this.zAt(x) + this.turnAt(x) * y) + half(x, y);
      return kind === "gap" ? -up - own(x) : up;
    });
    // The line lies on what stands out most: no gap is less than nought.
    const first = stands[0]!;
    const last = stands[stands.length - 1]!;
    const from = places[0]!.x;
    const span = places[places.length - 1]!.x - from || 1;
    const line = (x: number) => (kind === "roll" ? first : first + ((last - first) * (x - from)) / span);
    const apart = stands.map((value, i) => value - line(places[i]!.x));
    const least = kind === "gap" ? Math.min(...apart) : 0;
    return places.map(({ x, y }, i) => {
      const shown = apart[i]! - least + random.normal() * noise;
      const v = Math.round(shown / step) * step;
      return { x, y, v: Number((kind === "gap" ? Math.max(0, v) : v).toFixed(4)) };
    });
  }
}
