import { act, cleanup, fireEvent, render, screen, within } from "@testing-library/react";
import { type BenchReport, benchReport } from "@true-spine/core/findings/bench-report.ts";
import { faceResponse } from "@true-spine/core/inspect/response.ts";
import { NO_CHECK, type Reading, type Spot } from "@true-spine/core/inspect/schema.ts";
import { benchSteel } from "@true-spine/core/inspect/target.ts";
import { firstRoute } from "@true-spine/core/route/first.ts";
import { USUAL_SHOP } from "@true-spine/core/shop/schema.ts";
import type { WorkRow } from "@true-spine/core/work/schema.ts";
import type { ReactNode } from "react";
import { afterEach, beforeEach, describe, expect, test, vi } from "vitest";
import { createStore, useStore } from "zustand";
import { useSettings } from "../../src/app/settings.ts";
import { BladeProvider, type BladeScreen } from "../../src/blade/screen.ts";
import { type OpenBlade, openBlade } from "../../src/blade/store.ts";
import { CorrectionsGroup } from "../../src/pages/check/CorrectionsGroup.tsx";
import { DotStrip, HIT } from "../../src/pages/check/DotStrip.tsx";
import { FindingsList } from "../../src/pages/check/FindingsList.tsx";
import { LooksLikeGroup } from "../../src/pages/check/LooksLikeGroup.tsx";
import { PlacesGroup } from "../../src/pages/check/PlacesGroup.tsx";
import { ReadGroup } from "../../src/pages/check/ReadGroup.tsx";
import { ReadingsTable } from "../../src/pages/check/ReadingsTable.tsx";
import { StruckOut } from "../../src/pages/check/StruckOut.tsx";
import { SummaryGroup } from "../../src/pages/check/SummaryGroup.tsx";
import { scaleFor } from "../../src/rail/scale.ts";
import { knife } from "../knife.ts";

const blade = { ...knife(), use: "field" };
const route = firstRoute(blade);
const STAGE = "true" as const;

/** The bench with its round read as it should be, changed by `off`; `count` of it, or all. */
function benchWith(off: (spot: Spot) => number, count = Number.POSITIVE_INFINITY): BenchReport {
  const asked = { blade, route, shop: USUAL_SHOP, stage: STAGE, check: { ...NO_CHECK, hardness: 60 } };
  const { lines } = benchReport({ ...asked, readings: [] }, "mm");
  const readings = lines.slice(0, count).map(
    ({ spot, shows }, i): Reading => ({
      id: `00000000-0000-4000-8000-${i.toString(16).padStart(12, "0")}`,
      when: "2026-11-20T10:00:00Z",
      stage: STAGE,
      ...spot,
      value: shows + off(spot),
      by: "hand",
    }),
  );
  return benchReport({ ...asked, readings }, "mm");
}
const stageSteelAt = benchSteel(blade, route, USUAL_SHOP, STAGE, 60);
/** The left face proud and the right one too far down, by as much as takes the edge 0.2 mm to the left. */
const leftOfCentre = (spot: Spot) =>
  0.2 * (faceResponse(stageSteelAt, spot, "left") - faceResponse(stageSteelAt, spot, "right"));

let open: OpenBlade;
const strike = vi.fn();
const wrong: Reading = {
  id: "00000000-0000-4000-8000-0000000000ff",
  when: "2026-11-20T10:00:00Z",
  stage: STAGE,
  what: "flats",
  x: -8,
  value: 9.99,
  by: "hand",
};
const kept = createStore(() => ({ taken: [wrong], struck: new Set([wrong.id]) }));
/** Rows recorded at the work, as the server would keep them. */
const worked = createStore<{ taken: WorkRow[]; struck: Set<string> }>(() => ({
  taken: [],
  struck: new Set(),
}));
const take = (row: WorkRow) => worked.setState(({ taken }) => ({ taken: [...taken, row] }));
const rail = createStore(() => ({ scribe: 0 }));

function Bench({ children }: { children: ReactNode }) {
  const screen = {
    id: "b",
    open,
    rail,
    work: { take, strike: vi.fn(), state: worked },
    readings: { strike, state: kept },
  } as unknown as BladeScreen;
  return <BladeProvider value={screen}>{children}</BladeProvider>;
}
const show = (children: ReactNode) => render(<Bench>{children}</Bench>);

beforeEach(() => {
  open = openBlade(blade, { route });
  useSettings.setState({ unit: "mm" });
  strike.mockClear();
  worked.setState({ taken: [], struck: new Set() });
});
afterEach(cleanup);

describe("the table of readings", () => {
  test("has the worst first, then what is still to be read; each leads to its place", () => {
    const report = benchWith((spot) => (spot.what === "flats" && spot.x! > 60 ? 0.5 : 0), 12);
    const onGo = vi.fn();
    show(<ReadingsTable lines={report.lines} currentKey={null} onGo={onGo} />);
    const rows = within(screen.getByRole("table", { name: "Readings" }))
      .getAllByRole("row")
      .slice(1);
    expect(rows).toHaveLength(report.lines.length);
    expect(within(rows[0]!).getByRole("img", { name: "To fix" })).toBeTruthy();
    expect(rows[0]!.textContent).toContain("thickness over the flats");
    expect(rows.at(-1)!.textContent).toContain("not read");
    fireEvent.click(within(rows[0]!).getByRole("button", { name: /^thickness over the flats/ }));
    expect(onGo).toHaveBeenCalledWith(expect.objectContaining({ what: "flats" }));
  });

  test("says where a figure comes from and what it is worth, and strikes its last reading out", () => {
    const report = benchWith(() => 0, 6);
    show(<ReadingsTable lines={report.lines} currentKey={null} onGo={() => {}} />);
    const edge = screen
      .getAllByRole("row")
      .find((row) => /very edge/.test(row.textContent ?? "") && !/not read/.test(row.textContent ?? ""))!;
    const [shows, within95] = within(edge)
      .getAllByRole("button")
      .filter(({ textContent }) => /^\d+\.\d+$/.test(textContent ?? ""));
    fireEvent.focus(shows!);
    expect(screen.getByRole("tooltip").textContent).toMatch(/for the width of its jaws/);
    fireEvent.blur(shows!);
    expect(screen.queryByRole("tooltip")).toBeNull();
    fireEvent.mouseEnter(within95!);
    expect(screen.getByRole("tooltip").textContent).toMatch(
      /Covers 95 of 100 \(GUM\).*repeat error of the digital caliper/,
    );
    fireEvent.mouseLeave(within95!);
    fireEvent.click(within(edge).getByRole("button", { name: /^Strike out/ }));
    expect(strike).toHaveBeenCalledWith(expect.stringMatching(/^0{8}-/), true);
  });
});

describe("readings struck out", () => {
  test("are listed under their stage, and restored", () => {
    const { unmount } = show(<StruckOut stage={STAGE} />);
    expect(screen.getByText("1 struck out")).toBeTruthy();
    fireEvent.click(screen.getByRole("button", { name: /^Restore: thickness over the flats 9\.99/ }));
    expect(strike).toHaveBeenCalledWith(wrong.id, false);
    unmount();
    show(<StruckOut stage="rough" />);
    expect(screen.queryByText(/struck out/)).toBeNull();
  });
});

describe("what was found", () => {
  test("leads to its place, and may be accepted with a reason that is kept with the blade", () => {
    show(<FindingsList report={benchWith(leftOfCentre)} stage={STAGE} />);
    fireEvent.click(screen.getByRole("button", { name: /^Edge is 0\.20 mm left of centre/ }));
    expect(rail.getState().scribe).toBeGreaterThan(10);
    fireEvent.click(screen.getByRole("button", { name: /^Accept as it is: Edge is/ }));
    const box = screen.getByLabelText(/Why it is accepted/);
    const keep = screen.getByRole("button", { name: "Keep" }) as HTMLButtonElement;
    expect(keep.disabled).toBe(true);
    fireEvent.change(box, { target: { value: "a user, not for sale" } });
    fireEvent.submit(box.closest("form")!);
    expect(open.store.getState().check.accepted).toMatchObject([
      { finding: "edge-off-centre", stage: STAGE, reason: "a user, not for sale" },
    ]);
    fireEvent.click(screen.getByRole("button", { name: "Undo" }));
    expect(open.store.getState().check.accepted).toEqual([]);
  });

  test("a reason that is being typed stands while what is found changes, and goes", () => {
    const list = (off: typeof leftOfCentre) => (
      <Bench>
        <FindingsList report={benchWith(off)} stage={STAGE} />
      </Bench>
    );
    const { rerender } = render(list(leftOfCentre));
    fireEvent.click(screen.getByRole("button", { name: /^Accept as it is: Edge is/ }));
    const box = () => screen.getByLabelText(/Why it is accepted/) as HTMLInputElement;
    fireEvent.change(box(), { target: { value: "a user, not" } });
    rerender(list((line) => 1.5 * leftOfCentre(line)));
    expect(screen.getByRole("button", { name: /^Edge is 0\.30 mm left of centre/ })).toBeTruthy();
    expect(box().value).toBe("a user, not");
    rerender(list(() => 0));
    expect(screen.getByText(/^As things are read now this is not found: Edge is 0\.20 mm left/)).toBeTruthy();
    expect(box().value).toBe("a user, not");
    expect((screen.getByRole("button", { name: "Keep" }) as HTMLButtonElement).disabled).toBe(true);
    rerender(list(leftOfCentre));
    expect(box().value).toBe("a user, not");
    fireEvent.keyDown(box(), { key: "Escape" });
    expect(screen.queryByLabelText(/Why it is accepted/)).toBeNull();
  });

  test("nothing read says what to do; all well says so", () => {
    const { unmount } = show(<FindingsList report={benchWith(() => 0, 0)} stage={STAGE} />);
    expect(screen.getByText(/Nothing is read yet/)).toBeTruthy();
    unmount();
    show(<FindingsList report={benchWith(() => 0)} stage={STAGE} />);
    expect(screen.getByText("What was read is within its bands.")).toBeTruthy();
  });
});

describe("what it looks like, and what corrects it", () => {
  test("names the pattern with its evidence and cure; one more reading is a press away", () => {
    const onGo = vi.fn();
    const report = benchWith(leftOfCentre);
    show(<LooksLikeGroup report={report} onGo={onGo} />);
    expect(screen.getByRole("region", { name: "What it looks like" }).textContent).toMatch(
      /edge off centre: 0\.\d\d mm/i,
    );
    expect(screen.getAllByRole("listitem").length).toBeGreaterThan(0);
    if (report.settles) {
      fireEvent.click(screen.getByRole("button", { name: "Read it there" }));
      expect(onGo).toHaveBeenCalled();
    }
  });

  test("proposed, put on the route as steps, done with its time, undone as one step", () => {
    const report = benchWith(leftOfCentre);
    expect(report.corrections.length).toBeGreaterThan(0);
    show(<CorrectionsGroup report={report} stage={STAGE} isOld={false} />);
    expect(screen.getByText(/take 0\.\d\d mm off at its most/)).toBeTruthy();
    expect(screen.getByText(/Eyes, ears and a respirator/)).toBeTruthy();
    fireEvent.click(screen.getByRole("button", { name: /on the route$/ }));
    // It goes below the stage's own line: that must be meant.
    expect(open.store.getState().check.corrections).toEqual([]);
    expect(screen.getByText(/below this stage's own line at its most/)).toBeTruthy();
    fireEvent.click(screen.getByRole("button", { name: /^Below the line is meant/ }));
    const [first] = open.store.getState().check.corrections;
    expect(first).toMatchObject({ stage: STAGE, side: "left" });
    expect(first!.done).toBeUndefined();
    fireEvent.click(screen.getAllByRole("button", { name: "Done" })[0]!);
    expect(worked.getState().taken).toMatchObject([
      { stage: STAGE, what: "corrected", correction: first!.id },
    ]);
    expect(screen.queryByText(first!.why)).toBeNull();
    // What was decided is the document's, and undone there.
    expect(open.store.getState().check.corrections[0]!.done).toBeUndefined();
    open.undo();
    expect(open.store.getState().check.corrections).toEqual([]);
  });

  test("pressed before the reading that was just typed is known, they are put as they are with it", () => {
    const [before, now] = [benchWith(leftOfCentre), benchWith((line) => 1.3 * leftOfCentre(line))];
    const known = createStore(() => ({ report: before, isOld: true }));
    const Known = () => <CorrectionsGroup {...useStore(known)} stage={STAGE} />;
    show(<Known />);
    fireEvent.click(screen.getByRole("button", { name: /on the route$/ }));
    expect(screen.getByRole("button", { name: /on the route …$/ })).toBeTruthy();
    act(() => known.setState({ report: now, isOld: false }));
    fireEvent.click(screen.getByRole("button", { name: /^Below the line is meant/ }));
    const [put] = open.store.getState().check.corrections;
    const most = Math.max(...put!.off.map(({ t }) => t));
    expect(most).toBeCloseTo(now.corrections[0]!.most, 2);
    expect(now.corrections[0]!.most).toBeGreaterThan(1.2 * before.corrections[0]!.most);
    open.undo();
  });

  test("nothing to correct shows nothing", () => {
    show(<CorrectionsGroup report={benchWith(() => 0)} stage={STAGE} isOld={false} />);
    expect(screen.queryByRole("region", { name: "Corrections" })).toBeNull();
  });
});

describe("what the readings come to", () => {
  test("thinnest and thickest with their places, centre, plunges, angles, each with what it is worth", () => {
    show(<SummaryGroup together={benchWith(leftOfCentre).together} />);
    const row = (name: RegExp) => screen.getByRole("row", { name });
    expect(row(/^edge thinnest, at \d+/).textContent).toMatch(/1\.\d\d/);
    expect(row(/^off centre at most/).textContent).toMatch(/\+0\.20± 0\.0\d/);
    expect(row(/^plunges apart/).textContent).toMatch(/0\.00± 0\.\d\d/);
    expect(screen.getAllByRole("row", { name: /by angle finder/ }).length).toBe(2);
    expect(row(/^twist/).textContent).toMatch(/0\.0°± 0\.\d°/);
  });

  test("nothing read comes to nothing", () => {
    show(<SummaryGroup together={benchWith(() => 0, 0).together} />);
    expect(screen.queryByRole("region", { name: "Summary" })).toBeNull();
  });
});

describe("the next reading", () => {
  const report = benchWith(() => 0, 0);
  const group = (more: Partial<Parameters<typeof ReadGroup>[0]> = {}) => (
    <ReadGroup
      stage={STAGE}
      onStage={() => {}}
      line={report.lines[0]!}
      lines={report.lines}
      onPress={null}
      toBox={0}
      onTake={() => {}}
      onStep={() => {}}
      {...more}
    />
  );
  const enter = (text: string) => {
    const box = screen.getByLabelText("What it reads, mm");
    fireEvent.change(box, { target: { value: text } });
    fireEvent.keyDown(box, { key: "Enter" });
  };

  test("the box has the cursor unless a list is being chosen from; a figure typed there goes to the box", () => {
    const { rerender } = show(group());
    const box = screen.getByLabelText("What it reads, mm");
    expect(document.activeElement).toBe(box);
    const after = screen.getByLabelText("After");
    after.focus();
    const again = (more = {}) => rerender(<Bench>{group(more)}</Bench>);
    again({ line: null });
    again();
    expect(document.activeElement).toBe(after);
    fireEvent.keyDown(after, { key: "ArrowDown" });
    expect(document.activeElement).toBe(after);
    fireEvent.keyDown(after, { key: "4" });
    expect(document.activeElement).toBe(screen.getByLabelText("What it reads, mm"));
    after.focus();
    again({ toBox: 1 });
    expect(document.activeElement).toBe(screen.getByLabelText("What it reads, mm"));
  });

  test("typed and entered it is taken in millimetres; nonsense stays and says why", () => {
    const onTake = vi.fn();
    show(group({ onTake }));
    enter("1/8");
    expect(onTake).toHaveBeenCalledWith(3.175, expect.anything());
    enter("soft");
    expect(screen.getByRole("alert").textContent).toContain("soft");
    expect((screen.getByLabelText("What it reads, mm") as HTMLInputElement).value).toBe("soft");
    expect(onTake).toHaveBeenCalledTimes(1);
  });

  test("empty, Enter presses the instrument where one is here, and says what to do where none is", () => {
    const onPress = vi.fn();
    const { unmount } = show(group({ onPress }));
    enter("");
    expect(onPress).toHaveBeenCalledTimes(1);
    unmount();
    show(group());
    enter("");
    expect(screen.getByRole("alert").textContent).toContain("Type what it reads");
  });

  test("arrows go along the list; with all read it says so", () => {
    const onStep = vi.fn();
    const { unmount } = show(group({ onStep }));
    fireEvent.keyDown(screen.getByLabelText("What it reads, mm"), { key: "ArrowDown" });
    fireEvent.keyDown(screen.getByLabelText("What it reads, mm"), { key: "ArrowUp" });
    expect(onStep.mock.calls).toEqual([[1], [-1]]);
    unmount();
    show(group({ line: null }));
    expect(screen.getByText(/All of the round is read/)).toBeTruthy();
  });
});

describe("places of one's own, and the strips", () => {
  test("hardness wanted is kept; a place is taken out again", () => {
    open.put({ check: { ...NO_CHECK, places: [{ what: "above", u: 0.5, height: 6 }] } });
    show(<PlacesGroup stage={STAGE} />);
    fireEvent.change(screen.getByLabelText("Hardness wanted, HRC"), { target: { value: "61" } });
    expect(open.store.getState().check.hardness).toBe(61);
    fireEvent.click(screen.getByRole("button", { name: "Remove this place" }));
    expect(open.store.getState().check.places).toEqual([]);
  });

  test("each verdict has a shape of its own, and a click leads to the reading", () => {
    const onGo = vi.fn();
    const dot = (verdict: "good" | "doubtful" | "out", x: number) => ({
      key: verdict,
      x,
      y: 1,
      within: 0.1,
      verdict,
      isOpen: false,
      isSecond: false,
      spot: { what: "edge", u: x / 100 } as Spot,
    });
    const { container } = show(
      <DotStrip
        label="Edge"
        scale={scaleFor(0, 100, 600, { left: 60, right: 20 })}
        height={90}
        band={[
          { x: 0, low: 0.8, high: 1.2 },
          { x: 100, low: 0.8, high: 1.2 },
        ]}
        wanted={[
          [0, 1],
          [100, 1],
        ]}
        dots={[dot("good", 20), dot("doubtful", 50), dot("out", 80)]}
        measure={1}
        show={(value) => value.toFixed(2)}
        onGo={onGo}
      />,
    );
    // Each stands in a wide ring that a finger can meet.
    const reach = [...container.querySelectorAll('circle[fill="transparent"]')];
    expect(reach.map((ring) => Number(ring.getAttribute("r")))).toEqual([HIT, HIT, HIT]);
    expect(container.querySelectorAll('circle:not([fill="transparent"])')).toHaveLength(1);
    expect(container.querySelectorAll("rect")).toHaveLength(1);
    fireEvent.pointerDown(reach[0]!);
    expect(onGo).toHaveBeenCalledWith({ what: "edge", u: 0.2 });
  });

  test("a strip with nothing to read says so", () => {
    show(
      <DotStrip
        label="Centre"
        scale={scaleFor(0, 100, 600, { left: 60, right: 20 })}
        height={60}
        band={[]}
        wanted={[]}
        dots={[]}
        measure={1}
        show={String}
        onGo={() => {}}
      />,
    );
    expect(screen.getByText("Nothing of this stage is read here.")).toBeTruthy();
  });
});
