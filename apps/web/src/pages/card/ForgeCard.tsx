import type { ForgeReport, FormReport } from "@true-spine/core/route/forge-report.ts";
import type { FormPlaceName } from "@true-spine/core/route/forging.ts";
import { colourAt } from "@true-spine/core/units/colours.ts";
import { showLength } from "@true-spine/core/units/length.ts";
import { useSettings } from "../../app/settings.ts";
import { useDocument } from "../../blade/screen.ts";
import { useSize } from "../../rail/useSize.ts";

/** Where a form is measured at the anvil. */
const AT: readonly FormPlaceName[] = ["heel", "middle", "tip"];
const MARGIN = 40;

/** One form at a time at the anvil, over the last: as large as there is room. */
export function ForgeDrawing({ report, at }: { report: ForgeReport; at: number }) {
  const [ref, { width, height }] = useSize<HTMLDivElement>();
  const form = report.forms[at]!;
  const before = report.forms[at - 1];
  const all = [...form.outline, ...(before?.outline ?? [])];
  const xs = all.map(([x]) => x);
  const ys = all.map(([, y]) => y);
  const [left, right, bottom, top] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  const times = Math.max(
    0.1,
    Math.min((width - 2 * MARGIN) / (right - left), (height - 120) / (top - bottom)),
  );
  const path = (points: FormReport["outline"]) =>
    `M${points
      .map(([x, y]) => {
        const px = width / 2 + (x - (left + right) / 2) * times;
        const py = height / 2 + 20 - (y - (bottom + top) / 2) * times;
        return `${px.toFixed(1)} ${py.toFixed(1)}`;
      })
      .join("L")}Z`;
  return (
    <div ref={ref} className="h-full bg-layout text-scribed">
      {width > 0 && (
        <svg width={width} height={height} role="img" aria-label={`${form.name}, over the form before it`}>
          <path
            d={path(form.outline)}
            fill="var(--color-layout-steel)"
            stroke="var(--color-scribed)"
            strokeWidth={2.5}
          />
          {before && (
            <path
              d={path(before.outline)}
              fill="none"
              stroke="var(--color-grind)"
              strokeWidth={1.6}
              strokeDasharray="8 6"
            />
          )}
        </svg>
      )}
      <p className="absolute top-4 left-5 text-2xl font-bold">
        {at + 1} of {report.forms.length}: {form.name}
      </p>
    </div>
  );
}

/** What a form measures, and until which colour it may be struck. */
export function ForgeNumbers({ report, at }: { report: ForgeReport; at: number }) {
  const unit = useSettings((settings) => settings.unit);
  const { heat } = useDocument("forge");
  const form = report.forms[at]!;
  const say = (mm: number) => showLength(mm, unit, unit === "mm" ? 1 : undefined);
  const places = AT.map((name) => form.places.find((place) => place.name === name)!);
  const seconds = Math.min(...form.along.map((place) => place.seconds));
  const three = (title: string, values: readonly string[]) => (
    <div className="px-5 py-3">
      <p className="text-base text-faint">{title}</p>
      {new Set(values).size === 1 ? (
        <p className="text-6xl font-bold">
          {values[0]} <span className="text-2xl font-normal text-faint">{unit}</span>
        </p>
      ) : (
        <dl className="flex gap-4 xl:gap-5">
          {AT.map((name, i) => (
            <div key={name}>
              <dd className="text-3xl font-bold xl:text-4xl">{values[i]}</dd>
              <dt className="text-base text-faint">{name}</dt>
            </div>
          ))}
        </dl>
      )}
    </div>
  );
  return (
    <>
      {three(
        "Wide",
        places.map(({ width }) => say(width)),
      )}
      {three(
        places.some(({ edge }) => edge !== null) ? "Thick at the spine / edge" : "Thick",
        places.map(({ thickness, edge }) =>
          edge === null ? say(thickness) : `${say(thickness)} / ${say(edge)}`,
        ),
      )}
      <div className="px-5 py-3">
        <p className="text-base text-faint">Long; stop at {heat.said?.stop ?? colourAt(heat.stop)?.name}</p>
        <p className="text-4xl font-bold">
          {say(form.length)} <span className="text-2xl font-normal text-faint">{unit}</span>
        </p>
        <p className="text-base text-faint">
          {say(form.length * (1 + report.hot))} hot. {Math.round(heat.stop)} °C; the thinnest is there in
          about {seconds.toFixed(0)} s
        </p>
      </div>
    </>
  );
}
