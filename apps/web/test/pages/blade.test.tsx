import { act, cleanup, fireEvent, screen, within } from "@testing-library/react";
import { compileField } from "@true-spine/core/blade/field.ts";
import type { Blade } from "@true-spine/core/blade/schema.ts";
import { wholeBlade } from "@true-spine/core/evaluate/evaluation.ts";
import { confirmRemedies, judge } from "@true-spine/core/findings/judge.ts";
import { NO_LIMITS } from "@true-spine/core/findings/limits.ts";
import { balanceOf } from "@true-spine/core/handle/balance.ts";
import { afterEach, beforeEach, describe, expect, test, vi } from "vitest";
import { useSettings } from "../../src/app/settings.ts";
import { fieldOf } from "../../src/blade/derived.ts";
import type { JudgedState } from "../../src/blade/screen.ts";
import { Commands } from "../../src/pages/blade/Commands.tsx";
import { LimitsPanel } from "../../src/pages/blade/LimitsPanel.tsx";
import { BLADE_PAGES } from "../../src/pages/blade/pages.ts";
import { Tray } from "../../src/pages/blade/Tray.tsx";
import { useKeys } from "../../src/pages/blade/useKeys.ts";
import { WholeFigures } from "../../src/pages/blade/WholeFigures.tsx";
import { TextBox } from "../../src/parts/TextBox.tsx";
import { takesOf } from "../../src/readings/figures.ts";
import { knife } from "../knife.ts";
import { type Bench, bench } from "../screen.tsx";

const work = { current: null as unknown };
vi.mock("../../src/workers/work-judged.ts", () => ({ useWorkJudged: () => work.current }));

globalThis.ResizeObserver ??= class {
  observe() {}
  unobserve() {}
  disconnect() {}
};
Element.prototype.scrollIntoView ??= () => {};

beforeEach(() => {
  work.current = null;
  useSettings.setState({ unit: "mm", theme: "light", letterKeys: true });
});
afterEach(cleanup);

const press = (name: string | RegExp) => fireEvent.click(screen.getByRole("button", { name }));
const type = (label: string, value: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { value } });

/** What the worker would tell, told at once. */
function judgeNow({ judging, file }: Bench, isConfirmed = true) {
  const field = compileField(file());
  const found = judge(file(), field);
  const { mass, x, fromPlunge } = balanceOf(field, null);
  const judged = {
    file: file(),
    whole: wholeBlade(field),
    balance: { mass, x, fromPlunge },
    ...found,
    findings: isConfirmed ? confirmRemedies(file(), found.findings) : found.findings,
    isConfirmed,
  } as unknown as JudgedState["judged"];
  act(() => judging.setState({ judged }));
}
/** A plunge so sharp that it is to watch. */
function sharp(): Blade {
  return knife(0.1);
}

describe("the findings at the foot", () => {
  test("wait for the judge, then say the worst and count the rest; opened, each has its advice and basis", () => {
    const made = bench(sharp());
    made.show(<Tray />);
    expect(screen.getByRole("button").textContent).toContain("Judging the blade …");
    judgeNow(made);
    const { findings } = made.judging.getState().judged!;
    const worst = findings.find(({ severity }) => severity !== "note")!;
    expect(worst).toBeTruthy();
    expect(screen.getByRole("button", { expanded: false }).textContent).toContain(worst.message);
    fireEvent.click(screen.getByRole("button", { expanded: false }));
    expect(screen.getByRole("button", { expanded: true })).toBeTruthy();
    const list = screen.getByRole("list").textContent!;
    for (const { message, advice, basis } of findings) {
      expect(list).toContain(message);
      expect(list).toContain(advice);
      expect(list).toContain(`Basis: ${basis}.`);
    }
  });

  test("a remedy is offered once it was tried; taken, it is one step that undo takes back", () => {
    const made = bench(sharp());
    made.rail.setState({ isTrayOpen: true });
    made.show(<Tray />);
    judgeNow(made, false);
    const before = made.file();
    const title = "Tried on the model: this finding clears and nothing new needs fixing.";
    expect(screen.queryByTitle(title)).toBeNull();
    judgeNow(made);
    const offered = made.judging.getState().judged!.findings.filter(({ remedies }) => remedies.length > 0);
    expect(offered.length).toBeGreaterThan(0);
    fireEvent.click(screen.getAllByTitle(title)[0]!);
    expect(made.file()).not.toEqual(before);
    expect(made.steps()).toBe(1);
    const still = judge(made.file(), compileField(made.file())).findings;
    expect(
      still.some(({ id, where }) => id === offered[0]!.id && where.side === offered[0]!.where.side),
    ).toBe(false);
    act(() => made.open.undo());
    expect(made.file()).toEqual(before);
  });

  test("what is pressed stays where it is while remedies are tried again, also when the figures change", () => {
    const made = bench(sharp());
    made.rail.setState({ isTrayOpen: true });
    made.show(<Tray />);
    judgeNow(made);
    const rows = () => within(screen.getAllByRole("list")[0]!).getAllByRole("listitem");
    const told = rows().map((row) => row.textContent);
    const pressed = [...screen.getAllByTitle(/^Tried on the model/), ...screen.queryAllByText("Go there")];
    expect(pressed.length).toBeGreaterThan(1);
    judgeNow(made, false);
    expect(rows().map((row) => row.textContent)).toEqual(told);
    act(() => void made.open.replace(knife(0.12)));
    judgeNow(made, false);
    for (const button of pressed) expect(button.isConnected).toBe(true);
    // Nothing of it is done before it is known of the blade as it stands.
    fireEvent.click(pressed[0]!);
    expect(made.file()).toEqual(knife(0.12));
    judgeNow(made);
    expect(made.file()).not.toEqual(knife(0.12));
  });

  test("a remedy pressed before the blade is judged as it now stands waits for that", () => {
    const made = bench(sharp());
    made.rail.setState({ isTrayOpen: true });
    made.show(<Tray />);
    judgeNow(made);
    act(() => void made.open.replace({ ...made.file(), name: "Named since" }));
    const now = made.file();
    const offered = () => screen.getAllByTitle(/^Tried on the model/)[0]!;
    fireEvent.click(offered());
    expect(made.file()).toBe(now);
    expect(offered().textContent).toMatch(/ …$/);
    judgeNow(made);
    expect(made.file()).not.toEqual(now);
    expect(made.file().name).toBe("Named since");
  });

  test("what came and what went is told to those who do not see it", () => {
    const made = bench();
    made.show(<Tray />);
    judgeNow(made);
    const told = () => screen.getByRole("status").textContent;
    expect(told()).toBe("");
    act(() => void made.open.replace(sharp()));
    judgeNow(made);
    const came = made.judging.getState().judged!.findings.filter(({ severity }) => severity !== "note");
    expect(told()).toContain(came[0]!.message);
    act(() => made.open.undo());
    judgeNow(made);
    expect(told()).toMatch(/finding(s)? less\.$/);
  });

  test("a judge that failed is told, and nothing is called well", () => {
    const made = bench();
    made.show(<Tray />);
    const tryAgain = vi.fn();
    act(() =>
      made.judging.setState({
        trouble: { why: "failed", words: "It stopped." } as never,
        judged: null,
        tryAgain,
      }),
    );
    expect(screen.queryByText(/well/)).toBeNull();
    expect(screen.getByText("Not judged.")).toBeTruthy();
    press(/again/i);
    expect(tryAgain).toHaveBeenCalledOnce();
  });

  test.each([
    [null, "All well."],
    [{ route: { fix: 0, watch: 0 }, check: null, isBehind: true }, "Sound as drawn …"],
    [{ route: { fix: 1, watch: 2 }, check: { fix: 0, watch: 0 }, isBehind: false }, "Sound as drawn."],
    [{ route: { fix: 0, watch: 0 }, check: { fix: 0, watch: 0 }, isBehind: false }, "All well."],
  ])("with the work %j a sound blade is: %s", (of, words) => {
    work.current = of;
    const made = bench();
    made.show(<Tray />);
    act(() =>
      made.judging.setState({
        judged: { findings: [], notJudged: [], isConfirmed: true } as never,
      }),
    );
    expect(screen.getByRole("button").textContent).toContain(words);
    const link = screen.queryByRole("link", { name: /Route: 3/ });
    expect(link?.getAttribute("href") ?? null).toBe(of?.route.fix ? "/blades/blade-1/route" : null);
  });
});

test("what is unlike on purpose is said to be meant, with the reason, and is not told again", () => {
  const made = bench({ ...knife(), edge: { ...knife().edge, offset: 0.47 } });
  made.rail.setState({ isTrayOpen: true });
  made.show(<Tray />);
  judgeNow(made);
  press("It is meant so …");
  press("Keep");
  expect(screen.getByRole("alert").textContent).toBe("Say why, in a few words.");
  type("Why it is meant so", "for the right hand");
  // Judged anew meanwhile, nothing is found for a moment: what was typed stands.
  act(() => made.judging.setState({ judged: null }));
  expect(screen.queryByLabelText("Why it is meant so")).toBeNull();
  judgeNow(made);
  expect((screen.getByLabelText("Why it is meant so") as HTMLInputElement).value).toBe("for the right hand");
  type("Why it is meant so", "for the right hand alone");
  press("Keep");
  const { limits } = made.open.store.getState();
  expect(limits.meant).toEqual([{ finding: "apex-off-centre", reason: "for the right hand alone" }]);
  const after = judge(made.file(), undefined, { limits });
  expect(after.findings.map(({ id }) => id)).not.toContain("apex-off-centre");
  act(() => made.open.undo());
  expect(made.open.store.getState().limits.meant).toBeUndefined();
});

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
    expect(screen.getByText("Mend first: no more than.")).toBeTruthy();
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
