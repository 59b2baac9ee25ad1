import { massOf, solidBetween } from "../blade/mass.ts";
import { balanceLevers } from "../handle/balance.ts";
import { densityOf } from "../steel/steels.ts";
import type { Finding } from "./finding.ts";
import type { Rule } from "./judged.ts";

/**
 * Where the bare steel of a chopper balances, ahead of the plunge, mm. Source: common practice: three fingers,
 * about 55 mm, before the handle is on, so that it comes back to the plunge with it. The band is our own.
 */
const CHOPPER_AHEAD = 55;
const BAND = 25;

/** Will it balance: the bare steel against what its purpose wants, with what would move it and by how much. */
export const balanceFar: Rule = ({ blade, field, purpose, say }) => {
  if (purpose?.key !== "chopper") return [];
  const plunges = [field.plunges.right?.x, field.plunges.left?.x].filter((x) => x !== undefined);
  if (plunges.length === 0) return [];
  const { volume, centre } = solidBetween(field);
  const ahead = centre[0] - Math.max(...plunges);
  const off = ahead - CHOPPER_AHEAD;
  if (Math.abs(off) <= BAND) return [];
  const levers = balanceLevers(blade, null)
    .filter((lever) => Math.abs(lever.balance) > 0.05)
    .map(
      (lever) =>
        `${lever.change} moves it ${say.length(Math.abs(lever.balance))} ${lever.balance > 0 ? "forward" : "back"}`,
    );
  const where = ahead >= 0 ? "ahead of" : "behind";
  const finding: Finding = {
    id: "balance-far",
    severity: "watch",
    where: { x: [centre[0], centre[0]] },
    measured: ahead,
    wanted: [CHOPPER_AHEAD - BAND, CHOPPER_AHEAD + BAND],
    unit: "mm",
    message: `The bare steel, ${massOf(volume, densityOf(blade.steel)).toFixed(0)} g, balances ${say.length(Math.abs(ahead))} ${where} the plunge; a chopper wants about ${say.length(CHOPPER_AHEAD)} ahead of it before the handle is on.`,
    advice:
      levers.length > 0
        ? `What would move it: ${levers.join("; ")}.`
        : "Change the taper, or lighten the tang.",
    basis: "common practice",
    remedies: off < 0 ? lighterTang(blade) : [],
  };
  return [finding];
};

/** A tang tapered harder, step by step: brings the balance forward. */
function lighterTang(blade: Parameters<typeof balanceLevers>[0]): Finding["remedies"] {
  const butt = blade.thickness[0]!.t;
  return [0.75, 0.6, 0.45].map((share) => {
    const t = Math.round(butt * share * 100) / 100;
    return {
      words: `Taper the tang to ${t.toFixed(2)} mm at the butt.`,
      changes: [{ path: ["thickness", 0, "t"], value: t }],
    };
  });
}

export const WILL_IT_BALANCE: readonly Rule[] = [balanceFar];
