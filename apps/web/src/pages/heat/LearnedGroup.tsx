import type { Expected, HardnessPoint } from "@true-spine/core/heat/learned.ts";
import type { HeatReport } from "@true-spine/core/route/heat-report.ts";
import { showTemperature } from "@true-spine/core/units/temperature.ts";
import { type Said, withHardened } from "@true-spine/core/work/hardened.ts";
import { useState } from "react";
import { useScreen } from "../../blade/screen.ts";
import { Alert } from "../../parts/Alert.tsx";
import { Group, SmallButton } from "../../parts/Group.tsx";
import { useShop } from "../../shop/shop.ts";

/** What this shop's own blades have said of its fires, and what this one would add. */
export function LearnedGroup({ report, said }: { report: HeatReport; said: Said | null }) {
  const { id } = useScreen();
  const { shop, put } = useShop();
  const [why, setWhy] = useState<string | null>(null);
  const records = shop.hardened ?? [];
  const { bracket, tempers, skinHere: skin } = report;
  const mine = records.find(({ blade }) => blade === id);
  return (
    <Group title="What this shop has seen">
      <p className="text-sm">
        Sections: usually through from {bracket.through.toFixed(2)} times, usually not below{" "}
        {bracket.not.toFixed(2)};{" "}
        <span className="text-faint">
          {bracket.count < 3
            ? `starting values, ${countOf(bracket.count, "blade")} of 3 filed`
            : `by ${countOf(bracket.count, "blade")} of this shop`}
          .
        </span>
      </p>
      <p className="text-sm">
        Skin in {skin.air === "air" ? "open air" : skin.air}: {skin.times.toFixed(2)} times what is reckoned;{" "}
        <span className="text-faint">
          {skin.count < 3
            ? `${skin.count} of 3 read`
            : `${countOf(skin.count, "blade")}, ${skin.range[0].toFixed(2)} to ${skin.range[1].toFixed(2)}`}
          .
        </span>
      </p>
      {tempers && <Hardness expected={tempers.expected} grade={report.grade} />}
      {why && <Alert>{why}</Alert>}
      {said && (
        <SmallButton
          onClick={() =>
            setWhy(
              put({
                ...shop,
                hardened: withHardened(records, { blade: id, when: new Date().toISOString(), ...said }),
              }),
            )
          }
        >
          {mine ? "Keep what this blade says now" : "Keep what this blade says"}
        </SmallButton>
      )}
      {mine && (
        <SmallButton
          onClick={() => setWhy(put({ ...shop, hardened: records.filter((record) => record.blade !== id) }))}
        >
          Forget it again
        </SmallButton>
      )}
      {!said && !mine && (
        <p className="text-xs text-faint">
          A file at its edge, a tester or a skin found tells the shop more.
        </p>
      )}
    </Group>
  );
}

function Hardness({ expected, grade }: { expected: Expected; grade: string | null }) {
  const { points } = expected;
  return (
    <>
      <p className="text-sm" role="status">
        After these tempers: <strong>{hardnessWords(expected)}</strong>
      </p>
      {points.length > 0 && (
        <table aria-label="Hardness read here" className="w-full text-xs">
          <thead className="text-left text-faint">
            <tr>
              <th className="font-normal" scope="col">
                {grade}, tempered
              </th>
              <th className="text-right font-normal" scope="col">
                as hours
              </th>
              <th className="text-right font-normal" scope="col">
                HRC
              </th>
            </tr>
          </thead>
          <tbody>
            {points.map((point) => (
              <Point key={`${point.celsius} ${point.hours} ${point.HRC}`} point={point} />
            ))}
          </tbody>
        </table>
      )}
    </>
  );
}

function Point({ point: { celsius, hours, HRC } }: { point: HardnessPoint }) {
  return (
    <tr className="border-t border-rule">
      <td>{showTemperature(celsius)}</td>
      <td className="text-right">{hours.toFixed(1)}</td>
      <td className="text-right">{HRC.toFixed(1)}</td>
    </tr>
  );
}

function hardnessWords(expected: Expected): string {
  switch (expected.kind) {
    case "fit":
      return `${expected.HRC.toFixed(1)} ± ${expected.give.toFixed(1)} HRC, by ${expected.points.length} blades.`;
    case "nearest":
      return `nearest read here: ${expected.nearest.HRC.toFixed(1)} HRC, at ${showTemperature(expected.nearest.celsius)}.`;
    case "beyond":
      return "beyond what was read here.";
    case "none":
      return "no record here.";
  }
}

const countOf = (n: number, what: string) => `${n} ${what}${n === 1 ? "" : "s"}`;
