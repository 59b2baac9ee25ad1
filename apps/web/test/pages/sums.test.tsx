import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { act, cleanup, fireEvent, render, screen, within } from "@testing-library/react";
import { SUMS, sumOf } from "@true-spine/core/sums/sums.ts";
import { createMemoryRouter, RouterProvider } from "react-router";
import { afterEach, beforeEach, describe, expect, test, vi } from "vitest";
import { useSettings } from "../../src/app/settings.ts";
import { useSums } from "../../src/pages/sums/kept.ts";
import { asTyped, givenFrom, readAsk, showFigure } from "../../src/pages/sums/reading.ts";
import { SumsPage } from "../../src/pages/sums/SumsPage.tsx";

beforeEach(() => {
  vi.useFakeTimers();
  vi.stubGlobal("fetch", () => Promise.reject(new TypeError("away")));
  useSettings.setState({ unit: "mm", letterKeys: true, seen: [] });
  useSums.setState({ typed: {}, readWith: {}, asked: [] });
});
afterEach(() => {
  cleanup();
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

async function sums(at = "/sums") {
  const router = createMemoryRouter([{ path: "/sums/:key?", element: <SumsPage /> }], {
    initialEntries: [at],
  });
  await act(async () =>
    render(
      <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}>
        <RouterProvider router={router} />
      </QueryClientProvider>,
    ),
  );
  return router;
}
const box = (label: string) => screen.getByLabelText(label) as HTMLInputElement;
const type = (label: string, text: string) => fireEvent.change(box(label), { target: { value: text } });
const answer = () => within(screen.getByRole("region", { name: "Answer" }));

describe("what is typed", () => {
  const [top, , , , angle] = sumOf("bevel")!.asks;
  test("is read in any unit and mixed, by a coin's name, inclusive; else says why", () => {
    expect(readAsk(top!, "1/8 in", "mm")).toEqual({ ok: true, value: 3.175 });
    expect(readAsk(top!, "41 thou", "inch")).toMatchObject({ ok: true, value: expect.closeTo(1.0414, 9) });
    expect(readAsk(top!, "dime", "mm")).toMatchObject({ ok: true, value: 1.35 });
    expect(readAsk(angle!, "36 incl", "mm")).toEqual({ ok: true, value: 18 });
    expect(readAsk(top!, "", "mm")).toBeNull();
    expect(readAsk(top!, "thick", "mm")).toMatchObject({ ok: false, why: expect.stringContaining("thick") });
  });

  test("goes into the sum as far as it reads, and comes back as it would be typed", () => {
    const { asks } = sumOf("bevel")!;
    expect(givenFrom(asks, { thickness: "4", behind: "x", angle: "5" }, "mm")).toEqual({
      thickness: 4,
      angle: 5,
    });
    expect(asTyped(top!, 3.175, "inch")).toBe("0.125");
    expect(asTyped(angle!, 14.0362, "mm")).toBe("14.0362");
  });

  test("a length is told to a thousandth where there is one to tell, anything else by its own sign", () => {
    expect(showFigure({ value: 6.35, unit: "mm" }, "mm")).toBe("6.35 mm");
    expect(showFigure({ value: 3.175, unit: "mm" }, "mm")).toBe("3.175 mm");
    expect(showFigure({ value: 14.036, unit: "°" }, "mm")).toBe("14.04°");
    expect(showFigure({ value: 7.884, unit: "g" }, "inch")).toBe("7.88 g");
    expect(showFigure({ value: 1, unit: "", words: "P120" }, "mm")).toBe("P120");
  });
});

describe("the page", () => {
  test("wants what is missing, answers as it is typed, and draws it", async () => {
    await sums();
    expect(answer().getByText("Say how thick it is at the top, or at the edge.")).toBeTruthy();
    type("Thick at the top", "3.175");
    type("Bevel, high", "6.35");
    expect(answer().getByText("14.04°")).toBeTruthy();
    expect(
      screen.getByRole("img", { name: "Drawing: Flat bevel" }).querySelectorAll("path").length,
    ).toBeGreaterThan(2);
    type("Bevel, high", "six");
    expect(screen.getByRole("alert").textContent).toMatch(/six/);
    expect(box("Bevel, high").value).toBe("six");
  });

  test("is found by a word, and says so where there is none", async () => {
    const router = await sums();
    fireEvent.change(screen.getByLabelText("Find a sum"), { target: { value: "necks" } });
    expect(screen.getByRole("link", { name: "Hollow by a wheel" })).toBeTruthy();
    await act(async () => fireEvent.submit(box("Find a sum").closest("form")!));
    expect(router.state.location.pathname).toBe("/sums/hollow");
    fireEvent.change(screen.getByLabelText("Find a sum"), { target: { value: "zzz" } });
    expect(screen.getByText(/No sum is called so/)).toBeTruthy();
  });

  test("an impossible question tells the nearest that is possible once the hand rests, and takes it at a press", async () => {
    await sums("/sums/leave");
    type("Thick at the top", "4");
    type("Edge to leave", "5");
    expect(answer().getByText(/^Impossible because the edge to leave is as thick/)).toBeTruthy();
    expect(answer().queryByRole("button", { name: "Take that" })).toBeNull();
    act(() => vi.advanceTimersByTime(500));
    expect(answer().getByText(/it can be\.$/)).toBeTruthy();
    fireEvent.click(answer().getByRole("button", { name: "Take that" }));
    expect(answer().getByText(/still on/)).toBeTruthy();
  });

  test("keeps the last twenty, one question once, and takes one up again", async () => {
    await sums("/sums/temperature");
    for (let i = 0; i < 25; i++) {
      type("°C", String(100 + i));
      act(() => vi.advanceTimersByTime(61_000));
    }
    const { asked } = useSums.getState();
    expect(asked).toHaveLength(20);
    expect(asked[0]).toMatchObject({ sum: "temperature", typed: { celsius: "124" } });
    type("°C", "1");
    act(() => vi.advanceTimersByTime(2_000));
    type("°C", "15");
    act(() => vi.advanceTimersByTime(2_000));
    // Half typed and whole are one question.
    expect(
      useSums
        .getState()
        .asked.slice(0, 2)
        .map(({ typed }) => typed.celsius),
    ).toEqual(["15", "124"]);
    await act(async () => fireEvent.click(screen.getAllByRole("button", { name: /Temperatures/ })[1]!));
    expect(box("°C").value).toBe("124");
  });

  test("asks only for what matters to what is chosen", async () => {
    await sums("/sums/jig");
    expect(screen.getByLabelText("Pivot away")).toBeTruthy();
    fireEvent.change(screen.getByLabelText(/^Held by/), { target: { value: "rest" } });
    expect(screen.queryByLabelText("Pivot away")).toBeNull();
    type("Angle a side", "19");
    expect(answer().getByText("71.00°")).toBeTruthy();
    expect(answer().getByRole("row", { name: /^a side is held at 19.00°$/ })).toBeTruthy();
  });

  test("every sum has its page", async () => {
    for (const { key, name } of SUMS) {
      await sums(`/sums/${key}`);
      expect(screen.getByRole("heading", { level: 2, name })).toBeTruthy();
      cleanup();
    }
  });
});
