import type { Blade } from "@true-spine/core/blade/schema.ts";
import { type LengthUnit, showLengthWithUnit } from "@true-spine/core/units/length.ts";
import {
  appendBezierCurve,
  clip,
  closePath,
  endPath,
  lineTo,
  moveTo,
  type PDFOperator,
  type PDFPage,
  popGraphicsState,
  pushGraphicsState,
  setDashPattern,
  setLineWidth,
  stroke,
} from "pdf-lib";
import { type Drawing, drawingOf, type LayerName, type Path, type Point } from "./drawing.ts";
import { PAPERS, type Paper } from "./papers.ts";
import { Pages } from "./pdf-pages.ts";
import { inOwnWay } from "./reading-order.ts";

export interface TemplateOptions {
  readonly paper: Paper;
  readonly unit: LengthUnit;
  /** The fonts' own bytes, TrueType, OpenType or WOFF: each sign is set in the first that has it. */
  readonly fonts: readonly Uint8Array[];
  readonly date: Date;
  readonly revision?: number;
}

const POINTS_PER_MM = 72 / 25.4;
const MARGIN = 10;
const HEAD = 18;
const FOOT = 22;
const GAP = 12;
/** How much two neighbouring sheets share, mm: enough to lay one over the other. */
const OVERLAP = 12;
/** Room for a join's cross and its name beside it, mm. */
const JOIN = 22;
export const BAR = 100;

const LINE: Readonly<Partial<Record<LayerName, { width: number; dash?: number[] }>>> = {
  OUTLINE: { width: 0.2 },
  GRIND_RIGHT: { width: 0.25 },
  GRIND_LEFT: { width: 0.25 },
  SHOULDER_RIGHT: { width: 0.12, dash: [1.5, 1] },
  SHOULDER_LEFT: { width: 0.12, dash: [1.5, 1] },
  RIDGE_RIGHT: { width: 0.25 },
  RIDGE_LEFT: { width: 0.25 },
  PLUNGE_RIGHT: { width: 0.25 },
  PLUNGE_LEFT: { width: 0.25 },
  SECOND_GRIND_RIGHT: { width: 0.25 },
  SECOND_GRIND_LEFT: { width: 0.25 },
  SECOND_SHOULDER_RIGHT: { width: 0.12, dash: [1.5, 1] },
  SECOND_SHOULDER_LEFT: { width: 0.12, dash: [1.5, 1] },
  FALSE_EDGE_RIGHT: { width: 0.2, dash: [3, 1] },
  FALSE_EDGE_LEFT: { width: 0.2, dash: [3, 1] },
  DATUM: { width: 0.1, dash: [6, 1.5, 1, 1.5] },
};

/** Where a drawing's own millimetres land on a sheet, mm from its lower left corner. */
type Placing = (at: Point) => Point;

/**
 * A template at true scale: the right side as it is, the left side mirrored, each with its own lines; a bar of
 * 100 mm on every sheet, and marks to join sheets where the blade is longer than the paper.
 */
export async function writeTemplate(blade: Blade, options: TemplateOptions): Promise<Uint8Array> {
  const say = (mm: number) => showLengthWithUnit(mm, options.unit);
  const facts = [
    blade.use,
    blade.steel,
    `${blade.thickness.map((row) => say(row.t)).join(" / ")} thick`,
    `${blade.edge.behind.map((row) => say(row.t)).join(" / ")} behind the edge`,
  ];
  const head = `${inOwnWay(blade.name)}${options.revision === undefined ? "" : `, revision ${options.revision}`}`;
  return writeSheets(drawingOf(blade), { title: `${blade.name}: template`, head, facts }, options);
}

/** What stands at the head of every sheet. */
export interface SheetHead {
  readonly title: string;
  readonly head: string;
  readonly facts: readonly (string | undefined)[];
}

/** Any drawing at true scale on as many sheets as it takes, both sides. */
export async function writeSheets(
  drawing: Drawing,
  { title, head, facts }: SheetHead,
  options: Pick<TemplateOptions, "paper" | "unit" | "fonts" | "date">,
): Promise<Uint8Array> {
  const pages = await Pages.open(title, options.fonts, options.date);
  const paper = PAPERS[options.paper];
  const tall = drawing.box.top - drawing.box.bottom;
  const room = paper.height - 2 * MARGIN - HEAD - FOOT;
  const together = 2 * tall + GAP <= room;
  const sheets = columnsOf(drawing, paper.width - 2 * MARGIN);
  const groups = together ? [["right", "left"] as const] : ([["right"], ["left"]] as const);
  const count = groups.length * sheets.length;
  let number = 0;
  for (const sides of groups) {
    for (const [column, from] of sheets.entries()) {
      number++;
      const sheet = new Sheet(pages, paper.width, paper.height);
      headOf(
        sheet,
        head,
        [...facts, options.date.toISOString().slice(0, 10), `sheet ${number} of ${count}`],
        paper.height,
      );
      const clip = { from, to: from + paper.width - 2 * MARGIN };
      let top = paper.height - MARGIN - HEAD;
      for (const side of sides) {
        const middle = together ? top - tall / 2 : top - room / 2;
        drawSide(sheet, drawing, side, clip, middle, column > 0 ? JOIN : 0);
        top -= tall + GAP;
      }
      barOn(sheet, options.unit);
      joinMarks(sheet, drawing, sheets, column, paper);
    }
  }
  return pages.save();
}

/** Where each sheet begins along the blade, mm past the drawing's left end. */
function columnsOf({ box }: Drawing, room: number): number[] {
  const wide = box.right - box.left;
  if (wide <= room) return [-(room - wide) / 2];
  const step = room - OVERLAP;
  return Array.from({ length: Math.ceil((wide - OVERLAP) / step) }, (_, i) => i * step);
}

function drawSide(
  sheet: Sheet,
  drawing: Drawing,
  side: "right" | "left",
  clip: { from: number; to: number },
  middle: number,
  indent: number,
): void {
  const { left, right, top, bottom } = drawing.box;
  // The left side is seen with the tip the other way.
  const along = (x: number) => (side === "right" ? x - left : right - x);
  const place: Placing = ([x, y]) => [MARGIN + along(x) - clip.from, middle + y - (top + bottom) / 2];
  const isDrawn = (name: LayerName) => !name.endsWith(side === "right" ? "_LEFT" : "_RIGHT");
  sheet.clipped(MARGIN, MARGIN, clip.to - clip.from, middle + top - bottom, () => {
    for (const { name, paths, circles } of drawing.layers) {
      if (!isDrawn(name)) continue;
      for (const path of paths) sheet.path(path, place, LINE[name]);
      for (const { at, diameter } of circles) {
        sheet.path(circlePath(at, diameter / 2), place, { width: 0.2 });
        const reach = diameter / 2 + 2;
        sheet.path(straight([at[0] - reach, at[1]], [at[0] + reach, at[1]]), place, { width: 0.1 });
        sheet.path(straight([at[0], at[1] - reach], [at[0], at[1] + reach]), place, { width: 0.1 });
      }
    }
  });
  const words = side === "right" ? "right side, as it lies" : "left side, as it lies turned over";
  sheet.text(words, [MARGIN + indent, middle + (top - bottom) / 2 + 2], 2.8);
}

function headOf(sheet: Sheet, head: string, facts: readonly (string | undefined)[], height: number): void {
  const y = height - MARGIN - 4;
  sheet.text(head, [MARGIN, y], 4.6, "H1");
  sheet.text(facts.filter(Boolean).join("  ·  "), [MARGIN, y - 5], 2.8);
}

/** The bar that shows whether the printer kept the scale. */
function barOn(sheet: Sheet, unit: LengthUnit): void {
  const y = MARGIN + 6;
  const place: Placing = (at) => at;
  sheet.path(straight([MARGIN, y], [MARGIN + BAR, y]), place, { width: 0.25 });
  for (let mm = 0; mm <= BAR; mm += 10) {
    const reach = mm % 50 === 0 ? 3 : 1.5;
    sheet.path(straight([MARGIN + mm, y], [MARGIN + mm, y + reach]), place, { width: 0.15 });
  }
  const other = unit === "mm" ? "" : `, ${showLengthWithUnit(BAR, unit)}`;
  sheet.text(
    `This bar is ${BAR} mm${other}. Print at 100 %, and lay a rule on it before you glue anything.`,
    [MARGIN, y - 4],
    2.6,
  );
}

/** Crosses in the strip that two sheets share, at the same places of the blade on both. */
function joinMarks(
  sheet: Sheet,
  { box }: Drawing,
  sheets: readonly number[],
  column: number,
  paper: { width: number; height: number },
): void {
  const cross = (x: number, name: string, isAtEnd: boolean) => {
    const beside = isAtEnd ? -1 - sheet.widthOf(name, 2.6) : 1;
    for (const y of [MARGIN + FOOT - 4, paper.height - MARGIN - HEAD + 2]) {
      const place: Placing = (at) => at;
      sheet.path(straight([x - 4, y], [x + 4, y]), place, { width: 0.15 });
      sheet.path(straight([x, y - 4], [x, y + 4]), place, { width: 0.15 });
      sheet.text(name, [x + beside, y + 1], 2.6);
    }
  };
  const wide = box.right - box.left;
  if (column + 1 < sheets.length) cross(paper.width - MARGIN - OVERLAP / 2, `join ${column + 1}`, true);
  if (column > 0 && wide > 0) cross(MARGIN + OVERLAP / 2, `join ${column}`, false);
}

const straight = (start: Point, to: Point): Path => ({ start, pieces: [{ to }], isClosed: false });

/** A circle as four cubics. Source: the usual constant 4/3·(√2 − 1), which strays by 0.03 % of the radius. */
function circlePath([x, y]: Point, r: number): Path {
  const k = (4 / 3) * (Math.SQRT2 - 1) * r;
  const quarter = (a: Point, b: Point, to: Point) => ({ controls: [a, b] as const, to });
  return {
    start: [x + r, y],
    pieces: [
      quarter([x + r, y + k], [x + k, y + r], [x, y + r]),
      quarter([x - k, y + r], [x - r, y + k], [x - r, y]),
      quarter([x - r, y - k], [x - k, y - r], [x, y - r]),
      quarter([x + k, y - r], [x + r, y - k], [x + r, y]),
    ],
    isClosed: true,
  };
}

/** A page drawn on in millimetres from its lower left corner. */
class Sheet {
  private readonly page: PDFPage;

  constructor(
    private readonly pages: Pages,
    width: number,
    height: number,
  ) {
    this.page = pages.add(width * POINTS_PER_MM, height * POINTS_PER_MM);
  }

  path(
    path: Path,
    place: Placing,
    { width, dash }: { width: number; dash?: number[] } = { width: 0.2 },
  ): void {
    const at = (point: Point): [number, number] => {
      const [x, y] = place(point);
      return [x * POINTS_PER_MM, y * POINTS_PER_MM];
    };
    const operators: PDFOperator[] = [pushGraphicsState(), setLineWidth(width * POINTS_PER_MM)];
    if (dash)
      operators.push(
        setDashPattern(
          dash.map((mm) => mm * POINTS_PER_MM),
          0,
        ),
      );
    operators.push(moveTo(...at(path.start)));
    for (const { to, controls } of path.pieces) {
      operators.push(
        controls ? appendBezierCurve(...at(controls[0]), ...at(controls[1]), ...at(to)) : lineTo(...at(to)),
      );
    }
    if (path.isClosed) operators.push(closePath());
    operators.push(stroke(), popGraphicsState());
    this.page.pushOperators(...operators);
  }

  /** Draws with everything outside a box left away. */
  clipped(x: number, y: number, width: number, height: number, draw: () => void): void {
    const corners = [
      [x, y],
      [x + width, y],
      [x + width, y + height],
      [x, y + height],
    ].map(([cx, cy]) => [cx! * POINTS_PER_MM, cy! * POINTS_PER_MM] as const);
    this.page.pushOperators(
      pushGraphicsState(),
      moveTo(...corners[0]!),
      ...corners.slice(1).map((corner) => lineTo(...corner)),
      closePath(),
      clip(),
      endPath(),
    );
    draw();
    this.page.pushOperators(popGraphicsState());
  }

  text(words: string, at: Point, size: number, as: "H1" | "P" = "P"): void {
    const [x, y] = [at[0] * POINTS_PER_MM, at[1] * POINTS_PER_MM];
    this.pages.words(this.page, words, { x, y, size: size * POINTS_PER_MM, as });
  }

  /** How wide words are, mm. */
  widthOf(words: string, size: number): number {
    return this.pages.widthOf(words, size);
  }
}
