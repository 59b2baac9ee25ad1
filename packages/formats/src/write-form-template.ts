import type { Blade } from "@true-spine/core/blade/schema.ts";
import { barWords } from "@true-spine/core/forge/bar.ts";
import { expansionAt } from "@true-spine/core/forge/heat.ts";
import type { Forge } from "@true-spine/core/forge/schema.ts";
import type { Forging } from "@true-spine/core/route/forging.ts";
import { showLength, showLengthWithUnit } from "@true-spine/core/units/length.ts";
import type { Drawing, Path, Point } from "./drawing.ts";
import { inOwnWay } from "./reading-order.ts";
import { type TemplateOptions, writeSheets } from "./write-template.ts";

export interface FormTemplateOptions extends Pick<TemplateOptions, "paper" | "unit" | "fonts" | "date"> {
  /** As it measures at the colour where work stops, not cold. */
  readonly isHot: boolean;
}

/** A form of the blank at true scale, both sides, cold or as long as it is hot. Throws where there is no such form. */
export async function writeFormTemplate(
  blade: Blade,
  forging: Forging | null,
  forge: Pick<Forge, "heat">,
  step: string,
  options: FormTemplateOptions,
): Promise<Uint8Array> {
  const i = forging?.forms.forms.findIndex((form) => form.step === step) ?? -1;
  if (!forging || i < 0) throw new Error("There is no such form: say first which bar it is forged from.");
  const form = forging.forms.forms[i]!;
  const { unit, isHot } = options;
  const times = isHot ? 1 + expansionAt(forge.heat.stop) : 1;
  const say = (mm: number) => showLengthWithUnit(mm, unit, unit === "mm" ? 1 : undefined);
  const facts = [
    `from ${barWords(forging.bar, (mm) => showLength(mm, unit))} ${unit}`,
    `${say(form.length * times)} long`,
    isHot ? `as it measures at ${Math.round(forge.heat.stop)} °C` : "cold",
  ];
  const title = `${blade.name}: ${form.name}`;
  const head = `${inOwnWay(blade.name)}: ${form.name}`;
  return writeSheets(drawingOfForm(forging, i, times, title), { title, head, facts }, options);
}

/** A form's outline and its middle line as a drawing, so many times as large. */
export function drawingOfForm({ outlines }: Forging, i: number, times: number, name: string): Drawing {
  const { outline, middle, box } = outlines[i]!;
  const at = ([x, y]: readonly [number, number]): Point => [x * times, y * times];
  const path = (points: readonly (readonly [number, number])[], isClosed: boolean): Path => ({
    start: at(points[0]!),
    pieces: points.slice(1).map((point) => ({ to: at(point) })),
    isClosed,
  });
  return {
    name,
    layers: [
      { name: "OUTLINE", paths: [path(outline, true)], circles: [] },
      { name: "DATUM", paths: [path(middle, false)], circles: [] },
    ],
    box: {
      left: box.left * times,
      right: box.right * times,
      bottom: box.bottom * times,
      top: box.top * times,
    },
  };
}
