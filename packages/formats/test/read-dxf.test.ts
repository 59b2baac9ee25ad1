import { describe, expect, test } from "vitest";
import { flattened } from "../src/drawing.ts";
import { throughPoints } from "../src/dxf-spline.ts";
import { readDxf } from "../src/read-dxf.ts";

/** DXF by its group codes, as any drawing program may write it. Sources: the format's own description; areas by geometry. */
const pairs = (...groups: (string | number)[]) => {
  let text = "";
  for (let i = 0; i < groups.length; i += 2) text += `${groups[i]}\n${groups[i + 1]}\n`;
  return text;
};
const section = (name: string, body: string) => `${pairs(0, "SECTION", 2, name)}${body}${pairs(0, "ENDSEC")}`;
const file = (entities: string, { tables = "", blocks = "" } = {}) =>
  `${section("HEADER", pairs(9, "$INSUNITS", 70, 4))}${section("TABLES", tables)}${section("BLOCKS", blocks)}${section("ENTITIES", entities)}${pairs(0, "EOF")}`;
const layer = (name: string, { off = false, frozen = false } = {}) =>
  pairs(0, "LAYER", 2, name, 70, frozen ? 1 : 0, 62, off ? -7 : 7);
const layers = (...all: string[]) =>
  `${pairs(0, "TABLE", 2, "LAYER", 70, all.length)}${all.join("")}${pairs(0, "ENDTAB")}`;
const block = (name: string, body: string, base = [0, 0]) =>
  `${pairs(0, "BLOCK", 8, 0, 2, name, 70, 0, 10, base[0]!, 20, base[1]!, 30, 0)}${body}${pairs(0, "ENDBLK")}`;
const slab = (w: number, h: number, { x = 0, y = 0, on = "0", more = [] as (string | number)[] } = {}) => {
  const at = [x, y, x + w, y, x + w, y + h, x, y + h];
  const vertices = [0, 2, 4, 6].flatMap((i) => [10, at[i]!, 20, at[i + 1]!]);
  return pairs(0, "LWPOLYLINE", 8, on, 90, 4, 70, 1, ...vertices, ...more);
};
const circle = (x: number, y: number, r: number, ...more: (string | number)[]) =>
  pairs(0, "CIRCLE", 8, 0, 10, x, 20, y, 30, 0, 40, r, ...more);
const insert = (name: string, x: number, y: number, ...more: (string | number)[]) =>
  pairs(0, "INSERT", 8, 0, 2, name, 10, x, 20, y, 30, 0, ...more);

function sound(text: string) {
  const read = readDxf(text);
  expect(read).toMatchObject({ ok: true });
  if (!read.ok) throw new Error(read.why);
  const points = flattened(read.drawing.contours[0]!, 1e-4);
  const twice = points.reduce((sum, [x, y], i) => {
    const [nx, ny] = points[(i + 1) % points.length]!;
    return sum + x * ny - nx * y;
  }, 0);
  return { ...read.drawing, area: Math.abs(twice) / 2 };
}
const boxOf = (text: string) => {
  const points = sound(text).contours[0]!.pieces.map(({ to }) => to);
  const [xs, ys] = [points.map(([x]) => x), points.map(([, y]) => y)];
  return [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)].map((v) =>
    Number(v.toFixed(6)),
  );
};

describe("splines", () => {
  /** A whole circle of radius 12 as a rational spline of degree two: nine points, every other weight √½. */
  const weights = [0, 1, 2, 3, 4, 5, 6, 7, 8].map((i) => (i % 2 ? Math.SQRT1_2 : 1));
  const corners = [
    [12, 0],
    [12, 12],
    [0, 12],
    [-12, 12],
    [-12, 0],
    [-12, -12],
    [0, -12],
    [12, -12],
    [12, 0],
  ];
  const spline = (...more: (string | number)[]) =>
    pairs(
      ...[0, "SPLINE", 8, 0, 70, 5, 71, 2, 72, 12, 73, 9],
      ...[0, 0, 0, 1, 1, 2, 2, 3, 3, 4, 4, 4].flatMap((knot) => [40, knot]),
      ...more,
      ...corners.flatMap(([x, y]) => [10, x!, 20, y!, 30, 0]),
    );

  test("a butt drawn as a rational spline is as round as it is drawn", () => {
    const { contours, area } = sound(file(spline(...weights.flatMap((w) => [41, w]))));
    expect(area / (Math.PI * 144)).toBeCloseTo(1, 4);
    for (const { to, controls } of contours[0]!.pieces) {
      expect(Math.hypot(...to)).toBeCloseTo(12, 9);
      for (const control of controls!) expect(Math.hypot(...control)).toBeGreaterThan(12);
    }
    // Without its weights it bulges into the corners: 0.73 mm and more off.
    const bare = sound(file(spline()));
    expect(Math.max(...bare.contours[0]!.pieces.map(({ to }) => Math.hypot(...to)))).toBeCloseTo(12, 9);
    expect(bare.area / (Math.PI * 144)).toBeGreaterThan(1.02);
  });

  test("a weight that is none, or one too few, is no spline, and is told", () => {
    for (const wrong of [weights.map((w) => -w), weights.slice(1)]) {
      const read = readDxf(file(spline(...wrong.flatMap((w) => [41, w]))));
      expect(read).toMatchObject({ ok: false, why: expect.stringContaining("1 of SPLINE") });
    }
  });

  test("points that a curve goes through make it round, not chords", () => {
    const points = Array.from({ length: 12 }, (_, i) => [
      Math.cos((i * Math.PI) / 6) * 20,
      Math.sin((i * Math.PI) / 6) * 20,
    ]);
    const fit = pairs(
      0,
      "SPLINE",
      8,
      0,
      70,
      1,
      71,
      3,
      74,
      12,
      ...points.flatMap(([x, y]) => [11, x!, 21, y!, 31, 0]),
    );
    // Chords have 12·½·sin 30° = 3 of π.
    expect(sound(file(fit)).area / (Math.PI * 400)).toBeCloseTo(1, 3);
  });

  test("an open one is that of a cubic where its points and tangents are, and a straight one where they are in line", () => {
    const cubic = (t: number): [number, number] => [t, t ** 3 / 100];
    const points = Array.from({ length: 21 }, (_, i) => cubic(i / 2));
    const path = throughPoints(points, false, { start: [1, 0], end: [1, 3] })!;
    for (const [i, { to, controls }] of path.pieces.entries()) {
      const from = i === 0 ? path.start : path.pieces[i - 1]!.to;
      const y = (from[1] + 3 * controls![0][1] + 3 * controls![1][1] + to[1]) / 8;
      const x = (from[0] + 3 * controls![0][0] + 3 * controls![1][0] + to[0]) / 8;
      expect(y).toBeCloseTo(cubic(x)[1], 3);
    }
    const straight = throughPoints(
      [
        [0, 0],
        [1, 1],
        [5, 5],
        [6, 6],
      ],
      false,
    )!;
    for (const { controls } of straight.pieces) for (const [x, y] of controls!) expect(y).toBeCloseTo(x, 9);
    expect(
      throughPoints(
        [
          [1, 1],
          [1, 1],
        ],
        false,
      ),
    ).toBeNull();
  });
});

describe("what is seen and what is not", () => {
  test("layers that are off or frozen, the sheet of paper and what is invisible are no knife, and are told", () => {
    const tables = layers(layer("0"), layer("frame", { off: true }), layer("old", { frozen: true }));
    const text = file(
      [
        slab(420, 297, { on: "frame" }),
        slab(300, 80, { on: "old" }),
        slab(297, 210, { more: [67, 1] }),
        slab(250, 60, { more: [60, 1] }),
        slab(120, 30),
      ].join(""),
      { tables },
    );
    const { area, contours, notes } = sound(text);
    expect(area).toBeCloseTo(3600, 6);
    expect(contours).toHaveLength(1);
    expect(notes.join(" ")).toMatch(/1 on the layer “frame”, which is off or frozen, passed over\./);
    expect(notes.join(" ")).toMatch(/“old”.*on the sheet of paper.*invisible/);
  });

  test("where all of it is hidden, that is the reason, and not that nothing is drawn", () => {
    const tables = layers(layer("knife", { off: true }));
    const read = readDxf(file(slab(120, 30, { on: "knife" }), { tables }));
    expect(read).toMatchObject({
      ok: false,
      why: expect.stringMatching(/layer “knife”, which is off or frozen/),
    });
  });

  test("seen from behind it is turned over: outline, hole and old polyline alike; a line stays where it is", () => {
    const behind = [210, 0, 220, 0, 230, -1];
    const old = `${pairs(0, "POLYLINE", 8, 0, 66, 1, 70, 1, ...behind)}${[
      [0, 0],
      [100, 0],
      [100, 20],
      [0, 20],
    ]
      .map(([x, y]) => pairs(0, "VERTEX", 8, 0, 10, x!, 20, y!, 30, 0))
      .join("")}${pairs(0, "SEQEND")}`;
    for (const outline of [slab(100, 20, { more: behind }), old]) {
      const text = file(outline + circle(10, 10, 3, ...behind));
      expect(boxOf(text)).toEqual([-100, 0, 0, 20]);
      expect(sound(text).circles).toEqual([{ at: [-10, 10], diameter: 6 }]);
    }
    const lines = [
      [0, 0, 50, 0],
      [50, 0, 50, 10],
      [50, 10, 0, 0],
    ].map(([a, b, c, d]) => pairs(0, "LINE", 8, 0, 10, a!, 20, b!, 30, 0, 11, c!, 21, d!, 31, 0, ...behind));
    expect(boxOf(file(lines.join("")))).toEqual([0, 0, 50, 10]);
  });

  test("what is filled, solid or endless is no outline, and is told by its name", () => {
    const filled = pairs(0, "HATCH", 8, 0, 10, 0, 20, 0, 2, "SOLID", 0, "XLINE", 8, 0, 10, 0, 20, 0);
    expect(readDxf(file(filled))).toMatchObject({
      ok: false,
      why: "Nothing in it is a line of an outline. 1 of HATCH, not a line of an outline, passed over. 1 of XLINE, not a line of an outline, passed over.",
    });
    expect(sound(file(filled + slab(120, 30)))).toMatchObject({
      area: 3600,
      notes: [/HATCH/, /XLINE/].map((word) => expect.stringMatching(word)),
    });
  });

  test("what is drawn in another plane is told", () => {
    const text = file(slab(100, 20) + circle(10, 10, 3, 210, 1, 220, 0, 230, 0));
    expect(sound(text)).toMatchObject({ circles: [], notes: ["1 drawn in another plane passed over."] });
  });
});

describe("blocks", () => {
  const knife = slab(100, 20) + circle(10, 10, 3);

  test("a knife in a block stands where it is inserted: moved, turned, scaled, in rows", () => {
    const blocks = block("knife", knife, [5, 0]);
    expect(boxOf(file(insert("knife", 50, 7), { blocks }))).toEqual([45, 7, 145, 27]);
    expect(boxOf(file(insert("knife", 0, 0, 50, 90), { blocks }))).toEqual([-20, -5, 0, 95]);
    const scaled = sound(file(insert("knife", 0, 0, 41, 2, 42, 2), { blocks }));
    expect(scaled.area).toBeCloseTo(8000, 6);
    expect(scaled.circles).toEqual([{ at: [10, 20], diameter: 12 }]);
    const rows = sound(file(insert("knife", 0, 0, 70, 2, 71, 3, 44, 120, 45, 40), { blocks }));
    expect(rows.contours).toHaveLength(6);
    expect(rows.circles.map(({ at }) => at)).toContainEqual([125, 90]);
    // From behind.
    expect(boxOf(file(insert("knife", 0, 0, 210, 0, 220, 0, 230, -1), { blocks }))).toEqual([-95, 0, 5, 20]);
  });

  test("a hole that is scaled unlike is an ellipse, of its area", () => {
    const blocks = block("hole", circle(0, 0, 10));
    const { circles, area } = sound(file(insert("hole", 0, 0, 41, 3, 42, 1), { blocks }));
    expect(circles).toEqual([]);
    expect(area / (Math.PI * 300)).toBeCloseTo(1, 3);
  });

  test("blocks within blocks; what is on layer 0 of a block is on the layer it was put in on", () => {
    const tables = layers(layer("0"), layer("off", { off: true }), layer("on"));
    const blocks =
      block("inner", slab(100, 20) + slab(400, 200, { on: "off" })) + block("outer", insert("inner", 10, 0));
    const shown = sound(file(insert("outer", 0, 0).replace("8\n0", "8\non"), { tables, blocks }));
    expect(shown.area).toBeCloseTo(2000, 6);
    const hidden = readDxf(file(insert("outer", 0, 0).replace("8\n0", "8\noff"), { tables, blocks }));
    expect(hidden).toMatchObject({ ok: false, why: expect.stringContaining("which is off or frozen") });
  });

  test("one that is not there, that holds itself, or comes a thousand times is told, and ends", () => {
    expect(readDxf(file(insert("gone", 0, 0)))).toMatchObject({
      ok: false,
      why: expect.stringContaining("“gone”, which is not in the file"),
    });
    const blocks = block("self", slab(100, 20) + insert("self", 1, 1));
    expect(sound(file(insert("self", 0, 0), { blocks })).notes.join(" ")).toContain("nested too deep");
    const many = file(insert("self", 0, 0, 70, 1000, 71, 1000), { blocks });
    expect(readDxf(many)).toMatchObject({ ok: false, why: expect.stringContaining("too many") });
    const twice =
      block("a", slab(9, 9) + insert("b", 0, 0) + insert("b", 1, 0)) +
      block("b", insert("a", 0, 0) + insert("a", 0, 1));
    expect(readDxf(file(insert("a", 0, 0), { blocks: twice })).ok).toBe(true);
  });
});

describe("ellipses", () => {
  const ellipse = (...more: (string | number)[]) =>
    pairs(0, "ELLIPSE", 8, 0, 10, 5, 20, 3, 30, 0, 11, 40, 21, 30, 31, 0, 40, 0.25, ...more);
  test("a whole one is an outline of its area; a part of one joins what it meets", () => {
    // Half axes 50 and 12.5.
    expect(sound(file(ellipse(41, 0, 42, 2 * Math.PI))).area / (Math.PI * 50 * 12.5)).toBeCloseTo(1, 3);
    const half = ellipse(41, 0, 42, Math.PI);
    const chord = pairs(0, "LINE", 8, 0, 10, 45, 20, 33, 30, 0, 11, -35, 21, -27, 31, 0);
    expect(sound(file(half + chord)).area / ((Math.PI * 50 * 12.5) / 2)).toBeCloseTo(1, 3);
  });
});
