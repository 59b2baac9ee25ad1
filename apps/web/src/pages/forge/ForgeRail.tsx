import type { ForgeReport } from "@true-spine/core/route/forge-report.ts";
import { MILLIMETRES_IN, showLength } from "@true-spine/core/units/length.ts";
import { useSettings } from "../../app/settings.ts";
import { useFile, useRail } from "../../blade/screen.ts";
import { BladeOutline } from "../../rail/BladeOutline.tsx";
import { Chart } from "../../rail/Chart.tsx";
import { type Frame, RailFrame } from "../../rail/RailFrame.tsx";
import { Strip, TITLE_HEIGHT } from "../../rail/Strip.tsx";
import { pathThrough, type Scale } from "../../rail/scale.ts";
import { useSidePlace } from "../../rail/side-place.ts";

const SHARES = { blank: 0.28, form: 0.28, bar: 0.17, thick: 0.15, seconds: 0.12 } as const;

/** Blank over the finished blade, the form over the last, the bar they come from, how thick it is and how long it stays hot. */
export function ForgeRail({ report, chosen }: { report: ForgeReport; chosen: number }) {
  const { blank, bar, total, forms } = report;
  // All forms in sight, so that one can be held against another.
  const boxes = forms.map(({ outline }) => ({
    xs: outline.map(([x]) => x),
    ys: outline.map(([, y]) => y),
  }));
  const within = {
    left: Math.min(blank.left, blank.right - total, ...boxes.flatMap(({ xs }) => Math.min(...xs))),
    right: Math.max(blank.right, ...boxes.flatMap(({ xs }) => Math.max(...xs))),
    tall: Math.max(
      bar.shape === "round" ? bar.d : bar.w,
      ...boxes.map(({ ys }) => Math.max(...ys) - Math.min(...ys)),
    ),
  };
  return (
    <RailFrame share={SHARES.form} within={within}>
      {(frame) => <Strips {...frame} report={report} chosen={chosen} />}
    </RailFrame>
  );
}

function Strips({ scale, room, report, chosen }: Frame & { report: ForgeReport; chosen: number }) {
  const unit = useSettings((settings) => settings.unit);
  const form = report.forms[chosen]!;
  const before = report.forms[chosen - 1];
  const show = (value: number) => showLength(value, unit, unit === "mm" ? 1 : unit === "inch" ? 2 : 0);
  return (
    <>
      <Strip title="Blank" note="over the finished blade" height={room * SHARES.blank} isBlue>
        <BlankView report={report} scale={scale} height={room * SHARES.blank} />
      </Strip>
      <Strip
        title="Form"
        note={`${form.name}${before ? `, over ${before.name}` : ""}`}
        height={room * SHARES.form}
        isBlue
      >
        <FormView report={report} chosen={chosen} scale={scale} height={room * SHARES.form} />
      </Strip>
      <Strip title="Bar" note="where each part of it comes from" height={room * SHARES.bar} isBlue>
        <BarView report={report} scale={scale} height={room * SHARES.bar} />
      </Strip>
      <Strip title="Thick" note={`${unit}, flats and edge of this form`} height={room * SHARES.thick}>
        <Chart
          label="Thickness of the form along the blank"
          scale={scale}
          height={room * SHARES.thick}
          curves={[
            {
              name: "flats",
              points: form.along.map(({ x, thickness }) => [x, thickness] as const),
              stroke: "var(--color-deep)",
              width: 2,
            },
            {
              name: "edge",
              points: form.along.map(({ x, edge }) => [x, edge] as const),
              stroke: "var(--color-accent)",
              width: 2,
            },
          ]}
          step={unit === "mm" ? 3 : 0.1 * MILLIMETRES_IN.inch}
          show={show}
        />
      </Strip>
      <Strip title="Hot" note="seconds in still air, thinnest part" height={room * SHARES.seconds}>
        <Chart
          label="Seconds that the thinnest part of the form stays hot"
          scale={scale}
          height={room * SHARES.seconds}
          curves={[
            {
              name: "seconds",
              points: form.along.map(({ x, seconds }) => [x, seconds] as const),
              stroke: "var(--color-accent)",
              width: 2,
            },
          ]}
          step={20}
          show={(value) => value.toFixed(0)}
        />
      </Strip>
    </>
  );
}

function BlankView({ report, scale, height }: { report: ForgeReport; scale: Scale; height: number }) {
  const place = useSidePlace(useFile(), scale, height, TITLE_HEIGHT);
  const { upper, lower, bevel } = report.blank;
  const round = [...upper, ...lower.toReversed()];
  return (
    <svg
      width={scale.width}
      height={height}
      role="img"
      aria-label="The blank over the finished blade"
      className="absolute inset-0"
    >
      <path
        d={pathThrough(round, place.px, place.py, true)}
        fill="var(--color-layout-bevel)"
        fillOpacity={0.35}
        stroke="none"
      />
      <BladeOutline place={place} />
      <g fill="none">
        <path
          d={pathThrough(round, place.px, place.py, true)}
          stroke="var(--color-scribed)"
          strokeWidth={1.8}
          strokeDasharray="7 3"
        />
        <path d={pathThrough(bevel, place.px, place.py)} stroke="var(--color-grind)" strokeWidth={1.6} />
      </g>
    </svg>
  );
}

function FormView({
  report,
  chosen,
  scale,
  height,
}: {
  report: ForgeReport;
  chosen: number;
  scale: Scale;
  height: number;
}) {
  const form = report.forms[chosen]!;
  const before = report.forms[chosen - 1];
  const ys = [...form.outline, ...(before?.outline ?? [])].map(([, y]) => y);
  const middle = (Math.max(...ys) + Math.min(...ys)) / 2;
  const row = TITLE_HEIGHT + (height - TITLE_HEIGHT) / 2 - 4;
  const py = (y: number) => row - (y - middle) * scale.perMm;
  return (
    <svg
      width={scale.width}
      height={height}
      role="img"
      aria-label={`${form.name}, its outline`}
      className="absolute inset-0"
    >
      <path
        d={pathThrough(form.outline, scale.px, py, true)}
        fill="var(--color-layout-steel)"
        stroke="var(--color-scribed)"
        strokeWidth={1.8}
        strokeLinejoin="round"
      />
      {before && (
        <path
          d={pathThrough(before.outline, scale.px, py, true)}
          fill="none"
          stroke="var(--color-grind)"
          strokeWidth={1.2}
          strokeDasharray="5 4"
        />
      )}
    </svg>
  );
}

/** Names nearer to one another than this collide, px. */
const NAME_WIDE = 74;

/** The bar with its tip's end where the blank's tip is, what becomes what, and the scribe's own place on it. */
function BarView({ report, scale, height }: { report: ForgeReport; scale: Scale; height: number }) {
  const x = useRail((state) => state.scribe);
  const { bar, needed, total, marks, map, blank } = report;
  const tall = Math.min(height - TITLE_HEIGHT - 28, (bar.shape === "round" ? bar.d : bar.w) * scale.perMm);
  const top = TITLE_HEIGHT + 10;
  const at = (s: number) => scale.px(blank.right - s);
  const twin = sAt(map, x);
  const rows = rowsOf(marks.map(({ s }) => at(s)));
  return (
    <svg
      width={scale.width}
      height={height}
      role="img"
      aria-label="The bar, and where each part of the blank comes from"
      className="absolute inset-0"
    >
      <rect
        x={at(total)}
        y={top}
        width={at(0) - at(total)}
        height={tall}
        fill="none"
        stroke="var(--color-scribed-faint)"
        strokeDasharray="3 3"
      />
      <rect
        x={at(needed)}
        y={top}
        width={at(0) - at(needed)}
        height={tall}
        fill="var(--color-layout-steel)"
        stroke="var(--color-scribed)"
      />
      {marks.map(({ name, s }, i) => {
        const px = at(s);
        const row = rows[i]!;
        return (
          <g key={name}>
            <path d={`M${px} ${top - 4}V${top + tall + 4}`} stroke="var(--color-grind)" strokeWidth={1.4} />
            {row && (
              <text
                x={px}
                y={row === "above" ? top - 5 : top + tall + 13}
                textAnchor="middle"
                className="fill-scribed text-[11px]"
              >
                {name}
              </text>
            )}
          </g>
        );
      })}
      {twin !== null && (
        <path
          d={`M${at(twin)} ${top}V${top + tall}`}
          stroke="var(--color-scribe)"
          strokeWidth={2}
          strokeDasharray="4 2"
        />
      )}
    </svg>
  );
}

/** A name above the bar where there is room beside the last, else below it, else none: all of them are told in words. */
function rowsOf(places: readonly number[]): ("above" | "below" | null)[] {
  const last = { above: Number.POSITIVE_INFINITY, below: Number.POSITIVE_INFINITY };
  return places.map((px) => {
    const row = (["above", "below"] as const).find((one) => Math.abs(last[one] - px) > NAME_WIDE);
    if (row) last[row] = px;
    return row ?? null;
  });
}

/** Where along the bar a place of the blank comes from; null beyond it. */
function sAt(map: ForgeReport["map"], x: number): number | null {
  const i = map.findIndex(([at]) => at >= x);
  if (i <= 0) return null;
  const [a, b] = [map[i - 1]!, map[i]!];
  return a[1] + ((b[1] - a[1]) * (x - a[0])) / (b[0] - a[0] || 1);
}
