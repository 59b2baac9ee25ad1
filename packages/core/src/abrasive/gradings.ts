/**
 * Grading scales of abrasives. The scales differ and must not be mixed by number: every abrasive is kept by its mean
 * particle, µm, and shown by its own label. A scale is a table from grade to µm, coarse to fine.
 */
export interface Scale {
  readonly key: "P" | "CAMI" | "JIS" | "micron";
  readonly name: string;
  readonly source: string;
  readonly grades: readonly (readonly [grade: string, microns: number])[];
}

const P: Scale = {
  key: "P",
  name: "P",
  source: "from memory of ISO 6344 and the FEPA 43 standard",
  grades: [
    ["P36", 538],
    ["P40", 425],
    ["P50", 336],
    ["P60", 269],
    ["P80", 201],
    ["P100", 162],
    ["P120", 125],
    ["P150", 100],
    ["P180", 82],
    ["P220", 68],
    ["P240", 58.5],
    ["P280", 52.2],
    ["P320", 46.2],
    ["P360", 40.5],
    ["P400", 35],
    ["P500", 30.2],
    ["P600", 25.8],
    ["P800", 21.8],
    ["P1000", 18.3],
    ["P1200", 15.3],
    ["P1500", 12.6],
    ["P2000", 10.3],
    ["P2500", 8.4],
  ],
};

const CAMI: Scale = {
  key: "CAMI",
  name: "CAMI",
  source: "from memory of ANSI B74.18",
  grades: [
    ["36", 535],
    ["50", 351],
    ["60", 268],
    ["80", 192],
    ["100", 141],
    ["120", 116],
    ["150", 93],
    ["180", 78],
    ["220", 66],
    ["240", 53.5],
    ["280", 44],
    ["320", 36],
    ["360", 28.8],
    ["400", 23.6],
    ["500", 19.7],
    ["600", 16],
    ["800", 12.2],
    ["1000", 9.2],
  ],
};

const JIS: Scale = {
  key: "JIS",
  name: "stones, JIS",
  source: "from memory of JIS R 6001; coarser than 240 about, by its macro grits",
  grades: [
    ["#24", 710],
    ["#36", 500],
    ["#60", 250],
    ["#80", 180],
    ["#120", 105],
    ["#150", 75],
    ["#220", 63],
    ["#240", 57],
    ["#320", 40],
    ["#400", 30],
    ["#600", 20],
    ["#800", 14],
    ["#1000", 11.5],
    ["#1200", 9.5],
    ["#2000", 6.7],
    ["#3000", 4],
    ["#6000", 2],
    ["#8000", 1.2],
  ],
};

/** Belts and pastes that carry their size; structured belts, whose letters are a maker's own, are kept by it too. */
const MICRON: Scale = { key: "micron", name: "microns", source: "the size is the grade", grades: [] };

export const SCALES: readonly Scale[] = [P, CAMI, JIS, MICRON];
export type ScaleKey = Scale["key"];

/** A scale by its key. */
export function scaleOf(key: ScaleKey): Scale {
  return SCALES.find((scale) => scale.key === key)!;
}

/** Mean particle of a grade, µm; null where the scale has no such grade. A micron grade is read as its number. */
export function micronsOf(key: ScaleKey, grade: string): number | null {
  if (key === "micron") {
    const size = Number(grade.trim().replace(/\s*(µm|um|micron)s?$/i, ""));
    return grade.trim() !== "" && Number.isFinite(size) && size > 0 && size <= 2000 ? size : null;
  }
  return scaleOf(key).grades.find(([name]) => name === grade)?.[1] ?? null;
}

/** The grade of a scale nearest to a particle, by ratio, and how many times as coarse it is. Null for microns. */
export function nearestGrade(key: ScaleKey, microns: number): { grade: string; times: number } | null {
  let best: { grade: string; times: number } | null = null;
  for (const [grade, size] of scaleOf(key).grades) {
    const times = size / microns;
    if (!best || Math.abs(Math.log(times)) < Math.abs(Math.log(best.times))) best = { grade, times };
  }
  return best;
}

/** Share of the particle that its deepest scratch is. Source: common practice, a tenth to a seventh; shops differ. */
export const SCRATCH_SHARE = 0.12;

/** Depth of the scratches that a particle of `microns` leaves, mm. */
export function scratchDepth(microns: number, share = SCRATCH_SHARE): number {
  return (microns * share) / 1000;
}
