/** The rail's one x axis: millimetres along the blade to pixels across a strip. */
export interface Scale {
  readonly from: number;
  readonly to: number;
  readonly width: number;
  readonly perMm: number;
  px(mm: number): number;
  mm(px: number): number;
}

export function scaleFor(
  from: number,
  to: number,
  width: number,
  margin: { left: number; right: number },
): Scale {
  const perMm = (width - margin.left - margin.right) / (to - from);
  return {
    from,
    to,
    width,
    perMm,
    px: (mm) => margin.left + (mm - from) * perMm,
    mm: (px) => from + (px - margin.left) / perMm,
  };
}

const STEPS = [1, 2, 5, 10, 20, 25, 50, 100, 200];

/** Round places for a ruler, at least `apart` pixels from one another, in units of `unit` mm. */
export function ticks(scale: Scale, apart: number, unit: number): number[] {
  const step = (STEPS.find((s) => s * unit * scale.perMm >= apart) ?? 500) * unit;
  const first = Math.ceil(scale.mm(0) / step);
  const last = Math.floor(scale.mm(scale.width) / step);
  return Array.from({ length: Math.max(0, last - first + 1) }, (_, i) => (first + i) * step);
}

/** An SVG path through points given in mm, y up, drawn from a scale and the pixel row of y = 0. */
export function pathThrough(
  points: readonly (readonly [number, number])[],
  px: (x: number) => number,
  py: (y: number) => number,
  close = false,
): string {
  if (points.length === 0) return "";
  return `M${points.map(([x, y]) => `${px(x).toFixed(2)} ${py(y).toFixed(2)}`).join("L")}${close ? "Z" : ""}`;
}
