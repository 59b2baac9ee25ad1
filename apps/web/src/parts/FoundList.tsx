import type { Offered } from "@true-spine/core/findings/finding.ts";
import { SmallButton } from "./Group.tsx";
import { useNotices } from "./Notices.tsx";
import { rowNames } from "./rowNames.ts";
import { Sign } from "./Sign.tsx";
import { useTakenOnceKnown } from "./useTakenOnceKnown.ts";

/** What was found of a page's work, each with its basis and what may be done about it at one press. Nothing where nothing was. */
export function FoundList<Offer extends { readonly words: string }>({
  label,
  findings,
  isOld,
  onTake,
}: {
  label: string;
  findings: readonly Offered<Offer>[];
  /** Whether they are of how things stood a moment ago. */
  isOld: boolean;
  /** Puts what is offered in; a text is why that was refused. */
  onTake: (offer: Offer) => string | null;
}) {
  const rows = rowNames(findings.map(({ id }) => id));
  const offered = findings.flatMap(({ offers }, i) =>
    offers.map((offer) => [nameOf(rows[i]!, offer), offer] as const),
  );
  const { press, waiting } = useTakenOnceKnown(new Map(offered), isOld, (offer) => {
    const why = onTake(offer);
    if (why !== null) useNotices.getState().tell(`“${offer.words}” was not applied. ${why}`);
  });
  if (findings.length === 0) return null;
  return (
    <ul aria-label={label} className="-mt-px border-t border-rule">
      {findings.map(({ severity, message, advice, basis, offers }, i) => (
        <li key={rows[i]} className="flex items-start gap-2 border-b border-rule py-1.5 text-sm">
          <Sign of={severity} className="mt-1 size-3.5" />
          <span>
            <strong className="font-semibold">{message}</strong> {advice}{" "}
            <span className="text-xs text-faint">Basis: {basis}.</span>
            {offers.length > 0 && (
              <span className="mt-1 flex flex-wrap gap-2">
                {offers.map((offer) => (
                  <SmallButton
                    key={offer.words}
                    isWaiting={waiting === nameOf(rows[i]!, offer)}
                    onClick={() => press(nameOf(rows[i]!, offer))}
                  >
                    {offer.words}
                  </SmallButton>
                ))}
              </span>
            )}
          </span>
        </li>
      ))}
    </ul>
  );
}

const nameOf = (row: string, { words }: { readonly words: string }) => `${row} ${words}`;
