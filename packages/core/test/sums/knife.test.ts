import { expect, test } from "vitest";
import { compileField } from "../../src/blade/field.ts";
import { stationAtX } from "../../src/blade/station.ts";
import { judge } from "../../src/findings/judge.ts";
import { knifeFrom } from "../../src/sums/knife.ts";
import { type Given, sayIn } from "../../src/sums/sum.ts";
import { sumOf } from "../../src/sums/sums.ts";

const made = (key: string, given: Given) => {
  const answer = sumOf(key)!.answer(given, sayIn("mm"));
  if (answer.state !== "answered") throw new Error(JSON.stringify(answer));
  const knife = knifeFrom(answer.blade!, answer.put!, "A question");
  if (!knife.ok) throw new Error(knife.because);
  return knife.blade;
};

test("a knife made from a bevel has that bevel where it is straight, and is a knife to be judged", () => {
  const blade = made("bevel", { thickness: 3.5, behind: 0.4, angle: 4 });
  const station = stationAtX(compileField(blade), 50)!;
  expect(station.right.primaryAngle).toBeCloseTo(4, 3);
  expect(station.behind).toBeCloseTo(0.4, 3);
  expect(station.flats).toBeCloseTo(3.5, 9);
  // (3.5 − 0.4)/2 ÷ tan 4° above the edge bevel.
  const { grindLine, edgeBevel } = station.right;
  expect(grindLine! - edgeBevel!).toBeCloseTo(22.17, 1);
  expect(judge(blade).findings.filter(({ id }) => id === "outline-crosses")).toEqual([]);
});

test("a hollow and a convex face make knives too; one that no knife holds says why", () => {
  expect(made("hollow", { thickness: 3.5, behind: 0.4, wheel: 250, climb: 14 }).bevels.right.kind).toBe(
    "hollow",
  );
  expect(made("convex", { thickness: 3.5, behind: 0.4, climb: 20, bulge: 0.1 }).bevels.right.kind).toBe(
    "convex",
  );
  const answer = sumOf("bevel")!.answer({ thickness: 20, behind: 0, angle: 3 }, sayIn("mm"));
  if (answer.state !== "answered") throw new Error("not answered");
  const knife = knifeFrom(answer.blade!, answer.put!, "Too thick");
  if (!knife.ok) expect(knife.because).not.toBe("");
});
