import { cleanup, fireEvent, screen, within } from "@testing-library/react";
import { NO_FORGE } from "@true-spine/core/forge/schema.ts";
import { firstRoute } from "@true-spine/core/route/first.ts";
import { type ForgeReport, forgeReport } from "@true-spine/core/route/forge-report.ts";
import type { Route } from "@true-spine/core/route/schema.ts";
import { withStage } from "@true-spine/core/route/stages.ts";
import { USUAL_SHOP } from "@true-spine/core/shop/schema.ts";
import { afterEach, beforeEach, describe, expect, test } from "vitest";
import { useSettings } from "../../src/app/settings.ts";
import { pagesFor } from "../../src/pages/blade/pages.ts";
import { ForgeNumbers } from "../../src/pages/card/ForgeCard.tsx";
import { SeenPanel } from "../../src/pages/card/SeenPanel.tsx";
import {
  BarGroup,
  BlankGroup,
  BolsterGroup,
  FireGroup,
  OrderGroup,
} from "../../src/pages/forge/ForgeControls.tsx";
import { ForgeSection } from "../../src/pages/forge/ForgeSection.tsx";
import { FormsTable } from "../../src/pages/forge/FormsTable.tsx";
import { SchoolsGroup } from "../../src/pages/forge/SchoolsGroup.tsx";
import { useShopState } from "../../src/shop/shop.ts";
import { knife } from "../knife.ts";
import { bench, typeInto } from "../screen.tsx";

const blade = { ...knife(), steel: "1084" };
const first = firstRoute(blade);
const route: Route = {
  ...first,
  stock: 6.35,
  bar: { surface: "rolled", width: 38 },
  stages: withStage(first.stages, "forge"),
};
const report: ForgeReport = forgeReport(blade, route, NO_FORGE, USUAL_SHOP, 50)!;
const open = () => bench(blade, { route, forge: NO_FORGE });

beforeEach(() => {
  useSettings.setState({ unit: "mm" });
  useShopState.setState({ shop: USUAL_SHOP });
});
afterEach(cleanup);

describe("the Forge page", () => {
  test("is there where a route is forged, before the route itself, and nowhere else", () => {
    const names = (of: Route) => pagesFor(of).map(({ name }) => name);
    expect(names(route)).toEqual(["Shape", "Grind", "Forge", "Route", "Heat", "Check", "Edge", "Log"]);
    expect(names(first)).not.toContain("Forge");
  });

  test("the bar is the route's: its shape, its width, its corners", () => {
    const held = open();
    held.show(<BarGroup isAsked={false} />);
    typeInto("Bar, wide", "40");
    expect(held.open.store.getState().route.bar).toMatchObject({ width: 40 });
    fireEvent.change(screen.getByLabelText(/^Its shape/), { target: { value: "round" } });
    expect(held.open.store.getState().route.bar).toMatchObject({ diameter: 25 });
    expect(held.open.store.getState().route.bar).not.toHaveProperty("width");
    typeInto("Drawn flat to, wide, 0 as needed", "30");
    expect(held.open.store.getState().forge.preform).toEqual({ w: 30, t: 5 });
    typeInto("Drawn flat to, wide, 0 as needed", "0");
    expect(held.open.store.getState().forge.preform).toBeUndefined();
  });

  test("a bar of the stores is taken whole: its sizes and its length", () => {
    useShopState.setState({
      shop: {
        ...USUAL_SHOP,
        bars: [
          { id: "bar-1", w: 30, t: 6, length: 400 },
          { id: "bar-2", d: 20, length: 250 },
        ],
      },
    });
    const held = open();
    held.show(<BarGroup isAsked={false} />);
    fireEvent.change(screen.getByLabelText(/^From the stock/), { target: { value: "bar-2" } });
    expect(held.open.store.getState().route).toMatchObject({ stock: 20, bar: { diameter: 20, length: 250 } });
    fireEvent.change(screen.getByLabelText(/^From the stock/), { target: { value: "bar-1" } });
    expect(held.open.store.getState().route).toMatchObject({ stock: 6, bar: { width: 30, length: 400 } });
    expect(held.open.store.getState().route.bar).not.toHaveProperty("diameter");
  });

  test("what is left on the blank is changed, and what cannot be is refused in words", () => {
    const held = open();
    held.show(<BlankGroup />);
    typeInto("Edge left", "2.4");
    expect(held.open.store.getState().forge.blank.edge).toBe(2.4);
    typeInto("Bevel up to, of the height", "75");
    expect(held.open.store.getState().forge.blank.share).toBe(0.75);
    typeInto("Edge left", "40");
    expect(held.open.store.getState().forge.blank.edge).toBe(2.4);
    expect(screen.getByRole("alert").textContent).toBeTruthy();
  });

  test("the whole turn is shared out: what is bent beforehand is not straightened too", () => {
    const held = open();
    held.show(<OrderGroup />);
    typeInto("Bent beforehand, of the turn", "60");
    expect(held.open.store.getState().forge.turn).toMatchObject({ before: 0.6, after: 0.4 });
    fireEvent.change(screen.getByLabelText("First"), { target: { value: "tang" } });
    expect(held.open.store.getState().forge.order[0]).toBe("tang");
    fireEvent.change(screen.getByLabelText(/^Width, while/), { target: { value: "free" } });
    typeInto("Bite, of the bar's width", "80");
    expect(held.open.store.getState().forge.taper).toEqual({ spread: "free", bite: 0.8 });
  });

  test("a heat is taken as a colour, in °F or in °C, and says what the steel bears", () => {
    const held = open();
    held.show(<FireGroup />);
    typeInto("Stop at", "cherry");
    expect(held.open.store.getState().forge.heat).toMatchObject({ stop: 800, said: { stop: "cherry" } });
    expect(screen.getByText(/cherry, 700 to 900 °C, by/)).toBeTruthy();
    typeInto("Out of the fire at", "1900 F");
    expect(held.open.store.getState().forge.heat.from).toBeCloseTo(1037.78, 2);
    expect(screen.getByText(/1084 is worked from 1150 down to 800/)).toBeTruthy();
  });

  test("a bolster is left, moved and taken out again", () => {
    const held = open();
    held.show(<BolsterGroup beside={5} />);
    fireEvent.click(screen.getByRole("button", { name: "Leave an integral bolster" }));
    expect(held.open.store.getState().forge.bolster).toEqual({ from: -12, to: 0, d: 25 });
    expect(screen.getByText(/Set down by 10\.00 mm on each face/)).toBeTruthy();
    typeInto("Bolster from", "-9");
    expect(held.open.store.getState().forge.bolster!.from).toBe(-9);
    fireEvent.click(screen.getByRole("button", { name: "Remove" }));
    expect(held.open.store.getState().forge.bolster).toBeUndefined();
  });

  test("every form stands in the table with its figures, one of them chosen", () => {
    const held = open();
    let chosen = -1;
    held.show(<FormsTable report={report} chosen={3} onChoose={(i) => (chosen = i)} />);
    const rows = within(screen.getByRole("table", { name: "Forms" })).getAllByRole("row");
    expect(rows).toHaveLength(6);
    expect(rows[1]!.textContent).toContain("38.0 × 6.4");
    expect(rows[4]!.textContent).toContain("edge 2.0");
    const bevelled = report.forms[3]!;
    expect(rows[4]!.textContent).toContain(`${bevelled.turn.toFixed(1)}°`);
    fireEvent.click(within(rows[2]!).getAllByRole("button")[0]!);
    expect(chosen).toBe(1);
  });

  test("ways of working stand side by side, and one is taken at a press", () => {
    const held = open();
    held.show(<SchoolsGroup schools={report.schools} />);
    const [now, other] = screen.getAllByRole("button");
    expect(now!.getAttribute("aria-pressed")).toBe("true");
    fireEvent.click(other!);
    const { order } = held.open.store.getState().forge;
    expect(order.indexOf("taper")).toBeGreaterThan(order.indexOf("bevel"));
  });

  test("the section shows the form, the blank and the finished blade, with the form's figures there", () => {
    open().show(<ForgeSection report={report} chosen={3} />);
    const figures = screen.getByLabelText("The form at the scribe");
    expect(figures.textContent).toMatch(/wide \d+\.\d+thick \d\.\d+edge 2\.00seconds \d+/);
  });
});

describe("the card at the fire", () => {
  test("one form: how wide, how thick, how long, until which colour", () => {
    open().show(<ForgeNumbers report={report} at={3} />);
    expect(screen.getByText(/stop at cherry/)).toBeTruthy();
    expect(screen.getByText("Thick at the spine / edge")).toBeTruthy();
    expect(document.body.textContent).toContain(report.forms[3]!.length.toFixed(1));
  });

  test("what is seen is written down with its place and depth", () => {
    let seen: unknown = null;
    open().show(<SeenPanel onSee={(one) => (seen = one)} onClose={() => {}} />);
    fireEvent.click(screen.getByRole("button", { name: "a crack" }));
    expect(screen.getByText(/Cut off beyond its end/)).toBeTruthy();
    typeInto("From, from the junction", "120");
    typeInto("To", "126");
    typeInto("Deep, about", "0.6");
    fireEvent.click(screen.getByRole("button", { name: "Write it down" }));
    expect(seen).toEqual({ fault: "crack", x: [120, 126], depth: 0.6 });
  });
});
