import { cleanup, fireEvent, render, screen, within } from "@testing-library/react";
import { parseShop } from "@true-spine/core/shop/parse.ts";
import { type Shop, USUAL_SHOP } from "@true-spine/core/shop/schema.ts";
import { afterEach, beforeEach, describe, expect, test, vi } from "vitest";
import { create } from "zustand";
import { useSettings } from "../../src/app/settings.ts";
import { GrindersTable } from "../../src/pages/stores/GrindersTable.tsx";
import { InstrumentsTable } from "../../src/pages/stores/InstrumentsTable.tsx";
import { SetupsTable } from "../../src/pages/stores/SetupsTable.tsx";

const useStanding = create<{ shop: Shop }>()(() => ({ shop: USUAL_SHOP }));
vi.mock("../../src/shop/shop.ts", () => ({
  useShop: () => ({
    ...useStanding(),
    put(next: Shop) {
      const parsed = parseShop(next);
      if (!parsed.ok) return `${parsed.faults[0]!.message}.`;
      useStanding.setState({ shop: parsed.shop });
      return null;
    },
  }),
}));
const shop = () => useStanding.getState().shop;

beforeEach(() => {
  useStanding.setState({ shop: USUAL_SHOP });
  useSettings.setState({ unit: "mm" });
});
afterEach(cleanup);

const type = (label: string, text: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { value: text } });
const pick = (label: string, value: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { value } });
const press = (name: string) => fireEvent.click(screen.getByRole("button", { name }));

describe("set-ups", () => {
  test("one is added, named, given its kind and what that must be told, and removed", () => {
    render(<SetupsTable />);
    const before = shop().setups.length;
    press("Add a set-up");
    const made = shop().setups.at(-1)!;
    expect(made.setup).toEqual({ kind: "rest" });
    type(`Name of ${made.name}`, "long arm");
    pick("Kind of long arm", "screw");
    expect(shop().setups.at(-1)!.setup).toEqual({ kind: "screw", pivot: 150, by: "tangent" });
    type("Pivot to screw of long arm", "6 in");
    pick("Geometry of long arm", "sine");
    expect(shop().setups.at(-1)!.setup).toEqual({
      kind: "screw",
      pivot: expect.closeTo(152.4, 9),
      by: "sine",
    });
    pick("Kind of long arm", "arm");
    type("Dial at zero of long arm, degrees", "-12.5");
    pick("Sense of long arm", "-1");
    expect(shop().setups.at(-1)!.setup).toEqual({ kind: "arm", zero: -12.5, sense: -1 });
    pick("Kind of long arm", "stone");
    type("Width of long arm", "40");
    expect(shop().setups.at(-1)!.setup).toEqual({ kind: "stone", width: 40 });
    press("Remove long arm");
    expect(shop().setups).toHaveLength(before);
  });

  test("a name is kept as it is typed; an empty one is not taken, and Escape puts the old one back", () => {
    render(<SetupsTable />);
    const old = shop().setups[0]!.name;
    const box = screen.getByLabelText(`Name of ${old}`) as HTMLInputElement;
    fireEvent.focus(box);
    for (const text of ["p", "pl", "pla", ""]) fireEvent.change(box, { target: { value: text } });
    expect(shop().setups[0]!.name).toBe("pla");
    expect(screen.getByRole("alert").textContent).toBe("It needs a name.");
    fireEvent.keyDown(box, { key: "Escape" });
    expect(shop().setups[0]!.name).toBe(old);
    expect(box.value).toBe(old);
  });

  test("a wheel of nothing is refused in the unit on show, and stays as it was", () => {
    useSettings.setState({ unit: "inch" });
    render(<SetupsTable />);
    press("Add a set-up");
    const { name } = shop().setups.at(-1)!;
    pick(`Kind of ${name}`, "wheel");
    const label = `Wheel of ${name} measured across`;
    type(label, "0");
    expect(screen.getByRole("alert").textContent).toMatch(/^Must be 0\.39\d+ in to 78\.7\d+ in\.$/);
    expect(shop().setups.at(-1)!.setup).toEqual({ kind: "wheel", diameter: 250 });
    type(label, "10");
    expect(shop().setups.at(-1)!.setup).toEqual({ kind: "wheel", diameter: 254 });
  });
});

describe("instruments", () => {
  test("usual ones stand in until there are own ones; only a caliper has jaws", () => {
    render(<InstrumentsTable />);
    expect(screen.getByText(/None of your own yet/)).toBeTruthy();
    press("Add an instrument");
    const own = () => shop().instruments!;
    type(`Name of ${own()[0]!.name}`, "old caliper");
    expect(own()[0]!.kind).toBe("caliper");
    type("Width of the jaws of old caliper", "1.5");
    type("error of old caliper", "0.04");
    type("repeat of old caliper", "0.01");
    fireEvent.change(screen.getByLabelText("Day old caliper was last checked"), {
      target: { value: "2026-11-02" },
    });
    expect(own()[0]).toMatchObject({ jaw: 1.5, error: 0.04, repeat: 0.01, checked: "2026-11-02" });
    pick("Kind of old caliper", "angle-finder");
    expect(own()[0]).not.toHaveProperty("jaw");
    expect(screen.queryByLabelText("Width of the jaws of old caliper")).toBeNull();
    press("Remove old caliper");
    expect(own()).toEqual([]);
  });

  test("the next one added is of a kind that is not there yet", () => {
    render(<InstrumentsTable />);
    press("Add an instrument");
    press("Add an instrument");
    const kinds = shop().instruments!.map(({ kind }) => kind);
    expect(new Set(kinds).size).toBe(2);
    const rows = within(screen.getByRole("table")).getAllByRole("row");
    expect(rows).toHaveLength(3);
  });

  test("what no instrument reads is refused beside its box", () => {
    render(<InstrumentsTable />);
    press("Add an instrument");
    const { name, resolution } = shop().instruments![0]!;
    type(`resolution of ${name}`, "9");
    expect(screen.getByRole("alert").textContent).toMatch(/^Must be/);
    expect(shop().instruments![0]!.resolution).toBe(resolution);
  });
});

describe("grinders", () => {
  test("are put in with what they have; nought is none, and none is less than a belt", () => {
    render(<GrindersTable />);
    expect(screen.getByText(/None yet: a belt 50.8 mm wide/)).toBeTruthy();
    press("Add a grinder");
    press("Add a grinder");
    const own = () => shop().grinders!;
    expect(new Set(own().map(({ id }) => id)).size).toBe(2);
    type("Width of grinder 2", "19");
    type("Platen of grinder 2", "0");
    type("Wheel of grinder 2", "254");
    type("Speed of grinder 2", "18");
    expect(own()[1]).toEqual({ id: "grinder-2", kind: "belt", belt: 19, wheel: 254, speed: 18 });
    pick("Kind of grinder 2", "disc");
    expect(own()[1]!.kind).toBe("disc");
    type("Width of grinder 1", "2");
    expect(screen.getByRole("alert").textContent).toMatch(/^Must be/);
    expect(own()[0]!.belt).toBe(50);
    press("Remove grinder 1");
    expect(own().map(({ id }) => id)).toEqual(["grinder-2"]);
  });
});
