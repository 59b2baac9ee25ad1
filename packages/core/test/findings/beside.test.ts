import { readFileSync } from "node:fs";
import { describe, expect, test } from "vitest";
import { compileField } from "../../src/blade/field.ts";
import type { Blade } from "../../src/blade/schema.ts";
import { firstHandle } from "../../src/design/first-handle.ts";
import { usualBehind } from "../../src/findings/beside.ts";
import { type Beside, confirmRemedies, judge } from "../../src/findings/judge.ts";
import type { OtherBlade } from "../../src/findings/judged.ts";
import { balanceOf } from "../../src/handle/balance.ts";
import type { Handle } from "../../src/handle/schema.ts";
import { changed, example } from "../examples.ts";

const knife = changed(example("field"), (blade) => {
  blade.use = "field";
  blade.falseEdge!.from = 95;
});
const find = (blade: Blade, id: string, beside?: Beside) =>
  judge(blade, undefined, beside).findings.find((finding) => finding.id === id);

describe("behind the edge, for the size", () => {
  test("between the small knife's and the seven-inch knife's usual, and no further", () => {
    // Source: common practice, about 0.5 and 0.6 mm.
    expect(usualBehind(60)).toBe(0.5);
    expect(usualBehind(178)).toBeCloseTo(0.6, 9);
    expect(usualBehind(300)).toBeCloseTo(0.6, 9);
    expect(usualBehind(126.5)).toBeCloseTo(0.55, 9);
  });

  test("a knife within the usual says nothing; one that cuts badly, and one that is very thin, do", () => {
    expect(find(knife, "behind-edge-thick-for-size")).toBeUndefined();
    const thick = changed(knife, (b) => (b.edge.behind = [{ u: 0, t: 1.55 }]));
    expect(find(thick, "behind-edge-thick-for-size")).toMatchObject({ severity: "note", unit: "mm" });
    const thin = changed(knife, (b) => (b.edge.behind = [{ u: 0, t: 0.25 }]));
    expect(find(thin, "behind-edge-thin-for-size")!.message).toContain("0.25 mm");
  });
});

describe("the edge angle in its steel", () => {
  const at = (angle: number, steel: string) =>
    changed(knife, (b) =>
      Object.assign(b, { steel, edge: { ...b.edge, angle: { left: angle, right: angle } } }),
    );

  test("below what hard use usually asks for, whatever the steel: a starting value, and told as one", () => {
    for (const steel of ["1075", "O1"]) {
      const found = find(at(12, steel), "edge-angle-for-steel")!;
      expect(found.message).toContain(steel);
      expect(found.basis).toMatch(/starting value/);
      expect(found.severity).toBe("note");
      expect(find(at(16, steel), "edge-angle-for-steel")).toBeUndefined();
    }
  });

  test("that no trial of the steel is on record is said", () => {
    for (const steel of ["1075", "O1"]) {
      const { notJudged } = judge(at(12, steel));
      expect(notJudged.find((item) => item.id === "edge-against-steel")!.why).toContain(steel);
    }
  });
});

describe("as thick as the shop's other blades", () => {
  const other = (behind: number, use = "field"): OtherBlade => ({
    name: "Low reed",
    use,
    behind,
    edgeBevel: 1,
  });
  const beside = (...others: OtherBlade[]) => find(knife, "as-thick-as", { others });

  test("at the height where the other's edge bevel ends", () => {
    const found = beside(other(0.2))!;
    // Source: geometry; above a 0.48 edge at 19° a side the face goes on rising.
    expect(found.measured).toBeGreaterThan(0.48);
    expect(found.message).toContain("Low reed");
    expect(found.message).toContain(`${(found.measured! / 0.2).toFixed(2)} times`);
  });

  test("of several, the one most unlike; one alike, or for another purpose, is passed over", () => {
    expect(beside(other(0.45), { ...other(0.15), name: "Thin reed" })!.message).toContain("Thin reed");
    expect(beside(other(beside(other(0.2))!.measured!))).toBeUndefined();
    expect(beside(other(0.2, "kitchen"))).toBeUndefined();
  });
});

describe("a chopper with its handle on", () => {
  const text = readFileSync(new URL("../../examples/handles/walnut-scales.json", import.meta.url), "utf8");
  const handle: Handle = JSON.parse(text);
  const chopper = changed(knife, (b) => (b.use = "chopper"));

  test("far from the plunge it says so, with what would move it", () => {
    const found = find(chopper, "balance-with-handle-far", { handle })!;
    expect(found.message).toMatch(/behind the plunge/);
    expect(found.advice).toMatch(/thinner at the butt moves it .* forward/);
  });

  test("weighted to balance at the plunge it is quiet", () => {
    const field = compileField(chopper);
    const bare = balanceOf(field, handle);
    // Source: the lever: a weight at x brings the balance to the plunge when m·(x − plunge) = M·(plunge − balance).
    const at = 80;
    const needed = (bare.mass * -bare.fromPlunge!) / (at - 12);
    const length = needed / ((Math.PI / 4) * 12 ** 2 * 8.5e-3);
    const pin = { x: at, y: 60, diameter: 12, bore: 0, length, material: "brass" };
    const weighted = { ...handle, pins: [...handle.pins, pin] };
    expect(balanceOf(field, weighted).fromPlunge).toBeCloseTo(0, 6);
    expect(find(chopper, "balance-with-handle-far", { handle: weighted })).toBeUndefined();
  });

  test("without a handle that is said to be unjudged", () => {
    expect(judge(chopper).notJudged.map((item) => item.id)).toContain("balance-with-handle");
    expect(judge(chopper, undefined, { handle }).notJudged.map((item) => item.id)).not.toContain(
      "balance-with-handle",
    );
  });
});

test("a bolt whose head is sunk too deep into its scale is told, and what is offered clears it", () => {
  const bolted = changed(knife, (b) => {
    b.holes = [{ x: -30, y: -12, d: 6, for: "bolt", counterbore: { d: 9, depth: 5.5 } }];
  });
  // Scales of 6.5: 1 stays, 2 should.
  const handle = firstHandle(bolted, "full");
  const found = find(bolted, "bolt-lip-thin", { handle })!;
  expect(found).toMatchObject({ severity: "watch", measured: 1, wanted: [2, null] });
  expect(found.message).toBe("Under the head of the bolt at -30 mm only 1.00 mm of the scale stays.");
  const [mended] = confirmRemedies(bolted, [found], { handle });
  expect(mended!.remedies[0]!.words).toBe("Sink it 4.50 mm.");
  expect(find(bolted, "bolt-lip-thin")).toBeUndefined();
});
