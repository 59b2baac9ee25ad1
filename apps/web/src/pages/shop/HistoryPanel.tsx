import { useQueryClient } from "@tanstack/react-query";
import type { Thinning } from "@true-spine/core/registry/contract.ts";
import { useState } from "react";
import { whyOf } from "../../api/client.ts";
import { thinHistory, useHistorySize } from "../../api/house.ts";
import { Alert } from "../../parts/Alert.tsx";
import { useNotices } from "../../parts/Notices.tsx";
import { PlainButton } from "../../parts/PlainButton.tsx";
import { Question } from "../../parts/Question.tsx";

/** What of the history is older than the rule keeps whole, and the way to thin it: never by itself. */
export function HistoryPanel() {
  const { data } = useHistorySize();
  const [isAsked, setIsAsked] = useState(false);
  const [why, setWhy] = useState<string | null>(null);
  const queries = useQueryClient();
  const thin = async () => {
    setIsAsked(false);
    try {
      const went = await thinHistory();
      useNotices.getState().tell(`Thinned out: ${inWords(went)}.`);
      await queries.invalidateQueries({ queryKey: ["history"] });
    } catch (error) {
      setWhy(whyOf(error));
    }
  };
  if (!data) return null;
  const isAny = data.revisions + data.documents > 0;
  return (
    <section aria-labelledby="history" className="mt-5">
      <h2 id="history" className="text-lg font-bold">
        History
      </h2>
      <p className="mt-1 max-w-prose text-sm text-faint">
        Every revision of the last 90 days stays; before that the last of each day, and always what has a
        name, is named elsewhere, is the first or stands. Nothing goes by itself.
      </p>
      <p className="mt-1">{isAny ? `Older than that: ${inWords(data)}.` : "Nothing is older than that."}</p>
      {why && <Alert className="mt-2">{why}</Alert>}
      {isAny && (
        <div className="mt-2">
          <PlainButton onClick={() => setIsAsked(true)}>Thin it out</PlainButton>
        </div>
      )}
      <Question title="Thin the history out?" isOpen={isAsked} onClose={() => setIsAsked(false)}>
        <p>{inWords(data)} go for good here. They stay in the copies that have them.</p>
        <div className="mt-5 flex justify-end gap-2">
          <PlainButton onClick={() => setIsAsked(false)}>Leave it whole</PlainButton>
          <PlainButton kind="main" onClick={() => void thin()}>
            Thin it out
          </PlainButton>
        </div>
      </Question>
    </section>
  );
}

const inWords = ({ revisions, documents }: Thinning) =>
  `${revisions} ${revisions === 1 ? "revision" : "revisions"} and ${documents} ${documents === 1 ? "state" : "states"} of documents`;
