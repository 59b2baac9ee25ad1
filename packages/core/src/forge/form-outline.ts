import { radians } from "../units/angle.ts";
import type { BlankSection } from "./blank.ts";
import type { Form } from "./forms.ts";

/** A form as it is drawn: its outline once round, from its butt along the top and back, and its middle line, mm. */
export interface FormOutline {
  readonly outline: readonly (readonly [number, number])[];
  readonly middle: readonly (readonly [number, number])[];
  readonly box: {
    readonly left: number;
    readonly right: number;
    readonly bottom: number;
    readonly top: number;
  };
}

/**
 * A form's outline: the blank's middle line, its steps made as long as the form has them and turned by as much as it is bent there, with
 * half of the form's width square to it on both sides. It begins where the blank does. Source: geometry.
 */
export function formOutline(form: Form, sections: readonly BlankSection[]): FormOutline {
  const fromButt = sections.toReversed();
  const middles = fromButt.map(({ bottom, top }) => (bottom + top) / 2);
  const isBar = form.step === "bar";
  let [px, py] = [fromButt[0]!.x, isBar ? (middles[0]! + middles.at(-1)!) / 2 : middles[0]!];
  const upper: [number, number][] = [];
  const lower: [number, number][] = [];
  const middle: [number, number][] = [];
  for (const [i, place] of form.at.entries()) {
    const angle = radians(place.turned);
    const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
    const last = form.at[i - 1];
    if (last) {
      const dx = place.along - last.along;
      const step = place.x - last.x;
      const rate = step > 0 ? dx / step : 0;
      const dy = isBar ? 0 : (middles[i]! - middles[i - 1]!) * rate;
      px += dx * cos - dy * sin;
      py += dx * sin + dy * cos;
    }
    const half = place.width / 2;
    middle.push([px, py]);
    upper.push([px - half * sin, py + half * cos]);
    lower.push([px + half * sin, py - half * cos]);
  }
  const outline = [...upper, ...lower.toReversed()];
  const xs = outline.map(([x]) => x);
  const ys = outline.map(([, y]) => y);
  return {
    outline,
    middle,
    box: { left: Math.min(...xs), right: Math.max(...xs), bottom: Math.min(...ys), top: Math.max(...ys) },
  };
}
