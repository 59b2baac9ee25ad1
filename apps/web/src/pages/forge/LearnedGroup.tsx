import { shareByTurn } from "@true-spine/core/forge/set-down.ts";
import type { ForgeReport } from "@true-spine/core/route/forge-report.ts";
import { radians } from "@true-spine/core/units/angle.ts";
import { heatsAt } from "@true-spine/core/work/joined.ts";
import { useState } from "react";
import { Alert } from "../../parts/Alert.tsx";
import { AngleBox, LengthBox, ShareBox } from "../../parts/Box.tsx";
import { Group, RecordButton, SmallButton } from "../../parts/Group.tsx";
import { useShop } from "../../shop/shop.ts";
import { useWorkRows } from "../../work/useWorkRows.ts";
import { useForge } from "./useForge.ts";

/** How well a turn is read off a template, degrees: one standard deviation, starting value. */
const READ_WITHIN = 1.5;

/** What the shop has learned of how steel moves here: from how far a piece turned when its bevels were set down. */
export function LearnedGroup({ report }: { report: ForgeReport }) {
  const { shop, put: putShop } = useShop();
  const { visit, press, put, forge } = useForge();
  const [turned, setTurned] = useState(0);
  const [over, setOver] = useState(120);
  const [why, setWhy] = useState<string | null>(null);
  const { mean, u, count, isSaid } = report.toWidth;
  const made = heatsAt(useWorkRows());
  const done = report.steps.filter(({ step, heats }) => (made[step] ?? 0) > 0 && Number.isFinite(heats));
  const counted = done.reduce((sum, { step }) => sum + made[step]!, 0);
  // Held to what is reckoned, not to what was learned from it already.
  const expected = Math.round(done.reduce((sum, { heats }) => sum + heats, 0) / report.heatsLearned.ratio);
  const learn = () => {
    const { middle } = report;
    const at = (degrees: number) => middle && shareByTurn(middle, radians(degrees) / over);
    const share = at(turned);
    if (share === null) {
      setWhy("No share of the set-down turns it so far: is it measured from the straight form?");
      return;
    }
    const [low, high] = [at(turned + READ_WITHIN), at(Math.max(0, turned - READ_WITHIN))];
    const reading = Math.min(0.5, Math.abs((high ?? share) - (low ?? share)) / 2);
    setWhy(
      putShop({
        ...shop,
        forged: [...(shop.forged ?? []), { when: new Date().toISOString(), toWidth: share, reading }],
      }),
    );
  };
  return (
    <Group title="How steel moves here">
      <p className="text-xs">
        <strong>
          {(100 * mean).toFixed(1)} ± {(200 * u).toFixed(1)} %
        </strong>{" "}
        of a set-down goes to width,{" "}
        {isSaid
          ? "as you say"
          : count === 0
            ? "a starting value: no piece was measured yet"
            : `by ${count} ${count === 1 ? "piece" : "pieces"} of this shop`}
        . {Math.round(100 * report.sure)} % of the turn is sure enough to be bent beforehand.
      </p>
      <AngleBox
        label="It turned, when bevelled"
        value={turned}
        onCommit={(value) => {
          setTurned(value);
          return null;
        }}
      />
      <LengthBox
        label="over so much of it"
        value={over}
        onCommit={(value) => {
          if (value < 10) return "At least 10 mm, or nothing can be read from it.";
          setOver(value);
          return null;
        }}
      />
      <div className="flex flex-wrap gap-2">
        <RecordButton onClick={learn} isOff={turned <= 0}>
          Learn from this piece
        </RecordButton>
        {(shop.forged?.length ?? 0) > 0 && (
          <SmallButton onClick={() => setWhy(putShop({ ...shop, forged: (shop.forged ?? []).slice(0, -1) }))}>
            Take the last back
          </SmallButton>
        )}
      </div>
      <ShareBox
        label="Or say it: goes to width"
        value={forge.turn.toWidth ?? mean}
        onVisit={visit}
        onCommit={(toWidth) => put((now) => ({ ...now, turn: { ...now.turn, toWidth } }))}
      />
      {counted > 0 && expected > 0 && (
        <div className="flex items-center gap-2 text-xs">
          <span className="min-w-0 flex-1">
            {counted} heats made where about {expected} were reckoned
            {report.heatsLearned.count > 0 &&
              `; this shop makes ${report.heatsLearned.ratio.toFixed(1)} for each reckoned, by ${report.heatsLearned.count}`}
            .
          </span>
          <SmallButton
            onClick={() =>
              setWhy(
                putShop({
                  ...shop,
                  forged: [
                    ...(shop.forged ?? []),
                    { when: new Date().toISOString(), heats: { counted, expected } },
                  ],
                }),
              )
            }
          >
            Learn from its heats
          </SmallButton>
        </div>
      )}
      {isSaid && (
        <div>
          <SmallButton
            onClick={() =>
              press((now) => ({ ...now, turn: { before: now.turn.before, after: now.turn.after } }))
            }
          >
            As the shop has learned
          </SmallButton>
        </div>
      )}
      {why && <Alert>{why}</Alert>}
    </Group>
  );
}
