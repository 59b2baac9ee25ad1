import { micronsOf, scaleOf } from "@true-spine/core/abrasive/gradings.ts";
import { abrasiveName, isBelt } from "@true-spine/core/abrasive/schema.ts";
import { planSequence, skippedBy } from "@true-spine/core/abrasive/sequence.ts";
import { showLengthWithUnit } from "@true-spine/core/units/length.ts";
import { inUnit } from "@true-spine/core/units/sentence.ts";
import { useMemo, useState } from "react";
import { useSettings } from "../../app/settings.ts";
import { Alert } from "../../parts/Alert.tsx";
import { BeltsTable } from "../../parts/BeltsTable.tsx";
import { NumberBox } from "../../parts/Box.tsx";
import { Choice, Group } from "../../parts/Group.tsx";
import { useShop } from "../../shop/shop.ts";
import { LogGroup } from "./LogGroup.tsx";

const GRADES = scaleOf("P").grades.map(([grade]) => ({ value: grade, name: grade }));
/** Surfaces worth a ladder of their own, mm². Starting values, of a usual field knife. */
const SURFACES = [
  { value: "bevels", name: "both bevels", area: 4700 },
  { value: "flats", name: "both flats", area: 9000 },
  { value: "edge", name: "the edge", area: 200 },
  { value: "handle", name: "the handle", area: 12_000 },
];

/** What an hour costs and how deep a scratch is, and the cheapest belts for a job over what is on hand. */
export function PlanGroup() {
  const { shop, put } = useShop();
  const unit = useSettings((settings) => settings.unit);
  const [surface, setSurface] = useState("bevels");
  const [from, setFrom] = useState("P60");
  const [to, setTo] = useState("P400");
  const { area } = SURFACES.find(({ value }) => value === surface)!;
  const { abrasives, hourly, largestStep, scratchShare } = shop;
  const { planned, skipped } = useMemo(() => {
    const grades = { from: micronsOf("P", from)!, to: micronsOf("P", to)! };
    const job = { area, ...grades, depth: null, hourly, largestStep, scratchShare };
    const belts = abrasives.filter(isBelt);
    const found = planSequence(belts, job);
    return { planned: found, skipped: found.ok ? skippedBy(found.sequence, belts, job) : [] };
  }, [abrasives, area, from, to, hourly, largestStep, scratchShare]);
  return (
    <>
      <Group title="A sequence from what is on hand">
        <Choice label="Surface" value={surface} options={SURFACES} onChange={setSurface} />
        <Choice label="Scratches now, grade" value={from} options={GRADES} onChange={setFrom} />
        <Choice label="Finish at" value={to} options={GRADES} onChange={setTo} />
        {planned.ok ? (
          <>
            <BeltsTable sequence={planned.sequence} />
            <p className="text-xs">
              {showLengthWithUnit(planned.sequence.depth, unit, unit === "mm" ? 3 : undefined)} off a side,{" "}
              {Math.round(planned.sequence.minutes)} minutes, {planned.sequence.cost.toFixed(2)} with the
              belts.
            </p>
            {skipped.length > 0 && (
              <ul aria-label="Left out" className="text-[11px] text-faint">
                {skipped.slice(0, 4).map(({ belt, minutes, cost }) => (
                  <li key={belt.id}>
                    left out: {abrasiveName(belt)}, which would add {Math.max(0, minutes).toFixed(1)} min and{" "}
                    {cost.toFixed(2)}
                  </li>
                ))}
              </ul>
            )}
          </>
        ) : (
          <Alert>{inUnit(planned.why, unit)}</Alert>
        )}
      </Group>
      <LogGroup />
      <Group title="Costs and limits">
        {(
          [
            ["An hour", "hourly", 0, 10_000],
            ["Largest step, times as fine", "largestStep", 1.1, 10],
            ["Scratch, share of the particle", "scratchShare", 0.02, 0.5],
          ] as const
        ).map(([label, key, least, most]) => (
          <div key={key} className="flex items-center justify-between gap-2 text-sm text-faint">
            <span aria-hidden>{label}</span>
            <span>
              <NumberBox
                label={label}
                value={shop[key]}
                least={least}
                most={most}
                onChange={(value) => void put({ ...shop, [key]: value })}
              />
            </span>
          </div>
        ))}
      </Group>
    </>
  );
}
