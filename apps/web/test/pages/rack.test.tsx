import { act, cleanup, render, screen } from "@testing-library/react";
import { useState } from "react";
import { afterEach, expect, test, vi } from "vitest";
import { useFreely } from "../../src/pages/rack/useFreely.ts";

afterEach(() => {
  cleanup();
  vi.useRealTimers();
});

/** Rows that are put up anew once `part` has come: other elements, as another list is. */
function Rows({ part }: { part: { load(): Promise<unknown> } }) {
  const [box, setBox] = useState<HTMLElement | null>(null);
  const isHere = useFreely(part, box);
  return (
    <div ref={setBox} data-testid="box">
      <a key={isHere ? "scrolled" : "first"} href="/blades/1">
        {isHere ? "scrolled" : "first"}
      </a>
    </div>
  );
}

test("rows are put up anew only when nothing of them is pressed; the one with the keys keeps them", async () => {
  vi.useFakeTimers();
  let come = () => {};
  const part = { load: () => new Promise<void>((resolve) => (come = resolve)) };
  render(<Rows part={part} />);
  screen.getByRole("link").focus();
  const box = screen.getByTestId("box");
  const plain = box.querySelector.bind(box);
  const pressed = { current: true };
  box.querySelector = ((selector: string) =>
    selector === ":active" ? (pressed.current ? box : null) : plain(selector)) as typeof box.querySelector;
  await act(async () => come());
  await act(async () => vi.advanceTimersByTime(500));
  expect(screen.getByRole("link").textContent).toBe("first");
  pressed.current = false;
  await act(async () => vi.advanceTimersByTime(100));
  expect(screen.getByRole("link").textContent).toBe("scrolled");
  expect(document.activeElement).toBe(screen.getByRole("link"));
});

test("where what scrolls them does not come the first rows stay", async () => {
  const part = { load: () => Promise.reject(new Error("away")) };
  render(<Rows part={part} />);
  await act(async () => {});
  expect(screen.getByRole("link").textContent).toBe("first");
});
