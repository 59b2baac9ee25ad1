import { servedBlade } from "@true-spine/core/design/served.ts";
import { type Thin, WAYS } from "@true-spine/core/edge/schema.ts";
import type { ThinnedSection } from "@true-spine/core/edge/thinning.ts";
import type { EdgeReport } from "@true-spine/core/route/edge-report.ts";
import { type ThinPlace, type ThinReport, toComeOff } from "@true-spine/core/route/thin-report.ts";
import { showLength, showLengthWithUnit } from "@true-spine/core/units/length.ts";
import { useState } from "react";
import { useSettings } from "../../app/settings.ts";
import { useScreen } from "../../blade/screen.ts";
import { whyNot } from "../../blade/store.ts";
import { useEdit } from "../../blade/useEdit.ts";
import { Alert } from "../../parts/Alert.tsx";
import { LengthBox } from "../../parts/Box.tsx";
import { Choice, Group, SmallButton } from "../../parts/Group.tsx";
import { useTakenOnceKnown } from "../../parts/useTakenOnceKnown.ts";
import { newId } from "../../saving/id.ts";
import type { useEdgeDocument } from "./useEdgeDocument.ts";
import { fine } from "./words.ts";

const WAY_NAMES: Readonly<Record<Thin["way"], string>> = {
  parallel: "all of the face",
  hinge: "about its line",
  relief: "a facet of its own",
};

/** How to thin it again: what there is to go at heel, middle and tip, off which face, and what that does to its line. */
export function ThinGroup({
  report,
  thin,
  chosen,
  stage,
  edit,
  isOld,
}: {
  report: EdgeReport;
  thin: ThinReport;
  chosen: Thin;
  stage: string;
  edit: ReturnType<typeof useEdgeDocument>;
  /** Whether the report is of how things stood a moment ago. */
  isOld: boolean;
}) {
  const screen = useScreen();
  const unit = useSettings((settings) => settings.unit);
  const { edit: draw, visit } = useEdit();
  const [why, setWhy] = useState<string | null>(null);
  const change = (some: Partial<Thin>) => edit.put((now) => ({ ...now, thin: { ...chosen, ...some } }));
  const { lost } = report.life;
  // What is not said stays as it is planned.
  const said = chosen.wanted.at(-1);
  const heel = chosen.wanted[0] ?? { u: 0, t: thin.places[0]!.wanted };
  const tip = said?.u === 1 ? said : { u: 1, t: said?.t ?? thin.places[2]!.wanted };
  const isToGo = thin.places.some(({ by }) => by > 0.005);
  /** What is to come off becomes corrections of the bench, a face each, as those are. */
  const toTheBench = () => {
    const check = screen.open.store.getState().check;
    const made = toComeOff(thin, report.which).map((face) => ({
      id: newId(),
      when: new Date().toISOString(),
      stage,
      ...face,
      why: `thinning, ${WAY_NAMES[chosen.way]}`,
    }));
    screen.open.end();
    setWhy(whyNot(screen.open.put({ check: { ...check, corrections: [...check.corrections, ...made] } })));
  };
  const asItStands = () => {
    const served = servedBlade(screen.open.store.getState().file, lost);
    if (!served) {
      setWhy("So much of its height is gone that no sound blade is left to draw.");
      return;
    }
    // One step of the undo: the drawing, and that what was sharpened until now is in it.
    screen.open.end();
    visit(true);
    const refused =
      draw((copy) => {
        copy.outline = served.outline;
        copy.edge = served.edge;
        copy.bevels = served.bevels;
      }) ??
      edit.put((now) => ({
        ...now,
        drawn: new Date().toISOString(),
        // What was planned behind it is what it is to be thinned back to.
        thin: {
          ...chosen,
          wanted: chosen.wanted.length > 0 ? chosen.wanted : [heel, tip],
        },
      }));
    visit(false);
    setWhy(refused);
  };
  const { press, waiting } = useTakenOnceKnown(
    new Map([...(isToGo ? [["bench", toTheBench] as const] : []), ["draw", asItStands] as const]),
    isOld,
    (act) => act(),
  );
  return (
    <Group title="Thinning">
      <Choice
        label="By"
        value={chosen.way}
        options={WAYS.map((value) => ({ value, name: WAY_NAMES[value] }))}
        onChange={(way) =>
          void edit.press((now) => ({ ...now, thin: { ...chosen, way: way as Thin["way"] } }))
        }
      />
      <LengthBox
        label="Wanted behind the edge, heel"
        value={heel.t}
        onVisit={edit.visit}
        onCommit={(t) => change({ wanted: [{ u: 0, t }, tip] })}
      />
      <LengthBox
        label="Wanted behind the edge, tip"
        value={tip.t}
        onVisit={edit.visit}
        onCommit={(t) => change({ wanted: [heel, { u: 1, t }] })}
      />
      {chosen.way === "relief" && (
        <LengthBox
          label="Facet, high"
          value={chosen.height ?? 5}
          onVisit={edit.visit}
          onCommit={(height) => (height <= 0 || height > 300 ? "Above 0, to 300 mm." : change({ height }))}
        />
      )}
      <table aria-label="What is to come off" className="w-full text-xs">
        <thead className="text-[11px] text-faint">
          <tr>
            {[
              "at",
              `now, ${unit}`,
              "wanted",
              "off a face",
              chosen.way === "parallel" ? "line climbs" : "then at",
            ].map((name, i) => (
              <th key={name} scope="col" className={`font-normal ${i > 0 ? "text-right" : "text-left"}`}>
                {name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {thin.places.map(({ place, now, wanted, faces }) => (
            <tr key={place} className="border-t border-rule">
              <th scope="row" className="py-1 text-left font-normal text-faint">
                {place}
              </th>
              <td className="text-right">{showLength(now, unit)}</td>
              <td className="text-right">{showLength(wanted, unit)}</td>
              <td className="text-right font-semibold">
                {eachFace(faces, ({ off }) => showLength(off, unit, fine(unit)))}
              </td>
              <td className="text-right">
                {eachFace(faces, ({ angle, climbs }) =>
                  angle === null ? showLength(climbs, unit) : `${angle.toFixed(2)}°`,
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {isToGo ? (
        <>
          <p className="text-sm">
            {Math.round(thin.volume)} mm³ in all
            {thin.with &&
              thin.minutes !== null &&
              `, about ${Math.max(1, Math.round(thin.minutes))} min with ${thin.with}`}
            .{thin.isByHand && " By hand: power burns so thin an edge."}
          </p>
          {thin.runsOut && (
            <p className="text-sm font-semibold">
              Its line would pass the spine: thin it about its line instead.
            </p>
          )}
          <SmallButton isWaiting={waiting === "bench"} onClick={() => press("bench")}>
            Put it on the bench's list
          </SmallButton>
        </>
      ) : (
        <p className="text-sm text-faint">It is as thin as it was ground: nothing to come off.</p>
      )}
      {report.which === "first" && lost > 0.01 && (
        <SmallButton isWaiting={waiting === "draw"} onClick={() => press("draw")}>
          {`Draw it as it now stands, ${showLengthWithUnit(lost, unit)} lower`}
        </SmallButton>
      )}
      {why && <Alert>{why}</Alert>}
    </Group>
  );
}

/** One figure where both faces have the same or only one is ground, else the left's and the right's. */
function eachFace({ left, right }: ThinPlace["faces"], say: (face: ThinnedSection) => string): string {
  const said = [left, right].flatMap((face) => (face ? [say(face)] : []));
  const [one = "–", other = one] = said;
  return one === other ? one : `L ${one}, R ${other}`;
}
