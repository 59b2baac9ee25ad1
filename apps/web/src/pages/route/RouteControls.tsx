import { micronsOf, nearestGrade, scaleOf } from "@true-spine/core/abrasive/gradings.ts";
import { SIDES } from "@true-spine/core/blade/schema.ts";
import { stockOfRound } from "@true-spine/core/route/bar.ts";
import { type Leaving, leavingEdge, leavingLine } from "@true-spine/core/route/edge-to-leave.ts";
import { firstRoute } from "@true-spine/core/route/first.ts";
import { standInNamed } from "@true-spine/core/route/past.ts";
import type { RouteReport } from "@true-spine/core/route/report.ts";
import { type BarSurface, type Route, STAGE_KINDS, type StageKind } from "@true-spine/core/route/schema.ts";
import { SCHOOLS, STAGES, withStage } from "@true-spine/core/route/stages.ts";
import { showLengthWithUnit } from "@true-spine/core/units/length.ts";
import { useState } from "react";
import { useSettings } from "../../app/settings.ts";
import { useDocument, useFile, useScreen } from "../../blade/screen.ts";
import { whyNot } from "../../blade/store.ts";
import { useEdit } from "../../blade/useEdit.ts";
import { Alert } from "../../parts/Alert.tsx";
import { AngleBox, LengthBox, ShareBox } from "../../parts/Box.tsx";
import { Choice, Group } from "../../parts/Group.tsx";
import { useShop } from "../../shop/shop.ts";

const GRADES = scaleOf("P").grades;

/** A route without what is undefined. */
const compact = (route: Route) =>
  Object.fromEntries(Object.entries(route).filter(([, value]) => value !== undefined)) as Route;

/** What is chosen about the route; everything else follows from it and from the blade. */
export function RouteControls({ report }: { report: Pick<RouteReport, "stages"> }) {
  const { open } = useScreen();
  const { visit } = useEdit();
  const unit = useSettings((settings) => settings.unit);
  const route = useDocument("route");
  const [why, setWhy] = useState<string | null>(null);
  const put = (change: Partial<Route>) => whyNot(open.put({ route: compact({ ...route, ...change }) }));
  const press = (change: Partial<Route>) => {
    open.end();
    setWhy(put(change));
  };
  const { shop } = useShop();
  const file = useFile();
  const kinds = route.stages.map((stage) => stage.kind);
  const usual = SCHOOLS.filter(
    (one) =>
      firstRoute(file, one)
        .stages.map(({ kind }) => kind)
        .join() === kinds.join(),
  );
  const school = usual.find(({ key }) => key === route.school) ?? usual[0];
  const harden = report.stages.findIndex(({ kind }) => kind === "harden");
  const rough = report.stages.findLast(({ kind }, i) => kind === "rough" && (harden < 0 || i < harden));
  const left = rough?.work.stop[1] ?? null;
  const finished = report.stages.findLast(({ isBevelled }) => isBevelled)?.targets[1]?.grindLine;
  const side = SIDES.find((one) => finished?.[one] && rough?.work.line[one][1]);
  const share = side ? rough!.work.line[side][1]! / finished![side]! : null;
  const leave =
    (solve: typeof leavingEdge, refuse: (made: Leaving & { ok: false }) => string) => (wanted: number) => {
      const made = solve(open.store.getState().file, open.store.getState().route, shop, wanted);
      return made.ok ? put(made.route) : refuse(made);
    };
  const grade = (label: string, microns: number, onChange: (microns: number) => void) => (
    <Choice
      label={label}
      value={nearestGrade("P", microns)!.grade}
      options={GRADES.map(([name]) => ({ value: name, name }))}
      onChange={(name) => onChange(micronsOf("P", name)!)}
    />
  );
  return (
    <Group title="Route">
      <Choice
        label="Way of working"
        value={school?.key ?? ""}
        options={[
          ...(school ? [] : [{ value: "", name: "your own order" }]),
          ...SCHOOLS.map(({ key, name }) => ({ value: key, name })),
        ]}
        onChange={(key) => {
          const chosen = SCHOOLS.find((one) => one.key === key);
          if (!chosen) return;
          const { stages, oven, school: begun } = firstRoute(open.store.getState().file, chosen);
          const done = new Map(route.stages.map((stage) => [stage.id, stage]));
          press({ oven, school: begun, stages: stages.map((stage) => done.get(stage.id) ?? stage) });
        }}
      />
      {school && <p className="text-xs text-faint">{school.words}</p>}
      {route.bar?.diameter === undefined ? (
        <LengthBox label="Stock" value={route.stock} onVisit={visit} onCommit={(stock) => put({ stock })} />
      ) : (
        <LengthBox
          label="Round bar, across"
          value={route.bar.diameter}
          onVisit={visit}
          onCommit={(diameter) => put({ stock: stockOfRound(diameter), bar: { ...route.bar!, diameter } })}
        />
      )}
      <Choice
        label="The bar"
        value={route.bar?.surface ?? ""}
        options={[
          { value: "", name: "any that does" },
          { value: "ground", name: "in hand, ground" },
          { value: "descaled", name: "in hand, descaled" },
          { value: "rolled", name: "in hand, as rolled" },
        ]}
        onChange={(surface) =>
          press({ bar: surface ? { ...route.bar, surface: surface as BarSurface } : undefined })
        }
      />
      {left !== null && (
        <LengthBox
          label="Edge to leave for the oven"
          named={standInNamed}
          value={Math.round(left * 1000) / 1000}
          onVisit={visit}
          onCommit={leave(leavingEdge, ({ why, nearest }) =>
            why === "low"
              ? `The belts after hardening need more than that: ${showLengthWithUnit(nearest, unit)} at the least.`
              : `There is no more steel than ${showLengthWithUnit(nearest, unit)} there.`,
          )}
        />
      )}
      {share !== null && (
        <ShareBox
          label="Line up to, of its height"
          what="a share of its height"
          hint="how far up the line stands before hardening, in the middle"
          value={Math.round(share * 1000) / 1000}
          onVisit={visit}
          onCommit={leave(leavingLine, ({ why, nearest }) =>
            why === "high"
              ? `The belts after hardening need more than that leaves: ${Math.floor(nearest * 1000) / 10} % at the most.`
              : `So low there is no bevel: ${Math.ceil(nearest * 1000) / 10} % at the least.`,
          )}
        />
      )}
      <LengthBox
        label="Left for the oven, a side"
        value={route.oven}
        onVisit={visit}
        onCommit={(oven) => put({ oven })}
      />
      <LengthBox
        label="Skin after the oven, a side"
        value={route.skin}
        onVisit={visit}
        onCommit={(skin) => put({ skin })}
      />
      <AngleBox
        label="Rough flat at, 0 as the bevel"
        value={route.roughAngle ?? 0}
        onVisit={visit}
        onCommit={(angle) => put({ roughAngle: angle > 0 ? angle : undefined })}
      />
      {grade("Coarse belts end at", route.coarse, (coarse) => press({ coarse }))}
      {grade("Bevels finished at", route.finish.bevels, (bevels) =>
        press({ finish: { ...route.finish, bevels } }),
      )}
      {grade("Flats finished at", route.finish.flats, (flats) =>
        press({ finish: { ...route.finish, flats } }),
      )}
      {grade("Edge finished at", route.finish.edge, (edge) => press({ finish: { ...route.finish, edge } }))}
      <label className="flex items-center gap-2 text-sm text-faint">
        <input
          type="checkbox"
          checked={route.clay ?? false}
          onChange={(event) => press({ clay: event.currentTarget.checked || undefined })}
        />
        a clay line is wanted
      </label>
      <LengthBox
        label="Gap of the centre lines"
        value={route.gap}
        onVisit={visit}
        onCommit={(gap) => put({ gap })}
      />
      <LengthBox
        label="Drill as a scriber, 0 for the nearest"
        value={route.drill ?? 0}
        onVisit={visit}
        onCommit={(drill) => put({ drill: drill > 0 ? drill : undefined })}
      />
      <Choice
        label="Add a stage"
        value=""
        options={[
          { value: "", name: "choose …" },
          ...STAGE_KINDS.map((kind) => ({ value: kind, name: STAGES[kind].name })),
        ]}
        onChange={(kind) => {
          if (kind) press({ stages: withStage(route.stages, kind as StageKind) });
        }}
      />
      {why && <Alert>{why}</Alert>}
    </Group>
  );
}
