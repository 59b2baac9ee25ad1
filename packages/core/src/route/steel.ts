import { type Distortion, distorted } from "../blade/distort.ts";
import { compileField, type Field } from "../blade/field.ts";
import { DRAWN_PLACES, type DrawnLines, drawnLines } from "../blade/lines.ts";
import { solidBetween } from "../blade/mass.ts";
import type { Bevel, Blade, SIDES } from "../blade/schema.ts";
import type { Allowance } from "../blade/side.ts";
import { compileStageWithBevels } from "../blade/stage-field.ts";
import { type PerSide, type Station, stationAt } from "../blade/station.ts";
import { constant, type Table, table } from "../blade/table.ts";
import { turnedBack, turnedFile, turnedOver } from "../blade/turned.ts";

/** How the steel of a stage is made from a blade: the same for the blade as planned and as it may have come out. */
export interface Recipe {
  readonly still: Allowance;
  readonly isBevelled: boolean;
  /** The same of a second edge. */
  readonly isSecondBevelled: boolean;
  /** Of the bar or the forged blank, where the flats are still its own; null once they are true. */
  readonly thickness: Blade["thickness"] | null;
  /** Whether a bevel is steeper than the edge bevel somewhere: its stages are held up to the finished steel. */
  readonly isSteep: boolean;
  /** A flat roughing at an angle of its own, degrees a side; null for the bevels as they will be. */
  readonly roughAngle: number | null;
}

/** A middle plane that is no plane: how far it has gone to the right, mm, and how the blade lies on a plate with that. */
export interface Bend {
  readonly z: (x: number, y: number) => number;
  /** Left to itself; level, by the line through both its ends; held flat where it is read. */
  readonly lies: "free" | "level" | "held";
}

/** What may be otherwise than a recipe says: another blade file, and steel left, taken, turned or bent. */
export interface Otherwise extends Omit<Distortion, "bent"> {
  readonly blade?: (blade: Blade) => Blade;
  readonly bend?: Bend;
  /** Lean of the outline's edge from square to the flats, degrees. */
  readonly outOfSquare?: number;
}

/**
 * The steel of one stage: its field, and what is asked of that again and again, each worked out when it is first asked and never
 * twice. Whoever says how thick it is or where its line stands asks here.
 */
export class Steel {
  readonly field: Field;
  /** Lean of the outline's edge from square to the flats, degrees. */
  readonly outOfSquare: number;
  #stations = new Map<number, Station>();
  #drawn: DrawnLines | null = null;
  #volume: number | null = null;
  #lines: PerSide<Table> | null = null;
  #turned: Steel | null | undefined;

  constructor(
    readonly blade: Blade,
    readonly recipe: Recipe,
    field = fieldBy(blade, recipe),
    outOfSquare = 0,
    readonly bend: Bend | null = null,
  ) {
    this.field = field;
    this.outOfSquare = outOfSquare;
  }

  /** The section square to the edge at a share of it. */
  station(u: number): Station {
    let station = this.#stations.get(u);
    if (!station) {
      station = stationAt(this.field, u);
      this.#stations.set(u, station);
    }
    return station;
  }

  get drawn(): DrawnLines {
    this.#drawn ??= drawnLines(this.field, DRAWN_PLACES, (u) => this.station(u));
    return this.#drawn;
  }

  /** mm³. */
  get volume(): number {
    this.#volume ??= solidBetween(this.field).volume;
    return this.#volume;
  }

  /** The same steel as its second edge has it; null where that has no bevel yet. See `turnedOver`. */
  get onSecond(): Steel | null {
    if (this.#turned === undefined) {
      const field = turnedOver(this.field);
      this.#turned = field && new TurnedSteel(this, field);
    }
    return this.#turned;
  }

  /** The same stage come out otherwise. */
  otherwise({ blade: changed, outOfSquare = 0, bend, ...rest }: Otherwise): Steel {
    const distortion = { ...rest, bent: bend?.z };
    const blade = changed ? changed(this.blade) : this.blade;
    const made = blade === this.blade ? this.field : fieldBy(blade, this.recipe);
    const isMoved = Object.values(distortion).some((one) => one !== undefined);
    const field = isMoved ? distorted(made, distortion, this.linesOverU()) : made;
    return new Steel(blade, this.recipe, field, outOfSquare, bend ?? null);
  }

  /** Heights of the grind lines over u, mm: what faces are turned about. */
  protected linesOverU(): PerSide<Table> {
    if (!this.#lines) {
      const along = (side: "left" | "right") => {
        const rows = this.drawn.stations.filter((station) => station[side].grindLine !== null);
        return rows.length > 0
          ? table(
              rows,
              ({ u }) => u,
              (station) => station[side].grindLine!,
            )
          : table([0], Number, () => 0);
      };
      this.#lines = { right: along("right"), left: along("left") };
    }
    return this.#lines;
  }
}

/** Steel turned edge for spine: what comes out otherwise does so on the second edge. */
class TurnedSteel extends Steel {
  constructor(
    readonly of: Steel,
    field: Field,
    outOfSquare = of.outOfSquare,
    bend: Bend | null = null,
  ) {
    super(field.blade, of.recipe, field, outOfSquare, bend);
  }

  override otherwise({ blade: changed, outOfSquare = 0, bend, ...rest }: Otherwise): Steel {
    const of = changed
      ? this.of.otherwise({ blade: (file) => turnedBack(file, changed(turnedFile(file))) })
      : this.of;
    const field = (of === this.of ? this.field : turnedOver(of.field)) ?? this.field;
    const distortion = { ...rest, bent: bend?.z };
    const isMoved = Object.values(distortion).some((one) => one !== undefined);
    const moved = isMoved ? distorted(field, distortion, this.linesOverU()) : field;
    return new TurnedSteel(of, moved, outOfSquare, bend ?? null);
  }
}

const NOTHING_LEFT = constant(0);
const FINISHED: Recipe = {
  still: {
    flats: 0,
    faces: { left: NOTHING_LEFT, right: NOTHING_LEFT },
    edgeBevel: true,
    falseEdge: true,
  },
  isBevelled: true,
  isSecondBevelled: true,
  thickness: null,
  isSteep: false,
  roughAngle: null,
};

const finished = new WeakMap<Blade, Steel>();

/** The steel of the finished blade, made once for each. The blade must be sound. */
export function finishedSteel(blade: Blade): Steel {
  let steel = finished.get(blade);
  if (!steel) {
    steel = new Steel(blade, FINISHED);
    finished.set(blade, steel);
  }
  return steel;
}

/** The field a recipe makes of a blade: bevelled or not, its flats true or still its own. */
function fieldBy(
  blade: Blade,
  { still, isBevelled, isSecondBevelled, thickness, isSteep, roughAngle }: Recipe,
): Field {
  const staged = (bevels: Blade["bevels"], left = still, flats = blade.thickness) =>
    compileStageWithBevels(blade, bevels, left, flats, isSecondBevelled);
  if (thickness) return staged(isBevelled ? blade.bevels : UNBEVELLED, { ...still, flats: 0 }, thickness);
  if (!isBevelled) return staged(UNBEVELLED);
  if (roughAngle !== null) return staged(roughed(blade.bevels, roughAngle));
  if (isSteep) return staged(blade.bevels);
  if (isSecondBevelled || !blade.secondEdge) return compileField(blade, still);
  const { secondEdge: _, ...one } = blade;
  return compileField(one, still);
}

const UNBEVELLED: Blade["bevels"] = { right: { kind: "none" }, left: "same" };

/** The same sides ground flat at one angle: what is roughed before a hollow, a convex face, or a shallower flat. */
function roughed({ right, left }: Blade["bevels"], angle: number): Blade["bevels"] {
  const rough = (bevel: Bevel): Bevel =>
    bevel.kind === "none"
      ? bevel
      : { kind: "flat", pull: "follow", set: "angle", angle, plunge: bevel.plunge };
  return { right: rough(right), left: left === "same" ? "same" : rough(left) };
}

/** A value for each side. */
export function perSide<T>(of: (side: (typeof SIDES)[number]) => T): PerSide<T> {
  return { left: of("left"), right: of("right") };
}
