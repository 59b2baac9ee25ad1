import { readdirSync, readFileSync } from "node:fs";
import { dirname, join, relative } from "node:path";
import { fileURLToPath } from "node:url";

const PROJECT = join(dirname(fileURLToPath(import.meta.url)), "../..");
/** What a package's name stands for in an import. */
const PACKAGES = {
  "@true-spine/core": "packages/core/src",
  "@true-spine/formats": "packages/formats/src",
  "@true-spine/instruments": "apps/instruments/src",
  "@true-spine/server": "apps/server/src",
};
const SOURCES = [...Object.values(PACKAGES), "apps/web/src"];

/** Every source file with the source files it imports, types too: paths from the project's root. */
export function importsDrawn() {
  const files = SOURCES.flatMap((folder) => sourcesIn(join(PROJECT, folder)));
  const known = new Set(files.map((file) => relative(PROJECT, file)));
  return new Map(
    files.map((file) => [relative(PROJECT, file), importsOf(file).filter((to) => known.has(to))]),
  );
}

function sourcesIn(folder) {
  return readdirSync(folder, { recursive: true })
    .filter((name) => /\.tsx?$/.test(name))
    .map((name) => join(folder, name));
}

function importsOf(file) {
  const text = readFileSync(file, "utf8");
  return [...text.matchAll(/(?:\bfrom|\bimport)\s*\(?\s*"([^"]+)"/g)].flatMap(([, to]) => {
    const path = to.replace(/\?.*$/, "");
    if (path.startsWith(".")) return [relative(PROJECT, join(dirname(file), path))];
    const name = Object.keys(PACKAGES).find((one) => path.startsWith(`${one}/`));
    return name ? [PACKAGES[name] + path.slice(name.length)] : [];
  });
}

/** Files that import one another in a circle, each circle once. Source: Tarjan's strongly connected components, 1972. */
export function circlesIn(imports) {
  const index = new Map();
  const low = new Map();
  const stack = [];
  const circles = [];
  const visit = (file) => {
    index.set(file, index.size);
    low.set(file, index.get(file));
    stack.push(file);
    for (const to of imports.get(file) ?? []) {
      if (!index.has(to)) {
        visit(to);
        low.set(file, Math.min(low.get(file), low.get(to)));
      } else if (stack.includes(to)) low.set(file, Math.min(low.get(file), index.get(to)));
    }
    if (low.get(file) !== index.get(file)) return;
    const circle = stack.splice(stack.indexOf(file));
    if (circle.length > 1 || imports.get(file)?.includes(file)) circles.push(circle);
  };
  for (const file of imports.keys()) if (!index.has(file)) visit(file);
  return circles;
}
