import { shareAtX } from "@true-spine/core/blade/chain.ts";
import { compileField } from "@true-spine/core/blade/field.ts";
import { meshOf } from "@true-spine/core/blade/mesh.ts";
import { compileRing } from "@true-spine/core/blade/outline.ts";
import type { Blade } from "@true-spine/core/blade/schema.ts";
import type { Forge } from "@true-spine/core/forge/schema.ts";
import type { Heat } from "@true-spine/core/heat/schema.ts";
import { type Spec, specOf } from "@true-spine/core/record/spec.ts";
import { forgingOf } from "@true-spine/core/route/forging.ts";
import { heatReport } from "@true-spine/core/route/heat-report.ts";
import { reportOf } from "@true-spine/core/route/report.ts";
import type { Route } from "@true-spine/core/route/schema.ts";
import { finishedSteel } from "@true-spine/core/route/steel.ts";
import type { Shop } from "@true-spine/core/shop/schema.ts";
import type { Read } from "@true-spine/formats/contours.ts";
import { drawingOf } from "@true-spine/formats/drawing.ts";
import { type GaugeOrder, gaugesOf } from "@true-spine/formats/gauges.ts";
import { readDxf } from "@true-spine/formats/read-dxf.ts";
import { type BringOptions, type BroughtReadings, readReadings } from "@true-spine/formats/read-readings.ts";
import { readSvg } from "@true-spine/formats/read-svg.ts";
import { wordsOf } from "@true-spine/formats/words.ts";
import { type DxfOptions, writeDxf } from "@true-spine/formats/write-dxf.ts";
import { type FormTemplateOptions, writeFormTemplate } from "@true-spine/formats/write-form-template.ts";
import { writeGaugePlates, writeGauges } from "@true-spine/formats/write-gauges.ts";
import { writeCalendar, writeRouteCsv } from "@true-spine/formats/write-route.ts";
import { type RouteSheetOptions, writeRouteSheet } from "@true-spine/formats/write-route-sheet.ts";
import { write3mf, writeStl } from "@true-spine/formats/write-solids.ts";
import { type SpecSheetOptions, writeSpecSheet } from "@true-spine/formats/write-spec-sheet.ts";
import { writeStations } from "@true-spine/formats/write-stations.ts";
import { writeSvg } from "@true-spine/formats/write-svg.ts";
import { type TemplateOptions, writeTemplate } from "@true-spine/formats/write-template.ts";
import { expose } from "comlink";

/** Reads and writes open formats, off the main thread. Stopped by ending the worker. */
const filing = {
  read: (kind: "svg" | "dxf", text: string): Read => (kind === "svg" ? readSvg(text) : readDxf(text)),
  template: (blade: Blade, options: TemplateOptions) => writeTemplate(blade, options),
  dxf: (blade: Blade, options: DxfOptions) => writeDxf(drawingOf(blade), options),
  svg: (blade: Blade) => writeSvg(drawingOf(blade)),
  gauges: (blade: Blade, order: GaugeOrder, fonts: readonly Uint8Array[]) =>
    writeGauges(gaugesOf(blade, order), fonts),
  gaugePlates: (blade: Blade, order: GaugeOrder) => writeGaugePlates(gaugesOf(blade, order)),
  routeSheet: (blade: Blade, route: Route, shop: Shop, forge: Forge, options: RouteSheetOptions) =>
    writeRouteSheet(route, reportOf(blade, route, shop, 0, forge), shop, options),
  routeCsv: (blade: Blade, route: Route, shop: Shop, forge: Forge) =>
    writeRouteCsv(route, reportOf(blade, route, shop, 0, forge)),
  spec: (blade: Blade, read: Parameters<typeof specOf>[1]): Spec => specOf(blade, read),
  specSheet: (blade: Blade, read: Parameters<typeof specOf>[1], options: SpecSheetOptions) =>
    writeSpecSheet(blade, specOf(blade, read), options),
  calendar(id: string, blade: Blade, route: Route, heat: Heat, shop: Shop): string {
    const { ops } = heatReport(blade, route, heat, shop);
    const minutes = new Map(ops.map(({ op, total, cooling }) => [op.id, total + cooling]));
    return writeCalendar(blade.name, id, route, new Date(), minutes);
  },
  readings(
    bytes: Uint8Array,
    blade: Blade,
    asked: Pick<BringOptions, "of" | "stage" | "stages" | "dates" | "isAgreed">,
    onProgress: (share: number) => void,
  ): BroughtReadings {
    const { edge } = compileRing(blade.outline);
    const second = finishedSteel(blade).onSecond?.field.edge ?? null;
    const uAt = (x: number, on?: "second") => (on ? second && shareAtX(second, x) : shareAtX(edge, x));
    return readReadings(wordsOf(bytes), { ...asked, uAt, when: new Date().toISOString(), onProgress });
  },
  formTemplate: (
    blade: Blade,
    route: Route,
    forge: Forge,
    shop: Shop,
    step: string,
    options: FormTemplateOptions,
  ) => writeFormTemplate(blade, forgingOf(blade, route, forge, shop), forge, step, options),
  stations: (blade: Blade) => writeStations(blade),
  solid(blade: Blade, format: "stl" | "3mf", onProgress: (share: number) => void): Uint8Array {
    const mesh = meshOf(compileField(blade), { onProgress });
    return format === "stl" ? writeStl(mesh, blade.name) : write3mf(mesh, blade.name);
  },
};

export type Filing = typeof filing;

expose(filing);
