import { type Static, Type } from "@sinclair/typebox";
import { atan, degrees, radians, tan } from "../units/angle.ts";
import { screwSetting } from "./relations.ts";

/**
 * Set-ups that hold a blade at an angle, and what each of them is read in. Angles are per side from the centre plane;
 * every reading names its datum, because a rest's tilt, a jig's screw and an arm's dial are different things.
 */
const only = { additionalProperties: false } as const;
const Long = Type.Number({ exclusiveMinimum: 0, maximum: 2000 });
const Sense = Type.Union([Type.Literal(1), Type.Literal(-1)]);

export const SetupSchema = Type.Union([
  Type.Object({ kind: Type.Literal("rest") }, only),
  Type.Object({ kind: Type.Literal("guide") }, only),
  Type.Object(
    {
      kind: Type.Literal("screw"),
      pivot: Long,
      by: Type.Union([Type.Literal("tangent"), Type.Literal("sine")]),
    },
    only,
  ),
  Type.Object(
    { kind: Type.Literal("arm"), zero: Type.Number({ minimum: -180, maximum: 180 }), sense: Sense },
    only,
  ),
  Type.Object({ kind: Type.Literal("wheel"), diameter: Type.Number({ minimum: 10, maximum: 2000 }) }, only),
  Type.Object({ kind: Type.Literal("stone"), width: Long }, only),
  Type.Object({ kind: Type.Literal("file"), width: Long }, only),
]);
export type Setup = Static<typeof SetupSchema>;

export interface SetupReading {
  readonly value: number;
  readonly unit: "°" | "mm";
  /** What it is measured from. */
  readonly datum: string;
  /** The same as others read it, degrees. */
  readonly also?: { readonly value: number; readonly datum: string };
}

/** What a set-up reads when it holds a side at an angle, degrees from the centre plane. Source: geometry. */
export function readingFor(setup: Setup, angle: number): SetupReading {
  switch (setup.kind) {
    case "rest":
      return {
        value: 90 - angle,
        unit: "°",
        datum: "between rest and platen; 90° is square",
        also: { value: angle, datum: "from square" },
      };
    case "guide":
      return { value: angle, unit: "°", datum: "between the guide's face and the square block's" };
    case "screw":
      return {
        value: screwSetting(setup.pivot, angle, setup.by),
        unit: "mm",
        datum: `screw out from flush, ${setup.pivot} mm from the pivot, by ${setup.by}`,
      };
    case "arm":
      return {
        value: setup.zero + setup.sense * angle,
        unit: "°",
        datum: `arm's dial, which reads ${setup.zero}° with the blade's centre plane along the platen`,
      };
    case "wheel":
      return {
        value: angle,
        unit: "°",
        datum: `between the centre plane and the tangent of a wheel measured at ${setup.diameter} mm, at the middle of the face`,
      };
    case "stone":
    case "file":
      return {
        value: setup.width * Math.sin(radians(angle)),
        unit: "mm",
        datum: `${setup.kind === "stone" ? "spine's centre above the stone" : "far end of the file above flat"}, ${setup.width} mm from the edge`,
      };
  }
}

/** The angle a side is held at when a set-up reads so; null where no angle reads that. */
export function angleFrom(setup: Setup, value: number): number | null {
  const angle = rawAngle(setup, value);
  return Number.isFinite(angle) && angle > -90 && angle < 90 ? angle : null;
}

function rawAngle(setup: Setup, value: number): number {
  switch (setup.kind) {
    case "rest":
      return 90 - value;
    case "guide":
    case "wheel":
      return value;
    case "screw":
      return setup.by === "tangent" ? atan(value / setup.pivot) : degrees(Math.asin(value / setup.pivot));
    case "arm":
      return (value - setup.zero) * setup.sense;
    case "stone":
    case "file":
      return degrees(Math.asin(value / setup.width));
  }
}

/** The same set-up for the other side: an arm swings through its zero, everything else is turned over and stays. */
export function otherSide(setup: Setup): Setup {
  return setup.kind === "arm" ? { ...setup, sense: setup.sense === 1 ? -1 : 1 } : setup;
}

/** What an angle wrong by `off` degrees costs on both sides together, mm. Source: geometry, worked out for small `off`. */
export interface AngleCost {
  /** Grind line held: the edge is wrong by so much. */
  readonly edge: number;
  /** Edge held: the grind line is wrong by so much. */
  readonly line: number;
}

export function costOfAngle(grindLine: number, angle: number, off: number): AngleCost {
  const wrong = radians(off);
  return { edge: 2 * grindLine * wrong, line: (2 * grindLine * wrong) / Math.sin(2 * radians(angle)) };
}

/** The grind line a held angle gives once each flat is lower by `off` mm, edge held: it falls by off/tan β. */
export function lineAfterFlats(grindLine: number, angle: number, off: number): number {
  return grindLine - off / tan(angle);
}

/** Angles told apart on no usual set-up, degrees. Source: common practice, a jig is set to about a tenth. */
export const SETTING_STEP = 0.1;

/** One angle for a bevel held at several, or null where no single angle exists. */
export function singleAngle(angles: readonly (number | null)[]): number | null {
  const known = angles.filter((angle) => angle !== null);
  if (known.length === 0) return null;
  const [least, most] = [Math.min(...known), Math.max(...known)];
  return most - least <= SETTING_STEP ? (least + most) / 2 : null;
}

/** How a set-up is brought back to where it was, in the order of the hands. Source: common practice. */
export function zeroProcedure(setup: Setup): string[] {
  const square = "Clean the flats: everything is read from them.";
  switch (setup.kind) {
    case "rest":
      return [
        square,
        "Set the rest to 90° with a square block against the platen.",
        "Tilt it to the reading and lock it; check with the block again.",
      ];
    case "guide":
      return [
        square,
        "Clamp the guide on the plunge line, its face square to the spine on both sides.",
        "Set it from an angle block.",
      ];
    case "screw":
      return [
        square,
        `Bring the screw flush, and check that it stands ${setup.pivot} mm from the pivot.`,
        "Turn it out to the reading and lock it.",
      ];
    case "arm":
      return [
        square,
        `Lay the blade's centre plane along the platen: the dial reads ${setup.zero}°.`,
        "Swing to the reading; for the other side swing as far beyond zero.",
      ];
    case "wheel":
      return [
        square,
        `Measure the wheel again: it was ${setup.diameter} mm, and it wears.`,
        "Touch the middle of the face first, then rock to both ends of it.",
      ];
    case "stone":
    case "file":
      return [square, `Measure ${setup.width} mm from the edge, and raise that place to the reading.`];
  }
}
