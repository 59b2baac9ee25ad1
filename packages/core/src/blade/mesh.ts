import type { Field } from "./field.ts";
import { type Place, type Post, postsAt, stretchesAt } from "./mesh-columns.ts";
import { breaksInX } from "./outline.ts";

/** A closed surface: x, y, z of each vertex, and three vertices a triangle, counter-clockwise from outside. */
export interface Mesh {
  readonly positions: Float64Array;
  readonly triangles: Uint32Array;
  /** Thickness at each vertex, mm, for colouring. */
  readonly thickness: Float32Array;
}

export interface MeshOptions {
  /** How far a flat facet may stray from the surface, mm. */
  readonly tolerance?: number;
  /** Called again and again with a share of the work done, 0…1; throwing from it stops the work. */
  readonly onProgress?: (share: number) => void;
}

const TOLERANCE = 0.02;
/** Facets that all stray to one side shift the volume: at such a share of the tolerance they hardly do, along the blade and up it. */
const HELD_TO = 1 / 16;
const ROWS_TO = 1 / 50;
/** Columns stand no further apart, mm; no nearer for the steel between them, and for the outline alone. */
const WIDEST = 6;
const NEAREST = 0.06;
const NEAREST_ROUND = 2e-4;
/** The outline's chords may stray by this share of the tolerance. */
const OUTLINE = 1 / 4;
/** How near to a place where the outline turns its two sides are looked at, and what is one place there, mm. */
const BESIDE = 1e-7;
const ONE_PLACE = 2e-3;
/** What is left where steel comes to nothing, mm a side, so that both faces stay apart. */
const SKIN = 1e-4;

/** The plan of a mesh: places of the side view, and triangles over them, counter-clockwise. */
interface Plan {
  /** Slabs filled so far. */
  slabs: number;
  readonly x: number[];
  readonly places: Place[];
  readonly cells: number[];
}

/** A post whose places have their numbers in the plan. */
interface Standing extends Post {
  readonly ids: readonly number[];
}

interface Column {
  readonly x: number;
  readonly posts: readonly Standing[];
}

/**
 * The blade as a watertight mesh. Upright columns stand where the outline or the steel changes its manner and, between those, as
 * near together as flat facets need to keep within the tolerance; between two columns piece is joined to piece, so that every crease
 * is a run of edges. Both faces stand on that plan, with a wall between them along the outline and round every hole: so each edge
 * belongs to two triangles by construction.
 */
export function meshOf(
  field: Field,
  { tolerance = TOLERANCE, onProgress = () => {} }: MeshOptions = {},
): Mesh {
  const plan: Plan = { slabs: 0, x: [], places: [], cells: [] };
  const { left, right } = field.ring;
  let before: Column | null = null;
  for (const x of marksOf(field)) {
    onProgress((x - left) / (right - left));
    const [here, after] = columnsAt(field, plan, x, tolerance);
    if (before) addSlab(field, plan, before, here, tolerance);
    before = after;
  }
  onProgress(1);
  return sewn(plan);
}

/** Abscissas where the outline, the flats, a plunge or a false edge change their manner. */
function marksOf({ ring, blade, plunges, second }: Field): number[] {
  const marks = [ring.left, ring.right, ...breaksInX(ring), ...blade.thickness.map(({ x }) => x)];
  for (const { x, d } of blade.holes ?? []) marks.push(x - d / 2, x, x + d / 2);
  for (const cut of [plunges.right, plunges.left]) {
    // A plunge without a run-in is a wall: columns stand before and behind it.
    if (cut) marks.push(cut.x - NEAREST / 2, cut.x + NEAREST / 2, cut.x + cut.radius);
  }
  if (second) {
    const { from, to, right } = second;
    for (const x of [from, to]) marks.push(x - NEAREST / 2, x + NEAREST / 2);
    marks.push(from + (right.cut?.radius ?? 0));
  }
  if (blade.falseEdge) {
    const { from, to } = blade.falseEdge;
    marks.push(from - NEAREST / 2, from + NEAREST / 2, to - NEAREST / 2, to + NEAREST / 2);
  }
  const sorted = marks.filter((x) => x >= ring.left && x <= ring.right).sort((a, b) => a - b);
  return sorted.filter((x, i) => i === 0 || x - sorted[i - 1]! > ONE_PLACE / 2 || x === ring.right);
}

/** The column at a mark as it is seen from before and from behind: one and the same where the outline goes on smoothly. */
function columnsAt(field: Field, plan: Plan, x: number, tolerance: number): [Column, Column] {
  const [before, after] = [stretchesAt(field, x - BESIDE), stretchesAt(field, x + BESIDE)];
  const goesOn =
    before.length === after.length &&
    before.every(([low, high], i) => isOnePlace(low, after[i]![0]) && isOnePlace(high, after[i]![1]));
  if (goesOn) {
    const column = columnAt(field, plan, x, tolerance);
    return [column, column];
  }
  const sides = [x - BESIDE, x + BESIDE].map((at) => postsAt(field, at, tolerance * ROWS_TO));
  // Where the steel of both sides meets, both have all the places of either.
  const shared: { place: Place; id: number }[] = [];
  for (const place of sides
    .flatMap((posts) => posts.flatMap(({ places }) => places))
    .sort((a, b) => a.y - b.y)) {
    const last = shared[shared.length - 1];
    if (last && isOnePlace(last.place.y, place.y)) continue;
    shared.push({ place, id: put(plan, x, place) });
  }
  const [first, second] = sides.map((posts) => ({ x, posts: posts.map((post) => standing(post, shared)) }));
  return [first!, second!];
}

const isOnePlace = (a: number, b: number) => Math.abs(a - b) <= ONE_PLACE;

function columnAt(field: Field, plan: Plan, x: number, tolerance: number): Column {
  const posts = postsAt(field, x, tolerance * ROWS_TO);
  return {
    x,
    posts: posts.map((post) => ({ ...post, ids: post.places.map((place) => put(plan, x, place)) })),
  };
}

function put(plan: Plan, x: number, place: Place): number {
  plan.x.push(x);
  return plan.places.push(place) - 1;
}

/** A post with the places of its neighbours put in; its joints stay its own. */
function standing(post: Post, shared: readonly { place: Place; id: number }[]): Standing {
  const within = shared.filter(
    ({ place }) => place.y >= post.low - ONE_PLACE && place.y <= post.high + ONE_PLACE,
  );
  const nearest = (y: number) => {
    let best = 0;
    within.forEach(({ place }, i) => {
      if (Math.abs(place.y - y) < Math.abs(within[best]!.place.y - y)) best = i;
    });
    return best;
  };
  const joints = post.joints.map((i) => nearest(post.places[i]!.y));
  if (joints.length > 1) {
    joints[0] = 0;
    joints[joints.length - 1] = within.length - 1;
  }
  return { ...post, places: within.map(({ place }) => place), ids: within.map(({ id }) => id), joints };
}

/** Fills what lies between two columns, with columns between them where one flat facet across would stray too far. */
function addSlab(field: Field, plan: Plan, from: Column, to: Column, tolerance: number): void {
  const width = to.x - from.x;
  if (width > WIDEST || !isHeld(field, from, to, tolerance)) {
    const x = from.x + width / 2;
    if (x > from.x && x < to.x && width > NEAREST_ROUND) {
      const middle = columnAt(field, plan, x, tolerance);
      addSlab(field, plan, from, middle, tolerance);
      addSlab(field, plan, middle, to, tolerance);
      return;
    }
  }
  for (const [i, post] of from.posts.entries()) {
    const other = to.posts[i];
    if (other) join(plan, post, other);
  }
  plan.slabs++;
}

/** Whether flat facets between two columns keep to the outline and to the steel half way. */
function isHeld(field: Field, from: Column, to: Column, tolerance: number): boolean {
  const x = (from.x + to.x) / 2;
  const width = to.x - from.x;
  const stretches = stretchesAt(field, x);
  if (stretches.length !== from.posts.length || stretches.length !== to.posts.length) return false;
  return from.posts.every((post, i) => {
    const other = to.posts[i]!;
    const [low, high] = stretches[i]!;
    const isRound = (a: number, b: number, true_: number) =>
      Math.abs((a + b) / 2 - true_) > tolerance * OUTLINE && width > NEAREST_ROUND;
    if (isRound(post.low, other.low, low) || isRound(post.high, other.high, high)) return false;
    if (width <= NEAREST) return true;
    if (post.kind !== other.kind) return isPoint(post) || isPoint(other);
    for (let k = 1; k < post.joints.length; k++) {
      for (const share of SHARES) {
        if (share === 0 && k > 1) continue;
        const [a, b] = [along(post, k, share), along(other, k, share)];
        const y = Math.min(high, Math.max(low, (a.y + b.y) / 2));
        field.sampleAt(x, y);
        const off = Math.max(
          Math.abs((a.right + b.right) / 2 - field.right.lowest),
          Math.abs((a.left + b.left) / 2 - field.left.lowest),
        );
        if (off > tolerance * HELD_TO) return false;
      }
    }
    return true;
  });
}

/** Where along a piece a facet is held to the steel. */
const SHARES = [0, 0.5, 1];
const isPoint = ({ kind }: Post) => kind === "point";

/** A share of the way along the k-th piece of a post, on its rows. */
function along({ places, joints }: Post, k: number, share: number): Place {
  const [first, last] = [joints[k - 1]!, joints[k]!];
  if (share === 0 || first === last) return places[first]!;
  if (share === 1) return places[last]!;
  const y = places[first]!.y + share * (places[last]!.y - places[first]!.y);
  let i = first;
  while (i + 1 < last && places[i + 1]!.y < y) i++;
  const [a, b] = [places[i]!, places[i + 1]!];
  const rest = b.y > a.y ? (y - a.y) / (b.y - a.y) : 0;
  return { y, right: a.right + rest * (b.right - a.right), left: a.left + rest * (b.left - a.left) };
}

/** Triangles between two posts: piece by piece where they are alike, else over all of their height. */
function join(plan: Plan, from: Standing, to: Standing): void {
  const isAlike = from.kind === to.kind && from.joints.length === to.joints.length;
  if (!isAlike) {
    zip(plan, from, 0, from.ids.length - 1, to, 0, to.ids.length - 1);
    return;
  }
  for (let k = 1; k < from.joints.length; k++)
    zip(plan, from, from.joints[k - 1]!, from.joints[k]!, to, to.joints[k - 1]!, to.joints[k]!);
}

/** Goes up two runs of places together, always on the side whose next place is the lower share of its run. */
function zip(
  { cells, slabs }: Plan,
  from: Standing,
  first: number,
  last: number,
  to: Standing,
  firstOf: number,
  lastOf: number,
): void {
  const shareOf = ({ places }: Post, i: number, a: number, b: number) =>
    a === b ? 1 : (places[i]!.y - places[a]!.y) / (places[b]!.y - places[a]!.y);
  let [i, k] = [first, firstOf];
  // Facets fold now one way, now the other, from slab to slab and from row to row: what they stray by is made up for.
  const isTurned = (row: number) => (slabs + row) % 2 === 0;
  while (i < last || k < lastOf) {
    const ahead =
      i < last && k < lastOf ? shareOf(from, i + 1, first, last) - shareOf(to, k + 1, firstOf, lastOf) : 0;
    const goesLeft = k >= lastOf || (i < last && (Math.abs(ahead) < 1e-9 ? isTurned(i) : ahead < 0));
    const next = goesLeft ? from.ids[i + 1]! : to.ids[k + 1]!;
    cells.push(from.ids[i]!, to.ids[k]!, next);
    if (goesLeft) i++;
    else k++;
  }
}

const KEY = 2 ** 26;
const sideKey = (a: number, b: number) => (a < b ? a * KEY + b : b * KEY + a);

/** How many cells have a side, by its key. */
export function usesOf(cells: readonly number[]): Map<number, number> {
  const uses = new Map<number, number>();
  for (let c = 0; c < cells.length; c += 3) {
    for (let k = 0; k < 3; k++) {
      const key = sideKey(cells[c + k]!, cells[c + ((k + 1) % 3)]!);
      uses.set(key, (uses.get(key) ?? 0) + 1);
    }
  }
  return uses;
}

/** Both faces over one plan, and walls along its rim. */
function sewn({ x, places, cells: all }: Plan): Mesh {
  const isGone = ({ right, left }: Place) => right + left <= SKIN;
  const cells: number[] = [];
  for (let c = 0; c < all.length; c += 3) {
    const [p, q, r] = [all[c]!, all[c + 1]!, all[c + 2]!];
    if (p === q || q === r || r === p) continue;
    if (isGone(places[p]!) && isGone(places[q]!) && isGone(places[r]!)) continue;
    cells.push(p, q, r);
  }
  const uses = usesOf(cells);
  const fans = fansAt(cells, uses, places.length);
  const numbers = new Map<number, number>();
  const positions: number[] = [];
  const thickness: number[] = [];
  /** The right face's vertex of a cell's corner; the left face's is the next. */
  const vertex = (corner: number) => {
    const i = cells[corner]!;
    const key = i * FANS + (fans.get(corner) ?? 0);
    const known = numbers.get(key);
    if (known !== undefined) return known;
    const { y, right, left } = places[i]!;
    const t = Math.max(0, right + left);
    const middle = (right - left) / 2;
    const half = Math.max(t / 2, SKIN);
    thickness.push(t, t);
    const number = positions.length / 3;
    positions.push(x[i]!, y, middle + half, x[i]!, y, middle - half);
    numbers.set(key, number);
    return number;
  };
  const triangles: number[] = [];
  for (let c = 0; c < cells.length; c += 3) {
    const [a, b, d] = [vertex(c), vertex(c + 1), vertex(c + 2)];
    triangles.push(a, b, d, a + 1, d + 1, b + 1);
    for (let k = 0; k < 3; k++) {
      const next = (k + 1) % 3;
      if (uses.get(sideKey(cells[c + k]!, cells[c + next]!)) !== 1) continue;
      const [f, t] = [vertex(c + k), vertex(c + next)];
      triangles.push(f, f + 1, t, t, f + 1, t + 1);
    }
  }
  return {
    positions: Float64Array.from(positions),
    triangles: Uint32Array.from(triangles),
    thickness: Float32Array.from(thickness),
  };
}

/** So many stretches of steel may touch in one place. */
const FANS = 64;

/**
 * Where stretches of steel touch in a place of their rims only, each has that place to itself: which of them a cell's corner belongs
 * to. Corners that are not named are of the first.
 */
export function fansAt(
  cells: readonly number[],
  uses: ReadonlyMap<number, number>,
  count: number,
): Map<number, number> {
  const rims = new Uint8Array(count);
  for (const [key, times] of uses) {
    if (times !== 1) continue;
    const [a, b] = [Math.floor(key / KEY), key % KEY];
    rims[a]!++;
    rims[b]!++;
  }
  const corners = new Map<number, number[]>();
  for (const [corner, place] of cells.entries()) {
    if (rims[place]! > 2) corners.set(place, [...(corners.get(place) ?? []), corner]);
  }
  const fans = new Map<number, number>();
  for (const [place, around] of corners) {
    const others = (corner: number) => {
      const first = corner - (corner % 3);
      return [0, 1, 2].map((k) => cells[first + k]!).filter((i) => i !== place);
    };
    const isBeside = (a: number, b: number) =>
      others(a).some((i) => uses.get(sideKey(i, place)) === 2 && others(b).includes(i));
    const left = new Set(around);
    for (let fan = 0; left.size > 0; fan++) {
      const reached = [[...left][0]!];
      for (const corner of reached) {
        left.delete(corner);
        fans.set(corner, fan);
        for (const other of left)
          if (isBeside(corner, other) && !reached.includes(other)) reached.push(other);
      }
    }
  }
  return fans;
}
