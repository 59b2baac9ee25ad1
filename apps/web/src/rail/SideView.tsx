import { CORE_SPREAD, coreLines } from "@true-spine/core/blade/core.ts";
import type { DrawnLines, Line } from "@true-spine/core/blade/lines.ts";
import { ringPoints } from "@true-spine/core/blade/outline.ts";
import type { Blade } from "@true-spine/core/blade/schema.ts";
import { secondLines, secondStations } from "@true-spine/core/blade/second-station.ts";
import { driverOf } from "@true-spine/core/design/drive.ts";
import { memo, type ReactNode } from "react";
import { fieldOf, linesOf } from "../blade/derived.ts";
import { useDocument, useRail } from "../blade/screen.ts";
import { useEdit } from "../blade/useEdit.ts";
import { DrawnValue } from "./DrawnValue.tsx";
import { HandleOnKnife } from "./HandleOnKnife.tsx";
import { PhotoUnder } from "./PhotoUnder.tsx";
import { TITLE_HEIGHT } from "./Strip.tsx";
import { pathThrough, type Scale, ticks } from "./scale.ts";
import type { SidePlace } from "./side-place.ts";

/** The blade from its right side, at the rail's own scale in both directions, so that its shape is true. */
export function SideView({
  file,
  place,
  height,
  children,
}: {
  file: Blade;
  place: SidePlace;
  height: number;
  children?: ReactNode;
}) {
  const { edit } = useEdit();
  const field = fieldOf(file);
  const lines = linesOf(file);
  const { scale, px, py } = place;
  const outline = pathThrough(ringPoints(field.ring), px, py, true);
  const draw = (all: readonly Line[]) => all.map((line) => pathThrough(line, px, py)).join("");
  const plunge = (line: Line | null) => (line ? [line] : []);
  const tip = file.outline.spine[file.outline.spine.length - 1]!.at;
  const below = py(field.ring.bottom) + 34;
  const isAlike = field.alike;
  const isOnPhoto = useDocument("photo").picture !== null;
  return (
    <svg
      width={scale.width}
      height={height}
      role="group"
      aria-label={`Side view of ${file.name}`}
      className="absolute inset-0"
    >
      <Grid scale={scale} height={height} />
      <line
        x1={px(0)}
        x2={scale.width - 8}
        y1={py(0)}
        y2={py(0)}
        stroke="var(--color-scribed-faint)"
        strokeWidth={0.8}
        strokeDasharray="10 3 2 3"
        opacity={0.7}
      />
      <text
        x={scale.width - 10}
        y={py(0) + (py(0) < TITLE_HEIGHT + 10 ? 14 : -5)}
        textAnchor="end"
        className="fill-scribed-faint text-[11px]"
      >
        spine datum
      </text>
      <PhotoUnder place={place} />
      <g opacity={isOnPhoto ? 0.25 : 1}>
        <path d={outline} fill="var(--color-layout-steel)" />
        <BevelShade lines={lines} place={place} />
      </g>
      {(file.holes ?? []).map((hole, i) => (
        <circle
          // biome-ignore lint/suspicious/noArrayIndexKey: a hole is its position in the list
          key={i}
          cx={px(hole.x)}
          cy={py(hole.y)}
          r={(hole.d / 2) * scale.perMm}
          fill="var(--color-layout)"
          stroke="var(--color-scribed)"
        />
      ))}
      <HandleOnKnife place={place} />
      <Ghost place={place} />
      {file.secondEdge && <SecondEdgeLines file={file} place={place} />}
      {file.core && <CoreLines file={file} place={place} />}
      {file.falseEdge && <FalseEdgeMark file={file} place={place} />}
      <path d={outline} fill="none" stroke="var(--color-scribed)" strokeWidth={1.4} strokeLinejoin="round" />
      <g fill="none" stroke="var(--color-scribed-faint)" strokeWidth={1}>
        <path d={draw(lines.shoulder.right)} />
        {!isAlike && <path d={draw(lines.shoulder.left)} strokeDasharray="5 4" />}
      </g>
      <g fill="none" stroke="var(--color-grind)" strokeWidth={1.8}>
        <path d={draw([...lines.grindLine.right, ...lines.ridge.right, ...plunge(lines.plunge.right)])} />
        {!isAlike && (
          <path
            d={draw([...lines.grindLine.left, ...lines.ridge.left, ...plunge(lines.plunge.left)])}
            strokeDasharray="7 5"
          />
        )}
      </g>
      <g stroke="var(--color-scribed)" strokeWidth={1} opacity={0.9}>
        <path
          d={`M${px(0)} ${below - 5}v10M${px(tip[0])} ${below - 5}v10M${px(0)} ${below}H${px(tip[0])}`}
          fill="none"
        />
        <rect
          x={px(tip[0] / 2) - 34}
          y={below - 10}
          width={68}
          height={20}
          fill="var(--color-layout)"
          stroke="none"
        />
      </g>
      <DrawnValue
        x={px(tip[0] / 2)}
        y={below + 4}
        mm={tip[0]}
        places={1}
        label="Blade length"
        onCommit={(mm) => edit((copy) => driverOf("length").set(copy, mm))}
      />
      {children}
    </svg>
  );
}

/** The outline and grind line of the blade this one is held against, from the same junction. */
const Ghost = memo(function Ghost({ place }: { place: SidePlace }) {
  const ghost = useRail((state) => state.ghost);
  if (!ghost) return null;
  const { px, py } = place;
  const lines = linesOf(ghost.file).grindLine.right.map((line) => pathThrough(line, px, py));
  return (
    <g fill="none" stroke="var(--color-scribed-faint)" strokeDasharray="2 3" strokeWidth={1.2}>
      <path d={pathThrough(ringPoints(fieldOf(ghost.file).ring), px, py, true)} />
      <path d={lines.join("")} />
    </g>
  );
});

const Grid = memo(function Grid({ scale, height }: { scale: Scale; height: number }) {
  return ticks(scale, 90, 1).map((x) => (
    <line key={x} x1={scale.px(x)} x2={scale.px(x)} y1={0} y2={height} stroke="var(--color-layout-grid)" />
  ));
});

/** The primary bevel's face, between shoulder and grind line. */
function BevelShade({ lines, place }: { lines: DrawnLines; place: SidePlace }) {
  const faced = lines.stations.filter((station, i) => lines.clear[i] && station.right.grindLine !== null);
  if (faced.length < 2) return null;
  const at = (distance: (i: number) => number) =>
    faced.map((station, i): [number, number] => [
      station.x + station.inward[0] * distance(i),
      station.y + station.inward[1] * distance(i),
    ]);
  const lower = at((i) => faced[i]!.right.edgeBevel ?? 0);
  const upper = at((i) => faced[i]!.right.grindLine!).reverse();
  const plunge = [...(lines.plunge.right ?? [])].reverse();
  return (
    <path
      d={pathThrough([...plunge, ...lower, ...upper], place.px, place.py, true)}
      fill="var(--color-layout-bevel)"
    />
  );
}

/** Places that the second bevel's face is shaded by. */
const SHADED = 36;

/** The lines of the second edge: where its bevels end, and its edge bevels; the left side's dashed. */
function SecondEdgeLines({ file, place }: { file: Blade; place: SidePlace }) {
  const field = fieldOf(file);
  const { grindLine, shoulder } = secondLines(field);
  const faced = secondStations(field, SHADED).filter(({ right }) => right.grindLine !== null);
  const at = (up: (station: (typeof faced)[number]) => number) =>
    faced.map((station): [number, number] => [
      station.x + station.inward[0] * up(station),
      station.y + station.inward[1] * up(station),
    ]);
  const face = [...at(({ right }) => right.edgeBevel ?? 0), ...at(({ right }) => right.grindLine!).reverse()];
  const draw = (lines: readonly Line[]) =>
    lines.map((line) => pathThrough(line, place.px, place.py)).join("");
  return (
    <g fill="none">
      {faced.length > 1 && (
        <path d={pathThrough(face, place.px, place.py, true)} fill="var(--color-layout-bevel)" />
      )}
      <path d={draw(shoulder.right)} stroke="var(--color-scribed-faint)" />
      <path d={draw(grindLine.right)} stroke="var(--color-grind)" strokeWidth={1.8} />
      {!field.alike && (
        <path d={draw(grindLine.left)} stroke="var(--color-grind)" strokeWidth={1.8} strokeDasharray="7 5" />
      )}
    </g>
  );
}

/** Where a laminated blade's core comes out of its faces, and how far its own spread moves that; the left side's dashed. */
function CoreLines({ file, place }: { file: Blade; place: SidePlace }) {
  const field = fieldOf(file);
  const draw = (lines: readonly Line[]) =>
    lines.map((line) => pathThrough(line, place.px, place.py)).join("");
  const [line, thin, thick] = [0, -CORE_SPREAD, CORE_SPREAD].map((by) => coreLines(field, by));
  const isAlike = line!.right === line!.left;
  return (
    <g fill="none" stroke="var(--color-scribe)">
      <path d={draw(line!.right)} strokeWidth={1.6} />
      {!isAlike && <path d={draw(line!.left)} strokeWidth={1.6} strokeDasharray="7 5" />}
      <path
        d={draw([...thin!.right, ...thick!.right])}
        strokeWidth={0.8}
        opacity={0.6}
        strokeDasharray="2 3"
      />
    </g>
  );
}

function FalseEdgeMark({ file, place }: { file: Blade; place: SidePlace }) {
  const { from, to } = file.falseEdge!;
  const { spine } = fieldOf(file);
  const points: [number, number][] = [];
  for (let i = 0; i < spine.count; i++) {
    const x = spine.x1[i]!;
    if (x >= from && x <= to) points.push([x, spine.y1[i]!]);
  }
  return (
    <path
      d={pathThrough(points, place.px, (y) => place.py(y) + 5)}
      fill="none"
      stroke="var(--color-scribed-faint)"
      strokeWidth={1.2}
      strokeDasharray="2 3"
    />
  );
}
