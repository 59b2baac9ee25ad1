import { massOf, solidBetween } from "../blade/mass.ts";
import type { Blade } from "../blade/schema.ts";
import { balanceLevers, balanceOf } from "../handle/balance.ts";
import type { Handle } from "../handle/schema.ts";
import { densityOf } from "../steel/steels.ts";
import type { Finding } from "./finding.ts";
import type { Judged, Rule } from "./judged.ts";

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
  const where = ahead >= 0 ? "ahead of" : "behind";
  const finding: Finding = {
    id: "balance-far",
    severity: "watch",
    where: { x: [centre[0], centre[0]] },
    measured: ahead,
    wanted: [CHOPPER_AHEAD - BAND, CHOPPER_AHEAD + BAND],
    unit: "mm",
    message: `The bare steel, ${massOf(volume, densityOf(blade.steel)).toFixed(0)} g, balances ${say.length(Math.abs(ahead))} ${where} the plunge; a chopper wants about ${say.length(CHOPPER_AHEAD)} ahead of it before the handle is on.`,
    advice: leversOf(blade, null, say) || "Change the taper, or lighten the tang.",
    basis: "common practice",
    remedies: off < 0 ? lighterTang(blade) : [],
  };
  return [finding];
};

/** A tang tapered harder, step by step: brings the balance forward. */
function lighterTang(blade: Blade): Finding["remedies"] {
  const butt = blade.thickness[0]!.t;
  return [0.75, 0.6, 0.45].map((share) => {
    const t = Math.round(butt * share * 100) / 100;
    return {
      words: `Taper the tang to ${t.toFixed(2)} mm at the butt.`,
      changes: [{ path: ["thickness", 0, "t"], value: t }],
    };
  });
}

/** How far from the plunge a chopper with its handle on may balance, mm: a starting value about common practice. */
const AT_THE_PLUNGE = 12;

/** A chopper with its handle on, held to balance at the plunge. */
export const balanceWithHandle: Rule = ({ blade, field, purpose, handle, say }) => {
  if (purpose?.key !== "chopper" || !handle) return [];
  const { fromPlunge, mass, x } = balanceOf(field, handle);
  if (fromPlunge === null || Math.abs(fromPlunge) <= AT_THE_PLUNGE) return [];
  const levers = leversOf(blade, handle, say);
  return [
    {
      id: "balance-with-handle-far",
      severity: "watch",
      where: { x: [x, x] },
      measured: fromPlunge,
      wanted: [-AT_THE_PLUNGE, AT_THE_PLUNGE],
      unit: "mm",
      message: `With its handle on, ${mass.toFixed(0)} g, it balances ${say.length(Math.abs(fromPlunge))} ${fromPlunge > 0 ? "ahead of" : "behind"} the plunge; a chopper wants it there.`,
      advice: levers || "Change the taper, or the weight of the handle.",
      basis: "common practice",
      remedies: fromPlunge < 0 ? lighterTang(blade) : [],
    },
  ];
};

/** What would move the balance and by how much, in a sentence; empty where nothing does. */
function leversOf(blade: Blade, handle: Handle | null, say: Judged["say"]): string {
  const levers = balanceLevers(blade, handle)
    .filter((lever) => Math.abs(lever.balance) > 0.05)
    .map(
      (lever) =>
        `${lever.change} moves it ${say.length(Math.abs(lever.balance))} ${lever.balance > 0 ? "forward" : "back"}`,
    );
  return levers.length > 0 ? `What would move it: ${levers.join("; ")}.` : "";
}

export const WILL_IT_BALANCE: readonly Rule[] = [balanceFar, balanceWithHandle];
