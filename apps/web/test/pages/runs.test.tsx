import { act, cleanup, fireEvent, screen, waitFor } from "@testing-library/react";
import { NO_ROUTE } from "@true-spine/core/route/schema.ts";
import { USUAL_SHOP } from "@true-spine/core/shop/schema.ts";
import { afterEach, beforeEach, expect, test, vi } from "vitest";
import { PickPlace } from "../../src/pages/runs/PickPlace.tsx";
import { useShopState } from "../../src/shop/shop.ts";
import { knife } from "../knife.ts";
import { bench } from "../screen.tsx";

const PLUNGE = { spot: { what: "plunge", side: "left" }, x: 12, isRead: true } as const;
const work = vi.hoisted(() => ({ asked: [] as { stage: string }[], answer: null as unknown }));
vi.mock("../../src/workers/useWork.ts", () => ({
  useWork: (_: string, question: { stage: string } | null) => {
    if (question && question !== work.asked.at(-1)) work.asked.push(question);
    return { answer: work.answer, isBehind: false, trouble: null, tryAgain: () => {} };
  },
}));
vi.mock("../../src/api/blades.ts", () => ({ readDocument: async () => ({ file: NO_ROUTE }) }));
vi.mock("../../src/readings/kept.ts", () => ({ fetchReadings: async () => ({ taken: [] }) }));

beforeEach(() => {
  work.asked.length = 0;
  work.answer = null;
  vi.stubGlobal("fetch", () => new Promise(() => {}));
  useShopState.setState({ shop: USUAL_SHOP });
});
afterEach(cleanup);

test("a place stands under the finger while it is worked out anew, for a shop that was saved elsewhere or for readings that came in", async () => {
  const onPick = vi.fn();
  const dialog = (specification = { id: "a", file: knife() }) => (
    <PickPlace specification={specification} known={[]} onPick={onPick} onClose={() => {}} />
  );
  bench().show(dialog());
  await waitFor(() => expect(work.asked).toHaveLength(1));
  work.answer = { to: work.asked[0], value: [PLUNGE] };
  act(() => useShopState.setState({ isAway: true }));
  const place = screen.getByRole("button", { name: /plunge's foot, left · read/ });
  act(() => useShopState.setState({ shop: { ...USUAL_SHOP } }));
  expect(work.asked).toHaveLength(2);
  expect(screen.getByRole("button", { name: /plunge's foot, left · read/ })).toBe(place);
  fireEvent.click(place);
  expect(onPick).toHaveBeenCalledWith({ stage: "sharpen", spot: PLUNGE.spot });
  // What another stage can be read at is not known yet.
  fireEvent.change(screen.getByLabelText("After"), { target: { value: "rough" } });
  expect(screen.queryByRole("button", { name: /plunge's foot/ })).toBeNull();
  expect(screen.getByText("Working out what can be read …")).toBeTruthy();
});
