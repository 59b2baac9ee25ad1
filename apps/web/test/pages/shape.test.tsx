import { cleanup, fireEvent, screen, within } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, test } from "vitest";
import { useSettings } from "../../src/app/settings.ts";
import { ShapeControls } from "../../src/pages/shape/ShapeControls.tsx";
import { bench } from "../screen.tsx";

beforeEach(() => useSettings.setState({ unit: "mm", seen: [] }));
afterEach(cleanup);

const box = (label: string) => screen.getByLabelText(label) as HTMLInputElement;
const type = (label: string, text: string) => fireEvent.change(box(label), { target: { value: text } });
const press = (name: string | RegExp) => fireEvent.click(screen.getByRole("button", { name }));
const shape = () => {
  const made = bench();
  made.show(<ShapeControls />);
  return made;
};

describe("notches in the spine", () => {
  test("as many as asked, as deep, between the places asked; one step of undo", () => {
    const { file, steps, open } = shape();
    const before = file().outline.spine.length;
    type("Notches from", "3");
    type("Notches to", "21");
    type("How many notches", "6");
    type("Notches, deep", "0.5");
    press("File notches into the spine");
    const { spine } = file().outline;
    expect(spine.length).toBeGreaterThan(before + 6);
    // Each is a curve down and up again: three quarters of how far its ends lead is how deep it goes.
    const cuts = spine.filter(({ ahead }, i) => ahead && ahead[1] < -0.5 && spine[i + 1]!.back);
    expect(cuts).toHaveLength(6);
    for (const { at, ahead } of cuts) {
      expect(at[0]).toBeGreaterThan(3);
      expect(at[0]).toBeLessThan(21);
      expect(-0.75 * ahead![1]).toBeCloseTo(0.5, 3);
    }
    expect(steps()).toBe(1);
    open.undo();
    expect(file().outline.spine).toHaveLength(before);
  });

  test("that cannot be filed say why, and the blade stays", () => {
    const { file, steps } = shape();
    const before = file();
    type("Notches from", "30");
    type("Notches to", "10");
    press("File notches into the spine");
    expect(screen.getByRole("alert").textContent).toMatch(/\w+.*\.$/);
    expect(file()).toBe(before);
    expect(steps()).toBe(0);
  });

  test("a choil is round at the heel; one without a radius is refused beside its box", () => {
    const { file } = shape();
    const nodes = file().outline.edge.length;
    type("Sharpening choil, radius", "0");
    expect(screen.getByRole("alert").textContent).toBe("A choil has a radius.");
    type("Sharpening choil, radius", "3");
    press("Cut the choil at the heel");
    expect(file().outline.edge.length + file().outline.tang.length).toBeGreaterThan(nodes);
    expect(screen.queryByRole("alert")).toBeNull();
  });
});

describe("the other hand, and the other way up", () => {
  test("sides change places; the same blade changes nothing but comes back the same", () => {
    const made = bench();
    made.open.edit((copy) => {
      copy.bevels.left = structuredClone(copy.bevels.right) as Exclude<typeof copy.bevels.left, "same">;
      if (copy.bevels.right.kind !== "none") copy.bevels.right.plunge.x = 14;
      copy.edge.offset = 0.1;
    });
    made.show(<ShapeControls />);
    const before = made.file();
    press("For the other hand");
    expect(made.file().bevels).toMatchObject({ right: { plunge: { x: 12 } }, left: { plunge: { x: 14 } } });
    expect(made.file().edge.offset).toBe(-0.1);
    press("For the other hand");
    expect(made.file()).toEqual(before);
  });
});

describe("a false edge", () => {
  test("is added toward the tip, typed over within what the blade allows, removed", () => {
    const { file, open } = shape();
    expect(file().falseEdge).toMatchObject({ from: 85, to: 125 });
    type("Land left at the spine", "0.8");
    expect(file().falseEdge!.land).toBe(0.8);
    press("Remove");
    expect(file().falseEdge).toBeUndefined();
    const group = screen.getByRole("region", { name: "False edge" });
    fireEvent.click(within(group).getByRole("button", { name: "Add one" }));
    expect(file().falseEdge).toEqual({ from: 88, to: 118, angle: 20, land: 1.2, radius: 3 });
    open.undo();
    open.undo();
    expect(file().falseEdge).toMatchObject({ from: 85, land: 0.8 });
  });

  test("an impossible one is refused, says why, keeps what was typed", () => {
    const { file } = shape();
    const before = file();
    fireEvent.focus(box("From"));
    type("From", "130");
    expect(screen.getByRole("alert").textContent).toMatch(/\.$/);
    expect(box("From").value).toBe("130");
    expect(file()).toBe(before);
  });
});

describe("holes and outline by numbers", () => {
  test("a hole is added, moved, laid out evenly and removed", () => {
    const { file } = shape();
    press("Remove hole 1");
    expect(screen.getByText("None yet.")).toBeTruthy();
    press("Two along the tang");
    expect(file().holes).toHaveLength(2);
    const group = screen.getByRole("region", { name: "Holes" });
    fireEvent.click(within(group).getByRole("button", { name: "Add one" }));
    expect(file().holes).toHaveLength(3);
    type("Hole 1, across", "1/4 in");
    expect(file().holes![0]!.d).toBeCloseTo(6.35, 9);
    press("3 along the tang");
    const xs = file().holes!.map(({ x }) => x);
    expect(xs[1]! - xs[0]!).toBeCloseTo(xs[2]! - xs[1]!, 1);
  });

  test("in each other's way is said once the hand rests or leaves, and what was typed stays", () => {
    const { file } = shape();
    press("Two along the tang");
    const [first] = file().holes!;
    fireEvent.focus(box("Hole 2, from the junction"));
    type("Hole 2, from the junction", String(first!.x - 1));
    expect(screen.queryByRole("alert")).toBeNull();
    fireEvent.blur(box("Hole 2, from the junction"));
    expect(screen.getByRole("alert").textContent).toMatch(/^Runs into hole 1, at -\d+\.?\d* mm\.$/);
    expect(box("Hole 2, from the junction").value).toBe(String(first!.x - 1));
    type("Hole 2, from the junction", "-80");
    expect(screen.queryByRole("alert")).toBeNull();
    expect(file().holes![1]!.x).toBe(-80);
  });

  test("a bolt's head is sunk, and what stays of the scale under it is said; a pair stands across", () => {
    const { file, open } = shape();
    press("Two along the tang");
    fireEvent.change(box("Hole 1 is for"), { target: { value: "bolt" } });
    expect(file().holes![0]).toMatchObject({ d: 6.35, for: "bolt", counterbore: { d: 9.35, depth: 2.5 } });
    fireEvent.change(box("On the tang"), { target: { value: "full" } });
    type("Scales, each thick", "7");
    type("Bolt 1, head sunk", "3.2");
    expect(screen.getByText("3.80 mm of the scale stays under the head.")).toBeTruthy();
    fireEvent.change(box("Hole 1 is for"), { target: { value: "glue" } });
    expect(file().holes![0]).not.toHaveProperty("counterbore");
    press("Pairs along it");
    expect(file().holes).toHaveLength(2 * 2);
    open.undo();
    expect(file().holes).toHaveLength(2);
  });

  test("a node is added after, moved, removed; ends that two chains share move together", () => {
    const { file, rail } = shape();
    press("spine");
    type("spine node 3, from the junction", "120");
    expect(file().outline.spine.at(-1)!.at[0]).toBe(120);
    expect(file().outline.edge.at(-1)!.at[0]).toBe(120);
    press("Choose spine node 1");
    press("Add after");
    expect(file().outline.spine).toHaveLength(4);
    expect(rail.getState().node).toEqual({ chain: "spine", index: 1 });
    const tools = screen.getByRole("group", { name: "spine node 2" });
    fireEvent.click(within(tools).getByRole("button", { name: "Remove" }));
    expect(file().outline.spine).toHaveLength(3);
  });

  test("a blade without a name is refused; the dimensions drive the outline", () => {
    const { file } = shape();
    type("Name", " ");
    expect(screen.getByRole("alert").textContent).toBe("A blade needs a name.");
    type("Name", "Renamed");
    expect(file().name).toBe("Renamed");
    type("Blade, junction to tip", "130");
    expect(file().outline.spine.at(-1)!.at[0]).toBeCloseTo(130, 9);
    expect(file().outline.edge.at(-1)!.at[0]).toBeCloseTo(130, 9);
  });

  test("a handle of scales has its pins in the holes; the unit on show holds in every box", () => {
    const { open } = shape();
    fireEvent.change(screen.getByLabelText("On the tang"), { target: { value: "full" } });
    const { handle } = open.store.getState();
    expect(handle.parts.map(({ kind }) => kind)).toEqual(["scales", "scales"].slice(0, handle.parts.length));
    expect(handle.pins).toHaveLength(1);
    fireEvent.change(screen.getByLabelText("On the tang"), { target: { value: "" } });
    expect(open.store.getState().handle.parts).toEqual([]);
  });
});
