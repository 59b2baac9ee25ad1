import { XMLParser, XMLValidator } from "fast-xml-parser";
import SVGPathCommander from "svg-path-commander";
import {
  applyToPoint,
  compose,
  fromDefinition,
  fromTransformAttribute,
  identity,
  type Matrix,
  scale,
  translate,
} from "transformation-matrix";
import { assembled, MOST_PIECES, type Read } from "./contours.ts";
import type { Path, Piece, Point } from "./drawing.ts";
import { distance } from "./path.ts";
import { arcBetween } from "./round.ts";
import { type Rule, rulesOf, styleOf } from "./svg-style.ts";
import { type Attributes, attributesOf, childrenOf, type Node, tagOf } from "./svg-tree.ts";
import { innerViewport, lengthOf, pageOf, type View, viewOf } from "./svg-view.ts";

/** Longest SVG text taken, in characters. */
const LONGEST = 8_000_000;
const DEEPEST = 60;
/** Elements that are looked at, those that are used again each time. */
const MOST_THINGS = 100_000;
/** Elements whose insides are not drawn, or are none of an outline's business. */
const PASSED_OVER = new Set([
  "defs",
  "clipPath",
  "symbol",
  "pattern",
  "marker",
  "mask",
  "metadata",
  "title",
  "desc",
  "style",
  "script",
  "foreignObject",
]);
const NOTED: Readonly<Record<string, string>> = {
  script: "A script in it was passed over; nothing in a drawing is ever run.",
  image: "A picture in it was passed over; nothing is fetched from anywhere.",
  text: "Lettering in it was passed over: turn it into outlines first if it is part of the shape.",
  foreignObject: "Something that is no drawing was passed over.",
};

/** Reads the outlines of an SVG. Nothing in it is run, fetched or shown; what is no line is passed over and told. */
export function readSvg(text: string): Read {
  if (text.length > LONGEST) return { ok: false, why: "The file is too long for a drawing of a blade." };
  if (/<!ENTITY/i.test(text))
    return { ok: false, why: "It defines entities of its own, which no drawing needs." };
  const valid = XMLValidator.validate(text);
  if (valid !== true) {
    return { ok: false, why: `It is not readable as SVG: line ${valid.err.line}, ${valid.err.msg}` };
  }
  const parser = new XMLParser({
    preserveOrder: true,
    ignoreAttributes: false,
    attributeNamePrefix: "",
    processEntities: false,
    allowBooleanAttributes: true,
    maxNestedTags: DEEPEST * 2,
  });
  let tree: Node[];
  try {
    tree = parser.parse(text) as Node[];
  } catch (error) {
    return {
      ok: false,
      why: `It is not readable as SVG: ${error instanceof Error ? error.message : "unknown"}`,
    };
  }
  const root = tree.find((node) => tagOf(node) === "svg");
  if (!root) return { ok: false, why: "It is not an SVG: nothing in it is called svg." };
  const found: Found = {
    paths: [],
    notes: new Set(),
    pieces: 0,
    things: 0,
    rules: rulesOf(root),
    named: namedIn(root),
  };
  const { mmPerUnit, tall } = pageOf(attributesOf(root));
  try {
    walk(
      root,
      { matrix: scale(1, tall), depth: 0, isHidden: false, view: viewOf(attributesOf(root)) },
      found,
    );
  } catch (error) {
    if (error instanceof Unreadable) return { ok: false, why: error.message };
    throw error;
  }
  // Downward in the file, upward on a blade.
  const flip = ([x, y]: Point): Point => [x, -y];
  const paths = found.paths.map(({ start, pieces, isClosed }) => ({
    start: flip(start),
    pieces: pieces.map(
      ({ to, controls }): Piece =>
        controls ? { to: flip(to), controls: [flip(controls[0]), flip(controls[1])] } : { to: flip(to) },
    ),
    isClosed,
  }));
  return assembled(paths, [], mmPerUnit, [...found.notes]);
}

interface Found {
  readonly paths: Path[];
  readonly notes: Set<string>;
  pieces: number;
  things: number;
  /** What its style sheets say, in their order. */
  readonly rules: readonly Rule[];
  /** Elements by their ids. */
  readonly named: ReadonlyMap<string, Node>;
}

/** Where an element stands: placed, so deep, seen or not, and in a view so wide and tall, in its user units. */
interface Where {
  readonly matrix: Matrix;
  readonly depth: number;
  readonly isHidden: boolean;
  readonly view: View;
}

class Unreadable extends Error {}

function walk(node: Node, where: Where, found: Found, by: Matrix | null = null): void {
  const tag = tagOf(node);
  const note = NOTED[tag];
  if (note) found.notes.add(note);
  if (tag === "" || tag.startsWith("#") || (PASSED_OVER.has(tag) && !(tag === "symbol" && by))) return;
  if (where.depth > DEEPEST) throw new Unreadable(`It is nested more than ${DEEPEST} deep.`);
  if (++found.things > MOST_THINGS) throw new Unreadable("It holds more than a drawing of a blade does.");
  const attributes = attributesOf(node);
  const style = styleOf(tag, attributes, found.rules);
  if (style.display === "none") {
    found.notes.add("Something hidden in it was passed over.");
    return;
  }
  const isHidden = style.visibility ? /hidden|collapse/.test(style.visibility) : where.isHidden;
  let own = compose(where.matrix, transformOf(style.transform ?? attributes.transform));
  if (by) own = compose(own, by);
  else if (tag === "svg" && where.depth > 0) own = compose(own, innerViewport(attributes, where.view));
  const isView = tag === "svg" || tag === "symbol";
  const view = isView && where.depth > 0 ? viewOf(attributes, where.view) : where.view;
  const inside = { matrix: own, depth: where.depth + 1, isHidden, view };
  if (tag === "use") {
    putCopy(attributes, inside, found);
    return;
  }
  const data = dataOf(tag, attributes, view);
  if (data !== null && data !== "" && isHidden) found.notes.add("Something hidden in it was passed over.");
  else if (data !== null) addPath(data, own, found);
  const children = tag === "switch" ? chosenOf(node) : childrenOf(node);
  for (const child of children) walk(child, inside, found);
}

/** Of a switch the first that asks for nothing which is not here: neither another tongue nor another program's own. Source: SVG 2, 5.7. */
function chosenOf(node: Node): Node[] {
  const chosen = childrenOf(node).find((child) => {
    const { requiredExtensions = "", systemLanguage } = attributesOf(child);
    const isOurs = systemLanguage === undefined || /(^|[\s,])en\b/i.test(systemLanguage);
    return !/^(#.*)?$/.test(tagOf(child)) && isOurs && requiredExtensions.trim() === "";
  });
  return chosen ? [chosen] : [];
}

/** Another element of this file, drawn once more where it is used. Source: SVG 2, 5.5. */
function putCopy(attributes: Attributes, where: Where, found: Found): void {
  const href = attributes.href ?? attributes["xlink:href"] ?? "";
  const of = href.startsWith("#") ? found.named.get(href.slice(1)) : undefined;
  if (!of) {
    found.notes.add(
      "A copy of something that is not in the file was passed over; nothing is fetched from anywhere.",
    );
    return;
  }
  const placed = {
    ...where,
    matrix: compose(
      where.matrix,
      translate(lengthOf(attributes.x, where.view[0]), lengthOf(attributes.y, where.view[1])),
    ),
  };
  const tag = tagOf(of);
  const own = attributesOf(of);
  // A symbol has a viewport, as large as it is used.
  const viewport = {
    ...own,
    x: "0",
    y: "0",
    width: attributes.width ?? own.width,
    height: attributes.height ?? own.height,
  };
  walk(
    of,
    placed,
    found,
    tag === "symbol" || tag === "svg" ? innerViewport(viewport as Attributes, where.view) : identity(),
  );
}

function namedIn(root: Node): ReadonlyMap<string, Node> {
  const named = new Map<string, Node>();
  const waiting = [root];
  while (waiting.length > 0) {
    const node = waiting.pop()!;
    const { id } = attributesOf(node);
    if (id && !named.has(id)) named.set(id, node);
    waiting.push(...childrenOf(node));
  }
  return named;
}

function transformOf(text: string | undefined): Matrix {
  if (!text?.trim() || text.trim() === "none") return identity();
  try {
    // As a style it has units: pixels and degrees are what they are without.
    const bare = text.replace(/(\d)(px|deg)\b/gi, "$1");
    const made = fromDefinition(fromTransformAttribute(bare));
    return Array.isArray(made) ? compose(made) : made;
  } catch {
    throw new Unreadable(`A transform in it is not readable: “${text.slice(0, 60)}”.`);
  }
}

/** Any drawn element as path data; null where it is none. */
function dataOf(tag: string, at: Attributes, [wide, tall]: View): string | null {
  const n = (key: string) => {
    if (/^(x|width|cx|rx|x1|x2)$/.test(key)) return lengthOf(at[key], wide);
    return lengthOf(at[key], key === "r" ? Math.hypot(wide, tall) / Math.SQRT2 : tall);
  };
  switch (tag) {
    case "path":
      return at.d ?? "";
    case "polygon":
    case "polyline": {
      const numbers = (at.points ?? "")
        .trim()
        .split(/[\s,]+/)
        .filter(Boolean)
        .map(Number);
      if (numbers.length < 4 || numbers.some((value) => !Number.isFinite(value))) return "";
      const pairs = Array.from(
        { length: numbers.length >> 1 },
        (_, i) => `${numbers[2 * i]} ${numbers[2 * i + 1]}`,
      );
      return `M${pairs.join("L")}${tag === "polygon" ? "Z" : ""}`;
    }
    case "line":
      return `M${n("x1")} ${n("y1")}L${n("x2")} ${n("y2")}`;
    case "rect": {
      const [x, y, w, h] = [n("x"), n("y"), n("width"), n("height")];
      if (!(w > 0 && h > 0)) return "";
      // One of the two radii stands for both. Source: SVG 2, 10.2.
      const rx = Math.min(at.rx === undefined ? n("ry") : n("rx"), w / 2);
      const ry = Math.min(at.ry === undefined ? n("rx") : n("ry"), h / 2);
      if (!(rx > 0 && ry > 0)) return `M${x} ${y}H${x + w}V${y + h}H${x}Z`;
      const corner = `A${rx} ${ry} 0 0 1`;
      return `M${x + rx} ${y}H${x + w - rx}${corner} ${x + w} ${y + ry}V${y + h - ry}${corner} ${x + w - rx} ${y + h}H${x + rx}${corner} ${x} ${y + h - ry}V${y + ry}${corner} ${x + rx} ${y}Z`;
    }
    case "circle":
    case "ellipse": {
      const rx = tag === "circle" ? n("r") : n("rx");
      const ry = tag === "circle" ? rx : n("ry");
      const [cx, cy] = [n("cx"), n("cy")];
      if (!(rx > 0 && ry > 0)) return "";
      const half = (x: number) => `A${rx} ${ry} 0 0 1 ${x} ${cy}`;
      return `M${cx + rx} ${cy}${half(cx - rx)}${half(cx + rx)}Z`;
    }
    default:
      return null;
  }
}

function addPath(data: string, matrix: Matrix, found: Found): void {
  if (data.trim() === "" || data.trim() === "none") return;
  let segments: readonly (readonly (string | number)[])[];
  try {
    segments = new SVGPathCommander(withoutArcs(data)).toAbsolute().toCurve().segments as never;
  } catch (error) {
    throw new Unreadable(
      `A path in it is not readable: ${error instanceof Error ? error.message.replace(/^\w+Error: /, "") : data.slice(0, 60)}`,
    );
  }
  const at = (x: number, y: number): Point => {
    const point = applyToPoint(matrix, [x, y]);
    return [point[0], point[1]];
  };
  let path: { start: Point; pieces: Piece[]; isClosed: boolean } | null = null;
  const put = () => {
    if (path && path.pieces.length > 0) found.paths.push(path);
    path = null;
  };
  for (const [command, ...numbers] of segments) {
    const v = numbers as number[];
    if (v.some((value) => !Number.isFinite(value))) {
      throw new Unreadable("A path in it holds numbers that are none, or too large to draw.");
    }
    if (command === "M") {
      put();
      path = { start: at(v[0]!, v[1]!), pieces: [], isClosed: false };
    } else if (command === "C" && path) {
      const from: Point = path.pieces[path.pieces.length - 1]?.to ?? path.start;
      const piece = pieceFrom(from, at(v[0]!, v[1]!), at(v[2]!, v[3]!), at(v[4]!, v[5]!));
      if (piece) path.pieces.push(piece);
      found.pieces++;
      if (found.pieces > MOST_PIECES) {
        throw new Unreadable(`It holds more than ${MOST_PIECES} pieces, too many for a blade's outline.`);
      }
    } else if (command === "Z" && path) {
      const { start }: { start: Point } = path;
      path.isClosed = true;
      put();
      path = { start, pieces: [], isClosed: false };
    }
  }
  put();
}

/** Path data with its arcs as cubics: another's would stray by a thousandth of the radius. */
function withoutArcs(data: string): string {
  if (!/[aA]/.test(data)) return data;
  let [at, start]: [Point, Point] = [
    [0, 0],
    [0, 0],
  ];
  return (new SVGPathCommander(data).toAbsolute().segments as (string | number)[][])
    .map(([command, ...numbers]) => {
      const v = numbers as number[];
      const from = at;
      if (command === "Z") at = start;
      else if (command === "H") at = [v[0]!, at[1]];
      else if (command === "V") at = [at[0], v[0]!];
      else at = [v.at(-2)!, v.at(-1)!];
      if (command === "M") start = at;
      if (command !== "A") return `${command}${v.join(" ")}`;
      return arcBetween(from, at, [v[0]!, v[1]!], v[2]!, v[3] === 1, v[4] === 1)
        .map(({ to, controls }) => (controls ? `C${[...controls, to].flat().join(" ")}` : `L${to.join(" ")}`))
        .join("");
    })
    .join("");
}

/** A cubic, or a straight line where its controls lie on it; null where it goes nowhere. */
export function pieceFrom(from: Point, a: Point, b: Point, to: Point): Piece | null {
  const chord = distance(from, to);
  const off = (p: Point) =>
    Math.abs((p[0] - from[0]) * (to[1] - from[1]) - (p[1] - from[1]) * (to[0] - from[0])) / (chord || 1);
  if (chord < 1e-12 && distance(from, a) < 1e-12 && distance(from, b) < 1e-12) return null;
  const isStraight = chord > 0 && off(a) < 1e-7 * chord && off(b) < 1e-7 * chord;
  return isStraight ? { to } : { to, controls: [a, b] };
}
