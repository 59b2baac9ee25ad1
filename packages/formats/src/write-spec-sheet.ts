import { compileField } from "@true-spine/core/blade/field.ts";
import { drawnLines, type Line } from "@true-spine/core/blade/lines.ts";
import { ringPoints } from "@true-spine/core/blade/outline.ts";
import type { Blade } from "@true-spine/core/blade/schema.ts";
import type { Spec } from "@true-spine/core/record/spec.ts";
import { type LengthUnit, showLength } from "@true-spine/core/units/length.ts";
import { type PDFPage, rgb } from "pdf-lib";
import { PAPERS, type Paper } from "./papers.ts";
import { Pages } from "./pdf-pages.ts";
import { inOwnWay } from "./reading-order.ts";

export interface SpecSheetOptions {
  readonly paper: Paper;
  readonly unit: LengthUnit;
  /** The fonts' own bytes, TrueType, OpenType or WOFF: each sign is set in the first that has it. */
  readonly fonts: readonly Uint8Array[];
  readonly date: Date;
}

const MM = 72 / 25.4;
const MARGIN = 18;
const DEEP = rgb(0.063, 0.196, 0.36);
const FAINT = rgb(0.35, 0.36, 0.38);
const RULE = rgb(0.75, 0.74, 0.7);
const STEEL = rgb(0.88, 0.91, 0.95);
const GRIND = rgb(0.77, 0.24, 0.11);

/** How a finished blade is looked after and what to beware of, a line each. Source: common practice. */
const CARE = [
  "Wash by hand and dry at once; never in a machine. Oil or wax a carbon steel blade, food-safe on a kitchen knife.",
  "Cut on wood or soft board. Do not pry, twist or strike with it.",
  "Wipe away from the edge. Sharpen at the edge angle given, both sides alike unless they are given apart.",
];
const CAUTION =
  "Sharp: keep it sheathed, away from children. Length, double edges and carrying are matters of local law. Figures describe this blade as read; they are no promise of what it withstands.";

/** One page for the buyer: what was wanted and what was read, what was let stand, care and cautions. */
export async function writeSpecSheet(
  blade: Blade,
  spec: Spec,
  options: SpecSheetOptions,
): Promise<Uint8Array> {
  const pages = await Pages.open(`${spec.name}: specification`, options.fonts, options.date);
  const { width: height, height: width } = PAPERS[options.paper];
  const sheet = new Sheet(pages, width, height);
  sheet.text(spec.name, 22, { ink: DEEP });
  sheet.gap(2);
  sheet.text(
    [
      spec.use && `${inOwnWay(spec.use)} blade`,
      spec.steel &&
        `steel ${inOwnWay(spec.steel)}${spec.heat.done.length > 0 ? ` (${spec.heat.steel})` : ""}`,
      options.date.toISOString().slice(0, 10),
    ]
      .filter(Boolean)
      .join("   ·   "),
    10,
    { ink: FAINT },
  );
  sheet.gap(4);
  drawing(sheet, blade);
  sheet.gap(5);
  for (const row of rowsOf(spec, options.unit)) sheet.row(row);
  sheet.gap(4);
  if (spec.heat.done.length > 0) {
    sheet.text("Heat treatment, as done", 11, { ink: DEEP });
    sheet.text(`${spec.heat.done.join("; ")}.`, 10);
    sheet.gap(3);
  }
  if (spec.deviations.length > 0) {
    sheet.text("Accepted as it is by the maker", 11, { ink: DEEP });
    for (const { words, reason, after } of spec.deviations) {
      sheet.text(`${inOwnWay(after)}: ${words} ${inOwnWay(reason)}`, 10);
    }
    sheet.gap(3);
  }
  sheet.text("Care", 11, { ink: DEEP });
  for (const line of CARE) sheet.text(line, 10);
  sheet.gap(2);
  sheet.text("Cautions", 11, { ink: DEEP });
  sheet.text(CAUTION, 10);
  sheet.gap(3);
  sheet.text(
    `${spec.readings.count} readings kept${spec.readings.out > 0 ? `, ${spec.readings.out} places outside their band` : ""}. ± covers 95 of 100, by JCGM 100:2008. Lengths in ${options.unit}.`,
    8,
    { ink: FAINT },
  );
  return pages.save();
}

interface Row {
  readonly name: string;
  readonly wanted: string;
  readonly read: string;
}

/** A row for both sides, or one for each where they are not wanted or not read alike. */
function bevelRows({ wanted, read }: Spec["bevelAngle"]): Row[] {
  const [left, right] = (["left", "right"] as const).map((side) => {
    const figure = read[side];
    return {
      wanted: range(wanted[side], degrees),
      read: figure ? `${degrees(figure.value)} ± ${degrees(figure.within)}` : "-",
    };
  }) as [Omit<Row, "name">, Omit<Row, "name">];
  return left.wanted === right.wanted && left.read === right.read
    ? [{ name: "Bevel angle a side", ...left }]
    : [
        { name: "Bevel angle, left side", ...left },
        { name: "Bevel angle, right side", ...right },
      ];
}

const degrees = (value: number) => `${value.toFixed(1)}°`;

function range(pair: readonly [number, number] | null, of: (value: number) => string): string {
  if (!pair) return "-";
  const [a, b] = [of(pair[0]), of(pair[1])];
  return a === b ? a : `${a} to ${b}`;
}

function rowsOf(spec: Spec, unit: LengthUnit): (Row | null)[] {
  const say = (mm: number, places?: number) => showLength(mm, unit, places);
  const short = unit === "mm" ? 0 : undefined;
  const tenth = unit === "mm" ? 1 : undefined;
  const within = (value: string, by: string) => (value === "-" ? "-" : `${value} ± ${by}`);
  const offPlan = (pair: readonly [number, number] | null) =>
    range(pair, (value) => `${value > 0 ? "+" : value < 0 ? "−" : ""}${say(Math.abs(value))}`);
  const { behind, edgeAngle, bevelAngle, hardness, flats, balance } = spec;
  return [
    { name: "", wanted: "wanted", read: "read" },
    {
      name: "Behind the edge, thinnest to thickest",
      wanted: range(behind.wanted, say),
      read: within(range(behind.read, say), say(behind.within ?? 0)),
    },
    { name: "  off plan, place by place", wanted: "", read: offPlan(behind.off) },
    { name: "  at the edge bevel's height", wanted: range(behind.height, say), read: "" },
    {
      name: "Edge angle a side",
      wanted:
        edgeAngle.left === edgeAngle.right
          ? degrees(edgeAngle.left)
          : `left ${degrees(edgeAngle.left)}, right ${degrees(edgeAngle.right)}`,
      read: "",
    },
    ...bevelRows(bevelAngle),
    {
      name: "Thickness over the flats",
      wanted: range(flats.wanted, say),
      read: within(range(flats.read, say), say(flats.within ?? 0)),
    },
    { name: "  off plan, place by place", wanted: "", read: offPlan(flats.off) },
    {
      name: "Hardness, HRC",
      wanted: hardness.wanted === null ? "-" : hardness.wanted.toFixed(1),
      read: hardness.read ? `${hardness.read.value.toFixed(1)} ± ${hardness.read.within.toFixed(1)}` : "-",
    },
    null,
    {
      name: "Blade length, overall",
      wanted: `${say(spec.length, short)}, ${say(spec.overall, short)}`,
      read: "",
    },
    {
      name: balance.withHandle ? "Mass with handle" : "Mass of the steel",
      wanted: `${spec.mass.toFixed(0)} g`,
      read: "",
    },
    {
      name: "Balances",
      wanted:
        balance.fromPlunge === null
          ? "-"
          : `${say(Math.abs(balance.fromPlunge), tenth)} ${balance.fromPlunge >= 0 ? "ahead of" : "behind"} the plunge`,
      read: "",
    },
  ];
}

/** The right side as wide as the paper allows, with its grind line. */
function drawing(sheet: Sheet, blade: Blade): void {
  const field = compileField(blade);
  const { ring } = field;
  const scale = Math.min(sheet.room / (ring.right - ring.left), 52 / (ring.top - ring.bottom));
  const top = sheet.y;
  const place = ([x, y]: readonly [number, number]) =>
    [(MARGIN + (x - ring.left) * scale) * MM, -(top - (ring.top - y) * scale) * MM] as const;
  const path = (line: Line) =>
    `M${line
      .map((point) =>
        place(point)
          .map((at) => at.toFixed(2))
          .join(" "),
      )
      .join("L")}`;
  // pdf-lib draws SVG paths with y down from where it is told: from the page's foot that is up.
  sheet.page.drawSvgPath(`${path(ringPoints(ring))}Z`, {
    x: 0,
    y: 0,
    color: STEEL,
    borderColor: DEEP,
    borderWidth: 1,
  });
  for (const line of drawnLines(field).grindLine.right) {
    sheet.page.drawSvgPath(path(line), { x: 0, y: 0, borderColor: GRIND, borderWidth: 0.9 });
  }
  for (const { x, y, d } of blade.holes ?? []) {
    const [px, py] = place([x, y]);
    sheet.page.drawCircle({ x: px, y: -py, size: (d / 2) * scale * MM, borderColor: DEEP, borderWidth: 0.8 });
  }
  sheet.y -= (ring.top - ring.bottom) * scale;
}

/** Pages written down from their heads, another where one is full; y in mm from the foot. */
class Sheet {
  y: number;
  page: PDFPage;

  constructor(
    private readonly pages: Pages,
    private readonly width: number,
    private readonly height: number,
  ) {
    this.page = this.open();
    this.y = height - MARGIN;
  }

  private open(): PDFPage {
    return this.pages.add(this.width * MM, this.height * MM);
  }

  /** Goes down by so much, to the head of another page where this one has not so much left. */
  private down(mm: number): void {
    if (this.y - mm < MARGIN) {
      this.page = this.open();
      this.y = this.height - MARGIN;
    }
    this.y -= mm;
  }

  get room(): number {
    return this.width - 2 * MARGIN;
  }

  gap(mm: number): void {
    this.y -= mm;
  }

  /** Words in as many lines as they need. */
  text(
    words: string,
    size: number,
    { ink = rgb(0.1, 0.11, 0.13), at = MARGIN }: { ink?: ReturnType<typeof rgb>; at?: number } = {},
  ): void {
    const as = size > 20 ? "H1" : size > 10 ? "H2" : "P";
    let row = "";
    const put = () => {
      this.down((size * 1.32) / MM);
      this.pages.words(this.page, row, { x: at * MM, y: this.y * MM, size, color: ink, as });
    };
    for (const word of words.split(" ")) {
      const longer = row ? `${row} ${word}` : word;
      if (row && this.pages.widthOf(longer, size) > this.room * MM) {
        put();
        row = word;
      } else row = longer;
    }
    put();
  }

  /** A line of the table: its name, what was wanted, what was read; null leaves a little room. */
  row(row: Row | null): void {
    if (!row) {
      this.y -= 2;
      return;
    }
    const size = row.name === "" ? 9.5 : 11.5;
    const ink = row.name === "" ? FAINT : rgb(0.1, 0.11, 0.13);
    this.down(7.6);
    const at = (x: number, words: string) =>
      this.pages.words(this.page, words, { x: x * MM, y: this.y * MM, size, color: ink });
    at(MARGIN, row.name);
    at(MARGIN + this.room * 0.47, row.wanted);
    at(MARGIN + this.room * 0.75, row.read);
    this.page.drawLine({
      start: { x: MARGIN * MM, y: (this.y - 2.3) * MM },
      end: { x: (this.width - MARGIN) * MM, y: (this.y - 2.3) * MM },
      thickness: 0.4,
      color: RULE,
    });
  }
}
