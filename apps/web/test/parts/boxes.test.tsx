import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { useState } from "react";
import { afterEach, describe, expect, test, vi } from "vitest";
import { CountBox, LengthBox, NumberBox, TemperatureBox } from "../../src/parts/Box.tsx";
import { Segmented } from "../../src/parts/Segmented.tsx";

afterEach(cleanup);
const type = (label: string, text: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { value: text } });

test("a value that comes back late, solved for or rounded: what is being typed stays, what comes from elsewhere shows", () => {
  const { rerender } = render(<LengthBox label="Edge" value={2} onCommit={() => null} />);
  const box = screen.getByLabelText("Edge") as HTMLInputElement;
  fireEvent.focus(box);
  type("Edge", "1");
  type("Edge", "1.2");
  rerender(<LengthBox label="Edge" value={1.0004} onCommit={() => null} />);
  expect(box.value).toBe("1.2");
  type("Edge", "1.27");
  rerender(<LengthBox label="Edge" value={1.2} onCommit={() => null} />);
  expect(box.value).toBe("1.27");
  rerender(<LengthBox label="Edge" value={2} onCommit={() => null} />);
  expect(box.value).toBe("2");
});

test("a hand faster than what works the heats out: its first two figures come back as a third stands, and all of it is taken", () => {
  const taken = vi.fn((celsius: number, _colour?: string) => (celsius < 20 ? "From 20 to 1300 °C." : null));
  const { rerender } = render(<TemperatureBox label="How hot" value={738} onCommit={taken} />);
  const box = screen.getByLabelText("How hot") as HTMLInputElement;
  fireEvent.focus(box);
  for (const text of ["8", "80", "802"]) type("How hot", text);
  rerender(<TemperatureBox label="How hot" value={80} onCommit={taken} />);
  expect(box.value).toBe("802");
  for (const text of ["802 ", "802 C"]) type("How hot", text);
  expect(taken).toHaveBeenLastCalledWith(802, undefined);
  rerender(<TemperatureBox label="How hot" value={802} onCommit={taken} />);
  expect(box.value).toBe("802 C");
  fireEvent.blur(box);
  expect(box.value).toBe("802");
});

describe("a box for a plain number", () => {
  function Boxed({ onChange, isWhole = false }: { onChange: (value: number) => void; isWhole?: boolean }) {
    const [value, setValue] = useState(4);
    return (
      <NumberBox
        label="On hand"
        value={value}
        least={0}
        most={100}
        isWhole={isWhole}
        onChange={(next) => {
          setValue(next);
          onChange(next);
        }}
      />
    );
  }

  test("puts in what reads as one within its range, a comma as a point", () => {
    const onChange = vi.fn();
    render(<Boxed onChange={onChange} />);
    type("On hand", "7,5");
    expect(onChange).toHaveBeenLastCalledWith(7.5);
  });

  test.each(["", "some", "-1", "101", "1e9"])(
    "refuses “%s” in words, keeps it, and changes nothing",
    (text) => {
      const onChange = vi.fn();
      render(<Boxed onChange={onChange} />);
      type("On hand", text);
      expect(onChange).not.toHaveBeenCalled();
      expect((screen.getByLabelText("On hand") as HTMLInputElement).value).toBe(text);
      expect(screen.getByRole("alert").textContent).toBe("Write a number from 0 to 100.");
      fireEvent.blur(screen.getByLabelText("On hand"));
      expect((screen.getByLabelText("On hand") as HTMLInputElement).value).toBe(text);
    },
  );

  test("asked for a whole one, refuses a half", () => {
    const onChange = vi.fn();
    render(<Boxed onChange={onChange} isWhole />);
    type("On hand", "2.5");
    expect(onChange).not.toHaveBeenCalled();
    type("On hand", "3");
    expect(onChange).toHaveBeenCalledWith(3);
    expect(screen.queryByRole("alert")).toBeNull();
  });
});

describe("a box for a length", () => {
  test("takes what a maker says, and hands on why not where the blade refuses it", () => {
    const onCommit = vi.fn((mm: number) => (mm > 10 ? "That is thicker than the bar." : null));
    render(<LengthBox label="Thick" value={4} onCommit={onCommit} />);
    type("Thick", "3/16");
    expect(onCommit).toHaveBeenLastCalledWith(expect.closeTo(4.7625, 9));
    type("Thick", "1/2 in");
    expect(screen.getByRole("alert").textContent).toBe("That is thicker than the bar.");
    type("Thick", "thick");
    expect(onCommit).toHaveBeenCalledTimes(2);
    expect(screen.getByRole("alert").textContent).toMatch(/“thick”/);
  });

  test("a count is whole, from one to as many as there may be", () => {
    const onCommit = vi.fn(() => null);
    render(<CountBox label="How many" value={9} most={60} onCommit={onCommit} />);
    for (const wrong of ["0", "2.5", "61", "nine"]) type("How many", wrong);
    expect(onCommit).not.toHaveBeenCalled();
    type("How many", "12");
    expect(onCommit).toHaveBeenCalledWith(12);
  });
});

describe("one of a few", () => {
  function Chosen() {
    const [value, setValue] = useState<"heel" | "middle" | "tip">("heel");
    return <Segmented label="Where" options={["heel", "middle", "tip"]} value={value} onChange={setValue} />;
  }

  test("arrows choose the next and go round; only the chosen one takes the focus", () => {
    render(<Chosen />);
    const checked = () =>
      screen.getAllByRole("radio").filter((one) => one.getAttribute("aria-checked") === "true");
    fireEvent.keyDown(checked()[0]!, { key: "ArrowLeft" });
    expect(checked().map((one) => one.textContent)).toEqual(["tip"]);
    fireEvent.keyDown(checked()[0]!, { key: "ArrowRight" });
    expect(checked().map((one) => one.textContent)).toEqual(["heel"]);
    expect(screen.getAllByRole("radio").filter((one) => one.tabIndex === 0)).toHaveLength(1);
  });
});
