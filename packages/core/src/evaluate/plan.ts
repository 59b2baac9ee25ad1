import { type Static, Type } from "@sinclair/typebox";
import { abrasiveName } from "../abrasive/schema.ts";
import type { Blade } from "../blade/schema.ts";
import { type Forge, NO_FORGE } from "../forge/schema.ts";
import { readingFor } from "../grind/setups.ts";
import { type Forging, forgingOf, formAt } from "../route/forging.ts";
import type { LayoutPlace } from "../route/layout.ts";
import { reportOf, type StageReport, type WorkAlong } from "../route/report.ts";
import { type Route, WORKED_ON } from "../route/schema.ts";
import { setupFor } from "../route/setup-for.ts";
import type { NamedSetup, Shop } from "../shop/schema.ts";

/** A whole route in plain figures, for scripts: lengths mm, angles degrees a side; three figures are heel, middle and tip. */
const only = { additionalProperties: false } as const;
const Figure = Type.Union([Type.Number(), Type.Null()]);
const Three = Type.Array(Figure, { minItems: 3, maxItems: 3 });
const Sides = Type.Object({ left: Three, right: Three }, only);

const PlannedStageSchema = Type.Object(
  {
    id: Type.String(),
    kind: Type.String(),
    name: Type.String(),
    /** What it works on; empty where it grinds nothing. */
    on: Type.Array(Type.Union(WORKED_ON.map((on) => Type.Literal(on)))),
    /** Said where it works on the second edge alone: its figures are that one's. */
    edgeOf: Type.Optional(Type.Literal("second")),
    /** The same of the second edge, where it works on both. */
    second: Type.Optional(Type.Object({ edge: Three, line: Sides, angle: Sides }, only)),
    side: Type.Union([Type.Literal("left"), Type.Literal("right"), Type.Literal("both"), Type.Null()]),
    /** Over the flats in the middle of the blade. */
    flats: Type.Number(),
    /** What to stop at; behind the edge when it is sharpened. */
    edge: Three,
    /** Top of the face that is worked, above the edge. */
    line: Sides,
    angle: Sides,
    belts: Type.Array(Type.String()),
    minutes: Type.Number(),
    /** What the shop's set-up reads, where one angle holds all along. */
    setting: Type.Union([
      Type.Object({ setup: Type.String(), value: Type.Number(), unit: Type.String() }, only),
      Type.Null(),
    ]),
  },
  only,
);

const LayoutPlaceSchema = Type.Object(
  {
    place: Type.String(),
    x: Type.Number(),
    flats: Type.Number(),
    gap: Type.Number(),
    gauge: Type.Object({ left: Type.Number(), right: Type.Number() }, only),
    single: Type.Number(),
    drillApart: Type.Number(),
    edge: Type.Number(),
    outside: Type.Number(),
    line: Type.Object({ left: Figure, right: Figure }, only),
  },
  only,
);

const LayoutSchema = Type.Object(
  {
    setting: Type.Number(),
    face: Type.Union([Type.Literal("left"), Type.Literal("right"), Type.Null()]),
    places: Type.Array(LayoutPlaceSchema),
    /** The same along the second edge; absent without one. */
    second: Type.Optional(Type.Array(LayoutPlaceSchema)),
  },
  only,
);

const ForgingSchema = Type.Object(
  {
    /** What to cut off the bar, with kerf and spare, and what the blank takes of it. */
    bar: Type.Number(),
    needed: Type.Number(),
    map: Type.Array(Type.Object({ x: Type.Number(), s: Type.Number() }, only)),
    forms: Type.Array(
      Type.Object(
        {
          step: Type.String(),
          at: Type.Array(
            Type.Object({ x: Type.Number(), width: Type.Number(), thickness: Type.Number() }, only),
          ),
          /** Degrees from plunge to tip, + the tip up. */
          turn: Type.Number(),
        },
        only,
      ),
    ),
    heats: Type.Object({ blade: Figure, tang: Figure }, only),
  },
  only,
);

export const PlanFiguresSchema = Type.Object(
  {
    stock: Type.Number(),
    stages: Type.Array(PlannedStageSchema),
    layout: Type.Union([LayoutSchema, Type.Null()]),
    /** From the bar to the blank, where the route has a forge stage and its bar is known: `s` along the bar from the tip's end. */
    forging: Type.Optional(ForgingSchema),
  },
  { ...only, $id: "true-spine/plan/1", title: "True Spine plan, version 1" },
);
export type PlanFigures = Static<typeof PlanFiguresSchema>;

/** The plan of a checked blade by a route. */
export function planFigures(blade: Blade, route: Route, shop: Shop, forge: Forge = NO_FORGE): PlanFigures {
  const { stages, layout } = reportOf(blade, route, shop, 0, forge);
  const isForged = route.stages.some(({ kind }) => kind === "forge");
  const forging = isForged ? forgingOf(blade, route, forge, shop) : null;
  return {
    stock: route.stock,
    stages: stages.map((stage, i) => plannedStage(stage, setupFor(route.stages, i, shop))),
    layout: layout && {
      setting: layout.setting,
      face: layout.face,
      places: layout.places.map(placeFigures),
      ...(layout.second.length > 0 ? { second: layout.second.map(placeFigures) } : {}),
    },
    ...(forging ? { forging: forgingFigures(forging) } : {}),
  };
}

const placeFigures = ({ line, ...place }: LayoutPlace) => ({
  ...place,
  line: { left: line.left?.now ?? null, right: line.right?.now ?? null },
});

/** A place of the blank every so many millimetres: for what is printed. */
const EVERY = 5;

function forgingFigures({ map, forms, work, blank }: Forging): NonNullable<PlanFigures["forging"]> {
  const count = Math.ceil((blank.right - blank.left) / EVERY);
  const xs = Array.from(
    { length: count + 1 },
    (_, i) => blank.left + ((blank.right - blank.left) * i) / count,
  );
  const orNull = (heats: number) => (Number.isFinite(heats) ? heats : null);
  return {
    bar: map.total,
    needed: map.needed,
    map: xs.map((x) => ({ x, s: map.sAt(x) })),
    forms: forms.forms.map((form) => ({
      step: form.step,
      turn: form.turn,
      at: xs.map((x) => {
        const { width, thickness } = formAt(form, x);
        return { x, width, thickness };
      }),
    })),
    heats: { blade: orNull(work.blade), tang: orNull(work.tang) },
  };
}

function alongFigures({ stop, line, angle }: WorkAlong) {
  return {
    edge: [...stop],
    line: { left: [...line.left], right: [...line.right] },
    angle: { left: [...angle.left], right: [...angle.right] },
  };
}

function plannedStage(stage: StageReport, named: NamedSetup | undefined): PlanFigures["stages"][number] {
  const { work, belts } = stage;
  const isWorked = (side: "left" | "right") => work.angle[side].some((angle) => angle !== null);
  const [left, right] = [isWorked("left"), isWorked("right")];
  const single = work.single.right ?? work.single.left;
  const reading = named && single !== null ? readingFor(named.setup, single) : null;
  return {
    id: stage.id,
    kind: stage.kind,
    name: stage.name,
    on: work.on === "nothing" ? [] : [work.on],
    ...(work.edge ? { edgeOf: work.edge } : {}),
    ...(work.second ? { second: alongFigures(work.second) } : {}),
    side: left && right ? "both" : left ? "left" : right ? "right" : null,
    flats: stage.targets[1]!.flats,
    ...alongFigures(work),
    belts: belts?.planned.ok ? belts.planned.sequence.steps.map(({ belt }) => abrasiveName(belt)) : [],
    minutes: stage.minutes,
    setting: reading && named ? { setup: named.name, value: reading.value, unit: reading.unit } : null,
  };
}
