import { nearest, newFoot } from "@true-spine/core/blade/nearest.ts";
import { stationOn } from "@true-spine/core/blade/second-station.ts";
import { stationAtX } from "@true-spine/core/blade/station.ts";
import type { BenchReport } from "@true-spine/core/findings/bench-report.ts";
import type { Asked, Line } from "@true-spine/core/inspect/bench.ts";
import type { Spot } from "@true-spine/core/inspect/schema.ts";
import { MILLIMETRES_IN, showLength } from "@true-spine/core/units/length.ts";
import { useLayoutEffect, useMemo, useState } from "react";
import { useSettings } from "../../app/settings.ts";
import { fieldOf } from "../../blade/derived.ts";
import { useFile, useScreen } from "../../blade/screen.ts";
import { BladeOutline } from "../../rail/BladeOutline.tsx";
import { type Frame, RailFrame } from "../../rail/RailFrame.tsx";
import { Strip, TITLE_HEIGHT } from "../../rail/Strip.tsx";
import { pathThrough } from "../../rail/scale.ts";
import { type SidePlace, useSidePlace } from "../../rail/side-place.ts";
import { AddPlace } from "./AddPlace.tsx";
import { type Dot, DotStrip, HIT } from "./DotStrip.tsx";

const SHARES = { side: 0.53, edge: 0.18, centre: 0.14, lines: 0.15 } as const;

interface Props {
  report: BenchReport;
  asked: Asked;
  currentKey: string | null;
  onGo: (spot: Spot) => void;
}

/** What was read, on strips that share the blade's x: the spots on the side view, then each against its wanted line and band. */
export function CheckRail(props: Props) {
  const { adding, point, stop } = useAdding();
  return (
    <>
      <RailFrame share={SHARES.side}>{(frame) => <Strips {...frame} {...props} onPoint={point} />}</RailFrame>
      <AddPlace asked={props.asked} at={adding} onClose={stop} onGo={props.onGo} />
    </>
  );
}

function Strips({
  scale,
  room,
  report,
  currentKey,
  onGo,
  onPoint,
}: Frame & Props & { onPoint: (x: number, y: number) => void }) {
  const file = useFile();
  const unit = useSettings((settings) => settings.unit);
  const place = useSidePlace(file, scale, room * SHARES.side, TITLE_HEIGHT);
  const strips = useMemo(() => stripsOf(report), [report]);
  const measure = unit === "mm" ? 1 : MILLIMETRES_IN.inch;
  const show = (value: number) => showLength(value, unit, unit === "mm" ? 2 : undefined);
  const shared = { scale, measure, onGo };
  return (
    <>
      <Strip
        title="Where"
        note={
          report.lines.some(({ spot }) => spot.edge)
            ? "right side; left ones open, the second edge's ringed"
            : "right side; left ones open"
        }
        height={room * SHARES.side}
        isBlue
      >
        {/* biome-ignore lint/a11y/noStaticElementInteractions: the same is on the P key */}
        <div
          className="absolute inset-0"
          onDoubleClick={(event) => {
            const box = event.currentTarget.getBoundingClientRect();
            const y = (place.datum - (event.clientY - box.top)) / scale.perMm;
            onPoint(scale.mm(event.clientX - box.left), y);
          }}
        >
          <Spots
            report={report}
            place={place}
            height={room * SHARES.side}
            currentKey={currentKey}
            onGo={onGo}
          />
        </div>
      </Strip>
      <Strip title="Edge" note={`${unit} thick`} height={room * SHARES.edge}>
        <DotStrip
          {...shared}
          label="Edge thickness read, against what is wanted and its band"
          height={room * SHARES.edge}
          band={report.edge.map(({ x, value, band }) => ({ x, low: value - band, high: value + band }))}
          wanted={report.edge.map(({ x, value }) => [x, value])}
          dots={strips.edge}
          show={show}
        />
      </Strip>
      <Strip title="Centre" note={`edge off centre, + left, ${unit}`} height={room * SHARES.centre}>
        <DotStrip
          {...shared}
          label="How far the edge is off centre, against its band"
          height={room * SHARES.centre}
          band={strips.centreBand}
          wanted={strips.centreBand.map(({ x }) => [x, 0])}
          dots={strips.centre}
          show={show}
        />
      </Strip>
      <Strip title="Lines" note={`grind lines off, ${unit}; left open`} height={room * SHARES.lines}>
        <DotStrip
          {...shared}
          label="How far each grind line is off its place, against its band"
          height={room * SHARES.lines}
          band={strips.lineBand}
          wanted={strips.lineBand.map(({ x }) => [x, 0])}
          dots={strips.lines}
          show={(value) => showLength(value, unit, unit === "mm" ? 1 : undefined)}
        />
      </Strip>
    </>
  );
}

/** A place of the maker's own that is being added: pointed at on the blade, or at the scribe by the P key. */
function useAdding() {
  const file = useFile();
  const { rail } = useScreen();
  const [adding, setAdding] = useState<{ u: number; height: number } | null>(null);
  const { edge } = fieldOf(file);
  const point = (x: number, y: number) => {
    const foot = newFoot();
    nearest(edge, x, y, foot);
    setAdding({ u: foot.s / edge.length, height: foot.d });
  };
  useLayoutEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement;
      if (event.key.toLowerCase() !== "p" || event.ctrlKey || event.metaKey || event.altKey) return;
      if (target.matches("input, select, textarea") || target.closest("[role=dialog]")) return;
      const station = stationAtX(fieldOf(file), rail.getState().scribe);
      if (!station) return;
      event.preventDefault();
      setAdding({ u: station.u, height: Math.min(10, station.height / 3) });
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [file, rail]);
  return { adding, point, stop: () => setAdding(null) };
}

/** Readings as dots: edge thickness as it is, lines as what they are off, and the edge's centre from both sides together. */
function stripsOf(report: BenchReport) {
  const read = report.lines.flatMap((line) => (line.figure ? [{ ...line, figure: line.figure }] : []));
  const dot = (line: (typeof read)[number], y: number): Dot => ({
    key: line.key,
    x: line.target.x,
    y,
    within: line.figure.uncertainty.expanded,
    verdict: line.figure.verdict,
    isOpen: line.spot.side === "left",
    isSecond: line.spot.edge === "second",
    spot: line.spot,
  });
  const first = report.lines.filter(({ spot }) => spot.edge === undefined);
  const lines = first.filter(({ spot }) => spot.what === "line");
  const over = first.filter(({ spot }) => spot.what === "over");
  return {
    edge: read
      .filter(({ spot }) => spot.what === "edge" || spot.what === "behind")
      .map((line) => dot(line, line.figure.value)),
    lines: read.filter(({ spot }) => spot.what === "line").map((line) => dot(line, line.figure.off)),
    lineBand: lines
      .filter(({ spot }) => spot.side === (lines.some((one) => one.spot.side === "right") ? "right" : "left"))
      .map(({ target }) => ({ x: target.x, low: -target.band, high: target.band })),
    centreBand: over
      .filter(({ spot }) => spot.side === "right")
      .map(({ target }) => ({ x: target.x, low: -target.band, high: target.band })),
    centre: report.centre.map(
      ({ x, u, value, expanded, band, edge }): Dot => ({
        key: `centre ${u} ${edge ?? ""}`,
        x,
        y: value,
        within: expanded,
        verdict:
          Math.abs(Math.abs(value) - band) < expanded ? "doubtful" : Math.abs(value) > band ? "out" : "good",
        isOpen: false,
        isSecond: edge === "second",
        spot: { what: "over", u, side: value > 0 ? "left" : "right", ...(edge ? { edge } : {}) },
      }),
    ),
  };
}

const INK = { good: "#8fd0a5", doubtful: "var(--color-grind)", out: "var(--color-scribe)" } as const;

function Spots({
  report,
  place,
  height,
  currentKey,
  onGo,
}: {
  report: BenchReport;
  place: SidePlace;
  height: number;
  currentKey: string | null;
  onGo: (spot: Spot) => void;
}) {
  const file = useFile();
  const { px, py, scale } = place;
  const draw = (side: "left" | "right") =>
    report.grindLine[side].map((line) => pathThrough(line, px, py)).join("");
  const current = report.lines.find(({ key }) => key === currentKey);
  return (
    <svg
      width={scale.width}
      height={height}
      role="img"
      aria-label="Where readings are taken, on the blade from its right side"
      className="absolute inset-0"
    >
      <BladeOutline place={place} />
      <g fill="none" stroke="var(--color-grind)" strokeWidth={1.4} opacity={0.8}>
        <path d={draw("right")} />
        <path d={draw("left")} strokeDasharray="6 4" />
      </g>
      {report.lines.map((line) => {
        const at = spotPlace(file, line);
        if (!at) return null;
        const [x, y] = [px(at[0]), py(at[1])];
        const ink = line.figure ? INK[line.figure.verdict] : "var(--color-scribed-faint)";
        const isLeft = line.spot.side === "left";
        return (
          <g
            key={line.key}
            className="cursor-pointer"
            onPointerDown={(event) => {
              event.stopPropagation();
              onGo(line.spot);
            }}
          >
            <circle cx={x} cy={y} r={HIT} fill="transparent" />
            {line.spot.edge && <circle cx={x} cy={y} r={7} fill="none" stroke={ink} strokeWidth={1} />}
            <circle
              cx={x}
              cy={y}
              r={line.figure ? 4 : 3}
              fill={line.figure && !isLeft ? ink : "var(--color-layout)"}
              stroke={ink}
              strokeWidth={1.6}
            />
          </g>
        );
      })}
      {current && <Cross line={current} place={place} />}
    </svg>
  );
}

/** The spot that is read next, in cross hairs. */
function Cross({ line, place }: { line: Line; place: SidePlace }) {
  const file = useFile();
  const at = spotPlace(file, line);
  if (!at) return null;
  const [x, y] = [place.px(at[0]), place.py(at[1])];
  return (
    <path
      d={`M${x - 14} ${y}h9M${x + 5} ${y}h9M${x} ${y - 14}v9M${x} ${y + 5}v9`}
      stroke="var(--color-scribe)"
      strokeWidth={2.2}
      fill="none"
    />
  );
}

/** Where a spot lies on the side view; null for what is read of the whole blade. */
function spotPlace(
  file: Parameters<typeof fieldOf>[0],
  { spot, target }: Line,
): readonly [number, number] | null {
  const field = fieldOf(file);
  const up: Partial<Record<Spot["what"], number>> = {
    edge: 0,
    behind: 1,
    "edge-height": 1,
    "edge-face": 1,
    over: 2.5,
    above: spot.height ?? 0,
    line: target.value,
    angle: 7,
  };
  const station = stationOn(field, spot);
  if (station) {
    const { x, y, inward } = station;
    const s = up[spot.what] ?? 0;
    return [x + inward[0] * s, y + inward[1] * s];
  }
  if (spot.x !== undefined) return [spot.x, spot.what === "square" ? 0 : -3];
  if (spot.what === "plunge" || spot.what === "lean") {
    const y = field.plunges[spot.side!]?.y ?? 0;
    return [target.x, spot.what === "plunge" ? y : y * 0.55];
  }
  return null;
}
