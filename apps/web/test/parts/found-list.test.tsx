import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, expect, test, vi } from "vitest";
import { FoundList } from "../../src/parts/FoundList.tsx";
import { useNotices } from "../../src/parts/Notices.tsx";

afterEach(() => {
  cleanup();
  useNotices.setState({ notices: [] });
});

const narrow = (bar: number, route: string) => ({
  id: "bar-thin",
  severity: "fix" as const,
  message: "The bar is thinner than the blade.",
  advice: "Take a thicker one.",
  basis: "geometry",
  where: {},
  remedies: [],
  offers: [{ words: `Take a ${bar} mm bar`, route }],
});
const list = (
  findings: readonly ReturnType<typeof narrow>[],
  isOld: boolean,
  onTake: (offer: object) => string | null,
) => <FoundList label="Is the plan sound" findings={findings} isOld={isOld} onTake={onTake} />;

test("what is offered of things as they stand is taken at once", () => {
  const taken = vi.fn(() => null);
  render(list([narrow(5, "now")], false, taken));
  fireEvent.click(screen.getByRole("button", { name: "Take a 5 mm bar" }));
  expect(taken).toHaveBeenCalledExactlyOnceWith({ words: "Take a 5 mm bar", route: "now" });
});

test("what was worked out before the last figure was typed waits, and is taken as it is worked out with it", () => {
  const taken = vi.fn(() => null);
  const { rerender } = render(list([narrow(5, "without the figure")], true, taken));
  fireEvent.click(screen.getByRole("button", { name: "Take a 5 mm bar" }));
  expect(taken).not.toHaveBeenCalled();
  expect(screen.getByRole("button").textContent).toBe("Take a 5 mm bar …");
  rerender(list([narrow(5, "with the figure")], false, taken));
  expect(taken).toHaveBeenCalledExactlyOnceWith({ words: "Take a 5 mm bar", route: "with the figure" });
  expect(screen.getByRole("button").textContent).toBe("Take a 5 mm bar");
});

test("what is not offered any more once it is worked out is not taken, and that is told", () => {
  const taken = vi.fn(() => null);
  const { rerender } = render(list([narrow(5, "before")], true, taken));
  fireEvent.click(screen.getByRole("button"));
  rerender(list([narrow(6, "now")], false, taken));
  expect(taken).not.toHaveBeenCalled();
  expect(useNotices.getState().notices.map(({ words }) => words)).toEqual([
    "As things stand now that is not offered any more: look again.",
  ]);
  rerender(list([], true, taken));
  rerender(list([narrow(5, "later")], false, taken));
  expect(taken).not.toHaveBeenCalled();
});

test("what is waited for when its page is left is told not to be done", () => {
  const taken = vi.fn(() => null);
  const { unmount } = render(list([narrow(5, "before")], true, taken));
  fireEvent.click(screen.getByRole("button"));
  unmount();
  expect(taken).not.toHaveBeenCalled();
  expect(useNotices.getState().notices.map(({ words }) => words)).toEqual([
    "What was pressed last was not done: its page was left before it was worked out.",
  ]);
  useNotices.setState({ notices: [] });
  render(list([narrow(5, "now")], false, taken)).unmount();
  expect(useNotices.getState().notices).toEqual([]);
});

test("a button keeps the focus while the figures of its finding change under it", () => {
  const { rerender } = render(
    list(
      [narrow(5, "before")],
      true,
      vi.fn(() => null),
    ),
  );
  const button = screen.getByRole("button");
  button.focus();
  rerender(
    list(
      [{ ...narrow(5, "now"), message: "The bar is 0.90 mm thinner than the blade." }],
      false,
      vi.fn(() => null),
    ),
  );
  expect(document.activeElement).toBe(button);
  expect(screen.getByText(/0.90 mm thinner/)).toBeTruthy();
});

test("an offer that is refused says why and which", () => {
  render(list([narrow(5, "now")], false, () => "At u 0.5 the bevel is steeper than the edge bevel."));
  fireEvent.click(screen.getByRole("button", { name: "Take a 5 mm bar" }));
  expect(useNotices.getState().notices.map(({ words }) => words)).toEqual([
    "“Take a 5 mm bar” was not applied. At u 0.5 the bevel is steeper than the edge bevel.",
  ]);
});
