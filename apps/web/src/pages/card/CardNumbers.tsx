import type { Side } from "@true-spine/core/blade/schema.ts";
import type { StageReport } from "@true-spine/core/route/report.ts";
import { showLength } from "@true-spine/core/units/length.ts";
import { useSettings } from "../../app/settings.ts";

/** One to three large numbers of what the stage works on; heel, middle and tip wherever one alone would be false. */
export function CardNumbers({ stage, side }: { stage: StageReport; side: Side }) {
  const unit = useSettings((settings) => settings.unit);
  const say = (mm: number | null, places?: number) => (mm === null ? "–" : showLength(mm, unit, places));
  const short = unit === "mm" ? 1 : undefined;
  const { work } = stage;
  const angles = work.angle[side];
  const isGround = work.stop.some((one) => one !== null) || angles.some((one) => one !== null);
  if (!isGround) {
    return (
      <Figure
        title="Thickness over the flats"
        values={stage.targets.map(({ flats }) => say(flats))}
        unit={unit}
      />
    );
  }
  const isEdge = work.on === "edge";
  const { second } = work;
  return (
    <>
      {second && (
        <p className="px-5 pt-3 text-lg">
          <span className="text-faint">Second edge: {isEdge ? "behind it" : "stop at"} </span>
          <strong>{alike(second.stop.map((one) => say(one)))}</strong>
          <span className="text-faint">, {isEdge ? "bevel high" : "line"} </span>
          <strong>{alike(second.line[side].map((one) => say(one, isEdge ? undefined : short)))}</strong>
          <span className="text-faint">, at </span>
          <strong>
            {alike(second.angle[side].map((one) => (one === null ? "–" : `${one.toFixed(1)}°`)))}
          </strong>
        </p>
      )}
      <Figure
        title={isEdge ? "Behind the edge when done" : "Stop at this edge"}
        values={work.stop.map((one) => say(one))}
        unit={unit}
      />
      <Figure
        title={isEdge ? "Edge bevel high" : "Grind line now, above the edge"}
        values={work.line[side].map((one) => say(one, isEdge ? undefined : short))}
        unit={unit}
      />
      {work.single[side] !== null ? (
        <Figure title="Angle a side" values={[`${work.single[side].toFixed(1)}°`]} unit="" />
      ) : (
        <Figure
          title="No single angle: heel, middle, tip"
          values={angles.map((one) => (one === null ? "–" : `${one.toFixed(1)}°`))}
          unit=""
        />
      )}
    </>
  );
}

/** One figure where it holds all along, else where it begins, in the middle and at its end. */
const alike = (values: readonly string[]) => (new Set(values).size === 1 ? values[0] : values.join(" · "));

function Figure({ title, values, unit }: { title: string; values: readonly string[]; unit: string }) {
  const isOne = new Set(values).size === 1;
  return (
    <div className="px-5 py-3">
      <p className="text-base text-faint">{title}</p>
      {isOne ? (
        <p className="text-6xl font-bold">
          {values[0]} <span className="text-2xl font-normal text-faint">{unit}</span>
        </p>
      ) : (
        <dl className="flex gap-4 xl:gap-5">
          {["heel", "middle", "tip"].map((place, i) => (
            <div key={place}>
              <dd className="text-3xl font-bold xl:text-4xl">{values[i]}</dd>
              <dt className="text-base text-faint">{place}</dt>
            </div>
          ))}
        </dl>
      )}
    </div>
  );
}
