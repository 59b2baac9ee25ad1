import type { PlaceReport } from "@true-spine/core/record/run-report.ts";
import { type LengthUnit, MILLIMETRES_IN } from "@true-spine/core/units/length.ts";
import type { ApexOptions } from "apexcharts";
import { useMemo } from "react";
import { useSettings } from "../../app/settings.ts";
import { Plot } from "../../parts/Plot.tsx";

/** A place over the run: each blade's figure with its limits and band, what lies between one and the next, and a table of both. */
export function PlaceCharts({
  place,
  blades,
}: {
  place: PlaceReport;
  blades: readonly { readonly id: string; readonly name: string }[];
}) {
  const unit = useSettings((settings) => settings.unit);
  const { times, digits, sign } = measureOf(place, unit);
  const say = (value: number) => (value * times).toFixed(digits);
  const { chart, target, points, capability, drift } = place;
  const individuals = useMemo(() => individualsOf(place, times, digits), [place, times, digits]);
  const ranges = useMemo(() => rangesOf(place, times, digits), [place, times, digits]);
  if (!chart) {
    return (
      <div>
        <h2 className="text-lg font-bold">{place.name}</h2>
        <p className="mt-1 text-sm text-faint">
          Read it on two blades at least, after the same stage; then there is something to chart.
        </p>
      </div>
    );
  }
  const signals = new Map(chart.signals.map(({ at, words }) => [at, words]));
  return (
    <div>
      <h2 className="text-lg font-bold">
        {place.name} <span className="text-sm font-normal text-faint">{sign}</span>
      </h2>
      <dl className="mt-2 flex flex-wrap gap-x-6 gap-y-1 text-sm">
        <Fact name="wanted">
          {target ? `${say(target.value)} ± ${say(target.band)}` : "nothing to read there"}
        </Fact>
        <Fact name="mean">{say(chart.mean)}</Fact>
        <Fact name="limits">
          {say(chart.lower)} to {say(chart.upper)}
        </Fact>
        <Fact name="first-off, last-off">
          {say(place.first!)}, {say(place.last!)}
        </Fact>
        {drift && (
          <Fact name="drift">
            {(drift.perBlade * times).toFixed(digits + 1)} a blade
            {drift.chance < 0.01 ? ", not by chance" : ", may be chance"}
          </Fact>
        )}
        {capability && (
          <>
            <Fact name="Cp, 95 of 100">
              {capability.cp.toFixed(2)} ({capability.cpWithin.map((one) => one.toFixed(2)).join("–")})
            </Fact>
            <Fact name="Cpk, 95 of 100">
              {capability.cpk.toFixed(2)} ({capability.cpkWithin.map((one) => one.toFixed(2)).join("–")})
            </Fact>
          </>
        )}
      </dl>
      <div className="mt-3 grid grid-cols-[1fr_21rem] gap-5">
        <div>
          <Plot label={`Individuals chart of ${place.name}`} options={individuals} height={260} />
          <Plot label={`Moving ranges of ${place.name}`} options={ranges} height={170} />
        </div>
        <section
          aria-label="All figures"
          // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached by keys
          tabIndex={0}
          className="max-h-[440px] overflow-y-auto border border-rule"
        >
          <table aria-label={`Figures of ${place.name}`} className="w-full border-collapse bg-sheet text-sm">
            <thead className="sticky top-0 bg-sheet text-left text-[11px] text-faint">
              <tr>
                {["blade", "read", "range", "says"].map((name) => (
                  <th key={name} scope="col" className="px-1.5 py-1 font-normal">
                    {name}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {points.map(({ id, blade, value }, i) => {
                const range = chart.ranges[i] ?? null;
                return (
                  <tr key={id} className="border-t border-rule">
                    <td className="max-w-36 truncate px-1.5 py-0.5" title={blade}>
                      {blades.findIndex((one) => one.id === id) + 1}. {blade}
                    </td>
                    <td className="px-1.5 text-right font-semibold">{say(value)}</td>
                    <td className="px-1.5 text-right">{range === null ? "" : say(range)}</td>
                    <td className="px-1.5 text-xs">{signals.get(i)}</td>
                  </tr>
                );
              })}
            </tbody>
          </table>
        </section>
      </div>
      <p className="mt-3 max-w-prose text-xs text-faint">
        Limits are the mean ± 2.66 mean moving ranges; rules are those of the NIST/SEMATECH e-Handbook of
        Statistical Methods, 6.3.2. The band is what is wanted; the limits are what the work does.
      </p>
    </div>
  );
}

function Fact({ name, children }: { name: string; children: React.ReactNode }) {
  return (
    <div>
      <dt className="text-[11px] text-faint">{name}</dt>
      <dd className="font-semibold">{children}</dd>
    </div>
  );
}

function measureOf(
  { unit: of }: PlaceReport,
  unit: LengthUnit,
): { times: number; digits: number; sign: string } {
  if (of !== "mm") return { times: 1, digits: 1, sign: of };
  if (unit === "mm") return { times: 1, digits: 2, sign: "mm" };
  return unit === "inch"
    ? { times: 1 / MILLIMETRES_IN.inch, digits: 4, sign: "inch" }
    : { times: 1000 / MILLIMETRES_IN.inch, digits: 1, sign: "thou" };
}

/** Where the names of lines stand, so that lines close together do not share a place for them: the upper above it, the lower below, the mean's at the left. */
const NAMED = {
  above: { position: "right", textAnchor: "end", offsetY: -3 },
  below: { position: "right", textAnchor: "end", offsetY: 14 },
  left: { position: "left", textAnchor: "start", offsetY: -3 },
} as const;

const line = (y: number, text: string, colour: string, dash: number, named: keyof typeof NAMED) => ({
  y,
  borderColor: colour,
  strokeDashArray: dash,
  label: { ...NAMED[named], text, borderWidth: 0, style: { background: "transparent", color: colour } },
});

const DEEP = "#2f6fb5";
const LIMIT = "#b4501f";
const BAND = "#4d9463";

function base(count: number, digits: number, series: ApexOptions["series"]): ApexOptions {
  return {
    chart: { type: "line" },
    series,
    stroke: { width: 1.6 },
    colors: [DEEP],
    markers: { size: 4 },
    tooltip: { enabled: false },
    legend: { show: false },
    xaxis: {
      categories: Array.from({ length: count }, (_, i) => String(i + 1)),
      tickAmount: Math.min(count, 15),
      title: { text: "blade of the run" },
    },
    yaxis: { labels: { formatter: (value) => value.toFixed(digits) } },
  };
}

/** An axis from one round figure to another, with about so many lines across. */
function roundAxis(
  least: number,
  most: number,
  about: number,
): { min: number; max: number; tickAmount: number } {
  const rough = (most - least || 0.01) / about;
  const power = 10 ** Math.floor(Math.log10(rough));
  const step = power * ([1, 2, 5].find((times) => times * power >= rough) ?? 10);
  const [from, to] = [least === 0 ? 0 : Math.floor(least / step - 0.2), Math.ceil(most / step + 0.2)];
  return { min: from * step, max: to * step, tickAmount: to - from };
}

function individualsOf({ chart, target, points }: PlaceReport, times: number, digits: number): ApexOptions {
  if (!chart) return {};
  const values = points.map(({ value }) => value * times);
  const low = target ? (target.value - target.band) * times : null;
  const high = target ? (target.value + target.band) * times : null;
  const all = [...values, chart.upper * times, chart.lower * times, ...(low === null ? [] : [low, high!])];
  const across = roundAxis(Math.min(...all), Math.max(...all), 6);
  return {
    ...base(points.length, digits, [
      { name: "read", data: values.map((value) => Number(value.toFixed(digits + 2))) },
    ]),
    yaxis: {
      ...across,
      labels: { formatter: (value) => value.toFixed(digits) },
    },
    annotations: {
      yaxis: [
        ...(low === null ? [] : [{ y: low, y2: high!, fillColor: BAND, opacity: 0.16, borderColor: BAND }]),
        line(chart.mean * times, "mean", DEEP, 0, "left"),
        line(chart.upper * times, "upper limit", LIMIT, 5, "above"),
        line(chart.lower * times, "lower limit", LIMIT, 5, "below"),
      ],
      points: chart.signals.map(({ at }) => ({
        x: String(at + 1),
        y: values[at]!,
        marker: { size: 7, fillColor: "#ffffff", strokeColor: LIMIT, shape: "square" as const },
      })),
    },
  };
}

function rangesOf({ chart, points }: PlaceReport, times: number, digits: number): ApexOptions {
  if (!chart) return {};
  const data = chart.ranges.map((range) =>
    range === null ? null : Number((range * times).toFixed(digits + 2)),
  );
  const most = Math.max(chart.rangeUpper * times, ...data.map((one) => one ?? 0));
  return {
    ...base(points.length, digits, [{ name: "moving range", data }]),
    yaxis: {
      min: 0,
      max: most * 1.08 || 0.01,
      tickAmount: 3,
      labels: { formatter: (value) => value.toFixed(digits) },
    },
    annotations: {
      yaxis: [
        line(chart.meanRange * times, "mean range", DEEP, 0, "left"),
        line(chart.rangeUpper * times, "upper limit", LIMIT, 5, "above"),
      ],
    },
  };
}
