import { cleanup, fireEvent, screen } from "@testing-library/react";
import { NO_HEAT } from "@true-spine/core/heat/schema.ts";
import { firstRoute } from "@true-spine/core/route/first.ts";
import { heatReport } from "@true-spine/core/route/heat-report.ts";
import { withUsualHeats } from "@true-spine/core/route/heats.ts";
import { USUAL_SHOP } from "@true-spine/core/shop/schema.ts";
import { afterEach, beforeEach, describe, expect, test } from "vitest";
import { useSettings } from "../../src/app/settings.ts";
import { pagesFor } from "../../src/pages/blade/pages.ts";
import { FilePanel, HeatNumbers } from "../../src/pages/card/HeatCard.tsx";
import { ClockGroup } from "../../src/pages/heat/ClockGroup.tsx";
import { HeatsTable } from "../../src/pages/heat/HeatsTable.tsx";
import { OpGroup } from "../../src/pages/heat/OpGroup.tsx";
import { FileGroup } from "../../src/pages/heat/ProofGroups.tsx";
import { SteelGroup } from "../../src/pages/heat/SteelGroup.tsx";
import { useShopState } from "../../src/shop/shop.ts";
import { endsOf, inMinutes, leftInWords } from "../../src/work/useHeatClock.ts";
import { knife } from "../knife.ts";
import { bench, typeInto } from "../screen.tsx";

const blade = { ...knife(), steel: "1084" };
const route = withUsualHeats(firstRoute(blade));
const report = heatReport(blade, route, NO_HEAT, USUAL_SHOP);
const harden = report.ops.find(({ op }) => op.kind === "harden")!;
const temper = report.ops.find(({ op }) => op.kind === "temper")!;
const open = () => bench(blade, { route, heat: NO_HEAT });

beforeEach(() => {
  useSettings.setState({ unit: "mm" });
  useShopState.setState({ shop: USUAL_SHOP });
});
afterEach(cleanup);

describe("the Heat page", () => {
  test("is there where a route is hardened, between the route and the bench, and nowhere else", () => {
    const names = (stages: typeof route.stages) => pagesFor({ ...route, stages }).map(({ name }) => name);
    expect(names(route.stages)).toEqual(["Shape", "Grind", "Route", "Heat", "Check", "Edge", "Log"]);
    expect(names([])).not.toContain("Heat");
  });

  test("every heat has its row, in both measures of temperature", () => {
    const held = open();
    let chosen = "";
    held.show(<HeatsTable report={report} chosen={null} onChoose={(id) => (chosen = id)} />);
    expect(screen.getAllByRole("row")).toHaveLength(8);
    expect(screen.getByRole("row", { name: /Harden/ }).textContent).toContain("802 °C, 1476 °F");
    fireEvent.click(screen.getByRole("button", { name: "Temper 2" }));
    expect(chosen).toBe("temper-2");
  });

  test("a heat is changed in either measure; what cannot be is refused and the rest stays", () => {
    const held = open();
    held.show(<OpGroup report={harden} />);
    typeInto("How hot", "1500 F");
    const op = (id: string) => held.open.store.getState().heat.ops.find((one) => one.id === id)!;
    expect(op("harden").T).toBeCloseTo(815.56, 2);
    // What was as usual is written down with it.
    expect(held.open.store.getState().heat.ops).toHaveLength(6);
    typeInto("How hot", "2000");
    expect(screen.getByText("From 20 to 1300 °C.")).toBeTruthy();
    expect(op("harden").T).toBeCloseTo(815.56, 2);
    typeInto("Held, once through", "15");
    expect(op("harden").minutes).toBe(15);
    fireEvent.change(screen.getByLabelText(/^Into/), { target: { value: "water" } });
    expect(op("harden")).toMatchObject({ medium: "water", H: [0.9, 2] });
    fireEvent.change(screen.getByLabelText(/^Judged by/), { target: { value: "magnet" } });
    expect(op("harden").control).toBe("magnet");
    fireEvent.change(screen.getByLabelText(/^Air at it/), { target: { value: "foil" } });
    expect(op("harden").air).toBe("foil");
    held.open.undo();
    expect(op("harden").air).toBe("air");
  });

  test("a temper of a bare 400 is asked about; in Fahrenheit it is 204", () => {
    const held = open();
    held.show(<OpGroup report={temper} />);
    typeInto("How hot", "400");
    expect(screen.getByText("Which is it? Write 400 C or 400 F.")).toBeTruthy();
    expect(held.open.store.getState().heat.ops).toEqual([]);
    typeInto("How hot", "400 F");
    expect(held.open.store.getState().heat.ops.find(({ id }) => id === temper.op.id)!.T).toBeCloseTo(
      204.44,
      2,
    );
    typeInto("How hot", "210");
    expect(held.open.store.getState().heat.ops.find(({ id }) => id === temper.op.id)!.T).toBe(210);
  });

  test("the steel: its standard, a certificate typed in, scrap that is half sure", () => {
    const held = open();
    held.show(<SteelGroup steel={report.steel} />);
    expect(screen.getByText(/707 to 742|703 to 742/)).toBeTruthy();
    const steel = () => held.open.store.getState().heat.steel;
    fireEvent.change(screen.getByLabelText(/^Known by/), { target: { value: "certificate" } });
    expect(steel()).toMatchObject({ from: "certificate", sure: 95, mass: { C: 0.865, Mn: 0.75, Si: 0.25 } });
    typeInto("Manganese", "0.22");
    expect(steel().mass!.Mn).toBe(0.22);
    typeInto("Carbon", "lots");
    expect(steel().mass!.C).toBe(0.865);
    fireEvent.change(screen.getByLabelText(/^Known by/), { target: { value: "scrap" } });
    expect(steel()).toEqual({ from: "scrap", certainty: "guessed", sure: 50 });
    fireEvent.change(screen.getByLabelText(/^Reckoned as/), { target: { value: "5160" } });
    expect(steel().grade).toBe("5160");
    typeInto("Sure to", "30");
    expect(steel().sure).toBe(30);
  });

  test("a steel that the relations do not hold for says so", () => {
    const held = bench({ ...blade, steel: "440C" }, { route, heat: NO_HEAT });
    held.show(<SteelGroup steel={null} />);
    expect(screen.getByText(/Not judged/)).toBeTruthy();
  });

  test("the clock: into the heat, through, out; its end is a time of day", () => {
    const held = open();
    held.show(<ClockGroup report={harden} isBehind={false} />);
    const moments = () => held.rows().flatMap((row) => (row.what === "run" ? [row.moment] : []));
    fireEvent.click(screen.getByRole("button", { name: "Into the heat now" }));
    expect(moments()).toEqual(["began"]);
    expect(screen.getByRole("timer").textContent).toMatch(/held until \d\d:\d\d/);
    fireEvent.click(screen.getByRole("button", { name: "It is warm through now" }));
    expect(screen.getByRole("timer").textContent).toContain("10 min left");
    fireEvent.click(screen.getByRole("button", { name: "Out now" }));
    expect(moments()).toEqual(["began", "through", "ended"]);
    expect(screen.queryByRole("timer")).toBeNull();
    expect(screen.getByText(/Run 1 time\./)).toBeTruthy();
    fireEvent.click(screen.getByRole("button", { name: "Tick it as done" }));
    expect(held.rows().some((row) => row.what === "done" && row.stage === "harden")).toBe(true);
  });

  test("while it is worked out anew no moment is told that may not be it", () => {
    const held = open();
    held.show(<ClockGroup report={harden} isBehind={true} />);
    fireEvent.click(screen.getByRole("button", { name: "Into the heat now" }));
    expect(screen.queryByRole("timer")).toBeNull();
    expect(screen.getByText("Working out until when …")).toBeTruthy();
  });

  test("before a temper the oil is wiped off, once", () => {
    const held = open();
    held.show(<ClockGroup report={temper} isBehind={false} />);
    fireEvent.click(screen.getByLabelText("the oil is wiped off"));
    expect(held.rows().filter(({ what }) => what === "gate")).toHaveLength(1);
    expect((screen.getByLabelText("the oil is wiped off") as HTMLInputElement).disabled).toBe(true);
  });

  test("what the file says is kept place by place, the last word of each", () => {
    const held = open();
    held.show(<FileGroup op="harden" />);
    expect(screen.getByText("Not tried yet.")).toBeTruthy();
    fireEvent.click(screen.getByRole("button", { name: "It bites" }));
    fireEvent.click(screen.getByRole("button", { name: "It skates" }));
    fireEvent.click(screen.getByText("spine"));
    fireEvent.click(screen.getByRole("button", { name: "Half and half" }));
    expect(screen.getByText("edge skates, spine half and half.")).toBeTruthy();
    expect(held.rows()).toHaveLength(3);
  });

  test("on the card the file has a large button for each place and answer, the last pressed in", () => {
    const held = open();
    let closed = 0;
    held.show(<FilePanel op="harden" onClose={() => closed++} />);
    fireEvent.click(screen.getByRole("button", { name: "edge: bites" }));
    fireEvent.click(screen.getByRole("button", { name: "edge: skates" }));
    fireEvent.click(screen.getByRole("button", { name: "tang: half and half" }));
    expect(held.rows().map((row) => row.what === "proof" && [row.place, row.saw])).toEqual([
      ["edge", "bites"],
      ["edge", "skates"],
      ["tang", "mixed"],
    ]);
    const pressed = (name: string) => screen.getByRole("button", { name }).getAttribute("aria-pressed");
    expect([pressed("edge: bites"), pressed("edge: skates")]).toEqual(["false", "true"]);
    fireEvent.click(screen.getByRole("button", { name: "Back to the card" }));
    expect(closed).toBe(1);
  });

  test("times in words, and the end from what was said before what was reckoned", () => {
    expect([inMinutes(9.6), inMinutes(75), inMinutes(120)]).toEqual(["10 min", "1 h 15", "2 h 00"]);
    expect(leftInWords(60_000, 0)).toBe("1 min left");
    expect(leftInWords(0, 180_000)).toBe("over since 3 min: take it out");
    const began = "2026-01-01T10:00:00Z";
    const from = Date.parse(began);
    expect(endsOf({ op: "harden", began }, harden).end - from).toBeCloseTo(harden.total * 60_000, 3);
    const through = "2026-01-01T10:04:00Z";
    expect(endsOf({ op: "harden", began, through }, harden).end - from).toBe(14 * 60_000);
  });

  test("the card has how hot, until when and what comes next", () => {
    const held = open();
    held.show(<HeatNumbers report={harden} />);
    expect(screen.getByText("1476 °F", { exact: false })).toBeTruthy();
    expect(screen.getByText(/Wipe the oil off. Temper within the hour/)).toBeTruthy();
    expect(screen.getByText(/s to the quench; next/)).toBeTruthy();
  });
});
