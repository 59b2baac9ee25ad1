import type { Blade } from "@true-spine/core/blade/schema.ts";
import type { Held } from "@true-spine/core/inspect/wire.ts";
import type { StandingDocument, TakenWork } from "@true-spine/core/registry/contract.ts";
import { onEdgeOf, stageSteel } from "@true-spine/core/route/ladder.ts";
import { type Instrument, USUAL_INSTRUMENTS } from "@true-spine/core/shop/instrument.ts";
import { instrumentsOf } from "@true-spine/core/shop/instruments.ts";
import { type Shop, USUAL_SHOP } from "@true-spine/core/shop/schema.ts";
import { checkWithWork } from "@true-spine/core/work/joined.ts";
import { measure } from "./measure.ts";
import { cutPiece, type Fault, type Piece, type Taken } from "./piece.ts";
import { type Random, randomFrom, seedOf } from "./random.ts";

/** Faults of every hidden piece, unless a program is given others: the edge off centre, the belly left thick. */
export const USUAL_FAULTS: readonly Fault[] = [
  { kind: "off-centre", k: 0.25, from: 40, to: 75 },
  { kind: "belly-thick", most: 0.2 },
];
const WANDER = 0.01;
/** A hand takes as much as it means to, give or take this share. */
const PER_PASS = 0.3;

/** The steel under the simulated instruments: the blade that the bench is asked about, as far as its record says it was ground. */
export class HiddenBench {
  private cached: { key: string; piece: Piece; hardness: number } | null = null;

  constructor(
    private readonly server: string,
    private readonly faults: readonly Fault[] = USUAL_FAULTS,
  ) {}

  /** What an instrument reads where it is held; null where there is nothing to read. Throws where the server does not answer. */
  async read(
    held: Held,
    kind: Instrument["kind"],
    random: Random,
    more: { noise: number; bias: number },
  ): Promise<number | null> {
    const [row, route, decided, work, shop] = await Promise.all([
      this.get<{ revision: number; file: Blade }>(`/blades/${held.blade}`),
      this.get<StandingDocument<"route">>(`/blades/${held.blade}/documents/route`),
      this.get<StandingDocument<"check">>(`/blades/${held.blade}/documents/check`),
      this.get<TakenWork>(`/blades/${held.blade}/work`),
      this.get<{ revision: number; file: Shop | null }>("/shop"),
    ]);
    const standing = work.taken.filter(({ id }) => !work.struck.includes(id));
    const check = decided.file && checkWithWork(decided.file, standing);
    const revisions = [row.revision, route.revision, decided.revision, shop.revision];
    const { edge } = held.spot;
    const key = [held.blade, held.stage, edge ?? "first", ...revisions, ...standing.map(({ id }) => id)].join(
      " ",
    );
    if (this.cached?.key !== key) {
      const wanted = check?.hardness ?? null;
      const whole = stageSteel(row.file, route.file, shop.file ?? USUAL_SHOP, held.stage);
      const stage = onEdgeOf(whole, held.spot);
      if (!stage || stage.kind === "forge") return null;
      const { left, isSharpened } = stage;
      const done = (check?.corrections ?? []).flatMap((one, nth) =>
        one.done && one.stage === held.stage && one.edge === edge
          ? [carriedOut(one, `${held.blade} ${nth}`)]
          : [],
      );
      const piece = cutPiece({
        blade: row.file,
        left,
        isSharpened,
        ...(edge ? { edge } : {}),
        faults: this.faults,
        taken: done,
        wander: { by: WANDER, phase: randomFrom(seedOf(held.blade)).next() * 6 },
      });
      this.cached = { key, piece, hardness: (wanted ?? 60) + 0.4 };
    }
    const { piece, hardness } = this.cached;
    const own =
      instrumentsOf(shop.file ?? {}).find((one) => one.kind === kind) ??
      USUAL_INSTRUMENTS.find((one) => one.kind === kind)!;
    const instrument = { ...own, repeat: own.repeat * more.noise };
    return measure(piece, held.spot, instrument, { bow: 0.05, twist: 0.2, hardness }, random, more.bias);
  }

  private async get<T>(path: string): Promise<T> {
    const response = await fetch(`${this.server}/api${path}`, { signal: AbortSignal.timeout(5000) });
    if (!response.ok) throw new Error(`${path}: ${response.status}`);
    return (await response.json()) as T;
  }
}

/** A correction as a hand carries it out: every pass takes up to a third more or less, the same by the same hand on every instrument's piece. */
function carriedOut(one: { side: Taken["side"]; off: Taken["off"]; passes: number }, hand: string): Taken {
  const random = randomFrom(seedOf(hand));
  let share = 0;
  for (let i = 0; i < one.passes; i++) share += 1 + PER_PASS * (2 * random.next() - 1);
  return { side: one.side, off: one.off.map(({ x, t }) => ({ x, t: (t * share) / one.passes })) };
}
