import { cleanup, fireEvent, screen, within } from "@testing-library/react";
import type { Knife } from "@true-spine/core/edge/knives.ts";
import { type Batch, SEEDS } from "@true-spine/core/edge/trials.ts";
import type { BladeRow } from "@true-spine/core/registry/contract.ts";
import { type Shop, USUAL_SHOP } from "@true-spine/core/shop/schema.ts";
import { afterEach, beforeEach, describe, expect, test } from "vitest";
import { createStore } from "zustand";
import { useSettings } from "../../src/app/settings.ts";
import { Knives } from "../../src/pages/knives/Knives.tsx";
import { ofBlade, ofKnife } from "../../src/pages/knives/measured.ts";
import { forgetDraft } from "../../src/pages/trials/draft.ts";
import { Trials } from "../../src/pages/trials/Trials.tsx";
import { lastEdge, nextWords } from "../../src/pages/trials/words.ts";
import { useShopState } from "../../src/shop/shop.ts";
import { bench, typeInto } from "../screen.tsx";

const press = (name: string | RegExp) => fireEvent.click(screen.getByRole("button", { name }));
const shop = () => useShopState.getState().shop;
const stand = (change: Partial<Shop>) => useShopState.setState({ shop: { ...USUAL_SHOP, ...change } });
const KNIFE: Knife = {
  id: "00000000-0000-4000-8000-000000000001",
  name: "Old one",
  length: 120,
  places: [{ at: "middle", e: 0.5, d: 0.77 }],
  t5: 0.95,
};

beforeEach(() => {
  forgetDraft();
  useSettings.setState({ unit: "mm" });
  const state = createStore(() => ({
    status: "saved",
    isKept: true,
    why: null,
    theirs: null,
    conflict: null,
  }));
  useShopState.setState({ shop: USUAL_SHOP, saving: { changed: () => {}, state } as never, left: [] });
});
afterEach(cleanup);

describe("measured knives", () => {
  test("none yet, and what to measure; added, each figure kept as it is typed, nonsense refused in words", () => {
    bench().show(<Knives />);
    expect(screen.getByText("No knife measured yet")).toBeTruthy();
    press("Add a knife");
    expect(shop().knives).toHaveLength(1);
    typeInto("Behind the edge, middle", "0.35");
    typeInto("Edge bevel, high, middle", "0.5");
    typeInto("5 mm up, thick (0: not read)", "0.8");
    typeInto("Blade, long", "90");
    typeInto("Name of the knife", "Pocket knife");
    expect(shop().knives![0]).toMatchObject({
      name: "Pocket knife",
      length: 90,
      t5: 0.8,
      places: [{ at: "middle", e: 0.35, d: 0.5 }],
    });
    typeInto("Behind the edge, middle", "0");
    expect(screen.getByRole("alert").textContent).toContain("Above 0");
    fireEvent.click(screen.getByRole("radio", { name: "its angle" }));
    expect(shop().knives![0]!.places[0]!.angle).toBeCloseTo(19.29, 2);
    press("Also read at the heel");
    expect(shop().knives![0]!.places.map(({ at }) => at)).toEqual(["middle", "heel"]);
    press("Not read at the heel");
    typeInto("How it cuts", "wedges in wood");
    expect(shop().knives![0]!.verdict).toBe("wedges in wood");
    press("Remove it");
    expect(shop().knives).toEqual([]);
  });

  test("a file that is no JSON, or no knives, says where and takes nothing in; a sound one is taken in once", async () => {
    bench().show(<Knives />);
    const take = (text: string) =>
      fireEvent.change(screen.getByLabelText("Knives file"), {
        target: { files: [new File([text], "friends.json")] },
      });
    take("{ knives");
    expect((await screen.findByRole("alert")).textContent).toContain("not JSON");
    const file = { format: "true-spine/knives", version: 1, knives: [{ ...KNIFE, length: -1 }] };
    take(JSON.stringify(file));
    expect(await screen.findByText(/knives\[0\]\.length/)).toBeTruthy();
    expect(shop().knives).toBeUndefined();
    const sound = JSON.stringify({ ...file, knives: [KNIFE] });
    take(sound);
    expect(await screen.findByText("Old one", { selector: "button" })).toBeTruthy();
    take(sound);
    await screen.findByText("Old one", { selector: "button" });
    expect(shop().knives).toHaveLength(1);
  });

  test("compared at one height with another; thicker at the shoulder of its own by choice", () => {
    const other = {
      ...KNIFE,
      id: "00000000-0000-4000-8000-000000000002",
      name: "Thin one",
      places: [{ at: "middle" as const, e: 0.3, d: 0.55 }],
      t5: 0.7,
    };
    stand({ knives: [KNIFE, other] });
    bench().show(<Knives />);
    fireEvent.change(screen.getByLabelText("Beside"), { target: { value: KNIFE.id } });
    const row = within(screen.getByRole("row", { name: /^Thin one/ })).getAllByRole("cell");
    // 0.3 + 0.4·0.45/4.45 beside 0.5 + 0.45·0.23/4.23.
    expect(row[4]!.textContent).toBe("0.34");
    expect(row[5]!.textContent).toMatch(/^0\.65 ± 0\.0/);
    press("Make it a blade");
  });

  test("a blade of the rack by what the rack knows of it; one saved before that is told by its edge bevel alone", () => {
    const row = (above?: Record<string, number>): BladeRow =>
      ({
        id: "b",
        name: "Drawn",
        use: "field",
        summary: {
          length: 125,
          mass: 150,
          middle: { behind: 0.45, edgeBevel: 0.69 },
          ...(above ? { above } : {}),
        },
      }) as unknown as BladeRow;
    const drawn = ofBlade(row({ "0.5": 0.325, "1": 0.49, "2": 0.61, "5": 0.95, "10": 1.5 }))!;
    expect(drawn.thick(1)).toBeCloseTo(0.49, 9);
    expect(drawn.thick(0.3)).toBeCloseTo(0.195, 3);
    expect(drawn.wedge!).toBeGreaterThan(8);
    expect(ofBlade(row())!.thick(1)).toBeNull();
    expect(
      ofBlade({ ...row(), summary: { ...row().summary, middle: undefined } } as unknown as BladeRow),
    ).toBeNull();
    expect(ofKnife(KNIFE).angle).toBeCloseTo(18, 0);
  });
});

const BATCH: Batch = {
  id: "00000000-0000-4000-8000-00000000000a",
  when: "2026-01-01T10:00:00Z",
  material: "pine",
  cuts: 50,
  force: 155,
  least: 0.25,
  most: 0.5,
  angle: 10,
  edge: 1,
  steel: "1084",
  use: "field",
  damage: "none",
};

describe("trials", () => {
  test("written down, told which comes next, set up for it; struck out again", () => {
    bench().show(<Trials />);
    press("Write it down");
    expect(shop().trials![0]).toMatchObject({
      material: "pine",
      cuts: 50,
      force: 155,
      angle: 10,
      damage: "none",
    });
    expect(screen.getByText(/Next: a stage thinner, 0.13 mm to 0.25 mm at 10°/)).toBeTruthy();
    press("Set it up for the next");
    press("Write it down");
    expect(shop().trials![1]).toMatchObject({ least: 0.13, most: 0.25, edge: 2 });
    fireEvent.click(screen.getAllByRole("button", { name: "Strike out pine, 10°" })[0]!);
    expect(shop().trials).toHaveLength(1);
  });

  test("dropped instead of pushed; crossed bounds are refused with the reason, and nothing is lost of what is typed", () => {
    bench().show(<Trials />);
    fireEvent.change(screen.getByLabelText("By"), { target: { value: "drop" } });
    typeInto("Dropped, kg", "2");
    typeInto("Behind the edge, least", "0.9");
    press("Write it down");
    expect(shop().trials).toBeUndefined();
    expect(screen.getByRole("alert").textContent).toContain("least");
    expect((screen.getByLabelText("Behind the edge, least") as HTMLInputElement).value).toBe("0.9");
    // Left and come back to, it still stands.
    cleanup();
    bench().show(<Trials />);
    expect((screen.getByLabelText("Behind the edge, least") as HTMLInputElement).value).toBe("0.9");
    typeInto("Behind the edge, most", "1");
    press("Write it down");
    expect(shop().trials![0]!.drop).toEqual({ kg: 2, m: 0.5 });
    expect(shop().trials![0]!.force).toBeUndefined();
  });

  test("a limit is moved by a yes alone, with its evidence, and taken back", () => {
    stand({ trials: [BATCH] });
    bench().show(<Trials />);
    expect(shop().limits).toBeUndefined();
    press("Yes, move the limit of a field knife");
    expect(shop().limits![0]).toMatchObject({ use: "field", angle: 10, evidence: [BATCH.id] });
    press("Take it back");
    expect(shop().limits).toEqual([]);
  });

  test("of 1075 there is what is known before: told as common practice, never struck out", () => {
    bench().show(<Trials />);
    fireEvent.change(screen.getByLabelText("Steel"), { target: { value: "1075" } });
    const rows = within(screen.getByRole("table", { name: "Batches" })).getAllByRole("row");
    expect(rows).toHaveLength(SEEDS.length + 1);
    expect(screen.queryByRole("button", { name: /^Strike out/ })).toBeNull();
  });

  test("two edges by pairs: nothing below four, then 1.222 times, 1.169 to 1.279; what is typed stays", () => {
    const shown = bench().show(<Trials />);
    const pairs = [
      ["12.1", "9.8"],
      ["11,7", "9.9"],
      ["12.6", "10.4"],
      ["12.0", "blunt"],
    ] as const;
    for (const [i, [a, b]] of pairs.entries()) {
      typeInto(`A ${i + 1}`, a);
      typeInto(`B ${i + 1}`, b);
    }
    expect(screen.getByText("3 of 4 pairs: fewer say nothing.")).toBeTruthy();
    typeInto("B 4", "9.5");
    const said = () => screen.getByText(/times what B takes/).textContent;
    expect(said()).toContain("1.222 times what B takes, 1.169 to 1.279");
    shown.unmount();
    bench().show(<Trials />);
    expect(said()).toContain("1.222");
    press("Begin again");
    expect(screen.getByText("0 of 4 pairs: fewer say nothing.")).toBeTruthy();
  });

  test("the last edge is what was tried since something was changed; what comes next in words", () => {
    const harder = { ...BATCH, id: "x", material: "hardwood" };
    const steeper = { ...BATCH, id: "y", angle: 12.5 };
    expect(lastEdge([BATCH, harder])).toHaveLength(2);
    expect(lastEdge([BATCH, harder, steeper])).toEqual([steeper]);
    expect(lastEdge([])).toEqual([]);
    expect(nextWords({ do: "steeper", angle: 12.5 }, "mm")).toContain("12.5°");
    expect(nextWords({ do: "thicker", to: [0.25, 0.5], angle: 10 }, "inch")).toContain(
      "0.010 in to 0.020 in",
    );
  });
});
