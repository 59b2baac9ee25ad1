import { describe, expect, test } from "vitest";
import { confirmRemedies, judge } from "../../src/findings/judge.ts";
import { type Limits, NO_LIMITS, parseLimits } from "../../src/findings/limits.ts";
import { changed, example } from "../examples.ts";

const knife = changed(example("field"), (blade) => {
  blade.use = "field";
  blade.falseEdge!.from = 95;
});
const limits = (change: Omit<Limits, "format" | "version">): Limits => ({ ...NO_LIMITS, ...change });
const reason = "slices only, and never twists";
const idsOf = (beside: Limits, blade = knife) => judge(blade, undefined, { limits: beside }).findings;

describe("limits changed for one blade", () => {
  test("a tighter limit fires where the purpose's own does not, and names the maker's reason as its basis", () => {
    expect(idsOf(NO_LIMITS).some((finding) => finding.id === "behind-edge-thick")).toBe(false);
    const found = idsOf(limits({ behind: { least: 0.2, most: 0.3, reason } })).find(
      (finding) => finding.id === "behind-edge-thick",
    )!;
    expect(found.wanted).toEqual([0.2, 0.3]);
    expect(found.basis).toBe(`this blade's own limit: ${reason}`);
  });

  test("a wider one lets pass what the purpose would not", () => {
    const thick = changed(knife, (b) => (b.edge.behind = [{ u: 0, t: 0.8 }]));
    expect(idsOf(NO_LIMITS, thick).some((finding) => finding.id === "behind-edge-thick")).toBe(true);
    const wide = limits({ behind: { least: 0.35, most: 0.9, reason } });
    expect(idsOf(wide, thick).some((finding) => finding.id === "behind-edge-thick")).toBe(false);
  });

  test("what is not asked of this blade is not judged against it", () => {
    const thick = changed(knife, (b) => {
      const { plunge } = b.bevels.right as Extract<typeof b.bevels.right, { plunge: unknown }>;
      b.bevels.right = { kind: "flat", pull: "follow", set: "height", height: [{ u: 0, h: 9 }], plunge };
    });
    expect(idsOf(NO_LIMITS, thick).some((finding) => finding.id === "thick-at-5")).toBe(true);
    const free = limits({ at5: { most: null, reason } });
    expect(idsOf(free, thick).some((finding) => finding.id === "thick-at-5")).toBe(false);
  });

  test("a remedy is held to the changed limit, not to the purpose's", () => {
    const beside = { limits: limits({ edgeAngle: { least: 22, most: 24, reason } }) };
    const found = confirmRemedies(knife, judge(knife, undefined, beside).findings, beside).find(
      (finding) => finding.id === "edge-angle-low",
    )!;
    expect(found.remedies[0]?.words).toBe("Sharpen at 22° a side.");
  });

  test("a purpose of one's own asks only what is set, and says what is not", () => {
    const own = changed(knife, (b) => {
      b.use = "own";
      b.edge.angle = { left: 28, right: 28 };
    });
    const open = judge(own);
    expect(open.findings.filter((finding) => finding.severity !== "note")).toEqual([]);
    expect(open.notJudged[0]).toMatchObject({
      id: "no-limit-set",
      why: expect.stringContaining("edge angle"),
    });
    const set = judge(own, undefined, { limits: limits({ edgeAngle: { least: 15, most: 20, reason } }) });
    expect(set.findings[0]).toMatchObject({ id: "edge-angle-high", wanted: [15, 20] });
    expect(set.notJudged[0]!.why).not.toContain("edge angle");
  });
});

test.each<[string, unknown, RegExp]>([
  ["a limit without its reason", { behind: { least: 0.2, most: 0.3 } }, /^\$\.behind\.reason: is missing$/],
  ["a reason of no words", { tip: { least: 0.4, reason: "" } }, /^\$\.tip\.reason: must/],
  [
    "bounds the wrong way round",
    { behind: { least: 0.4, most: 0.3, reason } },
    /^\$\.behind\.most: must be no less/,
  ],
  ["an unknown limit", { weight: { most: 3, reason } }, /^\$\.weight: is not a key/],
  ["a word for a number", { at5: { most: "thin", reason } }, /^\$\.at5\.most: must be a number .* or null$/],
])("%s is refused with its path", (_, change, wanted) => {
  const parsed = parseLimits({ ...NO_LIMITS, ...(change as object) });
  expect(parsed.ok ? "" : parsed.faults.map(({ path, message }) => `${path}: ${message}`).join("\n")).toMatch(
    new RegExp(wanted.source, "m"),
  );
});

test("what is meant is not told again, and is listed with its reason", () => {
  const off = changed(example("field"), (blade) => {
    delete blade.falseEdge;
    blade.edge.offset = 0.47;
  });
  const told = (of: Limits) => judge(off, undefined, { limits: of });
  expect(told(NO_LIMITS).findings.map(({ id }) => id)).toContain("apex-off-centre");
  const meant = limits({ meant: [{ finding: "apex-off-centre", reason: "for the right hand alone" }] });
  expect(parseLimits(meant).ok).toBe(true);
  expect(told(meant).findings.map(({ id }) => id)).not.toContain("apex-off-centre");
  expect(told(meant).notJudged).toContainEqual({
    id: "apex-off-centre",
    why: "Meant so: for the right hand alone.",
  });
});

test("a bevel that is meant to run to the apex is never too steep for its edge", () => {
  const zero = changed(example("field"), (blade) => {
    delete blade.falseEdge;
    blade.edge.behind = [{ u: 0, t: 0 }];
    blade.edge.angle = { left: 4, right: 4 };
  });
  expect(judge(zero).findings.map(({ id }) => id)).not.toContain("bevel-steeper-than-edge");
});
