import { describe, expect, test } from "vitest";
import { circlesIn, importsDrawn } from "./imports.mjs";

const imports = importsDrawn();
const arrows = [...imports].flatMap(([from, all]) => all.map((to) => [from, to]));
const homeOf = (file) => file.split("/").slice(0, 2).join("/");

describe("imports", () => {
  test("are all seen: a file here and there, and what it is known to import", () => {
    expect(imports.size).toBeGreaterThan(300);
    expect(imports.get("packages/core/src/blade/field.ts")).toContain("packages/core/src/blade/chain.ts");
    expect(imports.get("apps/web/src/blade/screen.ts")).toContain("apps/web/src/blade/judged.ts");
    expect(imports.get("apps/web/src/pages/blade/pages.ts")).toContain(
      "apps/web/src/pages/grind/GrindPage.tsx",
    );
  });

  test("go round in no circle, types neither", () => {
    expect(
      circlesIn(
        new Map([
          ["a", ["b"]],
          ["b", ["c"]],
          ["c", ["b"]],
        ]),
      ),
    ).toEqual([["b", "c"]]);
    expect(circlesIn(imports)).toEqual([]);
  });

  test("run one way between packages: web and server to formats to core", () => {
    const allowed = {
      "packages/core": [],
      "packages/formats": ["packages/core"],
      "apps/instruments": ["packages/core"],
      "apps/server": ["packages/core", "packages/formats", "apps/instruments"],
      "apps/web": ["packages/core", "packages/formats"],
    };
    const against = arrows.filter(([from, to]) => {
      const [a, b] = [homeOf(from), homeOf(to)];
      return a !== b && !allowed[a].includes(b);
    });
    expect(against).toEqual([]);
  });

  test("run one way between the core's folders, from the registry above all down to the units", () => {
    const stream = [
      ["record"],
      ["registry", "evaluate"],
      ["sums"],
      ["design", "work"],
      ["findings"],
      ["inspect"],
      ["route"],
      ["straight"],
      ["handle", "shop"],
      ["grind", "edge", "abrasive", "forge", "heat"],
      ["blade", "photo"],
      ["document", "steel", "units"],
      ["numbers"],
    ];
    const level = new Map(stream.flatMap((names, at) => names.map((name) => [name, at])));
    const folderOf = (file) => /^packages\/core\/src\/([a-z]+)\//.exec(file)?.[1];
    const within = arrows
      .map(([from, to]) => [from, to, folderOf(from), folderOf(to)])
      .filter(([, , a, b]) => a && b && a !== b);
    expect(new Set(within.flatMap(([, , a, b]) => [a, b]))).toEqual(new Set(level.keys()));
    expect(
      within.filter(([, , a, b]) => level.get(a) >= level.get(b)).map(([from, to]) => [from, to]),
    ).toEqual([]);
  });
});
