import { thicknessAt } from "@true-spine/core/blade/field.ts";
import type { Blade } from "@true-spine/core/blade/schema.ts";
import type { StandingDocument, TakenWork } from "@true-spine/core/registry/contract.ts";
import { stageSteel } from "@true-spine/core/route/ladder.ts";
import { type Shop, USUAL_SHOP } from "@true-spine/core/shop/schema.ts";
import type { LaidPiece, SetKind, StraightSet } from "@true-spine/core/straight/schema.ts";
import { straightAt } from "@true-spine/core/work/joined.ts";
import { Anvil, type Bar } from "./anvil.ts";
import { randomFrom, seedOf } from "./random.ts";

export interface AnvilRead {
  readonly stage: string;
  readonly kind: SetKind;
  readonly face: StraightSet["face"];
  readonly places: readonly { readonly x: number; readonly y: number }[];
}

/** Pieces kept on the anvil at once. */
const MOST = 50;
/** Height that a bar is taken to have where nothing is asked of it, mm. */
const TALL = 30;

/** The simulated anvil: a hidden piece for each blade, bent by the blows that its record says were struck, read as instruments read. */
export class AnvilBench {
  readonly #laid = new Map<string, LaidPiece>();
  readonly #counts = new Map<string, number>();

  /** `get` asks the server for one of its addresses. */
  constructor(private readonly get: (path: string) => Promise<unknown>) {}

  lay(blade: string, piece: LaidPiece): void {
    this.#laid.delete(blade);
    this.#laid.set(blade, piece);
    this.#counts.delete(blade);
    const oldest = this.#laid.keys().next().value;
    if (this.#laid.size > MOST && oldest !== undefined) this.#laid.delete(oldest);
  }

  laid(blade: string): LaidPiece | null {
    return this.#laid.get(blade) ?? null;
  }

  /** What is read; null where no piece lies there. Throws where the server does not answer. */
  async read(blade: string, { stage, kind, face, places }: AnvilRead): Promise<StraightSet["rows"] | null> {
    const laid = this.#laid.get(blade);
    if (!laid) return null;
    const [row, route, work, shop] = await Promise.all([
      this.get(`/blades/${blade}`) as Promise<{ file: Blade }>,
      this.get(`/blades/${blade}/documents/route`) as Promise<StandingDocument<"route">>,
      this.get(`/blades/${blade}/work`) as Promise<TakenWork>,
      this.get("/shop") as Promise<{ file: Shop | null }>,
    ]);
    const { steel } = stageSteel(row.file, route.file, shop.file ?? USUAL_SHOP, stage);
    const length = Math.max(20, steel.field.ring.right);
    const standing = work.taken.filter(({ id }) => !work.struck.includes(id));
    const { blows } = straightAt(standing);
    const thick = Math.max(0.5, thicknessAt(steel.field, length / 2, -4));
    // The same piece, struck and read in the same order, is the same in every run.
    const told = JSON.stringify(laid);
    const anvil = new Anvil(barOf(laid, { length, thick, seed: told }), blows);
    const half = (x: number, y: number) => thicknessAt(steel.field, x, y) / 2;
    const nth = (this.#counts.get(blade) ?? 0) + 1;
    this.#counts.set(blade, nth);
    const random = randomFrom(seedOf(`${told} ${kind} ${face} ${nth}`));
    const own = (x: number) => 4 * laid.rule * (x / length) * (1 - x / length);
    return anvil.read(kind, face, places, half, random, own);
  }
}

/** A bar that stands so high where it is bent. */
function barOf(
  { height, at, twist, isClad }: LaidPiece,
  { length, thick, seed }: { length: number; thick: number; seed: string },
): Bar {
  const bends =
    at === null ? [] : [{ at, turn: (-height * length) / (Math.max(1, at) * Math.max(1, length - at)) }];
  return {
    length,
    thick,
    tall: TALL,
    isClad,
    bends,
    bow: at === null ? (-8 * height) / length ** 2 : 0,
    twist: (twist * Math.PI) / 180,
    seed,
  };
}
