import type { ForgeBar } from "./bar.ts";
import { barArea } from "./bar.ts";
import type { BlankSection } from "./blank.ts";
import type { Form, Forms } from "./forms.ts";
import {
  HAMMER,
  type Hammer,
  heatsFor,
  perSurfaceOfBar,
  perSurfaceOfFlat,
  perSurfaceOfRound,
  secondsInHand,
} from "./heat.ts";
import type { Forge, ForgeStep } from "./schema.ts";

/** What a step takes at the fire. */
export interface StepWork {
  readonly step: "preform" | ForgeStep;
  /** ∫|ln(before/after)| dV, mm³. */
  readonly deformation: number;
  /** Seconds in hand in one heat, at the size half way through. */
  readonly seconds: number;
  /** Heats, × or ÷ 2; infinite where it is cold before it is struck. */
  readonly heats: number;
}

/** A heat to look along it and put it straight, and one to planish: starting values. */
const LAST_HEATS = 1;

/** What every step takes, in the order it is done: on the blade, and on the tang beside. */
export function workOf(
  sections: readonly BlankSection[],
  bar: ForgeBar,
  { forms, preform }: Forms,
  { heat, order }: Pick<Forge, "heat" | "order">,
  {
    barLength,
    plunge,
    hammer = HAMMER,
    ratio = 1,
  }: {
    barLength: number;
    plunge: number;
    hammer?: Hammer;
    /** Heats that this shop makes for each that is reckoned. */
    ratio?: number;
  },
): { steps: readonly StepWork[]; blade: number; tang: number } {
  const fromButt = sections.toReversed();
  const inHand = (perSurface: number) => secondsInHand(perSurface, heat.from, heat.stop);
  const at = (step: Form["step"]) => forms.find((one) => one.step === step)!;
  const [barForm, pointed] = [at("bar"), at("point")];
  /** What is done between two forms where `counts`, over the steel that is there. */
  const between = (
    before: Form,
    after: Form,
    of: (a: Form["at"][number], b: Form["at"][number]) => number,
    size: (a: Form["at"][number], b: Form["at"][number]) => number,
    counts: (x: number) => boolean,
  ) => {
    let [sum, sized, volume] = [0, 0, 0];
    for (let i = 1; i < fromButt.length; i++) {
      const { x, area } = fromButt[i]!;
      if (!counts(x)) continue;
      const dV = area * (x - fromButt[i - 1]!.x);
      const [a, b] = [before.at[i]!, after.at[i]!];
      const strain = Math.abs(of(a, b));
      sum += strain * dV;
      sized += size(a, b) * dV * strain;
      volume += dV * strain;
    }
    return { deformation: sum, perSurface: volume > 0 ? sized / volume : perSurfaceOfFlat(preform.t) };
  };
  const made = (
    step: StepWork["step"],
    { deformation, perSurface }: ReturnType<typeof between>,
  ): StepWork => {
    const seconds = inHand(perSurface);
    const reckoned = heatsFor(deformation, seconds, hammer);
    return {
      step,
      deformation,
      seconds,
      heats: reckoned > 0 ? Math.max(1, Math.round(reckoned * ratio)) : 0,
    };
  };
  const isBlade = (x: number) => x >= plunge;
  const widths = (counts: (x: number) => boolean) =>
    between(
      barForm,
      pointed,
      (a, b) => Math.log(b.width / a.width),
      (a, b) => perSurfaceOfBar((a.width + b.width) / 2, b.thickness),
      counts,
    );
  const thinned = (counts: (x: number) => boolean) => {
    const after = forms[forms.length - 1]!;
    return between(
      pointed,
      after,
      (a, b) => Math.log(a.thickness / b.thickness),
      (a, b) => perSurfaceOfFlat((a.thickness + b.thickness) / 2),
      counts,
    );
  };
  const preformed: StepWork[] =
    bar.shape === "round"
      ? [
          made("preform", {
            deformation: barArea(bar) * barLength * Math.log(barArea(bar) / (preform.w * preform.t)),
            perSurface: (perSurfaceOfRound(bar.d) + perSurfaceOfBar(preform.w, preform.t)) / 2,
          }),
        ]
      : [];
  const works: Readonly<Record<ForgeStep, StepWork>> = {
    point: made("point", widths(isBlade)),
    taper: made("taper", thinned(isBlade)),
    tang: tangWork(
      widths((x) => !isBlade(x)),
      thinned((x) => !isBlade(x)),
      made,
    ),
    bevel: made("bevel", bevelWork(fromButt)),
    straighten: { step: "straighten", deformation: 0, seconds: 0, heats: LAST_HEATS },
    planish: { step: "planish", deformation: 0, seconds: 0, heats: LAST_HEATS },
  };
  const steps = [...preformed, ...order.map((step) => works[step])];
  const sum = (which: readonly StepWork["step"][]) =>
    steps.reduce((all, { step, heats }) => all + (which.includes(step) ? heats : 0), 0);
  const both = ["preform"] as const;
  return {
    steps,
    blade: sum([...both, "point", "taper", "bevel", "straighten", "planish"]),
    tang: sum([...both, "tang"]),
  };
}

type Between = { deformation: number; perSurface: number };

/** A tang is drawn to its width and its thickness in the same heats. */
function tangWork(
  wide: Between,
  thin: Between,
  made: (step: StepWork["step"], of: Between) => StepWork,
): StepWork {
  const deformation = wide.deformation + thin.deformation;
  const perSurface =
    deformation > 0
      ? (wide.perSurface * wide.deformation + thin.perSurface * thin.deformation) / deformation
      : thin.perSurface;
  return made("tang", { deformation, perSurface });
}

/** Points down a bevel that its thinning is summed over. */
const DOWN = 24;

/** ∫ t ln(T/t) dy dx over what is set down, and the edge's size half way there. Source: geometry. */
export function bevelWork(fromButt: readonly BlankSection[]): Between {
  let [sum, sized, length] = [0, 0, 0];
  const over = ({ T, b, e, isBevelled }: BlankSection) => {
    if (!isBevelled || b <= 0) return 0;
    let across = 0;
    for (let i = 0; i < DOWN; i++) {
      const t = T - ((T - e) * (i + 0.5)) / DOWN;
      across += (t * Math.log(T / t) * b) / DOWN;
    }
    return across;
  };
  for (let i = 1; i < fromButt.length; i++) {
    const [a, b] = [fromButt[i - 1]!, fromButt[i]!];
    const dx = b.x - a.x;
    sum += ((over(a) + over(b)) / 2) * dx;
    if (!b.isBevelled) continue;
    sized += perSurfaceOfFlat((b.T + b.e) / 2) * dx;
    length += dx;
  }
  return { deformation: sum, perSurface: length > 0 ? sized / length : 1 };
}
