import type { IDxf } from "dxf-parser";
import { compose, type Matrix, rotateDEG, scale, translate } from "transformation-matrix";
import { assembled, MOST_PIECES, type Read } from "./contours.ts";
import type { Circle, Path } from "./drawing.ts";
import { dxfParser, type Entity, facing, isPoint, readEntity } from "./dxf-entities.ts";
import { moved } from "./moved.ts";

const LONGEST = 20_000_000;
/** Millimetres to each unit that a DXF's $INSUNITS may name. Source: the format's own table of insertion units. */
const UNITS: Readonly<Record<number, number>> = {
  1: 25.4,
  2: 304.8,
  4: 1,
  5: 10,
  6: 1000,
  8: 25.4e-6,
  9: 0.0254,
  10: 914.4,
  13: 1e-3,
  14: 100,
};

/** Blocks within blocks, no deeper. */
const DEEPEST = 8;
/** Things that are looked at, those of inserted blocks each time. */
const MOST_THINGS = 200_000;
const MOST_COPIES = 1000;

/**
 * Reads the outlines of a DXF: lines, arcs, circles, ellipses, polylines with bulges, splines, and what blocks put in of them, as far as they are
 * seen. The rest is told.
 */
export function readDxf(text: string): Read {
  if (text.length > LONGEST) return { ok: false, why: "The file is too long for a drawing of a blade." };
  if (/^[^\n]* Binary DXF/.test(text)) return { ok: false, why: "It is a binary DXF: save it as text." };
  let dxf: IDxf | null;
  try {
    dxf = dxfParser().parseSync(text);
  } catch (error) {
    return {
      ok: false,
      why: `It is not readable as DXF: ${error instanceof Error ? error.message : String(error)}.`,
    };
  }
  if (!dxf || !Array.isArray(dxf.entities))
    return { ok: false, why: "It is not readable as DXF: it has no entities." };
  const drawn = new Drawn(dxf);
  if (!drawn.put(dxf.entities as Entity[], { layer: null, depth: 0, by: null })) {
    return { ok: false, why: `It holds more than ${MOST_PIECES} pieces, too many for a blade's outline.` };
  }
  const notes = drawn.notes();
  if (drawn.paths.length === 0 && drawn.circles.length === 0 && notes.length > 0) {
    return { ok: false, why: `Nothing in it is a line of an outline. ${notes.join(" ")}` };
  }
  const unit = UNITS[Number((dxf.header as Record<string, unknown> | undefined)?.$INSUNITS)] ?? null;
  return assembled(drawn.paths, drawn.circles, unit, notes);
}

interface Where {
  /** Layer of the block that these were put in by; what is on layer 0 of a block is on that one. */
  readonly layer: string | null;
  readonly depth: number;
  readonly by: Matrix | null;
}

/** What was found in a drawing so far, and what was passed over. */
class Drawn {
  readonly paths: Path[] = [];
  readonly circles: Circle[] = [];
  private readonly passed = new Map<string, number>();
  private pieces = 0;
  private things = 0;

  constructor(private readonly dxf: IDxf) {}

  /** Puts entities in, those of blocks where they are inserted. Answers false where it becomes too much. */
  put(entities: readonly Entity[], where: Where): boolean {
    for (const entity of entities) {
      if (++this.things > MOST_THINGS) return false;
      const why = this.whyUnseen(entity, where);
      if (why) this.pass(why);
      else if (entity.type === "INSERT") {
        if (!this.insert(entity, where)) return false;
      } else if (!this.draw(entity, where)) return false;
    }
    return true;
  }

  /** What was passed over, and why, in words. */
  notes(): string[] {
    return [...this.passed].map(([what, count]) => `${count} ${what} passed over.`);
  }

  private pass(what: string): void {
    this.passed.set(what, (this.passed.get(what) ?? 0) + 1);
  }

  private whyUnseen(entity: Entity, { layer }: Where): string | null {
    if (entity.inPaperSpace) return "on the sheet of paper and not in the drawing";
    if (entity.visible === false) return "that are invisible";
    const own = layer !== null && (entity.layer ?? "0") === "0" ? layer : (entity.layer ?? "0");
    const { visible, frozen } = this.dxf.tables?.layer?.layers?.[own] ?? { visible: true, frozen: false };
    // A block stands on a layer of its own: off, it hides what has none; frozen, all of it.
    if (frozen || (!visible && entity.type !== "INSERT"))
      return `on the layer “${own}”, which is off or frozen,`;
    if (facing(entity) === "slant") return "drawn in another plane";
    return null;
  }

  private draw(entity: Entity, { by }: Where): boolean {
    const read = readEntity(entity);
    if (read === null) {
      this.pass(`of ${entity.type}, not a line of an outline,`);
      return true;
    }
    const placed = by ? moved(read, by) : read;
    if ("diameter" in placed) {
      this.circles.push(placed);
      return true;
    }
    this.pieces += placed.pieces.length;
    this.paths.push(placed);
    return this.pieces <= MOST_PIECES;
  }

  private insert(entity: Entity, where: Where): boolean {
    const { name = "", position, rotation = 0, xScale = 1, yScale = 1 } = entity;
    const block = this.dxf.blocks?.[name];
    if (!block?.entities || !isPoint(position)) {
      this.pass(`of the block “${name}”, which is not in the file,`);
      return true;
    }
    if (where.depth === DEEPEST || xScale === 0 || yScale === 0) {
      this.pass(`of the block “${name}”, nested too deep or of no size,`);
      return true;
    }
    const base = isPoint(block.position) ? block.position : { x: 0, y: 0 };
    const turnedOver = facing(entity) === "behind" ? scale(-1, 1) : scale(1, 1);
    const layer = (entity.layer ?? "0") === "0" ? (where.layer ?? "0") : entity.layer!;
    const [columns, rows] = [counted(entity.columnCount), counted(entity.rowCount)];
    if (columns * rows > MOST_COPIES) return false;
    for (let i = 0; i < columns * rows; i++) {
      const [column, row] = [i % columns, Math.floor(i / columns)];
      const by = compose(
        where.by ?? scale(1, 1),
        turnedOver,
        translate(position.x, position.y),
        rotateDEG(rotation),
        translate(column * (entity.columnSpacing ?? 0), row * (entity.rowSpacing ?? 0)),
        scale(xScale, yScale),
        translate(-base.x, -base.y),
      );
      if (!this.put(block.entities as Entity[], { layer, depth: where.depth + 1, by })) return false;
    }
    return true;
  }
}

const counted = (count: unknown) => (typeof count === "number" && count >= 1 ? Math.floor(count) : 1);
