import { act, cleanup, fireEvent, screen, within } from "@testing-library/react";
import type { Blade } from "@true-spine/core/blade/schema.ts";
import { NO_LIMITS } from "@true-spine/core/findings/limits.ts";
import { afterEach, beforeEach, describe, expect, test } from "vitest";
import { useSettings } from "../../src/app/settings.ts";
import { fieldOf } from "../../src/blade/derived.ts";
import { Commands } from "../../src/pages/blade/Commands.tsx";
import { LimitsPanel } from "../../src/pages/blade/LimitsPanel.tsx";
import { BLADE_PAGES } from "../../src/pages/blade/pages.ts";
import { useKeys } from "../../src/pages/blade/useKeys.ts";
import { WholeFigures } from "../../src/pages/blade/WholeFigures.tsx";
import { TextBox } from "../../src/parts/TextBox.tsx";
import { takesOf } from "../../src/readings/figures.ts";
import { judgeNow } from "../judged.ts";
import { knife } from "../knife.ts";
import { bench } from "../screen.tsx";

globalThis.ResizeObserver ??= class {
  observe() {}
  unobserve() {}
  disconnect() {}
};
Element.prototype.scrollIntoView ??= () => {};

beforeEach(() => {
  useSettings.setState({ unit: "mm", theme: "light", letterKeys: true });
});
afterEach(cleanup);

const press = (name: string | RegExp) => fireEvent.click(screen.getByRole("button", { name }));
const type = (label: string, value: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { value } });

describe("limits of this blade", () => {
  const limits = (blade = { ...knife(), use: "kitchen" } as Blade) => {
    const made = bench(blade);
    made.rail.setState({ panel: "limits" });
    made.show(<LimitsPanel />);
    return made;
  };
  const LIMIT = "thickness behind the edge";

  test("without a purpose there are none, and where to say it is told", () => {
    limits({ ...knife(), use: "" });
    expect(screen.getByText(/Say what it is for first/)).toBeTruthy();
    expect(screen.queryByRole("listitem")).toBeNull();
  });

  test("one is changed with its reason, said instead of the purpose's, and taken back", () => {
    const made = limits();
    const names = screen
      .getAllByRole("button", { name: /^Change / })
      .map((one) => one.getAttribute("aria-label"));
    expect(names).toContain(`Change ${LIMIT}`);
    press(`Change ${LIMIT}`);
    type("no less than", "0.2");
    type("no more than", "0.35");
    press("Change the limit");
    expect(screen.getByRole("alert").textContent).toBe(
      "Say why, in a few words: whoever reads it later will want to know.",
    );
    expect(made.open.store.getState().limits).toEqual(NO_LIMITS);
    type("Reason", "thin for a soft board");
    press("Change the limit");
    expect(made.open.store.getState().limits).toEqual({
      ...NO_LIMITS,
      behind: { least: 0.2, most: 0.35, reason: "thin for a soft board" },
    });
    expect(screen.getByText(/0\.20 mm to 0\.35 mm, instead of .*: thin for a soft board/)).toBeTruthy();
    press(`${LIMIT} back to the purpose`);
    expect(made.open.store.getState().limits).toEqual(NO_LIMITS);
    act(() => made.open.undo());
    expect(made.open.store.getState().limits).toHaveProperty("behind.least", 0.2);
  });

  test("bounds the wrong way round are refused where they stand", () => {
    const made = limits();
    press(`Change ${LIMIT}`);
    type("no less than", "0.9");
    type("no more than", "0.2");
    type("Reason", "a slip of the hand");
    press("Change the limit");
    expect(screen.getByRole("alert").textContent).toMatch(/\.$/);
    expect(made.open.store.getState().limits).toEqual(NO_LIMITS);
  });

  test("what cannot be read keeps the limit from being changed", () => {
    limits();
    press(`Change ${LIMIT}`);
    type("no more than", "wide");
    const change = screen.getByRole("button", { name: "Change the limit" }) as HTMLButtonElement;
    expect(change.disabled).toBe(true);
    expect(screen.getByText("Correct first: no more than.")).toBeTruthy();
    type("no more than", "0.5");
    expect(change.disabled).toBe(false);
  });
});

describe("the command list", () => {
  const commands = () => {
    const made = bench();
    made.rail.setState({ panel: "commands" });
    made.show(<Commands />);
    return made;
  };

  test("reaches every page of the blade and of the shop", () => {
    commands();
    const names = screen.getAllByRole("option").map(({ textContent }) => textContent);
    for (const { name, isNeeded } of BLADE_PAGES) if (!isNeeded) expect(names).toContain(`Go to ${name}`);
    for (const place of ["the rack", "Runs", "Stores"]) expect(names).toContain(`Go to ${place}`);
  });

  test("finds by a few letters, goes there, and is closed", () => {
    const made = commands();
    fireEvent.change(screen.getByPlaceholderText("What do you want to do?"), { target: { value: "stor" } });
    const found = screen.getAllByRole("option");
    expect(found.map(({ textContent }) => textContent)).toEqual(["Go to Stores"]);
    fireEvent.click(found[0]!);
    expect(made.path()).toBe("/stores");
    expect(made.rail.getState().panel).toBeNull();
  });

  test("single letters can be switched off where the keys are listed", () => {
    const made = bench();
    made.rail.setState({ panel: "keys" });
    made.show(<Commands />);
    expect(
      within(screen.getByRole("dialog")).getByText(
        "move the scribe 1 mm, with Shift 5 mm; Home and End take it to the ends",
      ),
    ).toBeTruthy();
    fireEvent.click(screen.getByRole("checkbox"));
    expect(useSettings.getState().letterKeys).toBe(false);
  });
});

describe("keys", () => {
  function Keys() {
    useKeys();
    return <TextBox label="Radius" takes={takesOf("edge")} text="4" why={null} onText={() => {}} />;
  }
  const keys = () => {
    const made = bench();
    made.show(<Keys />);
    return made;
  };
  const hit = (key: string, more: KeyboardEventInit = {}, target: Element = document.body) => {
    const event = new KeyboardEvent("keydown", { key, bubbles: true, cancelable: true, ...more });
    act(() => void target.dispatchEvent(event));
    return event;
  };

  test("arrows move the scribe by 1 mm, with Shift by 5; Home and End reach the ends of the steel", () => {
    const { rail, file } = keys();
    const { ring } = fieldOf(file());
    hit("ArrowRight");
    expect(rail.getState().scribe).toBe(51);
    hit("ArrowLeft", { shiftKey: true });
    expect(rail.getState().scribe).toBe(46);
    hit("Home");
    expect(rail.getState().scribe).toBeCloseTo(ring.left, 1);
    hit("ArrowLeft", { shiftKey: true });
    expect(rail.getState().scribe).toBeGreaterThanOrEqual(ring.left);
    hit("End");
    expect(rail.getState().scribe).toBeCloseTo(ring.right, 1);
  });

  test("a digit changes the page, with Alt from within a box too, whatever the layout says the key is", () => {
    const made = keys();
    hit("3", { code: "Digit3" });
    expect(made.path()).toBe("/blades/blade-1/route");
    const box = screen.getByLabelText("Radius");
    hit("2", { code: "Digit2" }, box);
    expect(made.path()).toBe("/blades/blade-1/route");
    const event = hit("é", { code: "Digit2", altKey: true }, box);
    expect(made.path()).toBe("/blades/blade-1/grind");
    expect(event.defaultPrevented).toBe(true);
    expect(hit("9", { code: "Digit9", altKey: true }).defaultPrevented).toBe(false);
  });

  test("F, ? and / open what they say, from a box for readings too; switched off they do nothing", () => {
    const { rail } = keys();
    const box = screen.getByLabelText("Radius");
    hit("f", {}, box);
    expect(rail.getState().isTrayOpen).toBe(true);
    hit("Escape");
    expect(rail.getState().isTrayOpen).toBe(false);
    hit("?", {}, box);
    expect(rail.getState().panel).toBe("keys");
    hit("/");
    expect(rail.getState().panel).toBe("commands");
    rail.setState({ panel: null });
    useSettings.setState({ letterKeys: false });
    hit("/");
    hit("f");
    expect(rail.getState()).toMatchObject({ panel: null, isTrayOpen: false });
  });

  test("undo and redo, also while a box has the focus", () => {
    const made = keys();
    const before = made.file();
    act(() => {
      made.open.end();
      made.open.replace(knife(6));
    });
    const box = screen.getByLabelText("Radius");
    box.focus();
    hit("z", { ctrlKey: true }, box);
    expect(made.file()).toEqual(before);
    hit("Z", { ctrlKey: true, shiftKey: true });
    expect(made.file()).toEqual(knife(6));
  });

  test("the pointer's place is where S drops the scribe", () => {
    const { rail } = keys();
    rail.setState({ pointer: 33.24 });
    hit("s");
    expect(rail.getState().scribe).toBe(33.2);
  });
});

test("the whole blade's figures are the judged ones, in the reader's unit, each with where it comes from", () => {
  const made = bench();
  made.show(<WholeFigures />);
  expect(screen.getByLabelText("Whole blade").getAttribute("aria-busy")).toBe("true");
  judgeNow(made);
  const { blade } = made.judging.getState().judged!.whole;
  expect(screen.getByLabelText("Whole blade").textContent).toContain(`${blade.mass.toFixed(1)} g`);
  expect(screen.getByText(blade.overall.toFixed(1))).toBeTruthy();
  act(() => useSettings.setState({ unit: "inch" }));
  expect(screen.getByText((blade.overall / 25.4).toFixed(3))).toBeTruthy();
  fireEvent.focus(screen.getByText(`${blade.mass.toFixed(1)} g`));
  expect(screen.getByRole("tooltip").textContent).toBe("volume of the field × density of the steel");
});
