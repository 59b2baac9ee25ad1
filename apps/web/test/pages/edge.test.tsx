import { act, cleanup, fireEvent, screen } from "@testing-library/react";
import { type Edge, type EdgeStep, NO_EDGE, NO_THIN } from "@true-spine/core/edge/schema.ts";
import { edgeReport, stepsOfEdge } from "@true-spine/core/route/edge-report.ts";
import { firstRoute } from "@true-spine/core/route/first.ts";
import { thinReport } from "@true-spine/core/route/thin-report.ts";
import { USUAL_SHOP } from "@true-spine/core/shop/schema.ts";
import { sharpenedAt } from "@true-spine/core/work/joined.ts";
import { afterEach, beforeEach, describe, expect, test, vi } from "vitest";
import { createStore, useStore } from "zustand";
import { useSettings } from "../../src/app/settings.ts";
import { useDocument, useFile } from "../../src/blade/screen.ts";
import { EdgeStrip } from "../../src/pages/edge/EdgeStrip.tsx";
import { DoneGroup, LifeGroup } from "../../src/pages/edge/LifeGroup.tsx";
import { StepGroup } from "../../src/pages/edge/StepGroup.tsx";
import { StepsTable } from "../../src/pages/edge/StepsTable.tsx";
import { ThinGroup } from "../../src/pages/edge/ThinGroup.tsx";
import { useEdgeDocument } from "../../src/pages/edge/useEdgeDocument.ts";
import { useShopState } from "../../src/shop/shop.ts";
import { useWorkRows } from "../../src/work/useWorkRows.ts";
import { knife } from "../knife.ts";
import { bench, typeInto } from "../screen.tsx";

const blade = knife();
const route = firstRoute(blade);
const press = (name: string | RegExp) => fireEvent.click(screen.getByRole("button", { name }));
const open = (edge: Edge = NO_EDGE) => bench(blade, { route, edge });

/** The parts of the page with what the worker would answer worked out at once. */
function Page({ i = 0 }: { i?: number }) {
  const file = useFile();
  const doc = useDocument("edge");
  const { shop } = useShopState();
  const rows = useWorkRows();
  const asked = { blade: file, route, shop, edge: doc, which: "first" as const, done: sharpenedAt(rows) };
  const report = edgeReport(asked)!;
  const steps = stepsOfEdge(file, doc, "first", route.finish.edge);
  const edit = useEdgeDocument("first", steps);
  const lost = report.life.done * report.life.each;
  const thin = thinReport({ blade: file, shop, which: "first", thin: doc.thin ?? NO_THIN, lost })!;
  const at = Math.min(i, steps.length - 1);
  return (
    <>
      <StepGroup
        report={report}
        worked={report.steps[at]!}
        step={steps[at]!}
        i={at}
        edit={edit}
        isOld={false}
      />
      <StepsTable report={report} chosen={at} onChoose={() => {}} onMore={edit.more} />
      <LifeGroup report={report} edit={edit} />
      <DoneGroup report={report} stage="sharpen" />
      <ThinGroup
        report={report}
        thin={thin}
        chosen={doc.thin ?? NO_THIN}
        stage="sharpen"
        edit={edit}
        isOld={false}
      />
      <EdgeStrip report={report} step={report.steps[at]!} />
    </>
  );
}
const steps = (held: ReturnType<typeof open>) => held.open.store.getState().edge.steps;

beforeEach(() => {
  useSettings.setState({ unit: "mm" });
  useShopState.setState({ shop: USUAL_SHOP, saving: { changed: () => {} } as never });
});
afterEach(cleanup);

describe("the steps", () => {
  test("as usual until one is changed: then all of them are written down; nonsense says why and stays", () => {
    const held = open();
    held.show(<Page />);
    expect(screen.getByText(/^As usual/)).toBeTruthy();
    typeInto("Angle a side", "75");
    expect(screen.getByRole("alert").textContent).toContain("60");
    expect(steps(held)).toEqual([]);
    typeInto("Angle a side", "22");
    expect(steps(held).map(({ kind, angle }) => [kind, angle.right])).toEqual([
      ["finish", 22],
      ["strop", blade.edge.angle.right],
    ]);
    typeInto("Down to, µm", "4");
    expect(steps(held)[0]!.to).toBe(4);
    fireEvent.click(screen.getByRole("radio", { name: "at the finest" }));
    expect(steps(held)[0]!.burr).toBe("finest");
    press("Take Finish bevel out");
    expect(steps(held)).toHaveLength(1);
  });

  test("a micro-bevel and a rough step stand where they usually do, held as the others are", () => {
    const held = open();
    held.show(<Page i={1} />);
    press("Add a micro-bevel");
    press("Add a rough");
    expect(steps(held).map(({ kind }) => kind)).toEqual(["rough", "finish", "micro", "strop"]);
    const [, , micro] = steps(held);
    expect(micro).toMatchObject({ facet: 0.1, angle: { right: blade.edge.angle.right + 2 } });
    for (let n = 0; n < 6; n++) {
      const more = screen.queryByRole("button", { name: "Add a strop" });
      if (more) fireEvent.click(more);
    }
    expect(steps(held)).toHaveLength(8);
    expect(screen.queryByRole("button", { name: "Add a strop" })).toBeNull();
  });

  test("a micro-bevel becomes the edge as it is known once the angle that was typed is, not as it was before", () => {
    const zero = { ...blade, edge: { ...blade.edge, behind: [{ u: 0, t: 0 }] } };
    const steps = (angle: number): EdgeStep[] => [
      { edge: "first", kind: "micro", angle: { left: angle, right: angle }, facet: 0.1, to: 1 },
    ];
    const of = (angle: number) =>
      edgeReport({
        blade: zero,
        route,
        shop: USUAL_SHOP,
        edge: { ...NO_EDGE, steps: steps(angle) },
        which: "first",
        done: [],
      })!;
    // "17" is typed, and what is known is of its "1".
    const known = createStore(() => ({ report: of(1), isOld: true }));
    const Step = () => {
      const { report, isOld } = useStore(known);
      const edit = useEdgeDocument("first", steps(17));
      const [step, worked] = [steps(17)[0]!, report.steps[0]!];
      return <StepGroup report={report} worked={worked} step={step} i={0} edit={edit} isOld={isOld} />;
    };
    const held = bench(zero, { route, edge: { ...NO_EDGE, steps: steps(17) } });
    held.show(<Step />);
    press("Make it the blade's edge bevel");
    expect(held.file().edge).toEqual(zero.edge);
    act(() => known.setState({ report: of(17), isOld: false }));
    expect(held.file().edge.angle).toEqual({ left: 17, right: 17 });
    const [behind, before] = [of(17), of(1)].map(({ steps: [step] }) => step!.behind!);
    expect(held.file().edge.behind).toEqual([{ u: 0, t: expect.closeTo(behind!, 3) }]);
    expect(behind!).toBeGreaterThan(10 * before!);
  });

  test("a tool of the stores is chosen by its name, and gives its own setting", () => {
    const setup = { kind: "rod", P: [60, 120], s: 6 } as const;
    useShopState.setState({
      shop: {
        ...USUAL_SHOP,
        setups: [{ id: "rod-1", name: "our rod", setup: { ...setup, P: [...setup.P] } }],
      },
    });
    const held = open();
    held.show(<Page />);
    fireEvent.change(screen.getByLabelText(/^Held by/), { target: { value: "rod-1" } });
    expect(steps(held)[0]!.tool).toBe("rod-1");
    expect(screen.getByText("ball over the middle plane")).toBeTruthy();
    for (const angle of ["19.2", "18.8", "19"]) {
      typeInto("Found on the edge, a side", angle);
      press("Keep it for this tool");
    }
    expect(useShopState.getState().shop.learned).toHaveLength(3);
    const mean = 19 - blade.edge.angle.right;
    press("Take that as its zero");
    expect(useShopState.getState().shop.setups[0]!.setup).toMatchObject({ zero: expect.closeTo(mean, 2) });
    fireEvent.change(screen.getByLabelText(/^Held by/), { target: { value: "" } });
    expect(steps(held)[0]!.tool).toBeUndefined();
    expect(screen.getByText("gap under the spine")).toBeTruthy();
  });

  test("without stones it says where they go, and puts the usual ones there at a press", () => {
    const belts = USUAL_SHOP.abrasives.filter(({ form }) => form === undefined);
    useShopState.setState({ shop: { ...USUAL_SHOP, abrasives: belts } });
    open().show(<Page />);
    expect(screen.getByText(/put your stones into the stores/)).toBeTruthy();
    press("Put the usual stones into the stores");
    expect(useShopState.getState().shop.abrasives.length).toBe(belts.length + 5);
    expect(screen.queryByText(/put your stones/)).toBeNull();
  });
});

describe("its life", () => {
  test("what is typed of it is kept, and what was done is written down with the height read after it", () => {
    const held = open();
    held.show(<Page />);
    typeInto("Sharpened a year, times", "6");
    typeInto("A sharpening takes", "0.05");
    expect(held.open.store.getState().edge.wear).toMatchObject({ perYear: 6, full: 0.05, k: 1.5 });
    expect(screen.getByText(/years at 6 a year/)).toBeTruthy();
    typeInto("Blade's height in the middle after it", "tall");
    press("Write it down");
    expect(held.rows()).toEqual([]);
    expect(screen.getByRole("alert").textContent).toContain("tall");
    typeInto("Blade's height in the middle after it", "900");
    press("Write it down");
    expect(held.rows()).toEqual([]);
    typeInto("Blade's height in the middle after it", "28.4");
    press("Write it down");
    expect(held.rows()[0]).toMatchObject({
      what: "sharpened",
      kind: "full",
      stage: "sharpen",
      height: [{ u: 0.5, h: 28.4 }],
    });
    expect(screen.getByText(/^1 so far, 0.05 mm of height gone/)).toBeTruthy();
    fireEvent.change(screen.getByLabelText("It was"), { target: { value: "touch" } });
    press("Write it down");
    expect(held.rows()[1]).toMatchObject({ kind: "touch" });
  });
});

describe("thinning", () => {
  test("nothing to come off until it is worn; then off each face to the bench's list, and drawn as it stands in one step", () => {
    const wear = { k: 1.5, perYear: 6, touch: 0.01, full: 0.5 };
    const held = open({ ...NO_EDGE, wear });
    held.show(<Page />);
    expect(screen.getByText(/nothing to come off/)).toBeTruthy();
    press("Write it down");
    expect(screen.queryByText(/nothing to come off/)).toBeNull();
    fireEvent.change(screen.getByLabelText("By"), { target: { value: "hinge" } });
    expect(held.open.store.getState().edge.thin!.way).toBe("hinge");
    const tip = Number((screen.getByLabelText("Wanted behind the edge, tip") as HTMLInputElement).value);
    typeInto("Wanted behind the edge, heel", "0.3");
    // What is wanted at the tip stays what it was.
    expect(held.open.store.getState().edge.thin!.wanted).toEqual([
      { u: 0, t: 0.3 },
      { u: 1, t: expect.closeTo(tip, 2) },
    ]);
    expect(tip).not.toBeCloseTo(0.3, 2);
    press("Put it on the bench's list");
    const { corrections } = held.open.store.getState().check;
    expect(corrections.map(({ side }) => side)).toEqual(["left", "right"]);
    expect(corrections[0]!.off.every(({ t }) => t > 0)).toBe(true);
    const heel = held.file().outline.edge[0]!.at[1];
    press(/^Draw it as it now stands, 0.50 mm lower/);
    expect(held.file().outline.edge[0]!.at[1]).toBeCloseTo(heel + 0.5, 2);
    expect(held.open.store.getState().edge.drawn).toBeDefined();
    held.open.undo();
    expect(held.file().outline.edge[0]!.at[1]).toBe(heel);
    expect(held.open.store.getState().edge.drawn).toBeUndefined();
  });
});

vi.stubGlobal(
  "ResizeObserver",
  class {
    observe() {}
    disconnect() {}
  },
);
