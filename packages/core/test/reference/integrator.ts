/**
 * A second, slow reading of the blade model that shares no code with the product: curves are chopped into
 * hundreds of straight bits, nearest points are found by trying all of them, and volumes are summed over
 * square cells. Only the file's shape is common to both. What it says is what the core is held to.
 */
interface File {
  outline: Record<"spine" | "edge" | "tang", { at: number[]; back?: number[]; ahead?: number[] }[]>;
  thickness: { x: number; t: number }[];
  edge: {
    behind: { u: number; t: number }[];
    angle: { left: number; right: number };
    rightShare: number;
    offset: number | string;
    start?: number;
    kind?: string;
    bulge?: number;
  };
  // biome-ignore lint/suspicious/noExplicitAny: the reference reads the raw file, untyped on purpose
  bevels: any;
  falseEdge?: { from: number; to: number; angle: number; land: number; radius?: number };
  // biome-ignore lint/suspicious/noExplicitAny: the reference reads the raw file, untyped on purpose
  secondEdge?: any;
  holes?: { x: number; y: number; d: number }[];
}

/** A stage before the finish, as the model defines it: what is left on each face and flat, which late cuts are made. */
export interface ReferenceStage {
  faces: number;
  flats: number;
  edgeBevel: boolean;
  falseEdge: boolean;
  /** Before any bevel; nowhere below the finished steel. */
  bare?: boolean;
  /** Still as thick as the bar. */
  stock?: number | null;
}

type P = [number, number];
const BITS = 400;
const rad = (a: number) => (a / 180) * Math.PI;

function chop(nodes: File["outline"]["spine"]): P[] {
  const out: P[] = [[nodes[0]!.at[0]!, nodes[0]!.at[1]!]];
  for (let k = 1; k < nodes.length; k++) {
    const [a, d] = [nodes[k - 1]!, nodes[k]!];
    const p = [a.at, add(a.at, a.ahead), add(d.at, d.back), d.at] as number[][];
    const straight = zero(a.ahead) && zero(d.back);
    const n = straight ? 1 : Math.ceil(BITS / (nodes.length - 1));
    for (let i = 1; i <= n; i++) out.push(casteljau(p, i / n));
  }
  return out;
}
const zero = (v?: number[]) => v === undefined || (v[0] === 0 && v[1] === 0);
const add = (a: number[], b?: number[]) => [a[0]! + (b?.[0] ?? 0), a[1]! + (b?.[1] ?? 0)];
function casteljau(points: number[][], t: number): P {
  let level = points;
  while (level.length > 1) {
    level = level.slice(1).map((q, i) => [0, 1].map((c) => level[i]![c]! * (1 - t) + q[c]! * t));
  }
  return [level[0]![0]!, level[0]![1]!];
}

function lookUp(rows: [number, number][], at: number): number {
  if (at <= rows[0]![0]) return rows[0]![1];
  for (let i = 1; i < rows.length; i++) {
    const [[a, p], [b, q]] = [rows[i - 1]!, rows[i]!];
    if (at <= b) return p + ((q - p) * (at - a)) / (b - a);
  }
  return rows[rows.length - 1]![1];
}

interface Near {
  d: number;
  along: number;
}

/** What was looked for last along each line: both faces, and every cut on them, ask of the same place. */
const lastNear = new WeakMap<P[], { x: number; y: number; found: Near }>();

function near(line: P[], x: number, y: number): Near {
  const last = lastNear.get(line);
  if (last && last.x === x && last.y === y) return last.found;
  const found = nearest(line, x, y);
  lastNear.set(line, { x, y, found });
  return found;
}

/** How far along a line each of its points lies. */
const runs = new WeakMap<P[], Float64Array>();

function runsOf(line: P[]): Float64Array {
  const known = runs.get(line);
  if (known) return known;
  const run = new Float64Array(line.length);
  for (let i = 1; i < line.length; i++)
    run[i] = run[i - 1]! + Math.hypot(line[i]![0] - line[i - 1]![0], line[i]![1] - line[i - 1]![1]);
  runs.set(line, run);
  return run;
}

function nearest(line: P[], x: number, y: number): Near {
  const run = runsOf(line);
  let [best, along] = [Number.POSITIVE_INFINITY, 0];
  for (let i = 1; i < line.length; ) {
    const [[ax, ay], [bx, by]] = [line[i - 1]!, line[i]!];
    const [ex, ey, size] = [bx - ax, by - ay, run[i]! - run[i - 1]!];
    const share = Math.max(0, Math.min(1, ((x - ax) * ex + (y - ay) * ey) / (size * size)));
    const d = Math.sqrt((ax + ex * share - x) ** 2 + (ay + ey * share - y) ** 2);
    if (d < best) {
      best = d;
      along = run[i - 1]! + share * size;
    }
    // However it turns, it comes no nearer than by what is run along it.
    const until = run[i]! + Math.sqrt((bx - x) ** 2 + (by - y) ** 2) - best;
    for (i++; i < line.length && run[i]! <= until; ) i++;
  }
  return { d: best, along };
}

function lengthOf(line: P[]): number {
  return line.slice(1).reduce((sum, [x, y], i) => sum + Math.hypot(x - line[i]![0], y - line[i]![1]), 0);
}

/** Everything about a file that its thickness is read from. */
export function prepare(raw: unknown, stage?: ReferenceStage) {
  const file = raw as File;
  const edge = chop(file.outline.edge);
  const spine = chop(file.outline.spine);
  const tang = chop(file.outline.tang);
  const ring = [...spine, ...[...edge].reverse(), ...tang];
  const total = lengthOf(edge);
  const heel = edge[0]!;
  const first = firstDirection(file.outline.edge);
  const thick = file.thickness.map((r): [number, number] => [r.x, r.t]);
  const behind = file.edge.behind.map((r): [number, number] => [r.u, r.t]);
  const bevels = {
    right: file.bevels.right,
    left: file.bevels.left === "same" ? file.bevels.right : file.bevels.left,
  };

  function alongAt(x: number): number {
    let run = 0;
    for (let i = 1; i < edge.length; i++) {
      const [[ax, ay], [bx, by]] = [edge[i - 1]!, edge[i]!];
      const size = Math.hypot(bx - ax, by - ay);
      if ((ax <= x && x <= bx) || (bx <= x && x <= ax)) return run + (size * (x - ax)) / (bx - ax || 1);
      run += size;
    }
    return 0;
  }
  const feet = new Map<number, number>();
  function footY(x: number): number {
    const known = feet.get(x) ?? footOf(x);
    feet.set(x, known);
    return known;
  }
  function footOf(x: number): number {
    if (x <= heel[0] && first[0] > 0) return heel[1] + ((x - heel[0]) * first[1]) / first[0];
    for (let i = 1; i < edge.length; i++) {
      const [[ax, ay], [bx, by]] = [edge[i - 1]!, edge[i]!];
      if ((ax <= x && x <= bx) || (bx <= x && x <= ax)) return ay + ((by - ay) * (x - ax)) / (bx - ax || 1);
    }
    throw new Error("no foot");
  }
  const plungeXs = [bevels.right, bevels.left].flatMap((b) =>
    b.kind === "none" ? [] : [b.plunge.x as number],
  );
  const startX = file.edge.start ?? (plungeXs.length > 0 ? Math.max(...plungeXs) : Number.NEGATIVE_INFINITY);
  const startAlong = startX <= heel[0] ? 0 : alongAt(startX);

  function stageHalf(side: "right" | "left", x: number, y: number): number {
    if (!stage?.bare && stage?.stock == null) return halfThickness(side, x, y, stage);
    const slab = stage.stock == null ? lookUp(thick, x) / 2 + stage.flats : stage.stock / 2;
    return Math.max(slab, halfThickness(side, x, y));
  }

  /** A flat edge bevel, or the arc through apex and shoulder that stands so far outside its chord; beyond the shoulder its chord's line. */
  function edgeFace(d: number, dE: number, e: number, alpha: number): number {
    const q = file.edge.kind === "convex" ? file.edge.bulge! : 0;
    if (q === 0 || d >= dE) return d * Math.tan(alpha);
    const chord = Math.hypot(dE, e);
    const r = (chord * chord) / (8 * q) + q / 2;
    // Its centre lies on the chord's bisector, on the steel side.
    const [cd, ch] = [dE / 2 + ((r - q) * e) / chord, e / 2 - ((r - q) * dE) / chord];
    return ch + Math.sqrt(r * r - (d - cd) ** 2);
  }

  function halfThickness(side: "right" | "left", x: number, y: number, left?: ReferenceStage): number {
    const F = lookUp(thick, x) / 2;
    const found = near(edge, x, y);
    let { d, along } = found;
    let onEdge = true;
    const back = -((x - heel[0]) * first[0] + (y - heel[1]) * first[1]);
    if (back > 0) {
      const off = Math.abs((x - heel[0]) * first[1] - (y - heel[1]) * first[0]);
      if (off < d) {
        d = off;
        along = 0;
        onEdge = false;
      }
    }
    const u = along / total;
    const share = side === "right" ? file.edge.rightShare : 1 - file.edge.rightShare;
    const offset = file.edge.offset;
    const o =
      typeof offset === "number" ? (side === "right" ? offset : -offset) : offset.startsWith(side) ? F : -F;
    const alpha = rad(file.edge.angle[side]);
    const e = lookUp(behind, u) * share;
    const dE = e === 0 ? 0 : e / Math.tan(alpha);
    const all = [F + (left?.flats ?? 0)];
    const cutsEdge = (left?.edgeBevel ?? true) && alpha > 0 && onEdge && along >= startAlong - 1e-6;
    if (cutsEdge) all.push(o + edgeFace(d, dE, e, alpha));
    const bevel = bevels[side];
    if (bevel.kind !== "none") {
      const { x: px, lean, radius } = bevel.plunge;
      const py = footY(px);
      const v = (x - px) * Math.cos(rad(lean)) - (y - py) * Math.sin(rad(lean));
      if (v >= 0) {
        const face = (at: number) => primary(bevel, F, o, e, dE, at, u, x, y, px, py, share, alpha, side);
        let h = face(d);
        if (left && left.faces > 0 && Number.isFinite(h)) {
          const slope =
            bevel.pull === "straight"
              ? Math.tan(rad(bevel.angle))
              : bevel.set === "full"
                ? fullSlope(bevel, F, o, e, dE, d, d + near(spine, x, y).d)
                : (face(d + 1e-5) - face(d - 1e-5)) / 2e-5;
          h += left.faces * Math.hypot(1, slope);
        }
        if (v < radius) h += radius - Math.sqrt(radius ** 2 - (radius - v) ** 2);
        if (bevel.pull === "straight" || !(cutsEdge && d < dE)) all.push(h);
        if (bevel.relief && bevel.relief.height > dE && !(cutsEdge && d < dE)) {
          const steep = Math.tan(rad(bevel.relief.angle));
          let eased = o + e + (d - dE) * steep + (left?.faces ?? 0) * Math.hypot(1, steep);
          if (v < radius) eased += radius - Math.sqrt(radius ** 2 - (radius - v) ** 2);
          all.push(eased);
        }
      }
    }
    const fe = (left?.falseEdge ?? true) ? file.falseEdge : undefined;
    if (fe && x >= fe.from && x <= fe.to) {
      const r = fe.radius ?? 0;
      const v = x - fe.from;
      const bump = v < r ? r - Math.sqrt(r ** 2 - (r - v) ** 2) : 0;
      all.push(fe.land / 2 + near(spine, x, y).d * Math.tan(rad(fe.angle)) + bump);
    }
    if (file.secondEdge) all.push(...secondOf(side, x, y, F, d, left));
    return Math.min(...all);
  }

  /** The second edge's own surfaces: the edge's rules with the spine in its place, for feet between its two ends. */
  function secondOf(
    side: "right" | "left",
    x: number,
    y: number,
    F: number,
    toEdge: number,
    left?: ReferenceStage,
  ): number[] {
    const own = file.secondEdge;
    const bevel = side === "left" && own.bevels.left !== "same" ? own.bevels.left : own.bevels.right;
    const foot = near(spine, x, y);
    const spineTotal = lengthOf(spine);
    const begin = alongSpine(own.from);
    const end = own.to === undefined ? spineTotal : alongSpine(own.to);
    if (foot.along < begin - 1e-9 || foot.along > end + 1e-9) return [];
    const v = (foot.along - begin) / (end - begin);
    const alpha = rad(own.angle[side]);
    const e =
      lookUp(
        own.behind.map((r: { v: number; t: number }) => [r.v, r.t]),
        v,
      ) / 2;
    const dE = e === 0 ? 0 : e / Math.tan(alpha);
    const found: number[] = [];
    const sharp = (left?.edgeBevel ?? true) && alpha > 0;
    if (sharp) found.push(foot.d * Math.tan(alpha));
    if (bevel.kind === "none" || (sharp && foot.d < dE)) return found;
    const [sx, sy] = pointOn(spine, begin);
    const lean = rad(bevel.runIn.lean);
    const past = (x - sx) * Math.cos(lean) + (y - sy) * Math.sin(lean);
    if (past < 0) return found;
    const as = {
      ...bevel,
      pull: "follow",
      ...(bevel.height
        ? { height: bevel.height.map((r: { v: number; h: number }) => ({ u: r.v, h: r.h })) }
        : {}),
    };
    if (bevel.set === "full") Object.assign(as, { set: "height", height: [{ u: 0, h: foot.d + toEdge }] });
    const face = (at: number) => primary(as, F, 0, e, dE, at, v, x, y, 0, 0, 0.5, alpha, side);
    let h = face(foot.d);
    if (left && left.faces > 0 && Number.isFinite(h))
      h += left.faces * Math.hypot(1, (face(foot.d + 1e-5) - face(foot.d - 1e-5)) / 2e-5);
    const r = bevel.runIn.radius;
    if (past < r) h += r - Math.sqrt(r ** 2 - (r - past) ** 2);
    found.push(h);
    return found;
  }
  function alongSpine(x: number): number {
    let s = 0;
    for (let i = 1; i < spine.length; i++) {
      const [[ax, ay], [bx, by]] = [spine[i - 1]!, spine[i]!];
      if (ax <= x && bx >= x && bx > ax) return s + (Math.hypot(bx - ax, by - ay) * (x - ax)) / (bx - ax);
      s += Math.hypot(bx - ax, by - ay);
    }
    return s;
  }
  function pointOn(line: P[], at: number): P {
    let s = 0;
    for (let i = 1; i < line.length; i++) {
      const [[ax, ay], [bx, by]] = [line[i - 1]!, line[i]!];
      const size = Math.hypot(bx - ax, by - ay);
      if (s + size >= at) return [ax + ((bx - ax) * (at - s)) / size, ay + ((by - ay) * (at - s)) / size];
      s += size;
    }
    return line.at(-1)!;
  }

  /** Slope of a full face at d with its grind line held at b: the face's own, not the spine's coming nearer. */
  // biome-ignore lint/suspicious/noExplicitAny: raw file
  function fullSlope(bevel: any, F: number, o: number, e: number, dE: number, d: number, b: number): number {
    const held = { ...bevel, set: "height", height: [{ u: 0, h: b }] };
    const face = (at: number) => primary(held, F, o, e, dE, at, 0, 0, 0, 0, 0, 0, 0, "right");
    return (face(d + 1e-5) - face(d - 1e-5)) / 2e-5;
  }

  function primary(
    // biome-ignore lint/suspicious/noExplicitAny: raw file
    bevel: any,
    F: number,
    o: number,
    e: number,
    dE: number,
    d: number,
    u: number,
    x: number,
    y: number,
    px: number,
    py: number,
    share: number,
    alpha: number,
    side: "right" | "left",
  ): number {
    if (bevel.pull === "straight") {
      const rest = rad(bevel.restAngle ?? 0);
      const eAt = lookUp(behind, (px <= heel[0] ? 0 : alongAt(px)) / total) * share;
      const dAt = eAt === 0 ? 0 : eAt / Math.tan(alpha);
      const climbed = (y - py) * Math.cos(rest) - (x - px) * Math.sin(rest);
      const plane = (file.edge.offset as number) * (side === "right" ? 1 : -1);
      return plane + eAt + (climbed - dAt) * Math.tan(rad(bevel.angle));
    }
    // A relief lifts the foot of the bevel along its own slope.
    if (bevel.relief && bevel.relief.height > dE) {
      const up = (bevel.relief.height - dE) * Math.tan(rad(bevel.relief.angle));
      e += up;
      dE = bevel.relief.height;
    }
    if (bevel.set === "angle") return o + e + (d - dE) * Math.tan(rad(bevel.angle));
    const b =
      bevel.set === "full"
        ? d + near(spine, x, y).d
        : lookUp(
            bevel.height.map((r: { u: number; h: number }) => [r.u, r.h]),
            u,
          );
    if (b <= dE) return Number.POSITIVE_INFINITY;
    if (bevel.kind === "flat") return o + e + ((F - o - e) * (d - dE)) / (b - dE);
    // The arc through (dE, o + e) and (b, F): its centre lies on the chord's middle line.
    const low: P = [dE, o + e];
    const high: P = [b, F];
    const c = Math.hypot(high[0] - low[0], high[1] - low[1]);
    const R =
      bevel.kind === "hollow" ? bevel.wheelDiameter / 2 : (c * c) / (8 * bevel.bulge) + bevel.bulge / 2;
    const toward =
      Math.atan2(high[1] - low[1], high[0] - low[0]) + (bevel.kind === "hollow" ? 1 : -1) * (Math.PI / 2);
    const apart = Math.sqrt(Math.max(0, R * R - (c / 2) ** 2));
    const centre: P = [
      (low[0] + high[0]) / 2 + apart * Math.cos(toward),
      (low[1] + high[1]) / 2 + apart * Math.sin(toward),
    ];
    const sign = bevel.kind === "hollow" ? -1 : 1;
    const at = (q: number) => centre[1] + sign * Math.sqrt(Math.max(0, R * R - (q - centre[0]) ** 2));
    if (Math.abs(Math.min(d, b) - centre[0]) > R) return sign < 0 ? Number.POSITIVE_INFINITY : centre[1];
    if (d <= b) return at(d);
    const across = b - centre[0];
    const slope = (-sign * across) / Math.sqrt(R * R - across * across);
    return F + (d - b) * slope;
  }

  const thicknessAt = (x: number, y: number) =>
    Math.max(0, stageHalf("right", x, y) + stageHalf("left", x, y));
  const inHole = (x: number, y: number) =>
    (file.holes ?? []).some((h) => Math.hypot(x - h.x, y - h.y) < h.d / 2);
  return { file, edge, spine, ring, total, thicknessAt, inHole };
}

/** Height above the edge at which a column stops being the edge's own fine matter, mm. */
const FINE_BELOW = 4;

/**
 * Volume and centre of mass by cells: `cell` wide along x; up y a tenth of that near the edge, where the
 * thickness bends most, and `cell` above. Cells whose middle lies in a hole count nothing.
 */
export function sumCells(
  raw: unknown,
  cell: number,
  from = Number.NEGATIVE_INFINITY,
  stage?: ReferenceStage,
) {
  const blade = prepare(raw, stage);
  const xs = blade.ring.map((p) => p[0]);
  const left = Math.max(Math.min(...xs), from);
  const right = Math.max(...xs);
  let [volume, mx, my] = [0, 0, 0];
  const columns = Math.ceil((right - left) / cell);
  const width = (right - left) / columns;
  for (let i = 0; i < columns; i++) {
    const x = left + (i + 0.5) * width;
    for (const [bottom, top] of crossings(blade.ring, x)) {
      const fine = Math.min(top, bottom + FINE_BELOW);
      // A second edge is as fine as the first.
      const coarse = blade.file.secondEdge ? Math.max(fine, top - FINE_BELOW) : top;
      for (const [a, b, size] of [
        [bottom, fine, cell / 5],
        [fine, coarse, cell],
        [coarse, top, cell / 5],
      ] as const) {
        if (b - a < 1e-9) continue;
        const n = Math.max(1, Math.ceil((b - a) / size));
        const step = (b - a) / n;
        if (step <= 0) continue;
        for (let j = 0; j < n; j++) {
          const y = a + (j + 0.5) * step;
          if (blade.inHole(x, y)) continue;
          const t = blade.thicknessAt(x, y) * step * width;
          volume += t;
          mx += t * x;
          my += t * y;
        }
      }
    }
  }
  return { volume, centre: [mx / volume, my / volume] as P };
}

function crossings(ring: P[], x: number): P[] {
  const ys: number[] = [];
  for (let i = 0, j = ring.length - 1; i < ring.length; j = i++) {
    const [[ax, ay], [bx, by]] = [ring[i]!, ring[j]!];
    if (ax > x !== bx > x) ys.push(ay + ((by - ay) * (x - ax)) / (bx - ax));
  }
  ys.sort((a, b) => a - b);
  const spans: P[] = [];
  for (let i = 0; i + 1 < ys.length; i += 2) spans.push([ys[i]!, ys[i + 1]!]);
  return spans;
}

function firstDirection(nodes: File["outline"]["edge"]): P {
  const [a, b] = [nodes[0]!, nodes[1]!];
  for (const q of [add(a.at, a.ahead), add(b.at, b.back), b.at]) {
    const size = Math.hypot(q[0]! - a.at[0]!, q[1]! - a.at[1]!);
    if (size > 1e-12) return [(q[0]! - a.at[0]!) / size, (q[1]! - a.at[1]!) / size];
  }
  return [1, 0];
}
