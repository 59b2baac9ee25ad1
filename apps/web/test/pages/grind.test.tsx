import { cleanup, fireEvent, screen, within } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, test } from "vitest";
import { useSettings } from "../../src/app/settings.ts";
import { GrindControls } from "../../src/pages/grind/GrindControls.tsx";
import { bench } from "../screen.tsx";

beforeEach(() => useSettings.setState({ unit: "mm", seen: [] }));
afterEach(cleanup);

const box = (label: string) => screen.getByLabelText(label) as HTMLInputElement;
const type = (label: string, text: string) => fireEvent.change(box(label), { target: { value: text } });
const choose = (group: string, name: string) =>
  fireEvent.click(within(screen.getByRole("radiogroup", { name: group })).getByRole("radio", { name }));
const grind = () => {
  const made = bench();
  made.show(<GrindControls />);
  return made;
};

describe("the bevel", () => {
  test("another kind keeps its grind line and plunge; back again it is as it was", () => {
    const { file } = grind();
    const before = file().bevels.right;
    choose("Kind of bevel", "hollow");
    expect(file().bevels.right).toMatchObject({
      kind: "hollow",
      wheelDiameter: 500,
      height: [{ h: 22 }, { h: 22 }, { h: 10 }],
      plunge: { x: 12 },
    });
    type("Wheel, across", "18 in");
    expect(file().bevels.right).toMatchObject({ wheelDiameter: 457.2 });
    choose("Kind of bevel", "convex");
    expect(file().bevels.right).toMatchObject({ kind: "convex", bulge: 0.1 });
    choose("Kind of bevel", "flat");
    expect(file().bevels.right).toEqual(before);
  });

  test("set by angle it starts from the angle it has; an inclusive angle is halved", () => {
    const { file } = grind();
    choose("How the bevel is set", "angle");
    const { right } = file().bevels;
    expect(right).toMatchObject({ set: "angle", pull: "follow" });
    expect(Number(box("Angle a side").value)).toBeGreaterThan(2.5);
    expect(Number(box("Angle a side").value)).toBeLessThan(4.5);
    type("Angle a side", "7 incl");
    expect(file().bevels.right).toMatchObject({ angle: 3.5 });
    choose("How the bevel is set", "to spine");
    expect(file().bevels.right).toMatchObject({ set: "full" });
    choose("How the bevel is set", "straight");
    expect(file().bevels.right).toMatchObject({ set: "angle", pull: "straight" });
    expect(screen.getByText(/Swing the handle away|stays as thick/)).toBeTruthy();
  });

  test("rows of the grind line are added at the end, typed over, removed, down to the last", () => {
    const { file } = grind();
    type("Grind line, row 2, up from the edge", "20");
    expect(file().bevels.right).toMatchObject({ height: [{ h: 22 }, { u: 0.6, h: 20 }, { h: 10 }] });
    fireEvent.click(screen.getByRole("button", { name: "Remove row 2 from Grind line" }));
    expect(file().bevels.right).toMatchObject({ height: [{ u: 0 }, { u: 1 }] });
    type("Grind line, row 1, along the edge", "half");
    expect(screen.getByRole("alert").textContent).toMatch(/“half” is not a place along the edge/);
  });

  test("an impossible plunge is refused beside its box; one visit to a box is one step of undo", () => {
    const { file, steps } = grind();
    fireEvent.focus(box("Radius it leaves"));
    for (const text of ["5", "5.", "5.5", "6"]) type("Radius it leaves", text);
    fireEvent.blur(box("Radius it leaves"));
    expect(steps()).toBe(1);
    expect(file().bevels.right).toMatchObject({ plunge: { radius: 6 } });
    type("From the junction", "500");
    expect(screen.getByRole("alert").textContent).toMatch(/\.$/);
    expect(file().bevels.right).toMatchObject({ plunge: { x: 12 } });
  });
});

describe("left and right", () => {
  test("of its own the left starts as the right; as right again what was its own is gone, and comes back by undo", () => {
    const { file, open } = grind();
    choose("Left side", "its own");
    expect(file().bevels.left).toEqual(file().bevels.right);
    choose("Kind of bevel, left", "none");
    expect(file().bevels.left).toEqual({ kind: "none" });
    choose("Kind of bevel, left", "flat");
    expect(file().bevels.left).toMatchObject({ kind: "flat", plunge: { x: 12 } });
    choose("Left side", "as right");
    expect(file().bevels.left).toBe("same");
    open.undo();
    expect(file().bevels.left).toMatchObject({ kind: "flat" });
  });

  test("dragged together or apart is chosen where they differ", () => {
    const { rail } = grind();
    expect(screen.queryByRole("radiogroup", { name: "Left and right dragged" })).toBeNull();
    choose("Left side", "its own");
    choose("Left and right dragged", "together");
    expect(rail.getState().sides).toBe("together");
  });

  test("a chisel has its apex in a face and grinds the other; near the centre both angles are one box again", () => {
    const { file } = grind();
    type("Edge angle a side", "16");
    expect(file().edge.angle).toEqual({ left: 16, right: 16 });
    fireEvent.change(box("The apex lies"), { target: { value: "left-face" } });
    expect(file()).toMatchObject({
      edge: { offset: "left-face", rightShare: 1, angle: { left: 0, right: 16 } },
      bevels: { left: { kind: "none" }, right: { kind: "flat" } },
    });
    fireEvent.click(screen.getByRole("button", { name: "Make alike" }));
    expect(file().edge.angle.left).toBe(file().edge.angle.right);
    fireEvent.change(box("The apex lies"), { target: { value: "centre" } });
    type("Off centre, + right", "0.1");
    expect(file().edge.offset).toBe(0.1);
  });

  test("a convex edge begins with a bulge it can have, and is flat again; a shoulder is eased and left alone again", () => {
    const { file, open } = grind();
    fireEvent.change(box("Edge bevel"), { target: { value: "convex" } });
    expect(file().edge).toMatchObject({ kind: "convex", bulge: expect.closeTo(0.0194, 3) });
    type("Edge, out of its chord", "5");
    expect(screen.getByRole("alert").textContent).toMatch(/^Is too much for an edge bevel/);
    type("Edge, out of its chord", "0.01");
    expect(file().edge.bulge).toBe(0.01);
    fireEvent.change(box("Edge bevel"), { target: { value: "flat" } });
    expect(file().edge).not.toHaveProperty("bulge");

    fireEvent.click(screen.getByRole("button", { name: /^Ease the shoulder/ }));
    type("Relief, angle a side", "9");
    type("Relief, up from the edge", "3");
    expect(file().bevels.right).toMatchObject({ relief: { angle: 9, height: 3 } });
    fireEvent.click(screen.getByRole("button", { name: "No relief" }));
    expect(file().bevels.right).not.toHaveProperty("relief");
    open.undo();
    expect(file().bevels.right).toHaveProperty("relief");
  });

  test("a second edge takes the false edge's place, is set by its own figures, and is gone again", () => {
    const { file, open } = grind();
    fireEvent.click(screen.getByRole("button", { name: "Grind a second edge" }));
    expect(file().falseEdge).toBeUndefined();
    expect(file().secondEdge).toMatchObject({
      bevels: { right: { kind: "flat", set: "height" }, left: "same" },
    });
    type("Begins, from the junction", "50");
    type("Behind the second edge, row 1, thick behind it", "0.45");
    type("Second edge, angle a side", "22");
    choose("Kind of second bevel", "hollow");
    type("Second wheel, across", "10 in");
    type("Second grind line, row 1, down from it", "7");
    type("Radius at the start", "3");
    expect(file().secondEdge).toMatchObject({
      from: 50,
      behind: [{ v: 0, t: 0.45 }, { v: 1 }],
      angle: { left: 22, right: 22 },
      bevels: {
        right: {
          kind: "hollow",
          wheelDiameter: 254,
          height: [{ v: 0, h: 7 }, { v: 1 }],
          runIn: { radius: 3 },
        },
      },
    });
    choose("How the second bevel is set", "to the edge");
    expect(file().secondEdge!.bevels.right).toMatchObject({ kind: "hollow", set: "full" });
    choose("Kind of second bevel", "flat");
    choose("How the second bevel is set", "angle");
    type("Second bevel, angle a side", "9");
    expect(file().secondEdge!.bevels.right).toMatchObject({ kind: "flat", set: "angle", angle: 9 });
    expect(screen.getAllByText(/matters of local law/).length).toBeGreaterThan(0);
    fireEvent.click(screen.getByRole("button", { name: "No second edge" }));
    expect(file().secondEdge).toBeUndefined();
    open.undo();
    expect(file().secondEdge).toBeDefined();
  });

  test("a blade is laminated with a core a third of it, and of one steel again", () => {
    const { file } = grind();
    fireEvent.click(screen.getByRole("button", { name: "It is laminated" }));
    expect(file().core).toEqual({ t: 1.3, offset: 0 });
    type("Core, thick", "1");
    type("Core, off centre, + right", "0.05");
    expect(file().core).toEqual({ t: 1, offset: 0.05 });
    fireEvent.click(screen.getByRole("button", { name: "Not laminated" }));
    expect(file()).not.toHaveProperty("core");
  });

  test("the other pull is drawn when asked for", () => {
    const { rail } = grind();
    fireEvent.click(screen.getByLabelText("Draw it pulled straight, too"));
    expect(rail.getState().isOtherPullShown).toBe(true);
    fireEvent.click(screen.getByRole("button", { name: "Go to where it starts" }));
    expect(rail.getState().scribe).not.toBe(50);
  });
});

test("cautions stand where the work is", () => {
  grind();
  expect(screen.getByText(/Eyes, ears and a respirator at the belt/)).toBeTruthy();
});
