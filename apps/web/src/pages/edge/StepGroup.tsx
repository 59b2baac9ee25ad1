import { isBelt } from "@true-spine/core/abrasive/schema.ts";
import { USUAL_STONES } from "@true-spine/core/abrasive/usual-store.ts";
import { SIDES, type Side } from "@true-spine/core/blade/schema.ts";
import type { EdgeStep } from "@true-spine/core/edge/schema.ts";
import { isEdgeTool, zeroOf } from "@true-spine/core/edge/tools.ts";
import type { EdgeReport, StepReport } from "@true-spine/core/route/edge-report.ts";
import { edgeTools } from "@true-spine/core/shop/schema.ts";
import { showLengthWithUnit } from "@true-spine/core/units/length.ts";
import { tidy } from "@true-spine/core/units/tidy.ts";
import { useState } from "react";
import { useSettings } from "../../app/settings.ts";
import { useEdit } from "../../blade/useEdit.ts";
import { Alert } from "../../parts/Alert.tsx";
import { BeltsTable } from "../../parts/BeltsTable.tsx";
import { AngleBox, LengthBox, NumberRow } from "../../parts/Box.tsx";
import { Choice, Group, RecordButton, SmallButton } from "../../parts/Group.tsx";
import { Segmented } from "../../parts/Segmented.tsx";
import { useTakenOnceKnown } from "../../parts/useTakenOnceKnown.ts";
import { useShop } from "../../shop/shop.ts";
import type { useEdgeDocument } from "./useEdgeDocument.ts";
import { fine, SET_WORDS, STEP_NAMES, settingWords } from "./words.ts";

const BY_HAND = "";

/** What is chosen of one step, what to set it to at heel, middle and tip, and its stones in order. */
export function StepGroup({
  report,
  step: own,
  worked: step,
  i,
  edit,
  isOld,
}: {
  report: EdgeReport;
  /** As it is chosen; and as it was worked out last, a moment behind it. */
  step: EdgeStep;
  worked: StepReport;
  i: number;
  edit: ReturnType<typeof useEdgeDocument>;
  /** Whether the report is of how things stood a moment ago. */
  isOld: boolean;
}) {
  const { shop, put } = useShop();
  const unit = useSettings((settings) => settings.unit);
  const { kind, angle, facet, burr = "each", to } = own;
  const { press: pressBlade } = useEdit();
  const isAlike = angle.left === angle.right;
  const setAngle = (side: Side, value: number) => {
    if (value > 60) return "No edge is sharpened steeper than 60° a side.";
    const both: EdgeStep["angle"] = isAlike ? { left: value, right: value } : { ...angle, [side]: value };
    if (both.left + both.right <= 0) return "One side at least is sharpened.";
    return edit.change(i, { angle: both });
  };
  /** What a micro-bevel makes of the blade's edge, where it stands on a bevel to the apex. */
  const becomesEdge =
    kind === "micro" && report.life.isZero && facet !== undefined && report.which === "first"
      ? () =>
          pressBlade((copy) => {
            copy.edge.angle = { ...angle };
            copy.edge.behind = [{ u: 0, t: tidy(step.behind ?? 0) }];
          })
      : null;
  const { press, waiting } = useTakenOnceKnown(
    new Map(becomesEdge ? [["edge", becomesEdge] as const] : []),
    isOld,
    (act) => act(),
  );
  const sides = isAlike ? (["right"] as const) : SIDES.filter((side) => angle[side] > 0);
  return (
    <Group
      title={`${i + 1}. ${STEP_NAMES[kind]}`}
      aside={
        report.steps.length > 1 && (
          <SmallButton label={`Take ${STEP_NAMES[kind]} out`} onClick={() => edit.pressStep(i, null)}>
            Take it out
          </SmallButton>
        )
      }
    >
      {isAlike ? (
        <AngleBox
          label="Angle a side"
          value={angle.right}
          onVisit={edit.visit}
          onCommit={(value) => setAngle("right", value)}
        />
      ) : (
        SIDES.map((side) => (
          <AngleBox
            key={side}
            label={`Angle on the ${side}`}
            value={angle[side]}
            onVisit={edit.visit}
            onCommit={(value) => setAngle(side, value)}
          />
        ))
      )}
      {facet !== undefined && (
        <LengthBox
          label="Micro-bevel, high"
          value={facet}
          onVisit={edit.visit}
          onCommit={(mm) => (mm < 0.02 || mm > 1 ? "From 0.02 to 1 mm." : edit.change(i, { facet: mm }))}
        />
      )}
      <Choice
        label="Held by"
        value={own.tool ?? BY_HAND}
        options={[
          { value: BY_HAND, name: "a stone by hand" },
          ...edgeTools(shop).map(({ id, name }) => ({ value: id, name })),
        ]}
        onChange={(tool) =>
          edit.pressStep(i, { tool: tool === BY_HAND ? undefined : tool } as Partial<EdgeStep>)
        }
      />
      <NumberRow
        label="Down to, µm"
        value={to}
        least={0.1}
        most={1000}
        onChange={(microns) => edit.change(i, { to: microns })}
      />
      {kind !== "strop" && (
        <Segmented
          label="Burr"
          options={["each", "finest"]}
          value={burr}
          names={{ each: "at every stone", finest: "at the finest" }}
          onChange={(next) => edit.pressStep(i, { burr: next })}
        />
      )}
      {sides.map((side) => (
        <SettingsTable key={side} report={report} step={step} side={side} isAlike={isAlike} />
      ))}
      {step.varies !== null && step.varies > 0.05 && (
        <p className="text-xs text-faint">
          One setting, the middle's, gives angles {step.varies.toFixed(1)}° apart along the edge.
        </p>
      )}
      {step.takes > 0 && (
        <p className="text-sm">
          Takes <strong>{showLengthWithUnit(step.takes, unit, fine(unit))}</strong> off the blade's height
          {step.behind !== null && (
            <>
              ; behind it <strong>{showLengthWithUnit(step.behind, unit, fine(unit))}</strong>
            </>
          )}
          .
        </p>
      )}
      {becomesEdge && (
        <SmallButton isWaiting={waiting !== null} onClick={() => press("edge")}>
          Make it the blade's edge bevel
        </SmallButton>
      )}
      {own.tool && <FoundAngle key={own.tool} tool={own.tool} set={angle.right || angle.left} />}
      {step.ladder &&
        (step.ladder.ok ? (
          <BeltsTable sequence={step.ladder.sequence} caption="A burr at heel, middle and tip with each" />
        ) : (
          <>
            <p className="text-sm">{step.ladder.why}</p>
            {shop.abrasives.every(isBelt) && (
              <SmallButton onClick={() => put({ ...shop, abrasives: [...shop.abrasives, ...USUAL_STONES] })}>
                Put the usual stones into the stores
              </SmallButton>
            )}
          </>
        ))}
      {step.coarser && (
        <p className="text-xs text-faint">
          Over a quarter of an hour: begun at {Math.round(step.coarser.abrasive.microns)} µm it is{" "}
          {Math.round(step.coarser.minutes)} min less, and takes{" "}
          {showLengthWithUnit(step.coarser.takes, unit, fine(unit))} of height.
        </p>
      )}
    </Group>
  );
}

/** The angle that was found on the edge after it: kept for the tool, and from three on offered as its zero. */
function FoundAngle({ tool, set }: { tool: string; set: number }) {
  const { shop, put } = useShop();
  const [found, setFound] = useState<number | null>(null);
  const [why, setWhy] = useState<string | null>(null);
  const records = shop.learned ?? [];
  const zero = zeroOf(records, tool);
  const held = shop.setups.find(({ id }) => id === tool)?.setup;
  const now = held && "zero" in held ? (held.zero ?? 0) : 0;
  const keep = () => {
    if (found === null) return setWhy("Say what angle was found.");
    const record = { tool, when: new Date().toISOString(), set: set - now, found };
    setWhy(put({ ...shop, learned: [...records, record] }));
    setFound(null);
  };
  const take = (mean: number) =>
    setWhy(
      put({
        ...shop,
        setups: shop.setups.map((one) =>
          one.id === tool && isEdgeTool(one.setup)
            ? { ...one, setup: { ...one.setup, zero: Math.round(mean * 100) / 100 } }
            : one,
        ),
      }),
    );
  return (
    <>
      <AngleBox
        label="Found on the edge, a side"
        value={found ?? set}
        onCommit={(value) => {
          if (value <= 0 || value > 60) return "Above 0, to 60°.";
          setFound(value);
          return null;
        }}
      />
      <RecordButton onClick={keep}>Keep it for this tool</RecordButton>
      {zero && (
        <p className="text-sm">
          It gives {zero.mean >= 0 ? "" : "−"}
          {Math.abs(zero.mean).toFixed(1)}° ± {zero.spread.toFixed(1)}° beyond what it is set for, by{" "}
          {zero.count}
          {Math.abs(zero.mean - now) > 0.05 ? ": " : ", and that is taken off."}
          {Math.abs(zero.mean - now) > 0.05 && (
            <SmallButton onClick={() => take(zero.mean)}>Take that as its zero</SmallButton>
          )}
        </p>
      )}
      {why && <Alert>{why}</Alert>}
    </>
  );
}

function SettingsTable({
  report,
  step,
  side,
  isAlike,
}: {
  report: EdgeReport;
  step: StepReport;
  side: Side;
  isAlike: boolean;
}) {
  const unit = useSettings((settings) => settings.unit);
  const settings = step.settings[side];
  const { kind } = step.tool.holds;
  const rows: [string, string[]][] = [
    [SET_WORDS[kind], settings.map((one) => settingWords(one, unit))],
    ...(kind === "stone"
      ? ([
          [
            "gap under the spine",
            settings.map(({ gap }) => (gap === null ? "–" : showLengthWithUnit(gap, unit))),
          ],
        ] as [string, string[]][])
      : []),
    [
      kind === "hand" ? "apex about" : "one setting gives",
      settings.map(({ back }) => (back === null ? "none" : `${back.toFixed(2)}°`)),
    ],
    // A facet that is no flat is told as what it is.
    ...(settings.some(({ shoulder }) => shoulder !== null)
      ? ([
          ["hollow, to at its shoulder", settings.map(({ shoulder }) => `${(shoulder ?? 0).toFixed(2)}°`)],
        ] as [string, string[]][])
      : []),
    ...(settings.some(({ bulge }) => bulge !== null)
      ? ([
          [
            "round, out of its chord by",
            settings.map(({ bulge }) => showLengthWithUnit(bulge ?? 0, unit, fine(unit))),
          ],
        ] as [string, string[]][])
      : []),
  ];
  return (
    <table aria-label={`Settings${isAlike ? "" : `, ${side}`}`} className="w-full text-xs">
      <thead className="text-[11px] text-faint">
        <tr>
          <th scope="col" className="text-left font-normal">
            {isAlike ? <span className="sr-only">what</span> : side}
          </th>
          {report.places.map(({ place }) => (
            <th key={place} scope="col" className="text-right font-normal">
              {place}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map(([name, values]) => (
          <tr key={name} className="border-t border-rule">
            <th scope="row" className="py-1 text-left font-normal text-faint">
              {name}
            </th>
            {values.map((value, k) => (
              <td key={report.places[k]!.place} className="text-right font-semibold whitespace-nowrap">
                {value}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
