import { describe, expect, test } from "vitest";
import { firstAtX, placeAt } from "../../src/blade/chain.ts";
import { compileField } from "../../src/blade/field.ts";
import type { Blade } from "../../src/blade/schema.ts";
import { withChanges } from "../../src/findings/finding.ts";
import { confirmRemedies, isSameFinding, judge } from "../../src/findings/judge.ts";
import { PURPOSES } from "../../src/findings/purposes.ts";
import { changed, checked, example } from "../examples.ts";
import { KINDS } from "../kinds.ts";

const knife = changed(example("field"), (blade) => {
  blade.use = "field";
  blade.falseEdge!.from = 95;
});
const straight = (blade: Blade, angle: number, rest = 0) => {
  delete blade.falseEdge;
  blade.bevels.right = {
    kind: "flat",
    pull: "straight",
    set: "angle",
    angle,
    restAngle: rest,
    plunge: { x: 12, lean: 0, radius: 2 },
  };
};

/** What makes each rule fire, starting from a knife on which none of them does. */
const FIRES: Record<string, (blade: Blade) => void> = {
  "taper-rises": (b) => (b.thickness[3]!.t = 4.5),
  "grind-line-runs-out": (b) => (b.bevels.right = { ...height(b), height: [{ u: 0, h: 60 }] }),
  "bevel-steeper-than-edge": (b) => (b.edge.angle = { left: 4.5, right: 4.5 }),
  "edge-swallows-bevel": (b) => (b.edge.angle = { left: 0.5, right: 0.5 }),
  "plunge-ahead-of-heel": (b) => (height(b).plunge.x = 22),
  "plunge-behind-heel": (b) => (height(b).plunge.x = 2),
  "sides-differ": (b) => (b.bevels.left = { ...height(b), plunge: { x: 12.6, lean: 10, radius: 4 } }),
  "false-edge-meets-bevel": (b) => Object.assign(b.falseEdge!, { from: 40, angle: 5 }),
  "hole-near-edge": (b) => (b.holes![0]!.y = -4.5),
  "plane-below-apex": (b) => straight(b, 3, 8),
  "behind-edge-thick": (b) => (b.edge.behind = [{ u: 0, t: 0.8 }]),
  "behind-edge-thin": (b) => (b.edge.behind = [{ u: 0, t: 0.2 }]),
  "thick-at-5": (b) => (b.bevels.right = { ...height(b), height: [{ u: 0, h: 9 }] }),
  "thick-at-10": (b) => (b.bevels.right = { ...height(b), height: [{ u: 0, h: 12 }] }),
  "edge-angle-high": (b) => (b.edge.angle = { left: 24, right: 24 }),
  "edge-angle-low": (b) => (b.edge.angle = { left: 12, right: 12 }),
  "edge-bevel-widens": (b) => straight(b, 3.5),
  "tip-thin": (b) => (b.thickness[3]!.t = 0.55),
  "edge-body-weak": (b) => {
    b.edge.behind = [{ u: 0, t: 0.36 }];
    b.bevels.right = { kind: "flat", pull: "follow", set: "full", plunge: { x: 12, lean: 10, radius: 4 } };
    b.thickness = [{ x: 0, t: 1.5 }];
    delete b.falseEdge;
  },
  "tip-flexes": (b) => {
    b.thickness = [
      { x: 0, t: 2 },
      { x: 125, t: 1.2 },
    ];
    delete b.falseEdge;
  },
  "plunge-wall": (b) => (height(b).plunge.radius = 0.2),
  "false-edge-short": (b) => (b.falseEdge!.to = 110),
  "tang-hole-weak": (b) => (b.holes = [{ x: -30, y: -12, d: 14.5 }]),
  "faces-meet": (b) => straight(b, 3, 8),
  "wedge-thick": (b) => (b.bevels.right = { ...height(b), height: [{ u: 0, h: 9 }] }),
  "edge-bevel-wide": (b) => (b.edge.behind = [{ u: 0, t: 1.4 }]),
  "edge-apex-weak": (b) => (b.edge.angle = { left: 9, right: 9 }),
  "balance-far": (b) => {
    b.use = "chopper";
  },
  "zero-edge-fine": (b) => (b.edge.behind = [{ u: 0, t: 0 }]),
  "apex-off-centre": (b) => (b.edge.offset = 0.47),
  "grind-lines-unlike": (b) => (b.bevels.left = { ...height(b), height: [{ u: 0, h: 14 }] }),
  "plunges-unlike": (b) => (b.bevels.left = { ...height(b), plunge: { x: 18, lean: 10, radius: 4 } }),
  "sharpened-late": (b) => (b.edge.start = 95),
  "thickness-steps": (b) => b.thickness.splice(3, 0, { x: 60, t: 3.2 }, { x: 62, t: 2.4 }),
  "edges-meet-in-ridge": (b) => doubled(b, 12),
  "second-edge-law": (b) => doubled(b, 4),
  "double-point-thin": (b) => {
    doubled(b, 6);
    b.thickness[3]!.t = 0.8;
  },
  "edge-leaves-core": (b) => (b.core = { t: 1, offset: 0.8 }),
  "core-within-edge": (b) => (b.core = { t: 0.3, offset: 0 }),
  "core-at-flats": (b) => (b.core = { t: 2, offset: 0 }),
  "tang-thin": (b) => stickTang(b, 5, -112),
  "tang-short": (b) => stickTang(b, 14, -30),
  "tang-square-corner": (b) => stickTang(b, 12, -112),
};

/** A narrow tang with square shoulders. */
function stickTang(blade: Blade, wide: number, butt: number): void {
  blade.holes = [];
  const [heel] = blade.outline.edge;
  blade.outline.tang = [
    { at: [...heel!.at] },
    { at: [2, -6 - wide] },
    { at: [butt, -6 - wide] },
    { at: [butt, -6] },
    { at: [2, -6] },
    { at: [0, 0] },
  ];
}

/** With a second edge from the middle of its spine, so deep. */
function doubled(blade: Blade, deep: number): void {
  delete blade.falseEdge;
  blade.secondEdge = {
    from: 60,
    behind: [{ v: 0, t: 0.4 }],
    angle: { left: 20, right: 20 },
    bevels: {
      right: { kind: "flat", set: "height", height: [{ v: 0, h: deep }], runIn: { lean: 0, radius: 3 } },
      left: "same",
    },
  };
}

function height(blade: Blade) {
  const bevel = blade.bevels.right;
  if (bevel.kind !== "flat" || bevel.set !== "height") throw new Error("not by height");
  return bevel;
}

const QUIET = [
  "plunge-ahead-of-heel",
  "plunge-wall",
  "false-edge-short",
  "grind-line-runs-out",
  "false-edge-meets-bevel",
];

describe("each rule fires where it should, and not on a sound knife", () => {
  test("a sound field knife has nothing to fix and nothing to watch", () => {
    const { findings, notJudged } = judge(knife);
    expect(findings.filter((finding) => finding.severity !== "note")).toEqual([]);
    expect(findings.every((finding) => QUIET.includes(finding.id))).toBe(true);
    expect(notJudged.map((item) => item.id)).toEqual(["edge-against-steel", "stock", "hardening"]);
  });

  test.each(Object.entries(FIRES))("%s", (id, spoil) => {
    const before = judge(knife).findings.find((finding) => finding.id === id && finding.severity !== "note");
    expect(before).toBeUndefined();
    const spoilt = changed(knife, spoil);
    const found = judge(spoilt).findings.find((finding) => finding.id === id)!;
    expect(found).toBeDefined();
    expect(found.message).toMatch(/\d.*\.$/);
    expect(found.advice).toMatch(/\.$/);
    expect(["geometry", "common practice", "starting value, without a published source"]).toContain(
      found.basis,
    );
  });
});

describe("remedies", () => {
  test.each(Object.entries(FIRES))("what is offered for %s clears it and breaks nothing else", (_, spoil) => {
    const spoilt = changed(knife, spoil);
    const before = judge(spoilt).findings;
    for (const finding of confirmRemedies(spoilt, before)) {
      for (const remedy of finding.remedies) {
        const after = judge(checked(withChanges(spoilt, remedy.changes))).findings;
        expect(after.some((other) => isSameFinding(other, finding))).toBe(false);
        const fixes = after.filter((other) => other.severity === "fix");
        expect(
          fixes.every((fix) => before.some((known) => known.severity === "fix" && isSameFinding(known, fix))),
        ).toBe(true);
      }
    }
  });

  /** What is offered for each: nothing must vanish because it does not hold any more. */
  const OFFERED: Readonly<Record<string, string>> = {
    "taper-rises": "Make it 4.00 mm there, and no thicker ahead of it.",
    "grind-line-runs-out": "Grind to the spine: set the bevel full.",
    "bevel-steeper-than-edge": "Sharpen at 8° a side.",
    "edge-swallows-bevel": "Sharpen at 15° a side.",
    "sides-differ": "Make the left side the same as the right.",
    "false-edge-meets-bevel": "Start the false edge at 62.00 mm.",
    "hole-near-edge": "Move it to 12.00 mm below the datum.",
    "plane-below-apex": "Follow the curve of the edge.",
    "behind-edge-thick": "Take it down to 0.65 mm.",
    "thick-at-5": "Take the grind line up to 30.28 mm.",
    "thick-at-10": "Take the grind line up to 30.28 mm.",
    "edge-angle-high": "Sharpen at 20° a side.",
    "edge-angle-low": "Sharpen at 15° a side.",
    "edge-bevel-widens": "Follow the curve of the edge.",
    "tip-thin": "End the taper at 0.80 mm.",
    "plunge-wall": "Give the plunge a radius of 1.80 mm.",
    "tang-hole-weak": "Drill it 13.20 mm.",
    "wedge-thick": "Take the grind line up to 30.28 mm.",
    "edge-bevel-wide": "Take it down to 0.65 mm.",
    "edge-apex-weak": "Sharpen at 15° a side.",
    "balance-far": "Taper the tang to 1.95 mm at the butt.",
    "zero-edge-fine": "Leave 0.35 mm behind the edge.",
    "apex-off-centre": "Bring the edge to the centre.",
    "grind-lines-unlike": "Make the left side the same as the right.",
    "plunges-unlike": "Put the left plunge where the right one is.",
    "sharpened-late": "Begin sharpening at the plunge.",
  };

  test.each(Object.entries(FIRES))("%s: what is offered by name, or nothing", (id, spoil) => {
    const spoilt = changed(knife, spoil);
    const found = confirmRemedies(spoilt, judge(spoilt).findings).find((finding) => finding.id === id)!;
    expect(found.remedies.map(({ words }) => words)).toEqual(OFFERED[id] ? [OFFERED[id]] : []);
  });

  test("an edge of one side counts half of it a side, and is told so: low, high, and within", () => {
    // A single-bevel slicer wants 12° to 20° a side: 24° to 40° on the one.
    const chisel = checked(KINDS.find(([name]) => name === "chisel-slicer")![1]);
    const single = (angle: number) =>
      judge(
        changed(chisel, (b) => {
          b.use = "single bevel";
          b.edge.angle = { left: 0, right: angle };
        }),
      ).findings.filter(({ id }) => id.startsWith("edge-angle"));
    const [low] = single(20);
    expect(low).toMatchObject({ id: "edge-angle-low", measured: 10, where: { side: "right" } });
    expect(low!.message).toBe(
      "The edge is 20° on the right alone, as 10° a side; a single-bevel slicer wants 12° to 20° a side.",
    );
    expect(low!.remedies.map(({ words }) => words)).toEqual(["Sharpen at 24°."]);
    expect(single(42)[0]).toMatchObject({ id: "edge-angle-high", measured: 21 });
    expect(single(24)).toEqual([]);
    expect(single(40)).toEqual([]);
  });

  test("a false edge that meets the bevel, a thick edge, a steep bevel and a straight pull can all be cured", () => {
    for (const id of [
      "false-edge-meets-bevel",
      "behind-edge-thick",
      "bevel-steeper-than-edge",
      "edge-bevel-widens",
      "thick-at-5",
      "tip-thin",
      "edge-angle-high",
    ]) {
      const spoilt = changed(knife, FIRES[id]!);
      const cured = confirmRemedies(spoilt, judge(spoilt).findings).find((finding) => finding.id === id);
      expect(cured?.remedies, id).toHaveLength(1);
    }
  });

  test("a remedy that does not hold is not offered", () => {
    const spoilt = changed(knife, FIRES["behind-edge-thick"]!);
    const findings = judge(spoilt).findings.map((finding) => ({
      ...finding,
      remedies: [{ words: "Look the other way.", changes: [{ path: ["name"], value: "Still thick" }] }],
    }));
    expect(confirmRemedies(spoilt, findings).every((finding) => finding.remedies.length === 0)).toBe(true);
  });
});

test("without a purpose nothing is skipped in silence: what could not be judged is said", () => {
  const { notJudged } = judge(example("field"));
  expect(notJudged.map((item) => item.id)).toEqual(["will-it-cut", "will-it-last", "stock", "hardening"]);
  expect(judge(changed(knife, (b) => (b.use = "opening letters"))).notJudged[0]!.why).toContain(
    "opening letters",
  );
});

test("a straight pull is told where to swing from and by how much: by what the edge has turned there", () => {
  const spoilt = changed(knife, FIRES["edge-bevel-widens"]!);
  const found = judge(spoilt).findings.find((finding) => finding.id === "edge-bevel-widens")!;
  const { edge } = compileField(spoilt);
  // Source: geometry; the tangent at the last place it is told of, by the difference of two places beside it.
  const s = firstAtX(edge, found.where.x![1])!;
  const [a, b] = [placeAt(edge, s - 0.01), placeAt(edge, s + 0.01)];
  const turned = (Math.atan2(b.y - a.y, b.x - a.x) * 180) / Math.PI;
  expect(found.advice).toContain(`by up to ${turned.toFixed(0)}°`);
  expect(found.advice).toMatch(/from \d+ mm on/);
});

test("sentences speak in the unit on show", () => {
  const spoilt = changed(knife, FIRES["behind-edge-thick"]!);
  const words = judge(spoilt, undefined, { unit: "thou" }).findings.find(
    (f) => f.id === "behind-edge-thick",
  )!.message;
  expect(words).toContain("31.5 thou");
  expect(words).not.toContain("mm");
});

test("every purpose's ranges run upward", () => {
  for (const { behind, edgeAngle, at5, at10 } of PURPOSES) {
    expect(behind[0]).toBeLessThan(behind[1]);
    expect(edgeAngle[0]).toBeLessThan(edgeAngle[1]);
    if (at5 !== null && at10 !== null) expect(at5).toBeLessThan(at10);
  }
});
