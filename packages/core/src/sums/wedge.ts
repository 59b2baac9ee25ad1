import { thicknessAbove } from "../blade/station.ts";
import { wedgeArea } from "../edge/compare.ts";
import { PURPOSES } from "../findings/purposes.ts";
import { tan } from "../units/angle.ts";
import { putBevel } from "./bevels.ts";
import { makePiece } from "./piece.ts";
import { acrossAt, sectionOf } from "./sketch.ts";
import { askAngle, askLength, impossible, length, numberOf, type Sum, wanting } from "./sum.ts";

/** Heights that purposes are judged at, mm. */
const JUDGED_AT = [2, 5, 10] as const;

/** What the wedge above an edge is, and which purposes it suits. */
export const WEDGE: Sum = {
  key: "wedge",
  group: "bevel and edge",
  name: "Wedge, and what it is for",
  words: "wedge thick above edge purpose cut split food 5 mm 10 mm too thick behind what for cutting slicer",
  how: "The wedge that has to go through: thicknesses above the edge, and the purposes whose limits it keeps.",
  asks: [
    askLength("thickness", "Thick at the top", "thickness"),
    askLength("behind", "Behind the edge", "thickness"),
    askAngle("angle", "Bevel angle a side"),
    askAngle("edge", "Edge angle a side", 20),
  ],
  answer(given, say) {
    const [t, e, beta] = ["thickness", "behind", "angle"].map((key) => numberOf(given, key));
    const alpha = numberOf(given, "edge") ?? 20;
    if (t === undefined || e === undefined || beta === undefined)
      return wanting("Give the stock, what is behind the edge, and the bevel's angle.");
    if (e >= t) return impossible("the edge is as thick as the stock, so there is no bevel");
    if (!(beta > 0 && beta < 60)) return impossible("a bevel lies above 0 and below 60° a side");
    if (e > 0 && beta >= alpha)
      return impossible("the bevel is as steep as the edge, so there is no edge bevel");
    const climb = (t - e) / 2 / tan(beta);
    const made = makePiece({
      thickness: t,
      behind: e,
      edgeAngle: alpha,
      bevel: { kind: "angle", angle: beta },
      tall: Math.max(12, climb + e / 2 / tan(Math.max(1, alpha))),
    });
    if (!made.ok) return impossible(made.because);
    const thick = JUDGED_AT.map((up) => [up, thicknessAbove(made.field, made.station, up) ?? 0] as const);
    const [, five, ten] = thick.map(([, value]) => value);
    const within = PURPOSES.filter(
      ({ behind, edgeAngle, at5, at10 }) =>
        e >= behind[0] - 1e-9 &&
        e <= behind[1] + 1e-9 &&
        alpha >= edgeAngle[0] &&
        alpha <= edgeAngle[1] &&
        five! <= (at5 ?? Number.POSITIVE_INFINITY) &&
        ten! <= (at10 ?? Number.POSITIVE_INFINITY),
    );
    const area = wedgeArea(made.field, made.station);
    return {
      state: "answered",
      figures: [
        ...thick.map(([up, value], i) => length(`${say.length(up)} above the edge`, value, i > 0)),
        ...(area === null
          ? []
          : [{ name: "section within 10 mm of the edge", value: area, unit: "mm²" } as const]),
      ],
      relations: [
        `e + 2 (h − e / 2 tan α) tan β: at ${say.length(5)} ${say.length(five!)}, at ${say.length(10)} ${say.length(ten!)}`,
      ],
      notes: [
        within.length > 0
          ? `Within the limits of ${within.map(({ name }) => name).join(", ")}: starting values.`
          : "No purpose's limits are all kept: starting values.",
      ],
      sketch: {
        steel: sectionOf(made.field),
        marks: thick.map(([up, value]) => acrossAt(up, value, say.length(value))),
      },
      blade: made.blade,
      put: putBevel(beta, e),
    };
  },
};
