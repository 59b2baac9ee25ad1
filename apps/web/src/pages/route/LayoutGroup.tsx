import { holeInWords } from "@true-spine/core/handle/holes.ts";
import { crossingInWords, type LayoutSheet } from "@true-spine/core/route/layout.ts";
import { showLength, showLengthWithUnit } from "@true-spine/core/units/length.ts";
import { useSettings } from "../../app/settings.ts";
import { From } from "../../parts/From.tsx";
import { Group } from "../../parts/Group.tsx";

/** What is said of two centre lines: an apex in a face has one. */
const OF_TWO_LINES = [
  "gap of the lines",
  "gauge for the gap here",
  "stop at the lines",
  "one line at",
  "drill, lines apart",
];

/** The layout sheet: gauge, lines at heel, middle and tip, where they cross, grind line to scribe now, marks, squareness. */
export function LayoutGroup({ layout }: { layout: LayoutSheet }) {
  const unit = useSettings((settings) => settings.unit);
  const say = (mm: number | null | undefined) =>
    mm === null || mm === undefined ? "–" : showLength(mm, unit);
  const crossing = crossingInWords(layout, unit);
  const whole = (mm: number) => showLengthWithUnit(mm, unit);
  const rows: [string, (place: LayoutSheet["places"][number]) => string, string][] = [
    ["over the flats", ({ flats }) => say(flats), "the thickness when the lines are scribed"],
    [
      "gap of the lines",
      ({ gap }) => say(gap),
      "T − 2s; negative: they have crossed, the centre is still midway",
    ],
    [
      "gauge for the gap here",
      ({ gauge }) =>
        Math.abs(gauge.left - gauge.right) < 1e-9
          ? say(gauge.right)
          : `R ${say(gauge.right)}, L ${say(gauge.left)}`,
      "(T − g)/2 from each face; off centre as far as the apex is",
    ],
    [
      "stop at the lines",
      ({ outside }) =>
        `${showLength(Math.abs(outside), unit, unit === "mm" ? 3 : undefined)} ${outside < 0 ? "past" : "outside"}`,
      "half of the edge to leave, less the gap",
    ],
    ["one line at", ({ single }) => say(single), "half the thickness: right only where it was set"],
    ["drill, lines apart", ({ drillApart }) => say(drillApart), "a drill laid flat and flipped: |T − D|"],
    ["grind line now", ({ line }) => say(line.right?.now ?? line.left?.now), "what the rough belt leaves"],
    ["it climbs by", ({ line }) => say(line.right?.climb ?? line.left?.climb), "to its final place"],
  ];
  return (
    <Group title="Layout sheet">
      {layout.face ? (
        <p className="text-sm">
          One line, from the {layout.face} face, at the edge to leave:{" "}
          <strong>{layout.places.map(({ edge }) => say(edge)).join(" · ")}</strong> at heel, middle and tip.
        </p>
      ) : (
        <p className="text-sm">
          Height gauge at <strong>{whole(layout.setting)}</strong>, from both faces.
        </p>
      )}
      {crossing.length > 0 && <p className="text-xs">{crossing.join(" ")}</p>}
      <table className="w-full text-xs">
        <thead className="text-[11px] text-faint">
          <tr>
            <th className="text-left font-normal">{unit}</th>
            {layout.places.map(({ place }) => (
              <th key={place} className="text-right font-normal" scope="col">
                {place}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows
            .filter(([name]) => !layout.face || !OF_TWO_LINES.includes(name))
            .map(([name, of, from]) => (
              <tr key={name}>
                <th scope="row" className="py-0.5 text-left font-normal">
                  <From words={from} className="text-left">
                    {name}
                  </From>
                </th>
                {layout.places.map((place) => (
                  <td key={place.place} className="text-right font-semibold">
                    {of(place)}
                  </td>
                ))}
              </tr>
            ))}
        </tbody>
      </table>
      {layout.second.length > 0 && <SecondLines places={layout.second} />}
      {layout.plunges.map(({ side, foot, top }) => (
        <p key={side} className="text-xs">
          Plunge, {side === "both" ? "both sides" : side}: foot at {say(foot)}, top at {say(top)} from the
          junction.
        </p>
      ))}
      {layout.holes.map((hole) => (
        <p key={`${hole.x} ${hole.y}`} className="text-xs first-letter:uppercase">
          {holeInWords(hole, say)}.
        </p>
      ))}
      {layout.squareness.length > 0 && (
        <p className="text-xs">
          Outline out of square by{" "}
          {layout.squareness
            .map(({ degrees, apart }) => `${degrees}°: grind lines ${whole(apart)} apart`)
            .join("; ")}
          .
        </p>
      )}
    </Group>
  );
}

/** What is scribed for the second edge: the same gauge, its own lines, read down from the spine. */
function SecondLines({ places }: { places: LayoutSheet["second"] }) {
  const unit = useSettings((settings) => settings.unit);
  const say = (mm: number | null | undefined) =>
    mm === null || mm === undefined ? "–" : showLength(mm, unit);
  const rows: [string, (place: LayoutSheet["places"][number]) => string][] = [
    ["over the flats", ({ flats }) => say(flats)],
    ["gap of the lines", ({ gap }) => say(gap)],
    [
      "stop at the lines",
      ({ outside }) =>
        `${showLength(Math.abs(outside), unit, unit === "mm" ? 3 : undefined)} ${outside < 0 ? "past" : "outside"}`,
    ],
    ["grind line now", ({ line }) => say(line.right?.now ?? line.left?.now)],
    ["it climbs by", ({ line }) => say(line.right?.climb ?? line.left?.climb)],
  ];
  return (
    <table aria-label="Lines for the second edge" className="w-full text-xs">
      <thead className="text-[11px] text-faint">
        <tr>
          <th className="text-left font-normal">second edge</th>
          {["begins", "middle", "ends"].map((place) => (
            <th key={place} className="text-right font-normal" scope="col">
              {place}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map(([name, of]) => (
          <tr key={name}>
            <th scope="row" className="py-0.5 text-left font-normal">
              {name}
            </th>
            {places.map((place) => (
              <td key={place.place} className="text-right font-semibold">
                {of(place)}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
