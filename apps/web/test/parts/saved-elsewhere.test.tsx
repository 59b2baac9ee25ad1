import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, expect, test, vi } from "vitest";
import { SavedElsewhere } from "../../src/parts/SavedElsewhere.tsx";

afterEach(cleanup);

test("two hands on one thing: closing is no answer, each answer does what it says, and only that", () => {
  const [onTake, onKeep] = [vi.fn(), vi.fn()];
  render(
    <SavedElsewhere title="The stores were saved elsewhere" onTake={onTake} onKeep={onKeep}>
      Number 4.
    </SavedElsewhere>,
  );
  fireEvent.keyDown(screen.getByRole("dialog"), { key: "Escape" });
  expect(screen.getByRole("dialog").textContent).toContain("Number 4.");
  expect(onTake).not.toHaveBeenCalled();
  expect(onKeep).not.toHaveBeenCalled();
  fireEvent.click(screen.getByRole("button", { name: "Keep mine" }));
  expect([onTake.mock.calls.length, onKeep.mock.calls.length]).toEqual([0, 1]);
  fireEvent.click(screen.getByRole("button", { name: "Take theirs" }));
  expect([onTake.mock.calls.length, onKeep.mock.calls.length]).toEqual([1, 1]);
});
