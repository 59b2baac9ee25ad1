import type { Drawing, Path, Point } from "./drawing.ts";

const MARGIN = 5;

/** A drawing as SVG in true millimetres: a group for each layer, curves as they are, y turned down. */
export function writeSvg({ name, layers, box }: Drawing): string {
  const [x, y] = [box.left - MARGIN, -box.top - MARGIN];
  const [width, height] = [box.right - box.left + 2 * MARGIN, box.top - box.bottom + 2 * MARGIN];
  const groups = layers.map(({ name: layer, paths, circles }) => {
    const drawn = [
      ...paths.map((path) => `<path d="${pathData(path)}"/>`),
      ...circles.map(
        ({ at, diameter }) => `<circle cx="${f(at[0])}" cy="${f(-at[1])}" r="${f(diameter / 2)}"/>`,
      ),
    ];
    return `  <g id="${layer}">\n    ${drawn.join("\n    ")}\n  </g>`;
  });
  return `<?xml version="1.0" encoding="UTF-8"?>
<svg xmlns="http://www.w3.org/2000/svg" width="${f(width)}mm" height="${f(height)}mm" viewBox="${f(x)} ${f(y)} ${f(width)} ${f(height)}" fill="none" stroke="black" stroke-width="0.1">
  <title>${escaped(name)}</title>
${groups.join("\n")}
</svg>
`;
}

function pathData({ start, pieces, isClosed }: Path): string {
  const p = ([x, y]: Point) => `${f(x)} ${f(-y)}`;
  const body = pieces.map(({ to, controls }) =>
    controls ? `C${p(controls[0])} ${p(controls[1])} ${p(to)}` : `L${p(to)}`,
  );
  return `M${p(start)}${body.join("")}${isClosed ? "Z" : ""}`;
}

/** To a ten-thousandth of a millimetre. */
function f(value: number): string {
  return String(Number(value.toFixed(4)) + 0);
}

export function escaped(text: string): string {
  return text.replace(/&/g, "&amp;").replace(/</g, "&lt;").replace(/>/g, "&gt;").replace(/"/g, "&quot;");
}
