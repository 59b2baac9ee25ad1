import { act, cleanup, fireEvent, screen, within } from "@testing-library/react";
import { compileField } from "@true-spine/core/blade/field.ts";
import type { Blade } from "@true-spine/core/blade/schema.ts";
import { judge } from "@true-spine/core/findings/judge.ts";
import { afterEach, beforeEach, describe, expect, test, vi } from "vitest";
import { useSettings } from "../../src/app/settings.ts";
import { Tray } from "../../src/pages/blade/Tray.tsx";
import { judgeNow } from "../judged.ts";
import { knife } from "../knife.ts";
import { bench } from "../screen.tsx";

const work = { current: null as unknown };
vi.mock("../../src/workers/work-judged.ts", () => ({ useWorkJudged: () => work.current }));

beforeEach(() => {
  work.current = null;
  useSettings.setState({ unit: "mm", theme: "light", letterKeys: true });
});
afterEach(cleanup);

const press = (name: string | RegExp) => fireEvent.click(screen.getByRole("button", { name }));
const type = (label: string, value: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { value } });

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
    // One mark for each statement: the drawing is sound, whatever the route says beside it.
    expect(within(screen.getByRole("button")).getByRole("img", { name: "All well" })).toBeTruthy();
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
