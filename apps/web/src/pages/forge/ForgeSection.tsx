import type { ForgeReport } from "@true-spine/core/route/forge-report.ts";
import { formAtX } from "@true-spine/core/route/forge-report.ts";
import { showLength } from "@true-spine/core/units/length.ts";
import { useSettings } from "../../app/settings.ts";
import { useRail } from "../../blade/screen.ts";
import { pathThrough } from "../../rail/scale.ts";

const WIDTH = 336;
const HEIGHT = 190;
const TOP = 30;

/** The section at the scribe before and after: the chosen form, the blank, and the finished blade within. */
export function ForgeSection({ report, chosen }: { report: ForgeReport; chosen: number }) {
  const unit = useSettings((settings) => settings.unit);
  const x = useRail((state) => state.scribe);
  const { section } = report;
  const form = report.forms[chosen]!;
  const shapes = [...(form.section ? [form.section] : []), ...(section.blank ? [section.blank] : [])];
  const all = shapes.flat();
  const at = showLength(x, unit, unit === "mm" ? 1 : undefined);
  const frame = "relative sticky top-0 z-10 overflow-hidden bg-layout text-scribed";
  if (all.length === 0)
    return (
      <section aria-label="Section" className={`${frame} p-3`} style={{ height: 70 }}>
        <h2 className="text-[13px] font-semibold">Section at {at}</h2>
        <p className="mt-1 text-sm text-scribed-faint">No steel here.</p>
      </section>
    );
  const [bottom, top] = [Math.min(...all.map((p) => p[1])), Math.max(...all.map((p) => p[1]))];
  const widest = Math.max(...all.map((p) => Math.abs(p[0])));
  const times = Math.min((HEIGHT - TOP - 10) / (top - bottom), 130 / (2 * widest));
  const draw = (middle: number) => (line: readonly (readonly [number, number])[]) =>
    pathThrough(
      line,
      (z) => middle + z * times,
      (y) => HEIGHT - 8 - (y - bottom) * times,
      true,
    );
  const [left, right] = [draw(70), draw(190)];
  const say = (mm: number) => showLength(mm, unit);
  const here = formAtX(form, x);
  return (
    <section aria-label="Section, before and after" className={frame} style={{ height: HEIGHT }}>
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        width="100%"
        height={HEIGHT}
        role="img"
        aria-label={`Sections of the form and the blank at ${at}`}
      >
        {form.section && (
          <path
            d={left(form.section)}
            fill="var(--color-layout-steel)"
            stroke="var(--color-scribed)"
            strokeWidth={1.6}
          />
        )}
        {section.blank && (
          <path
            d={right(section.blank)}
            fill="var(--color-layout-steel)"
            stroke="var(--color-scribed)"
            strokeDasharray="6 3"
            strokeWidth={1.4}
          />
        )}
        {section.finished.map((line) => (
          <path
            key={line.length}
            d={right(line)}
            fill="var(--color-layout-bevel)"
            stroke="var(--color-scribed-faint)"
          />
        ))}
      </svg>
      <h2 className="pointer-events-none absolute top-1.5 left-2.5 text-[13px] font-semibold">
        Section at {at}
        <span className="ml-2 text-[11px] font-normal text-scribed-faint">
          this form; blank over finished
        </span>
      </h2>
      {here && (
        <dl className="absolute top-8 right-2.5 text-right text-xs" aria-label="The form at the scribe">
          {(
            [
              ["wide", say(here.width)],
              ["thick", say(here.thickness)],
              ...(here.edge === null ? [] : [["edge", say(here.edge)] as const]),
              ["seconds", here.seconds.toFixed(0)],
            ] as const
          ).map(([name, value]) => (
            <div key={name}>
              <dt className="inline text-scribed-faint">{name} </dt>
              <dd className="inline text-sm font-semibold">{value}</dd>
            </div>
          ))}
        </dl>
      )}
    </section>
  );
}
