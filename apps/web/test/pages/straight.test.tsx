import { cleanup, fireEvent, screen } from "@testing-library/react";
import { straightReport } from "@true-spine/core/inspect/straightness.ts";
import { firstRoute } from "@true-spine/core/route/first.ts";
import { USUAL_SHOP } from "@true-spine/core/shop/schema.ts";
import { NO_STRAIGHT, type StraightSet } from "@true-spine/core/straight/schema.ts";
import { straightAt } from "@true-spine/core/work/joined.ts";
import { afterEach, beforeEach, describe, expect, test, vi } from "vitest";
import { useSettings } from "../../src/app/settings.ts";
import { pagesFor } from "../../src/pages/blade/pages.ts";
import { ReadSetGroup } from "../../src/pages/straight/ReadSetGroup.tsx";
import { StraightLog } from "../../src/pages/straight/StraightLog.tsx";
import { toDo, WorkGroup } from "../../src/pages/straight/WorkGroup.tsx";
import { knife } from "../knife.ts";
import { bench, typeInto } from "../screen.tsx";

const blade = knife();
const route = firstRoute(blade);
const reportOf = (sets: StraightSet[]) =>
  straightReport({
    blade,
    route,
    shop: USUAL_SHOP,
    stage: "true",
    straight: NO_STRAIGHT,
    sets,
    blows: [],
  });
const nothing = reportOf([]);
const rolled = reportOf([
  {
    id: "00000000-0000-4000-8000-000000000001",
    when: "2026-01-01T10:00:00Z",
    stage: "true",
    state: "hard",
    kind: "roll",
    face: "left",
    rows: [0, 25, 50, 75, 100].map((x) => ({ x, y: -4, v: (3 * x) / 100 })),
  },
]);
const open = () => bench(blade, { route, straight: NO_STRAIGHT });
const press = (name: string) => fireEvent.click(screen.getByRole("button", { name }));
const group = (more: Partial<Parameters<typeof ReadSetGroup>[0]> = {}) => (
  <ReadSetGroup
    report={nothing}
    stage="true"
    state="hard"
    face="left"
    onFace={() => {}}
    onAnvil={null}
    instrument={undefined}
    {...more}
  />
);

beforeEach(() => {
  localStorage.clear();
  useSettings.setState({ unit: "mm", hand: "right" });
});
afterEach(cleanup);

describe("readings along it", () => {
  test("typed place by place, kept as one set; nonsense says where and stays, too few are not kept", () => {
    const held = open();
    held.show(group());
    typeInto("at 0", "0");
    typeInto("at 25", "soft");
    press("Keep these readings");
    expect(screen.getByRole("alert").textContent).toContain("soft");
    expect((screen.getByLabelText("at 25") as HTMLInputElement).value).toBe("soft");
    expect(held.rows()).toHaveLength(0);
    typeInto("at 25", "1/64 in");
    press("Keep these readings");
    expect(screen.getByText(/Three places at least/)).toBeTruthy();
    typeInto("at 100", "0,05");
    press("Keep these readings");
    expect(held.rows()).toHaveLength(1);
    expect(held.rows()[0]).toMatchObject({
      what: "set",
      stage: "true",
      state: "hard",
      kind: "gap",
      face: "left",
      rows: [
        { x: 0, v: 0 },
        { x: 25, v: 0.3969 },
        { x: 100, v: 0.05 },
      ],
    });
    expect((screen.getByLabelText("at 0") as HTMLInputElement).value).toBe("");
  });

  test("both faces with one straightedge are a pair, and the second is read on the other face", () => {
    const held = open();
    const onFace = vi.fn();
    held.show(group({ onFace }));
    fireEvent.click(screen.getByLabelText(/^both faces with this straightedge/));
    for (let n = 0; n < 2; n++) {
      for (const x of [0, 25, 50]) typeInto(`at ${x}`, "0.1");
      press("Keep these readings");
    }
    const pairs = straightAt(held.rows()).sets.map(({ pair }) => pair);
    expect(pairs[0]).toBeDefined();
    expect(pairs[1]).toBe(pairs[0]);
    expect(onFace.mock.calls).toEqual([["right"]]);
    for (const x of [0, 25, 50]) typeInto(`at ${x}`, "0.1");
    press("Keep these readings");
    expect(straightAt(held.rows()).sets[2]!.pair).toBeUndefined();
  });

  test("what is typed and not kept yet stands when the page is left, by stage and kind, and stays in sight", () => {
    const held = open();
    const shown = held.show(group());
    typeInto("at 0", "0.05");
    typeInto("at 25", "0.3");
    fireEvent.change(screen.getByLabelText("With"), { target: { value: "roll" } });
    expect((screen.getByLabelText("at 25") as HTMLInputElement).value).toBe("");
    shown.unmount();
    const again = held.show(group());
    expect((screen.getByLabelText("at 25") as HTMLInputElement).value).toBe("0.3");
    // Asked every 50, what was read at 25 is still there.
    fireEvent.change(screen.getByLabelText("A place every"), { target: { value: "2" } });
    expect((screen.getByLabelText("at 25") as HTMLInputElement).value).toBe("0.3");
    expect(screen.queryByLabelText("at 75")).toBeNull();
    again.unmount();
    held.show(group({ stage: "rough" }));
    expect((screen.getByLabelText("at 25") as HTMLInputElement).value).toBe("");
    expect(held.rows()).toHaveLength(0);
  });

  test("in inches places are round in inches", () => {
    useSettings.setState({ unit: "inch" });
    const held = open();
    held.show(group());
    expect(screen.getByLabelText("at 1.000")).toBeTruthy();
    useSettings.setState({ unit: "mm" });
  });

  test("a roll is in degrees, below nought too, and not beyond 45", () => {
    const held = open();
    held.show(group());
    fireEvent.change(screen.getByLabelText("With"), { target: { value: "roll" } });
    typeInto("at 0", "-0.5");
    typeInto("at 50", "60");
    typeInto("at 100", "1.5");
    press("Keep these readings");
    expect(screen.getByText("Below 45°.")).toBeTruthy();
    typeInto("at 50", "0.5");
    press("Keep these readings");
    expect(straightAt(held.rows()).sets[0]!.rows.map(({ v }) => v)).toEqual([-0.5, 0.5, 1.5]);
  });

  test("read off the anvil the boxes are filled, and it says so where nobody answers", async () => {
    const held = open();
    held.show(group({ onAnvil: async (_, __, xs) => xs.map((x) => ({ x, y: -4, v: 0.15 })) }));
    press("Read it off the anvil");
    await vi.waitFor(() => expect((screen.getByLabelText("at 25") as HTMLInputElement).value).toBe("0.15"));
    cleanup();
    held.show(group({ onAnvil: () => Promise.reject(new Error("away")) }));
    press("Read it off the anvil");
    await vi.waitFor(() => expect(screen.getByText(/does not answer, or nothing lies on it/)).toBeTruthy());
  });
});

describe("what to do about it", () => {
  test("read first; then struck along every line of the first family, and each can be struck out", () => {
    expect(toDo(nothing, "")).toBe("Read it first.");
    const held = open();
    held.show(<WorkGroup report={rolled} words="Peen it." stage="true" lastSet={undefined} />);
    typeInto("Blows", "3");
    press("Struck");
    const { blows } = straightAt(held.rows());
    expect(blows).toHaveLength(rolled.work[0]!.strikes.length);
    expect(blows[0]).toMatchObject({
      count: 3,
      tool: "bit",
      face: rolled.work[0]!.advice.face,
      state: "hard",
    });
    cleanup();
    held.show(<StraightLog {...straightAt(held.rows())} />);
    expect(screen.getByRole("table", { name: "Readings and blows" }).textContent).toContain("3 × bit");
  });

  test("it is a page of its own without a digit: the others keep theirs", () => {
    expect(pagesFor(route).map(({ name }) => name)).toEqual([
      "Shape",
      "Grind",
      "Route",
      "Heat",
      "Check",
      "Edge",
      "Log",
    ]);
  });
});
