import { XMLParser, XMLValidator } from "fast-xml-parser";
import SVGPathCommander from "svg-path-commander";
import {
  applyToPoint,
  compose,
  fromDefinition,
  fromTransformAttribute,
  identity,
  type Matrix,
} from "transformation-matrix";
import { assembled, distance, MOST_PIECES, type Read } from "./contours.ts";
import type { Path, Piece, Point } from "./drawing.ts";

/** Longest SVG text taken, in characters. */
const LONGEST = 8_000_000;
const DEEPEST = 60;
/** Millimetres to each unit of length that SVG names. Source: CSS Values, absolute lengths. */
const MM_IN: Readonly<Record<string, number>> = {
  mm: 1,
  cm: 10,
  in: 25.4,
  pt: 25.4 / 72,
  pc: 25.4 / 6,
  q: 0.25,
};
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
  use: "A copy by reference in it was passed over: draw it out as lines.",
  text: "Lettering in it was passed over: turn it into outlines first if it is part of the shape.",
  foreignObject: "Something that is no drawing was passed over.",
};

type Attributes = Readonly<Record<string, string>>;
type Node = Readonly<Record<string, unknown>>;

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
  const found: Found = { paths: [], notes: new Set(), pieces: 0 };
  try {
    walk(root, identity(), 0, found, true);
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
  return assembled(paths, [], mmPerUnit(attributesOf(root)), [...found.notes]);
}

interface Found {
  readonly paths: Path[];
  readonly notes: Set<string>;
  pieces: number;
}

class Unreadable extends Error {}

function tagOf(node: Node): string {
  return (Object.keys(node).find((key) => key !== ":@") ?? "").replace(/^.*:/, "");
}

function attributesOf(node: Node): Attributes {
  return (node[":@"] ?? {}) as Attributes;
}

function childrenOf(node: Node): Node[] {
  const key = Object.keys(node).find((one) => one !== ":@");
  const inside = key === undefined ? [] : node[key];
  return Array.isArray(inside) ? (inside as Node[]) : [];
}

/** Millimetres to a user unit, where width and viewBox tell it. */
function mmPerUnit({ width, height, viewBox }: Attributes): number | null {
  const box = viewBox
    ?.trim()
    .split(/[\s,]+/)
    .map(Number);
  const across = lengthInMm(width);
  const up = lengthInMm(height);
  if (box?.length === 4 && box.every(Number.isFinite)) {
    if (across !== null && box[2]! > 0) return across / box[2]!;
    if (up !== null && box[3]! > 0) return up / box[3]!;
    return null;
  }
  // Without a viewBox a user unit is a pixel, and absolute widths say so. Source: CSS Values, 96 px to the inch.
  return across !== null || up !== null ? 25.4 / 96 : null;
}

function lengthInMm(text: string | undefined): number | null {
  const match = /^\s*([+-]?[\d.]+(?:e[+-]?\d+)?)\s*([a-z]+)\s*$/i.exec(text ?? "");
  const unit = MM_IN[match?.[2]?.toLowerCase() ?? ""];
  const value = Number(match?.[1]);
  return unit !== undefined && Number.isFinite(value) && value > 0 ? value * unit : null;
}

function walk(node: Node, matrix: Matrix, depth: number, found: Found, isRoot = false): void {
  const tag = tagOf(node);
  const note = NOTED[tag];
  if (note) found.notes.add(note);
  if (tag === "" || tag.startsWith("#") || PASSED_OVER.has(tag)) return;
  if (depth > DEEPEST) throw new Unreadable(`It is nested more than ${DEEPEST} deep.`);
  const attributes = attributesOf(node);
  if (/display\s*:\s*none/.test(attributes.style ?? "") || attributes.display === "none") {
    found.notes.add("Something hidden in it was passed over.");
    return;
  }
  let own = compose(matrix, transformOf(attributes.transform));
  if (tag === "svg" && !isRoot) own = compose(own, innerViewport(attributes));
  const data = dataOf(tag, attributes);
  if (data !== null) addPath(data, own, found);
  for (const child of childrenOf(node)) walk(child, own, depth + 1, found);
}

/** An svg within an svg has a viewport of its own. */
function innerViewport(attributes: Attributes): Matrix {
  const { viewBox, x = "0", y = "0", width, height } = attributes;
  const box = viewBox
    ?.trim()
    .split(/[\s,]+/)
    .map(Number);
  const [w, h] = [Number.parseFloat(width ?? ""), Number.parseFloat(height ?? "")];
  const isScaled =
    box?.length === 4 && box.every(Number.isFinite) && w > 0 && h > 0 && box[2]! > 0 && box[3]! > 0;
  const scale = isScaled ? Math.min(w / box[2]!, h / box[3]!) : 1;
  const [left, top] = isScaled ? [box[0]!, box[1]!] : [0, 0];
  return {
    a: scale,
    b: 0,
    c: 0,
    d: scale,
    e: (Number.parseFloat(x) || 0) - left * scale,
    f: (Number.parseFloat(y) || 0) - top * scale,
  };
}

function transformOf(text: string | undefined): Matrix {
  if (!text?.trim()) return identity();
  try {
    const made = fromDefinition(fromTransformAttribute(text));
    return Array.isArray(made) ? compose(made) : made;
  } catch {
    throw new Unreadable(`A transform in it is not readable: “${text.slice(0, 60)}”.`);
  }
}

/** Any drawn element as path data; null where it is none. */
function dataOf(tag: string, at: Attributes): string | null {
  const n = (key: string, usual = 0) => {
    const value = Number.parseFloat(at[key] ?? "");
    return Number.isFinite(value) ? value : usual;
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
      return w > 0 && h > 0 ? `M${x} ${y}H${x + w}V${y + h}H${x}Z` : "";
    }
    case "circle":
    case "ellipse": {
      const rx = tag === "circle" ? n("r") : n("rx");
      const ry = tag === "circle" ? rx : n("ry");
      const [cx, cy] = [n("cx"), n("cy")];
      if (!(rx > 0 && ry > 0)) return "";
      return `M${cx - rx} ${cy}A${rx} ${ry} 0 1 0 ${cx + rx} ${cy}A${rx} ${ry} 0 1 0 ${cx - rx} ${cy}Z`;
    }
    default:
      return null;
  }
}

function addPath(data: string, matrix: Matrix, found: Found): void {
  if (data.trim() === "" || data.trim() === "none") return;
  let segments: readonly (readonly (string | number)[])[];
  try {
    segments = new SVGPathCommander(data).toAbsolute().toCurve().segments as never;
  } catch (error) {
    throw new Unreadable(
      `A path in it is not readable: ${error instanceof Error ? error.message : data.slice(0, 60)}`,
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

/** A cubic, or a straight line where its controls lie on it; null where it goes nowhere. */
export function pieceFrom(from: Point, a: Point, b: Point, to: Point): Piece | null {
  const chord = distance(from, to);
  const off = (p: Point) =>
    Math.abs((p[0] - from[0]) * (to[1] - from[1]) - (p[1] - from[1]) * (to[0] - from[0])) / (chord || 1);
  if (chord < 1e-12 && distance(from, a) < 1e-12 && distance(from, b) < 1e-12) return null;
  const isStraight = chord > 0 && off(a) < 1e-7 * chord && off(b) < 1e-7 * chord;
  return isStraight ? { to } : { to, controls: [a, b] };
}
