import { expect, test } from "vitest";
import { type Shop, USUAL_SHOP } from "../../src/shop/schema.ts";
import { shopTogether } from "../../src/shop/together.ts";

const KNIVES = ["a", "b", "c", "mine", "theirs"];
const knife = (name: string, length = 120): NonNullable<Shop["knives"]>[number] => ({
  id: `00000000-0000-4000-8000-00000000000${KNIVES.indexOf(name)}`,
  name,
  length,
  places: [{ at: "middle", e: 0.5, d: 0.77 }],
});
const bar = (id: string, length: number) => ({ id, w: 40, t: 4, length });
const with_ = (more: Partial<Shop>): Shop => ({ ...USUAL_SHOP, ...more });

test("a knife of one hand and a bar of the other both stand", () => {
  const both = shopTogether(USUAL_SHOP, with_({ knives: [knife("a")] }), with_({ bars: [bar("b", 1000)] }));
  expect(both).toEqual(with_({ knives: [knife("a")], bars: [bar("b", 1000)] }));
});

test("in one list each thing stands as whoever touched it left it: theirs first, what is new here after", () => {
  const base = with_({ knives: [knife("a"), knife("b"), knife("c")] });
  const mine = with_({ knives: [knife("a", 130), knife("b"), knife("mine")] });
  const theirs = with_({ knives: [knife("theirs"), knife("a"), knife("b", 140), knife("c")] });
  expect(shopTogether(base, mine, theirs)?.knives).toEqual([
    knife("theirs"),
    knife("a", 130),
    knife("b", 140),
    knife("mine"),
  ]);
});

test("the same done by both is done once", () => {
  const both = with_({ knives: [knife("a", 130)] });
  expect(shopTogether(with_({ knives: [knife("a")] }), both, both)).toEqual(both);
});

test.each([
  ["changed unlike", with_({ knives: [knife("a", 130)] }), with_({ knives: [knife("a", 140)] })],
  ["changed by one, thrown out by the other", with_({ knives: [knife("a", 130)] }), with_({ knives: [] })],
  [
    "a list thrown out by one, its knife changed by the other",
    with_({}),
    with_({ knives: [knife("a", 130)] }),
  ],
])("%s: somebody has to choose", (_, mine, theirs) => {
  expect(shopTogether(with_({ knives: [knife("a")] }), mine, theirs)).toBeNull();
  expect(shopTogether(with_({ knives: [knife("a")] }), theirs, mine)).toBeNull();
});

test("a part that is no list is one thing, and what has no id is only written further", () => {
  const dear = (hourly: number) => with_({ hourly });
  expect(shopTogether(USUAL_SHOP, dear(41), dear(42))).toBeNull();
  const learned = (...found: number[]) =>
    with_({
      learned: found.map((angle) => ({ tool: "t", when: "2026-03-01T10:00:00.000Z", set: 15, found: angle })),
    });
  expect(shopTogether(learned(14), learned(14, 15), learned(14, 16))).toEqual(learned(14, 16, 15));
  expect(shopTogether(learned(14), learned(13), learned(14, 16))).toBeNull();
});

test("too much together is not put together", () => {
  const many = (of: string) => Array.from({ length: 40 }, (_, i) => ({ ...bar(`${of}-${i}`, 500) }));
  const setups = (of: string) =>
    many(of).map(({ id }) => ({ id, name: id, setup: USUAL_SHOP.setups[0]?.setup }));
  const mine = with_({ setups: setups("m") as Shop["setups"] });
  const theirs = with_({ setups: setups("t") as Shop["setups"] });
  const base = with_({ setups: [] });
  expect(shopTogether(base, mine, theirs)).toBeNull();
});

/** As a database gives it back: its keys in an order of their own. */
const fromDatabase = (shop: Shop): Shop =>
  JSON.parse(JSON.stringify(shop), (_, value) =>
    value && typeof value === "object" && !Array.isArray(value)
      ? Object.fromEntries(Object.entries(value).reverse())
      : value,
  );

test("what only came back with its keys in another order was changed by nobody", () => {
  const base = with_({ knives: [knife("a")] });
  const theirs = fromDatabase(with_({ knives: [knife("a")], bars: [bar("b", 1000)] }));
  const mine = with_({ knives: [knife("a"), knife("mine")] });
  expect(shopTogether(base, mine, theirs)).toEqual(
    with_({ knives: [knife("a"), knife("mine")], bars: [bar("b", 1000)] }),
  );
  expect(shopTogether(base, fromDatabase(base), fromDatabase(mine))).toEqual(mine);
});
