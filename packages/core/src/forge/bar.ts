/** A bar as it goes into the fire: mm. */
export type ForgeBar =
  | { readonly shape: "round"; readonly d: number; readonly length: number | null }
  | {
      readonly shape: "flat";
      readonly w: number;
      readonly t: number;
      readonly r: number;
      readonly length: number | null;
    };

/** What a route says of its bar, mm. */
interface InHand {
  readonly stock: number;
  readonly bar?: {
    readonly diameter?: number;
    readonly width?: number;
    readonly corner?: number;
    readonly length?: number;
  };
}

/** The route's bar, as far as that says what it is; null where its width is not known. */
export function barOf({ stock, bar }: InHand): ForgeBar | null {
  const length = bar?.length ?? null;
  if (bar?.diameter !== undefined) return { shape: "round", d: bar.diameter, length };
  return bar?.width === undefined
    ? null
    : { shape: "flat", w: bar.width, t: stock, r: bar.corner ?? 0, length };
}

/** Area of a bar's section, mm². Source: geometry. */
export function barArea(bar: ForgeBar): number {
  return bar.shape === "round" ? (Math.PI * bar.d ** 2) / 4 : bar.w * bar.t - (4 - Math.PI) * bar.r ** 2;
}

/** Round a bar's section, mm. Source: geometry. */
export function barPerimeter(bar: ForgeBar): number {
  if (bar.shape === "round") return Math.PI * bar.d;
  return 2 * (bar.w + bar.t) - (8 - 2 * Math.PI) * bar.r;
}

/** A bar in words, without a unit. */
export function barWords(bar: ForgeBar, say: (mm: number) => string): string {
  return bar.shape === "round" ? `${say(bar.d)} round` : `${say(bar.w)} × ${say(bar.t)}`;
}
