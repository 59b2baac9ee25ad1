import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { act, cleanup, fireEvent, render, screen, within } from "@testing-library/react";
import type { Me } from "@true-spine/core/registry/contract.ts";
import { createMemoryRouter, RouterProvider } from "react-router";
import { afterEach, beforeEach, describe, expect, test, vi } from "vitest";
import { Shell } from "../../src/app/Shell.tsx";
import { useSettings } from "../../src/app/settings.ts";
import { fetchAhead, later } from "../../src/parts/later.ts";
import { useNotices } from "../../src/parts/Notices.tsx";
import { UnitMenu } from "../../src/parts/UnitMenu.tsx";

beforeEach(() => {
  vi.useFakeTimers();
  localStorage.clear();
  useSettings.setState({ unit: "mm", theme: "light", letterKeys: true, seen: [] });
  useNotices.setState({ notices: [] });
});
afterEach(() => {
  cleanup();
  vi.useRealTimers();
});

async function room(ahead: readonly (() => Promise<unknown>)[] = [], me?: Me) {
  const client = new QueryClient({ defaultOptions: { queries: { enabled: false } } });
  if (me) client.setQueryData(["me"], me);
  const router = createMemoryRouter([
    {
      element: <Shell ahead={ahead} />,
      children: [
        { path: "/", element: <h1>The rack</h1> },
        { path: "/stores", element: <h1>The stores</h1> },
      ],
    },
  ]);
  await act(async () =>
    render(
      <QueryClientProvider client={client}>
        <RouterProvider router={router} />
      </QueryClientProvider>,
    ),
  );
}

describe("the room", () => {
  test("the theme is on the whole page, the switch says what it leads to, and it is kept", async () => {
    await room();
    expect(document.documentElement.dataset.theme).toBe("light");
    fireEvent.click(screen.getByRole("button", { name: "Dark theme" }));
    expect(document.documentElement.dataset.theme).toBe("dark");
    expect(JSON.parse(localStorage.getItem("true-spine-settings")!).state.theme).toBe("dark");
    fireEvent.click(screen.getByRole("button", { name: "Light theme" }));
    expect(document.documentElement.dataset.theme).toBe("light");
  });

  test("the first thing Tab meets leads past the rail, to what can take the focus", async () => {
    await room();
    const first = document.querySelectorAll<HTMLElement>("a[href], button")[0]!;
    expect(first.textContent).toBe("Skip to the page");
    const target = document.querySelector<HTMLElement>(first.getAttribute("href")!)!;
    expect(target.tagName).toBe("MAIN");
    target.focus();
    expect(document.activeElement).toBe(target);
  });

  test("a device sees what it was let in for: with the cards only there is the rack, and no other page", async () => {
    await room([], { role: "card", name: "Grinder tablet" });
    const rail = within(screen.getByRole("navigation", { name: "Shop" }));
    expect(rail.getAllByRole("link").map((link) => link.textContent)).toEqual(["", "Rack"]);
    expect(rail.getByText("cards only")).toBeTruthy();
    expect(screen.getByRole("heading").textContent).toBe("The rack");
    cleanup();
    window.history.replaceState(null, "", "/");
    await room([], { role: "look", name: "Visitor" });
    const links = () => within(screen.getByRole("navigation", { name: "Shop" })).getAllByRole("link");
    expect(links().map((link) => link.textContent)).not.toContain("Shop");
    expect(links().map((link) => link.textContent)).toContain("Stores");
    cleanup();
    await room();
    expect(links().map((link) => link.textContent)).toContain("Shop");
  });

  test("where one stands is said in the rail", async () => {
    await room();
    const rail = within(screen.getByRole("navigation", { name: "Shop" }));
    expect(rail.getByRole("link", { name: "Rack" }).getAttribute("aria-current")).toBe("page");
    await act(async () => fireEvent.click(rail.getByRole("link", { name: "Stores" })));
    expect(screen.getByRole("heading").textContent).toBe("The stores");
    expect(rail.getByRole("link", { name: "Stores" }).getAttribute("aria-current")).toBe("page");
    expect(rail.getByRole("link", { name: "Rack" }).getAttribute("aria-current")).toBeNull();
  });

  test("other pages are fetched once this one stands, one after the other; one that fails stops none", async () => {
    const fetched: string[] = [];
    const page =
      (name: string, isThere = true) =>
      async () => {
        fetched.push(name);
        if (!isThere) throw new Error("away");
      };
    await room([page("shape"), page("grind", false), page("check")]);
    expect(fetched).toEqual([]);
    await vi.advanceTimersByTimeAsync(5_000);
    expect(fetched).toEqual(["shape", "grind", "check"]);
  });

  test("a notice offers its undo, goes when told to, and goes by itself", async () => {
    await room();
    const undo = vi.fn();
    act(() => useNotices.getState().tell("Stage deleted.", undo));
    const notice = screen.getByText("Stage deleted.").closest("li, div")!;
    fireEvent.click(within(notice.parentElement as HTMLElement).getByRole("button", { name: "Undo" }));
    expect(undo).toHaveBeenCalledOnce();
    act(() => useNotices.getState().tell("Saved elsewhere."));
    await act(() => vi.advanceTimersByTimeAsync(60_000));
    expect(screen.queryByText("Saved elsewhere.")).toBeNull();
  });
});

test("fetching ahead asks each once, in order", async () => {
  const asked: number[] = [];
  fetchAhead([async () => asked.push(1), async () => asked.push(2)]);
  await vi.advanceTimersByTimeAsync(2_000);
  expect(asked).toEqual([1, 2]);
});

test("a part that is fetched later is shown when it is there", async () => {
  vi.useRealTimers();
  const Part = later(async () => () => <p>Here it is.</p>);
  render(<Part />);
  expect(await screen.findByText("Here it is.")).toBeTruthy();
});

test("the unit menu offers what lengths can be read in, and keeps the choice", () => {
  render(<UnitMenu />);
  const menu = screen.getByLabelText("Unit") as HTMLSelectElement;
  expect([...menu.options].map(({ text }) => text)).toEqual(["mm", "inch", "thou"]);
  fireEvent.change(menu, { target: { value: "inch" } });
  expect(useSettings.getState().unit).toBe("inch");
  expect(menu.value).toBe("inch");
});
