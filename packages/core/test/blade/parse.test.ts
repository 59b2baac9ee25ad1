import { Ajv } from "ajv";
import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { parseBlade, parseBladeText, shapeFaults } from "../../src/blade/parse.ts";
import { type Blade, BladeSchema } from "../../src/blade/schema.ts";
import { stationAt } from "../../src/blade/station.ts";
import { example, exampleText, PIECES } from "../examples.ts";

// biome-ignore lint/suspicious/noExplicitAny: files are broken here on purpose
type Loose = any;

const paths = (value: unknown) => {
  const parsed = parseBlade(value);
  return parsed.ok ? [] : parsed.faults.map((fault) => fault.path);
};
const broken = (change: (file: Loose) => void, name = "field") => {
  const file = JSON.parse(exampleText(name));
  change(file);
  return paths(file);
};

describe("a sound file", () => {
  test.each(["prism", "field", ...PIECES.map((p) => `piece-${p}`)])("%s is taken as it is", (name) => {
    const text = exampleText(name);
    const parsed = parseBladeText(text);
    expect(parsed).toMatchObject({ ok: true, blade: JSON.parse(text) });
  });

  test("needs neither holes nor a false edge's radius", () => {
    expect(
      broken((file) => {
        delete file.holes;
        delete file.falseEdge.radius;
        delete file.edge.behind[0].u;
      }),
    ).toEqual(["$.edge.behind[0].u"]);
  });
});

describe("each fault is told with its path", () => {
  test.each<[string, (file: Loose) => void, string[]]>([
    ["an unknown key", (f) => (f.colour = 1), ["$.colour"]],
    ["an unknown key deep down", (f) => (f.edge.angle.front = 1), ["$.edge.angle.front"]],
    ["a wrong type", (f) => (f.thickness[1].t = "4"), ["$.thickness[1].t"]],
    ["a huge number", (f) => (f.outline.spine[1].at[0] = 1e300), ["$.outline.spine[1].at[0]"]],
    ["no number at all", (f) => (f.edge.rightShare = Number.NaN), ["$.edge.rightShare"]],
    ["a missing key", (f) => delete f.edge.angle.left, ["$.edge.angle.left"]],
    ["another version", (f) => (f.version = 2), ["$.version"]],
    ["stock too thick", (f) => (f.thickness[0].t = 26), ["$.thickness[0].t"]],
    ["a table out of order", (f) => (f.thickness[1].x = -200), ["$.thickness[1].x"]],
    ["a table standing still", (f) => (f.edge.behind[1].u = 0), ["$.edge.behind[1].u"]],
    ["an open tip", (f) => (f.outline.edge[2].at = [125, -8.9]), ["$.outline.edge[2].at"]],
    ["an open heel", (f) => (f.outline.tang[0].at = [8, -29]), ["$.outline.tang[0].at"]],
    ["a node on its neighbour", (f) => (f.outline.tang[1].at = [8, -30]), ["$.outline.tang[1].at"]],
    ["an outline that crosses", (f) => (f.outline.tang[2].at = [-110, 20]), ["$.outline.tang[1]"]],
    [
      "a wheel on a flat bevel",
      (f) => (f.bevels.right.wheelDiameter = 200),
      ["$.bevels.right.wheelDiameter"],
    ],
    ["a bevel of no kind", (f) => (f.bevels.right.kind = "wavy"), ["$.bevels.right.kind"]],
    [
      "a hollow pulled straight",
      (f) => Object.assign(f.bevels.right, { kind: "hollow", pull: "straight" }),
      ["$.bevels.right.pull"],
    ],
    [
      "a hollow by angle",
      (f) => Object.assign(f.bevels.right, { kind: "hollow", set: "angle" }),
      ["$.bevels.right.set"],
    ],
    ["a left side that is neither", (f) => (f.bevels.left = "mirror"), ["$.bevels.left"]],
    ["a plunge ahead of the tip", (f) => (f.bevels.right.plunge.x = 300), ["$.bevels.right.plunge.x"]],
    ["no edge angle under thickness", (f) => (f.edge.angle.left = 0), ["$.edge.angle.left"]],
    ["a shoulder as thick as the flat", (f) => (f.edge.behind[1].t = 1.7), ["$.edge.behind"]],
    ["a false edge backwards", (f) => (f.falseEdge.to = 20), ["$.falseEdge.to"]],
    ["a hole outside", (f) => (f.holes[0].y = 5), ["$.holes[0]"]],
    ["a hole through the rim", (f) => (f.holes[0].y = -1), ["$.holes[0]"]],
    ["holes in one another", (f) => f.holes.push({ x: -28, y: -13, d: 5 }), ["$.holes[1]"]],
    ["an edge above the spine", (f) => flip(f), ["$.outline.edge"]],
    ["two faults at once", (f) => Object.assign(f, { name: "", version: 3 }), ["$.version", "$.name"]],
  ])("%s", (_, change, wanted) => {
    expect(new Set(broken(change))).toEqual(new Set(wanted));
  });

  function flip(file: Loose) {
    for (const chain of Object.values<Loose>(file.outline)) {
      for (const node of chain) {
        for (const key of ["at", "back", "ahead"]) if (node[key]) node[key][1] *= -1;
      }
    }
    file.holes = [];
  }

  test("a hollow too tall for its wheel, or necked above the shoulder", () => {
    expect(broken((f) => (f.bevels.right.wheelDiameter = 15), "piece-hollow")).toEqual([
      "$.bevels.right.wheelDiameter",
    ]);
    // From the shoulder, 0.687 up, to the line 20 up, and from 0.25 out to 2: √(19.313² + 1.75²).
    const small = parseBlade(JSON.parse(exampleText("piece-hollow").replace("254", "15")));
    expect(small.ok ? "" : small.faults[0]!.message).toContain("19.392 mm wide");
    const necked = parseBlade(
      JSON.parse(exampleText("piece-hollow").replace('"wheelDiameter": 254', '"wheelDiameter": 120')),
    );
    expect(necked.ok ? "" : necked.faults[0]!.message).toMatch(/thinner .* above the shoulder/);
  });

  test("a convex face that turns down again", () => {
    expect(broken((f) => (f.bevels.right.bulge = 3), "piece-convex")).toEqual(["$.bevels.right.bulge"]);
  });

  test("a straight pull toward an edge that lies in a face", () => {
    expect(broken((f) => (f.edge.offset = "left-face"), "piece-straight")).toContain("$.edge.offset");
  });

  test.each([
    "",
    "{",
    '{"format":',
    "[]",
    "null",
    "7",
    '"blade"',
    '{"a" 1}',
    exampleText("field").slice(0, 400),
  ])("text that is no blade: %j", (text) => {
    const parsed = parseBladeText(text);
    expect(parsed.ok).toBe(false);
    expect(parsed.ok ? [] : parsed.faults.map((f) => f.path)).not.toEqual([]);
  });

  test("a flood of faults is cut short, and a file too long is not read", () => {
    const flood = broken((f) => (f.holes = Array.from({ length: 60 }, () => ({ x: "a", y: 1, d: 2 }))));
    expect(flood).toHaveLength(41);
    const long = parseBladeText(" ".repeat(2_000_001));
    expect(long.ok ? "" : long.faults[0]!.message).toMatch(/too long/);
  });
});

describe("hostile input", () => {
  test("keys that reach for the prototype are refused like any other", () => {
    const file = JSON.parse(
      exampleText("field").replace('"version"', '"__proto__": {"polluted": true}, "version"'),
    );
    expect(paths(file)).toContain("$.__proto__");
    expect(({} as Loose).polluted).toBeUndefined();
  });

  test("whatever is put anywhere, the parser answers, and agrees with the published schema", () => {
    const validate = new Ajv({ strict: true, strictTuples: false }).compile(BladeSchema);
    const names = ["field", "piece-chisel", "piece-hollow", "piece-convex", "piece-straight", "piece-full"];
    fc.assert(
      fc.property(
        fc.constantFrom(...names),
        fc.nat(),
        fc.jsonValue({ maxDepth: 2 }),
        fc.boolean(),
        (name, where, value, drop) => {
          const file = structuredClone(example(name)) as Loose;
          const holders = containers(file);
          const holder = holders[where % holders.length]!;
          const keys = Object.keys(holder);
          const key = keys[where % keys.length]!;
          if (drop && !Array.isArray(holder)) delete holder[key];
          else holder[key] = value;
          expect(shapeFaults(file).length === 0).toBe(validate(file));
          expect(() => parseBlade(file)).not.toThrow();
        },
      ),
      { numRuns: 400 },
    );
  });

  function containers(value: Loose): Loose[] {
    if (typeof value !== "object" || value === null) return [];
    return [value, ...Object.values(value).flatMap(containers)].filter((v) => Object.keys(v).length > 0);
  }
});

test("the types follow the schema", () => {
  const blade: Blade = example("field");
  expect(blade.outline.spine[0]!.at).toEqual([0, 0]);
});

test("the flat side of a chisel edge may be hollowed between its edge and its line", () => {
  const chisel = example("piece-chisel");
  const hollowed = {
    ...chisel,
    bevels: {
      ...chisel.bevels,
      left: {
        kind: "hollow",
        wheelDiameter: 800,
        pull: "follow",
        set: "height",
        height: [{ u: 0, h: 12 }],
        plunge: { x: 0, lean: 0, radius: 0 },
      },
    },
  };
  const parsed = parseBlade(hollowed);
  if (!parsed.ok) throw new Error(JSON.stringify(parsed.faults));
  const { cut } = stationAt(parsed.field, 0.5);
  const left = (height: number) => {
    parsed.field.sampleAt(cut.x + cut.dx * height, cut.y + cut.dy * height);
    return parsed.field.left.lowest;
  };
  // Source: geometry; an arc of radius R over a chord c has the sagitta R - sqrt(R^2 - c^2/4).
  const sagitta = 400 - Math.sqrt(400 ** 2 - 6 ** 2);
  expect(left(6)).toBeCloseTo(2 - sagitta, 6);
  expect(left(12)).toBeCloseTo(2, 6);
  expect(left(0)).toBeCloseTo(2, 6);
});
