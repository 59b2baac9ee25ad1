import type { Lines } from "./lines.ts";
import type { State, Tool } from "./schema.ts";

/** What a blade is built of, as far as it is worked by. */
export type Build = "solid" | "clad" | "unknown";

/** One way to take a bend out: which face lies up, where the tool goes, and what with. Common practice. */
export interface Advice {
  readonly what: "nothing" | "bend" | "turn" | "clamp" | "peen" | "tap" | "try";
  /** The face that lies up; null where nothing is done. */
  readonly face: "left" | "right" | null;
  /** Whether its hollow lies up, rather than its crest. */
  readonly isHollowUp: boolean;
  readonly tool: Tool | null;
  /** On what it lies. */
  readonly on: string;
  readonly words: string;
}

const opposite = (face: "left" | "right") => (face === "left" ? "right" : "left");
const NOTHING = { what: "nothing", face: null, isHollowUp: false, tool: null, on: "" } as const;

/** How one family of lines is worked off in a state and a build; `isTwist` where they lean so that it turns more than it bows. */
export function adviceFor(state: State, build: Build, { hollow }: Lines, isTwist: boolean): Advice {
  const crest = { face: opposite(hollow), isHollowUp: false } as const;
  switch (state) {
    case "soft":
    case "hot":
      return isTwist
        ? {
            ...crest,
            what: "turn",
            tool: "wrench",
            on: "in the vice, between soft jaws",
            words: "A wrench at the tip, turned back past straight, a little at a time.",
          }
        : {
            ...crest,
            what: "bend",
            tool: state === "soft" ? "wood" : "press",
            on: "over a gap, or on wood",
            words:
              state === "soft"
                ? "Crest up: press or tap on the crest, past straight, and look again."
                : "At black heat, 400 to 600 °C and never from 200 to 350: crest up, press on the crest.",
          };
    case "window":
      return {
        ...crest,
        what: "bend",
        tool: "glove",
        on: "in gloved hands, or between plates",
        words: "Above martensite: press on the crest and hold until it stiffens.",
      };
    case "raw":
      return { ...NOTHING, words: "Raw hard: it would break. Temper it first, and look again." };
    case "temper":
      return {
        ...crest,
        what: "clamp",
        tool: "clamp",
        on: "clamped for the next temper, tightened hot",
        words: "After a first temper: clamp it past straight for the next.",
      };
    case "hard":
      return hardened(build, hollow);
  }
}

function hardened(build: Build, hollow: "left" | "right"): Advice {
  if (build === "clad")
    return {
      what: "tap",
      face: opposite(hollow),
      isHollowUp: false,
      tool: "hammer",
      on: "on a soft stump",
      words: "Crest up on a soft stump: a soft hammer, along the crest.",
    };
  const peen = {
    face: hollow,
    isHollowUp: true,
    tool: "bit",
    on: "on the anvil",
    words: "Hollow up on the anvil: a rounded hard bit, fine dents in the furrow, along it. That face grows.",
  } as const;
  return build === "solid"
    ? { ...peen, what: "peen" }
    : {
        ...peen,
        what: "try",
        words:
          "One light blow in the furrow, then read: straighter, it is one steel, go on there; more bent, its sides are soft, go to the crest.",
      };
}

/** How a face is held: level, edge toward you. Its tip then points that way, whichever hand. Geometry. */
export const tipPoints = (face: "left" | "right") => face;
/** The face a hand begins with: the right one has the tip to the left. Common practice. */
export const firstFace = (hand: "left" | "right") => opposite(hand);

/** Share of what it was clamped past straight by that stays: starting value, until three were read. */
export const STAYS = 0.5;
/** How far past straight to clamp, mm. */
export const pastBy = (bow: number, stays = STAYS) => bow * (1 / stays - 1);
