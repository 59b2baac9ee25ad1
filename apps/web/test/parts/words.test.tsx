import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, describe, expect, test, vi } from "vitest";
import { LengthBox } from "../../src/parts/Box.tsx";
import { DeletedList } from "../../src/parts/DeletedList.tsx";
import { From } from "../../src/parts/From.tsx";
import { Group, RecordButton } from "../../src/parts/Group.tsx";
import { useNotices } from "../../src/parts/Notices.tsx";
import { refusedWords, useRefused, WithRefusals } from "../../src/parts/refusals.tsx";
import { SearchBox } from "../../src/parts/SearchBox.tsx";
import { agoInWords, whenInWords } from "../../src/parts/when.ts";

afterEach(cleanup);

describe("where a figure comes from", () => {
  const figure = () => {
    render(<From words="2 × tan(18°) × 10 mm">6.50</From>);
    return screen.getByRole("button");
  };

  test("is told while the focus is on it, and Escape puts that away and nothing else", () => {
    const button = figure();
    const elsewhere = vi.fn();
    window.addEventListener("keydown", elsewhere);
    expect(screen.queryByRole("tooltip")).toBeNull();
    fireEvent.focus(button);
    expect(screen.getByRole("tooltip").textContent).toBe("2 × tan(18°) × 10 mm");
    expect(button.getAttribute("aria-describedby")).toBe(screen.getByRole("tooltip").id);
    fireEvent.keyDown(button, { key: "Escape" });
    expect(screen.queryByRole("tooltip")).toBeNull();
    expect(elsewhere).not.toHaveBeenCalled();
    fireEvent.keyDown(button, { key: "Escape" });
    expect(elsewhere).toHaveBeenCalledOnce();
    window.removeEventListener("keydown", elsewhere);
  });

  test("is told under the pointer and by a tap, and gone without", () => {
    const button = figure();
    fireEvent.mouseEnter(button);
    expect(screen.getByRole("tooltip")).toBeTruthy();
    fireEvent.mouseLeave(button);
    expect(screen.queryByRole("tooltip")).toBeNull();
    fireEvent.click(button);
    expect(screen.getByRole("tooltip")).toBeTruthy();
    fireEvent.blur(button);
    expect(screen.queryByRole("tooltip")).toBeNull();
  });
});

describe("a refused entry", () => {
  function Start() {
    const words = refusedWords(useRefused());
    return (
      <>
        <button type="button" disabled={words !== null}>
          Start
        </button>
        <p role="note">{words}</p>
      </>
    );
  }

  test("switches off what goes on, which names the box; mended or gone, it goes on", () => {
    const form = (boxes: number) => (
      <WithRefusals>
        {["Length", "Height"].slice(0, boxes).map((label) => (
          <LengthBox
            key={label}
            label={label}
            value={100}
            onCommit={(mm) => (mm > 400 ? "Longer than 400 mm." : null)}
          />
        ))}
        <Start />
      </WithRefusals>
    );
    const { rerender } = render(form(2));
    const start = screen.getByRole("button", { name: "Start" }) as HTMLButtonElement;
    const type = (label: string, value: string) =>
      fireEvent.change(screen.getByLabelText(label), { target: { value } });
    expect(start.disabled).toBe(false);
    type("Length", "900");
    type("Height", "long");
    expect(start.disabled).toBe(true);
    expect(screen.getByRole("note").textContent).toBe("Correct first: Length, Height.");
    type("Length", "300");
    expect(screen.getByRole("note").textContent).toBe("Correct first: Height.");
    rerender(form(1));
    expect(start.disabled).toBe(false);
  });
});

test("a form with a refused box records nothing, names the box and moves the focus to it", () => {
  const recorded = vi.fn();
  render(
    <Group title="Cut test">
      <LengthBox label="Force" value={155} onCommit={(mm) => (mm > 400 ? "Enter 400 at most." : null)} />
      <RecordButton onClick={recorded}>Record</RecordButton>
    </Group>,
  );
  const type = (value: string) => fireEvent.change(screen.getByLabelText("Force"), { target: { value } });
  const press = () => fireEvent.click(screen.getByRole("button", { name: "Record" }));
  type("900");
  press();
  expect(recorded).not.toHaveBeenCalled();
  expect(screen.getByText("Not recorded. Correct first: Force.")).toBeTruthy();
  expect(document.activeElement).toBe(screen.getByLabelText("Force"));
  type("300");
  press();
  expect(recorded).toHaveBeenCalledOnce();
  expect(screen.queryByText(/Not recorded/)).toBeNull();
});

describe("what was deleted", () => {
  const rows = [
    { id: "a", name: "Petty", deletedAt: "2026-03-04T10:00:00.000Z" },
    { id: "b", name: "Slicer", deletedAt: "2026-03-05T10:00:00.000Z" },
  ];

  test("is listed by name and day, and taken back by its button", async () => {
    const taken: string[] = [];
    render(<DeletedList rows={rows} empty="Nothing." onTakeBack={async (id) => taken.push(id)} />);
    const items = screen.getAllByRole("listitem");
    expect(items.map((item) => item.textContent)).toEqual([
      expect.stringMatching(/^Petty.*2026/),
      expect.stringMatching(/^Slicer.*2026/),
    ]);
    fireEvent.click(screen.getAllByRole("button", { name: "Take back" })[1]!);
    expect(taken).toEqual(["b"]);
    await vi.waitFor(() => expect(useNotices.getState().notices.at(-1)!.words).toBe("Slicer is back."));
  });

  test("that cannot be taken back says so, and stays", async () => {
    render(
      <DeletedList
        rows={rows}
        empty="Nothing."
        onTakeBack={async () => {
          throw new Error("no");
        }}
      />,
    );
    fireEvent.click(screen.getAllByRole("button", { name: "Take back" })[0]!);
    await vi.waitFor(() =>
      expect(useNotices.getState().notices.at(-1)!.words).toMatch(/Petty is still among the deleted\.$/),
    );
    expect(screen.getAllByRole("listitem")).toHaveLength(2);
  });

  test("where there is nothing, that is said", () => {
    render(<DeletedList rows={[]} empty="Nothing was deleted." onTakeBack={async () => {}} />);
    expect(screen.getByText("Nothing was deleted.")).toBeTruthy();
    expect(screen.queryByRole("list")).toBeNull();
  });
});

test("a search box tells what is typed, and Escape leaves it once it is empty", () => {
  const heard: string[] = [];
  render(<SearchBox label="Find" placeholder="name" text="" onText={(text) => heard.push(text)} />);
  const box = screen.getByRole("searchbox", { name: "Find" });
  box.focus();
  fireEvent.change(box, { target: { value: "petty" } });
  expect(heard).toEqual(["petty"]);
  fireEvent.keyDown(box, { key: "Escape" });
  expect(document.activeElement).not.toBe(box);
});

describe("when", () => {
  test("another day is said with its month in letters; today by the time alone", () => {
    expect(whenInWords(Date.UTC(2024, 3, 3, 12))).toMatch(/[A-Z][a-z]{2}/);
    expect(whenInWords(Date.UTC(2024, 3, 3, 12))).toContain("2024");
    expect(whenInWords(Date.now())).not.toContain(String(new Date().getFullYear()));
  });

  test.each([
    [5, "5 seconds ago"],
    [90, "1 minute ago"],
    [3 * 3600, "3 hours ago"],
    [26 * 3600, "yesterday"],
    [8 * 24 * 3600, "last week"],
    [800 * 24 * 3600, "2 years ago"],
    [-30, "now"],
  ])("%d s ago is %s", (seconds, words) => {
    const now = Date.UTC(2026, 5, 1);
    expect(agoInWords(now - seconds * 1000, now)).toBe(words);
  });
});
