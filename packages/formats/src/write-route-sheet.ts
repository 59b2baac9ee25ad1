import { abrasiveName } from "@true-spine/core/abrasive/schema.ts";
import { otherSide, readingFor, zeroProcedure } from "@true-spine/core/grind/setups.ts";
import { holeInWords } from "@true-spine/core/handle/holes.ts";
import { crossingInWords, stopInWords } from "@true-spine/core/route/layout.ts";
import type { RouteReport, StageReport } from "@true-spine/core/route/report.ts";
import type { Route } from "@true-spine/core/route/schema.ts";
import { setupFor } from "@true-spine/core/route/setup-for.ts";
import { STAGES } from "@true-spine/core/route/stages.ts";
import type { NamedSetup, Shop } from "@true-spine/core/shop/schema.ts";
import { type LengthUnit, showLength, showLengthWithUnit } from "@true-spine/core/units/length.ts";
import type { PDFPage } from "pdf-lib";
import { PAPERS, type Paper } from "./papers.ts";
import { Pages } from "./pdf-pages.ts";
import { inOwnWay } from "./reading-order.ts";

export interface RouteSheetOptions {
  readonly name: string;
  readonly paper: Paper;
  readonly unit: LengthUnit;
  /** The fonts' own bytes, TrueType, OpenType or WOFF: each sign is set in the first that has it. */
  readonly fonts: readonly Uint8Array[];
  readonly date: Date;
}

const POINTS_PER_MM = 72 / 25.4;
const MARGIN = 14;
const SIZE = 9;
const LINE = 4.4;

/**
 * The route on paper: every stage with what to stop at, its belts and its cautions, room to write a reading beside it;
 * then the layout sheet, and a set-up card for every stage that holds a face at an angle, with how its zero is found again.
 */
export async function writeRouteSheet(
  route: Route,
  report: RouteReport,
  shop: Shop,
  options: RouteSheetOptions,
): Promise<Uint8Array> {
  const pages = await Pages.open(`${options.name}: route`, options.fonts, options.date);
  const text = new Column(pages, options);
  const three = (values: readonly (number | null)[]) => threeOf(values, options.unit);

  text.head(`${inOwnWay(options.name)}: route`);
  text.line(
    `Lengths in ${options.unit}; three figures are heel, middle and tip. ${options.date.toISOString().slice(0, 10)}`,
  );
  for (const [i, stage] of report.stages.entries()) stageOn(text, i, stage, route, three);
  if (report.layout) layoutOn(text, report.layout, options.unit);
  for (const [i, stage] of report.stages.entries()) {
    const isHeld = [...stage.work.angle.right, ...stage.work.angle.left].some((angle) => angle !== null);
    const named = setupFor(route.stages, i, shop);
    if (isHeld && named) setupOn(text, stage, named, options.unit);
  }
  text.gap();
  text.line(
    "The product advises. It replaces neither training, nor the makers of the machines, nor local law.",
  );
  return pages.save();
}

type Three = (values: readonly (number | null)[]) => string;

function threeOf(values: readonly (number | null)[], unit: LengthUnit): string {
  const words = values.map((value) => (value === null ? "-" : showLength(value, unit)));
  return new Set(words).size === 1 ? words[0]! : words.join(" / ");
}

function stageOn(text: Column, i: number, stage: StageReport, route: Route, three: Three): void {
  const { words, caution } = STAGES[stage.kind];
  const plan = route.stages[i];
  text.gap();
  text.tick(`${i + 1}. ${inOwnWay(stage.name)}`, plan?.done !== undefined);
  text.line(words);
  const { on, stop, line } = stage.work;
  const isEdge = on === "edge";
  const told = (name: string, values: readonly (number | null)[]) =>
    values.some((value) => value !== null) ? [`${name} ${three(values)}`] : [];
  text.line(
    [
      `flats ${three(stage.targets.map(({ flats }) => flats))}`,
      ...told(isEdge ? "behind the edge" : "edge to stop at", stop),
      ...told(isEdge ? "edge bevel high" : "grind line", line[sideOf(stage)]),
    ].join(";  "),
  );
  const { second } = stage.work;
  if (second)
    text.line(
      `second edge:  ${[
        ...told(isEdge ? "behind it" : "stop at", second.stop),
        ...told(isEdge ? "bevel high" : "line", second.line[workedSide(second)]),
        ...second.angle[workedSide(second)]
          .slice(1, 2)
          .map((angle) => (angle === null ? "" : `${angle.toFixed(1)}° in the middle`)),
      ].join(";  ")}`,
    );
  if (stage.belts?.planned.ok) {
    const belts = stage.belts.planned.sequence.steps.map(({ belt }) => abrasiveName(belt)).join(", ");
    text.line(`belts: ${belts}; about ${stage.minutes} minutes`);
  } else if (stage.belts && !stage.belts.planned.ok) text.line(`belts: ${stage.belts.planned.why}`);
  if (plan?.planned) text.line(`planned for ${plan.planned}`);
  if (plan?.note) text.line(`note: ${inOwnWay(plan.note)}`);
  text.line(`! ${caution}`);
  text.line("read:  heel ..........   middle ..........   tip ..........");
}

/** The side whose figures are told: the right, or the left where only that is ground. */
const sideOf = ({ work }: StageReport) => workedSide(work);
const workedSide = ({ angle }: Pick<StageReport["work"], "angle">) =>
  angle.right.every((one) => one === null) ? "left" : "right";

function layoutOn(text: Column, layout: NonNullable<RouteReport["layout"]>, unit: LengthUnit): void {
  const say = (mm: number) => showLengthWithUnit(mm, unit);
  text.gap();
  text.head("Layout");
  text.line(
    layout.face
      ? `One line, from the ${layout.face} face, at ${layout.places.map(({ edge }) => say(edge)).join(" / ")} (heel, middle, tip).`
      : `Height gauge at ${say(layout.setting)}, from both faces.`,
  );
  for (const words of crossingInWords(layout, unit)) text.line(words);
  for (const { place, flats, gap, gauge, outside, line } of layout.places) {
    const now = line.right ?? line.left;
    const lined = now ? `; scribe the grind line at ${say(now.now)}, it climbs ${say(now.climb)}` : "";
    const two = layout.face
      ? ""
      : `, gap ${say(gap)} (gauge for the wanted gap here ${say(gauge.right)}). ${stopInWords(outside, unit)}`;
    text.line(`${place}: ${say(flats)} thick${two}${lined}`);
  }
  for (const [i, { flats, outside, line }] of layout.second.entries()) {
    const now = line.right ?? line.left;
    const lined = now ? `; scribe its grind line at ${say(now.now)}, it climbs ${say(now.climb)}` : "";
    const at = ["where it begins", "in its middle", "near its end"][i];
    text.line(`second edge, ${at}: ${say(flats)} thick. ${stopInWords(outside, unit)}${lined}`);
  }
  for (const { side, foot, top } of layout.plunges) {
    text.line(`plunge, ${side === "both" ? "both sides" : side}: foot at ${say(foot)}, top at ${say(top)}`);
  }
  for (const hole of layout.holes) text.line(holeInWords(hole, say));
}

function setupOn(text: Column, stage: StageReport, { name, setup }: NamedSetup, unit: LengthUnit): void {
  text.gap();
  text.head(`Set-up card: ${inOwnWay(stage.name)}, ${inOwnWay(name)}`);
  const angles = stage.work.angle[sideOf(stage)];
  const single = stage.work.single[sideOf(stage)];
  const say = (angle: number | null, of = setup) => {
    if (angle === null) return "-";
    const { value, unit: measure } = readingFor(of, angle);
    return measure === "°" ? `${value.toFixed(1)}°` : showLengthWithUnit(value, unit);
  };
  text.line(
    single === null
      ? `No single angle exists: ${angles.map((angle) => say(angle)).join(" / ")} at heel, middle and tip.`
      : `Set to ${say(single)} (${single.toFixed(2)}° a side).`,
  );
  if (setup.kind === "arm")
    text.line(`Other side: ${angles.map((angle) => say(angle, otherSide(setup))).join(" / ")}.`);
  const { datum, also } = readingFor(setup, single ?? angles.find((one) => one !== null) ?? 5);
  text.line(
    `Read: ${datum}${also && single !== null ? `; or ${also.value.toFixed(1)}° ${also.datum}` : ""}.`,
  );
  for (const [i, line] of zeroProcedure(setup).entries()) text.line(`${i + 1}) ${line}`);
  if (stage.tenth)
    text.line(`0.1° is ${showLengthWithUnit(stage.tenth.edge, unit)} at the edge, both sides together.`);
}

/** Text set down a page, on to the next when it is full. */
class Column {
  private page: PDFPage;
  private y: number;

  constructor(
    private readonly pages: Pages,
    private readonly options: RouteSheetOptions,
  ) {
    this.page = this.fresh();
    this.y = this.top;
  }

  private get top(): number {
    return PAPERS[this.options.paper].height - MARGIN;
  }

  private fresh(): PDFPage {
    const { width, height } = PAPERS[this.options.paper];
    return this.pages.add(width * POINTS_PER_MM, height * POINTS_PER_MM);
  }

  private put(words: string, size: number, indent = 0, as: "H1" | "H2" | "P" = "P"): void {
    if (this.y < MARGIN + LINE) {
      this.page = this.fresh();
      this.y = this.top;
    }
    this.y -= (LINE * size) / SIZE;
    this.pages.words(this.page, words, {
      x: (MARGIN + indent) * POINTS_PER_MM,
      y: this.y * POINTS_PER_MM,
      size,
      as,
    });
  }

  head(words: string): void {
    this.put(words, 13, 0, "H1");
  }

  /** A line, broken between words where it is longer than the paper is wide. */
  line(words: string): void {
    const room = (PAPERS[this.options.paper].width - 2 * MARGIN - 6) * POINTS_PER_MM;
    let row = "";
    for (const word of words.split(" ")) {
      const longer = row ? `${row} ${word}` : word;
      if (row && this.pages.widthOf(longer, SIZE) > room) {
        this.put(row, SIZE, 6);
        row = word;
      } else row = longer;
    }
    this.put(row, SIZE, 6);
  }

  /** A line with a box to tick before it. */
  tick(words: string, isDone: boolean): void {
    this.put(words, 11, 6, "H2");
    this.page.drawRectangle({
      x: MARGIN * POINTS_PER_MM,
      y: this.y * POINTS_PER_MM,
      width: 8,
      height: 8,
      borderWidth: 0.7,
      opacity: isDone ? 1 : 0,
    });
  }

  gap(): void {
    this.y -= LINE * 0.7;
  }
}
