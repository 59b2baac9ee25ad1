import type { Severity } from "@true-spine/core/findings/finding.ts";
import type { Verdict } from "@true-spine/core/inspect/figure.ts";

/** What bands and uncertainties rest on, said where they are shown. */
export const BAND_WORDS =
  "Bands are starting values in the spirit of common practice. ± covers 95 of 100 readings, put together as JCGM 100:2008 (GUM) does from the instrument and from where it was placed; good and out are beyond that, doubtful is within it: read it again.";

/** Status by shape: filled to fix, half to watch, open for well. */
export const SIGN_OF: Readonly<Record<Verdict, Severity | "well">> = {
  good: "well",
  doubtful: "watch",
  out: "fix",
};
