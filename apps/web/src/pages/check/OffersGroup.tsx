import type { BenchReport } from "@true-spine/core/findings/bench-report.ts";
import type { Asked } from "@true-spine/core/inspect/bench.ts";
import { showLengthWithUnit } from "@true-spine/core/units/length.ts";
import type { Remote } from "comlink";
import { useState } from "react";
import { useSettings } from "../../app/settings.ts";
import { useScreen } from "../../blade/screen.ts";
import { Group, SmallButton } from "../../parts/Group.tsx";
import { useNotices } from "../../parts/Notices.tsx";
import type { OfferWithRoute } from "../../workers/bench.worker.ts";
import { useWork } from "../../workers/useWork.ts";
import { WorkTrouble } from "../../workers/WorkTrouble.tsx";
import type { Workers } from "../../workers/workers.ts";

/** The as-found steel: whether the drawn blade is still in it, and up to three others that are. */
export function OffersGroup({ asked, spare }: { asked: Asked; spare: BenchReport["spare"] }) {
  const { open } = useScreen();
  const unit = useSettings((settings) => settings.unit);
  const [question, setQuestion] = useState<Asked | null>(null);
  const { answer, isBehind, trouble, tryAgain } = useWork("bench", question, offersOf);
  // What was offered is of what was asked then.
  const offers = question === asked && answer?.to === asked ? answer.value : null;
  const say = (mm: number) => showLengthWithUnit(mm, unit);
  const takeIt = ({ blade }: OfferWithRoute) => {
    open.end();
    const faults = open.replace(blade);
    if (faults.length > 0) return;
    useNotices
      .getState()
      .tell("The blade is what is still in the steel; its route and card follow. Undo takes it back.");
  };
  return (
    <Group title="Still in the steel">
      {spare !== null && (
        <p className="text-sm">
          {spare.least >= 0
            ? `The blade as drawn is: ${say(spare.least)} to spare on each face at the least, within ${say(spare.within)}.`
            : -spare.least < spare.within
              ? `The blade as drawn may be: by ${say(-spare.least)} that cannot be read, within ${say(spare.within)}.`
              : `The blade as drawn is not: ${say(-spare.least)} is missing where it is least.`}
        </p>
      )}
      {question !== asked && (
        <SmallButton onClick={() => setQuestion(asked)}>Which blades are still in it?</SmallButton>
      )}
      <WorkTrouble what="What is still in it" trouble={trouble} onTry={tryAgain} />
      {question === asked && isBehind && (
        <p className="text-xs text-faint">Trying thinner, shorter, other lines …</p>
      )}
      {offers?.length === 0 && (
        <p className="text-xs text-faint">
          None of the changes tried is sound in this steel: thinner, shorter, another line, another purpose.
        </p>
      )}
      {offers?.map((offer) => (
        <div key={`${offer.kind} ${offer.by}`} className="flex items-start gap-2 text-sm">
          <p className="min-w-0 flex-1">
            <strong className="font-semibold">{named(offer, say)}</strong>{" "}
            <span className="text-xs text-faint">
              {say(Math.max(0, offer.spare))} to spare
              {offer.minutes !== null && `; about ${Math.round(offer.minutes)} minutes at the belts still`}.
            </span>
          </p>
          {offer.kind !== "as drawn" && (
            <SmallButton onClick={() => takeIt(offer)}>Make this one</SmallButton>
          )}
        </div>
      ))}
    </Group>
  );
}

async function offersOf(
  remote: Remote<Workers["bench"]>,
  asked: Asked,
  tell: (offers: readonly OfferWithRoute[]) => void,
): Promise<void> {
  tell(await remote.offers(asked));
}

function named({ kind, by, blade }: OfferWithRoute, say: (mm: number) => string): string {
  switch (kind) {
    case "as drawn":
      return "As drawn.";
    case "thinner":
      return `Thinner: ${say(by)} less behind the edge, the faces let down with it.`;
    case "shorter":
      return `Shorter by ${say(by)}.`;
    case "line moved":
      return `Grind line ${by > 0 ? "higher" : "lower"} by ${Math.round(Math.abs(by) * 100)} %.`;
    case "another purpose":
      return `As a ${blade.use} blade, ${say(by)} thinner behind the edge.`;
  }
}
