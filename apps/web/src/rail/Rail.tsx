import { type Blade, bevelOn } from "@true-spine/core/blade/schema.ts";
import { stationAt, thicknessAbove } from "@true-spine/core/blade/station.ts";
import { asThickAs } from "@true-spine/core/edge/compare.ts";
import { isStraight } from "@true-spine/core/grind/pull.ts";
import { MILLIMETRES_IN, showLength } from "@true-spine/core/units/length.ts";
import { memo, type ReactNode } from "react";
import type { StoreApi } from "zustand";
import { useSettings } from "../app/settings.ts";
import { fieldOf } from "../blade/derived.ts";
import { clearStations, groundOtherWay } from "../blade/pull.ts";
import { type RailState, useFile, usePurpose, useRail, useScreen } from "../blade/screen.ts";
import { Chart, type Curve } from "./Chart.tsx";
import { type Frame, RailFrame } from "./RailFrame.tsx";
import { ScribeMark } from "./ScribeMark.tsx";
import { SideView } from "./SideView.tsx";
import { SpineView, spineTimes } from "./SpineView.tsx";
import { Strip } from "./Strip.tsx";
import type { Scale } from "./scale.ts";
import { type SidePlace, useSidePlace } from "./side-place.ts";
import { fittedView, zoomed } from "./zoom.ts";

/** What each strip has of the height. */
const SHARES = { side: 0.44, spine: 0.16, edge: 0.22, angle: 0.18 } as const;

/** The strips of a blade's drawing, with a page's own handles on the side view. */
export function Rail({ handles }: { handles: (place: SidePlace) => ReactNode }) {
  return <RailFrame share={SHARES.side}>{(frame) => <Strips {...frame} handles={handles} />}</RailFrame>;
}

function Strips({ scale, room, handles }: Frame & { handles: (place: SidePlace) => ReactNode }) {
  const file = useFile();
  const unit = useSettings((settings) => settings.unit);
  const heights = {
    side: room * SHARES.side,
    spine: room * SHARES.spine,
    edge: room * SHARES.edge,
    angle: room * SHARES.angle,
  };
  const place = useSidePlace(file, scale, heights.side);
  const { ring } = fieldOf(file);
  return (
    <>
      <Strip title="Side" height={heights.side} isBlue>
        <SideView file={file} place={place} height={heights.side}>
          <ScribeMark place={place} />
          {handles(place)}
        </SideView>
        <FitSwitch />
      </Strip>
      <Strip
        title="Spine"
        note={`thickness × ${spineTimes(file.thickness, scale, heights.spine).toFixed(1)}`}
        height={heights.spine}
        isBlue
      >
        <SpineView
          rows={file.thickness}
          left={ring.left}
          right={ring.right}
          scale={scale}
          height={heights.spine}
        />
      </Strip>
      <Strip title="Edge" note={`${unit} thick`} height={heights.edge}>
        <EdgeStrip file={file} scale={scale} height={heights.edge} />
      </Strip>
      <Strip title="Bevel" note="° per side" height={heights.angle}>
        <AngleStrip file={file} scale={scale} height={heights.angle} />
      </Strip>
    </>
  );
}

/** Nearer or further about the scribe. */
export function zoomAbout(rail: StoreApi<RailState>, file: Blade, way: "in" | "out"): void {
  const { fit, view, scribe } = rail.getState();
  const all = fittedView(fieldOf(file).ring, fit);
  rail.setState({ view: zoomed(view ?? all, all, scribe, way === "in" ? 1.5 : 1 / 1.5) });
}

const FitSwitch = memo(function FitSwitch() {
  const { rail, open } = useScreen();
  const fit = useRail((state) => state.fit);
  return (
    <fieldset className="absolute top-1 right-2 flex gap-1 text-xs">
      <legend className="sr-only">Shown on the rail</legend>
      {(["in", "out"] as const).map((way) => (
        <button
          key={way}
          type="button"
          aria-label={way === "in" ? "Nearer, +" : "Further, −"}
          title={way === "in" ? "Nearer, +" : "Further, −"}
          className="rounded px-2 py-1 font-semibold text-scribed-faint hover:text-scribed"
          onPointerDown={(event) => event.stopPropagation()}
          onClick={() => zoomAbout(rail, open.store.getState().file, way)}
        >
          {way === "in" ? "+" : "−"}
        </button>
      ))}
      {(["blade", "whole"] as const).map((option) => (
        <button
          key={option}
          type="button"
          aria-pressed={fit === option}
          className={`rounded px-2 py-1 ${fit === option ? "bg-scribed font-semibold text-layout" : "text-scribed-faint hover:text-scribed"}`}
          onPointerDown={(event) => event.stopPropagation()}
          onClick={() => rail.setState({ fit: option, view: null })}
        >
          {option === "blade" ? "blade" : "whole knife"}
        </button>
      ))}
      <button
        type="button"
        aria-haspopup="dialog"
        className="rounded px-2 py-1 text-scribed-faint hover:text-scribed"
        onPointerDown={(event) => event.stopPropagation()}
        onClick={() => rail.setState({ isSolidOpen: true })}
      >
        3D
      </button>
    </fieldset>
  );
});

function EdgeStrip({ file, scale, height }: { file: Blade; scale: Scale; height: number }) {
  const unit = useSettings((settings) => settings.unit);
  const field = fieldOf(file);
  const stations = clearStations(file);
  const purpose = usePurpose();
  const ghost = useRail((state) => state.ghost);
  const isOtherPullShown = useRail((state) => state.isOtherPullShown);
  const above = (h: number): Curve["points"] =>
    stations.map((station) => [station.x, thicknessAbove(field, station, h)]);
  const name = (h: number) => `${showLength(h, unit, unit === "mm" ? 0 : undefined)} up`;
  const curves: Curve[] = [
    { name: name(5), points: above(5), stroke: "var(--color-frame)", labelled: true },
    { name: name(2), points: above(2), stroke: "var(--color-faint)", labelled: true },
    {
      name: "behind the edge",
      points: stations.map((station) => [station.x, station.behind]),
      stroke: "var(--color-deep)",
      width: 2.4,
      labelled: true,
    },
  ];
  if (ghost) {
    curves.push({
      name: `behind, ${ghost.file.name}`,
      points: clearStations(ghost.file).map((station) => [station.x, station.behind]),
      stroke: "var(--color-faint)",
      dash: "2 3",
      width: 1.8,
    });
    const beside = fieldOf(ghost.file);
    curves.push({
      name: "as thick as",
      points: stations.map((station) => [station.x, asThickAs(field, station, stationAt(beside, station.u))]),
      stroke: "var(--color-accent)",
      dash: "2 3",
      width: 1.8,
      labelled: true,
    });
  }
  const other = isOtherPullShown ? groundOtherWay(file) : null;
  if (other) {
    curves.push({
      name: isStraight(bevelOn(file, "right")) ? "followed" : "pulled straight",
      points: clearStations(other).map((station) => [station.x, station.behind]),
      stroke: "var(--color-accent)",
      dash: "7 3",
      width: 1.8,
      isLabelledAtEnd: true,
    });
  }
  const xs = stations.map((station) => station.x);
  const band = purpose &&
    Number.isFinite(purpose.behind[1]) &&
    xs.length > 0 && {
      from: Math.min(...xs),
      to: Math.max(...xs),
      low: purpose.behind[0],
      high: purpose.behind[1],
      name: "wanted",
    };
  return (
    <Chart
      label="Thickness along the edge: behind it, and at fixed heights above it"
      scale={scale}
      height={height}
      curves={curves}
      band={band || null}
      step={unit === "mm" ? 0.5 : 0.02 * MILLIMETRES_IN.inch}
      show={(value) => showLength(value, unit, unit === "mm" ? 1 : unit === "inch" ? 2 : 0)}
    />
  );
}

function AngleStrip({ file, scale, height }: { file: Blade; scale: Scale; height: number }) {
  const field = fieldOf(file);
  const stations = clearStations(file);
  const right: Curve = {
    name: field.alike ? "both sides" : "right",
    points: stations.map((station) => [station.x, station.right.primaryAngle]),
    stroke: "var(--color-accent)",
    width: 2,
    labelled: true,
  };
  const left: Curve = {
    name: "left",
    points: stations.map((station) => [station.x, station.left.primaryAngle]),
    stroke: "var(--color-accent)",
    width: 2,
    dash: "6 4",
    labelled: true,
  };
  return (
    <Chart
      label="Primary bevel angle along the blade, degrees per side"
      scale={scale}
      height={height}
      curves={field.alike ? [right] : [right, left]}
      step={1}
      show={(value) => `${value.toFixed(0)}°`}
    />
  );
}
