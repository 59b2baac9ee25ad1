import { cleanup, fireEvent, screen, within } from "@testing-library/react";
import { NO_HEAT } from "@true-spine/core/heat/schema.ts";
import { firstRoute } from "@true-spine/core/route/first.ts";
import { heatReport } from "@true-spine/core/route/heat-report.ts";
import { withUsualHeats } from "@true-spine/core/route/heats.ts";
import { type Shop, USUAL_SHOP } from "@true-spine/core/shop/schema.ts";
import { afterEach, beforeEach, describe, expect, test } from "vitest";
import { useSettings } from "../../src/app/settings.ts";
import { HeatNumbers } from "../../src/pages/card/HeatCard.tsx";
import { LearnedGroup } from "../../src/pages/heat/LearnedGroup.tsx";
import { OpGroup } from "../../src/pages/heat/OpGroup.tsx";
import { CouponGroup } from "../../src/pages/heat/ProofGroups.tsx";
import { RecipeGroup } from "../../src/pages/heat/RecipeGroup.tsx";
import { SteelGroup } from "../../src/pages/heat/SteelGroup.tsx";
import { FireTables } from "../../src/pages/stores/FireTables.tsx";
import { useShopState } from "../../src/shop/shop.ts";
import { knife } from "../knife.ts";
import { bench, typeInto } from "../screen.tsx";

const blade = { ...knife(), steel: "1084" };
const route = withUsualHeats(firstRoute(blade));
const report = heatReport(blade, route, NO_HEAT, USUAL_SHOP);
const open = () => bench(blade, { route, heat: NO_HEAT });
const shop = () => useShopState.getState().shop;
const stand = (change: Partial<Shop>) => useShopState.setState({ shop: { ...USUAL_SHOP, ...change } });
const press = (name: string | RegExp) => fireEvent.click(screen.getByRole("button", { name }));
const pick = (label: string | RegExp, value: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { value } });
const OVEN = { id: "o1", name: "the big one", by: "oven", high: 12, air: "foil" } as const;
const TANK = { id: "q1", name: "our tank", medium: "oil", H: [0.3, 0.33], T: 60 } satisfies NonNullable<
  Shop["quenchants"]
>[number];

beforeEach(() => {
  useSettings.setState({ unit: "mm" });
  // A shop that is saved as it is changed, without a server.
  useShopState.setState({ shop: USUAL_SHOP, saving: { changed: () => {} } as never });
});
afterEach(cleanup);

describe("the heat's own stores", () => {
  test("an oven and a quenchant are added, told, and removed", () => {
    open().show(<FireTables />);
    press("Add an oven or forge");
    typeInto("Name of oven 1", "the big one");
    pick("Kind of oven 1", "forge");
    typeInto("Oven 1 reads high by", "12");
    pick("Air in oven 1", "rich");
    expect(shop().ovens).toEqual([{ id: "oven-1", name: "the big one", by: "forge", high: 12, air: "rich" }]);
    press("Add a quenchant");
    typeInto("Name of quenchant 1", "our tank");
    typeInto("Least severity of quenchant 1", "0.6");
    // The most is never less than the least.
    expect(shop().quenchants![0]).toMatchObject({ name: "our tank", H: [0.6, 0.6], T: 50 });
    typeInto("Most severity of quenchant 1", "0.5");
    expect(shop().quenchants![0]!.H).toEqual([0.5, 0.5]);
    pick("What quenchant 1 is", "water");
    expect(shop().quenchants![0]!.medium).toBe("water");
    press("Remove oven 1");
    press("Remove quenchant 1");
    expect([shop().ovens, shop().quenchants]).toEqual([[], []]);
  });

  test("a heat takes an oven, which says what it is to be set to, on the card too; and a quenchant", () => {
    stand({ ovens: [OVEN], quenchants: [TANK] });
    const held = open();
    const harden = report.ops.find(({ op }) => op.kind === "harden")!;
    held.show(<OpGroup report={harden} />);
    const op = () => held.open.store.getState().heat.ops.find(({ id }) => id === "harden")!;
    pick(/^Heated in/, "o1");
    expect(op()).toMatchObject({ oven: "o1", by: "oven", air: "foil" });
    pick(/^Into/, "q1");
    expect(op()).toMatchObject({ medium: "oil", H: [0.3, 0.33], mediumT: 60 });
    const { heat } = held.open.store.getState();
    const set = heatReport(blade, route, heat, shop()).ops.find((one) => one.op.id === "harden")!;
    cleanup();
    held.show(<OpGroup report={set} />);
    expect(screen.getByText(/it reads 12 °C high/).textContent).toContain("Set it to 814 °C");
    cleanup();
    held.show(<HeatNumbers report={set} />);
    expect(screen.getByText("814", { exact: false })).toBeTruthy();
    expect(screen.getByText(/on its dial, for 802 °C/)).toBeTruthy();
    cleanup();
    held.show(<OpGroup report={set} />);
    pick(/^Heated in/, "");
    expect(op().oven).toBeUndefined();
  });
});

describe("what is kept from a blade", () => {
  test("a bar with its certificate, taken up by another blade; not without a name", () => {
    const held = open();
    held.show(<SteelGroup steel={report.steel} />);
    pick(/^Known by/, "certificate");
    typeInto("Manganese", "0.22");
    press("Keep for the shop");
    expect(screen.getByText("Give the bar a name first.")).toBeTruthy();
    typeInto("Keep this bar as", "bar of May");
    press("Keep for the shop");
    expect(shop().steels![0]).toMatchObject({ name: "bar of May", record: { grade: "1084", sure: 95 } });
    cleanup();
    const other = open();
    other.show(<SteelGroup steel={report.steel} />);
    pick(/^A bar of the shop/, shop().steels![0]!.id);
    expect(other.open.store.getState().heat.steel).toMatchObject({ mass: { Mn: 0.22 }, grade: "1084" });
    other.open.undo();
    expect(other.open.store.getState().heat.steel).toEqual(NO_HEAT.steel);
  });

  test("heats as a recipe, done on a blade that had none of them, and taken back; listed in the stores", () => {
    const held = open();
    held.show(<RecipeGroup />);
    press("Keep as a recipe");
    expect(screen.getByText("Give it a name first.")).toBeTruthy();
    typeInto("Keep these heats as", "ours");
    press("Keep as a recipe");
    expect(shop().heatRecipes![0]).toMatchObject({ name: "ours", steel: "1084" });
    cleanup();
    const plain = bench({ ...blade, steel: "1095" }, { route: firstRoute(blade), heat: NO_HEAT });
    plain.show(<RecipeGroup />);
    pick(/^Recipe(?!s)/, shop().heatRecipes![0]!.id);
    expect(screen.getByText("It is for 1084; this blade is 1095.")).toBeTruthy();
    press("Do these heats on this blade");
    const kinds = () => plain.open.store.getState().route.stages.map(({ kind }) => kind);
    expect(kinds().filter((kind) => kind === "temper")).toHaveLength(2);
    expect(plain.open.store.getState().heat.ops).toHaveLength(6);
    plain.open.undo();
    expect(kinds()).not.toContain("temper");
    cleanup();
    open().show(<FireTables />);
    expect(within(screen.getByRole("table", { name: "Bars and recipes" })).getByText("ours")).toBeTruthy();
    press("Remove recipe ours");
    expect(shop().heatRecipes).toEqual([]);
  });

  test("coupons, snapped grain and a skin are rows of the work", () => {
    const held = open();
    const harden = report.ops.find(({ op }) => op.kind === "harden")!;
    held.show(<CouponGroup report={report} chosen={harden} />);
    expect(screen.getByText(/at 772 °C.*792 °C.*812 °C/)).toBeTruthy();
    typeInto("Coupon hardened at", "792");
    press("File skates");
    press("Snapped: fine grain");
    typeInto("Skin, as deep as it was found", "0.12");
    press("Write the skin down");
    expect(held.rows().map(({ id: _, when: __, ...row }) => row)).toEqual([
      { stage: "harden", what: "coupon", T: 792, saw: "skates" },
      { stage: "harden", what: "snap", T: 792, grain: "fine" },
      { stage: "harden", what: "skin", mm: 0.12 },
    ]);
    expect(
      within(screen.getByRole("list", { name: "Coupons and skins" })).getAllByRole("listitem"),
    ).toHaveLength(3);
  });

  test("what a blade says is kept once, and forgotten again; four of them make a line", () => {
    const held = open();
    const said = { steel: "1084", T: 802, q: 1.1, isThrough: true };
    held.show(<LearnedGroup report={report} said={said} />);
    expect(screen.getByText(/no record here/)).toBeTruthy();
    press("Keep what this blade says");
    press("Keep what this blade says now");
    expect(shop().hardened).toHaveLength(1);
    expect(shop().hardened![0]).toMatchObject({ ...said, blade: "blade-1" });
    press("Forget it again");
    expect(shop().hardened).toEqual([]);
    cleanup();
    stand({
      hardened: [177, 204.44, 204.44, 232].map((celsius, i) => ({
        blade: `b${i}`,
        when: "2026-01-01T10:00:00Z",
        steel: "1084",
        T: 802,
        tempers: [{ celsius, hours: i === 2 ? 4 : 2 }],
        HRC: [62.5, 60.5, 60, 58][i]!,
      })),
    });
    open().show(<LearnedGroup report={heatReport(blade, route, NO_HEAT, shop())} said={null} />);
    expect(screen.getByText(/± 1\.\d HRC, by 4 blades/)).toBeTruthy();
    expect(
      within(screen.getByRole("table", { name: "Hardness read here" })).getAllByRole("row"),
    ).toHaveLength(5);
  });
});
