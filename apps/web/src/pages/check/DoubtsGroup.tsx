import type { BenchReport } from "@true-spine/core/findings/bench-report.ts";
import { type Spot, spotOf } from "@true-spine/core/inspect/schema.ts";
import { useLayoutEffect } from "react";
import { useSettings } from "../../app/settings.ts";
import { useScreen } from "../../blade/screen.ts";
import { Group, SmallButton } from "../../parts/Group.tsx";
import { useNotices } from "../../parts/Notices.tsx";
import { Sign } from "../../parts/Sign.tsx";
import { isTaken } from "../../parts/TextBox.tsx";
import { showFigure, unitOf } from "../../readings/figures.ts";
import { newId } from "../../saving/id.ts";

type Doubt = BenchReport["doubts"][number];

/** Readings that are taken for slips of the hand: each is read again, mended, or struck out. Until then nothing leans on it. */
export function DoubtsGroup({ doubts, onGo }: { doubts: readonly Doubt[]; onGo: (spot: Spot) => void }) {
  const mend = useMend();
  const letterKeys = useSettings((settings) => settings.letterKeys);
  const [first] = doubts;
  useLayoutEffect(() => {
    if (!first || !letterKeys) return;
    const onKey = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement;
      if (event.ctrlKey || event.metaKey || event.altKey || target.closest("[role=dialog]")) return;
      if (target.matches("input, select, textarea") && isTaken(target, event)) return;
      const key = event.key.toLowerCase();
      if (key === "r" && first.readings.length === 1) onGo(spotOf(first.readings[0]!));
      else if (key === "w" && first.mended.length > 0) mend(first);
      else return;
      event.preventDefault();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [first, letterKeys, mend, onGo]);
  if (doubts.length === 0) return null;
  return (
    <Group title="Doubted: a slip of the hand?">
      <ul aria-label="Doubted readings" className="flex flex-col gap-2">
        {doubts.map((doubt) => (
          <DoubtItem key={doubt.id} doubt={doubt} onGo={onGo} onMend={mend} />
        ))}
      </ul>
      <p className="text-xs text-faint">
        Nothing leans on these until they are settled: no fault is read from them, and no steel comes off for
        them. One that reads the same again is believed.
      </p>
    </Group>
  );
}

function DoubtItem({
  doubt,
  onGo,
  onMend,
}: {
  doubt: Doubt;
  onGo: (spot: Spot) => void;
  onMend: (doubt: Doubt) => void;
}) {
  const { readings } = useScreen();
  const unit = useSettings((settings) => settings.unit);
  const { words, mended, instead } = doubt;
  const [only] = doubt.readings.length === 1 ? doubt.readings : [];
  const isFigure = only && instead !== null && mended[0]?.value !== only.value;
  return (
    <li className="text-sm">
      <p className="flex items-start gap-2">
        <Sign of="watch" className="mt-1 size-3.5" />
        <span className="font-semibold first-letter:uppercase">{words}</span>
      </p>
      <p className="mt-1 flex flex-wrap gap-2">
        {only && <SmallButton onClick={() => onGo(spotOf(only))}>Read it again</SmallButton>}
        {mended.length > 0 && (
          <SmallButton onClick={() => onMend(doubt)}>
            {isFigure
              ? `Mend it to ${showFigure(only.what, instead, unit)} ${unitOf(only.what, unit)}`
              : only
                ? "Put it where it belongs"
                : `Mend all ${mended.length}`}
          </SmallButton>
        )}
        <SmallButton
          onClick={() => {
            for (const { id } of doubt.readings) readings.strike(id, true);
          }}
        >
          {only ? "Strike it out" : `Strike out all ${doubt.readings.length}`}
        </SmallButton>
      </p>
    </li>
  );
}

/** Strikes out what was doubted and puts in what was meant, with what was written down in a note; undone from the notice. */
function useMend(): (doubt: Doubt) => void {
  const { readings } = useScreen();
  return (doubt) => {
    const news = doubt.mended.map((one) => ({ one, id: newId() }));
    const when = new Date().toISOString();
    for (const { one, id } of news) {
      const written = doubt.readings.find((reading) => reading.id === one.id)!;
      readings.strike(written.id, true);
      readings.take({ ...one, id, when, note: `mended: ${written.value} was written down` });
    }
    const words = news.length === 1 ? "The reading is mended." : `${news.length} readings are mended.`;
    useNotices.getState().tell(words, () => {
      for (const { one, id } of news) {
        readings.strike(id, true);
        readings.strike(one.id, false);
      }
    });
  };
}
