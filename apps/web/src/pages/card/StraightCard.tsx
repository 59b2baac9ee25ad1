import { firstFace } from "@true-spine/core/straight/advice.ts";
import { straightAt } from "@true-spine/core/work/joined.ts";
import { useState } from "react";
import { Link } from "react-router";
import { useSettings } from "../../app/settings.ts";
import { useFilePart, useScreen } from "../../blade/screen.ts";
import { Caution } from "../../parts/Caution.tsx";
import { Question } from "../../parts/Question.tsx";
import { useShop } from "../../shop/shop.ts";
import { strike } from "../../work/strike.ts";
import { useWorkRows } from "../../work/useWorkRows.ts";
import { useStraight } from "../../workers/straight.ts";
import { WorkTrouble } from "../../workers/WorkTrouble.tsx";
import { readAnvil, useLaid } from "../straight/anvil.ts";
import { HeldView } from "../straight/HeldView.tsx";
import { ReadSetGroup } from "../straight/ReadSetGroup.tsx";
import { toDo } from "../straight/WorkGroup.tsx";
import { Big } from "./CardButtons.tsx";
import { useAwake } from "./useAwake.ts";

const DEGREES = 180 / Math.PI;

/** At the anvil: the blade as it is held, the line to strike along, and two large buttons. Struck, then read, before the next blow. */
export function StraightCard({ stage }: { stage: string }) {
  const screen = useScreen();
  const { id } = screen;
  const name = useFilePart((file) => file.name);
  const hand = useSettings((settings) => settings.hand);
  const own = useFace(hand);
  const [laid] = useLaid(id);
  const { shop } = useShop();
  const [isReading, setIsReading] = useState(false);
  const { answer, trouble, tryAgain } = useStraight(stage);
  const { sets, blows } = straightAt(useWorkRows().filter((row) => row.stage === stage));
  const last = sets.at(-1);
  const made = blows.reduce((sum, { count }) => sum + count, 0);
  const report = answer?.value.report ?? null;
  const [first] = report?.work ?? [];
  const mustRead = report !== null && report.rows === 0;
  const canStrike = !mustRead && first?.advice.face != null && !report?.isWithin;
  useAwake();
  return (
    <div className="flex h-full flex-col bg-room">
      <header className="flex min-h-14 items-center gap-5 bg-paper px-5 py-2">
        <h1 className="text-lg font-bold">{name}: straight</h1>
        <span className="text-base text-faint" role="status">
          {made} {made === 1 ? "blow" : "blows"}
        </span>
        <Link
          className="ml-auto text-base font-semibold underline"
          to={`/blades/${id}/straight?after=${stage}`}
        >
          Back to the page
        </Link>
      </header>
      <WorkTrouble what="How straight it is" trouble={trouble} onTry={tryAgain} />
      <div className="min-h-0 flex-1 bg-paper">
        {report && (
          <HeldView
            face={first?.advice.face ?? own.face}
            strikes={canStrike ? (first?.strikes ?? []) : []}
            isLarge
          />
        )}
      </div>
      <div className="flex flex-wrap items-center gap-x-8 gap-y-2 bg-sheet px-5 py-4">
        {canStrike && first!.strikes.length > 0 && (
          <p className="text-6xl font-bold">{(first!.strikes[0]!.turn * DEGREES).toFixed(2)}°</p>
        )}
        <p className="min-w-72 flex-1 text-2xl">
          {report ? toDo(report, answer!.value.work) : "Working it out …"}
        </p>
        <Caution>
          One blow, then look. Eyes. A hard blade can snap; tape the edge, and never within 5 mm of it. Hot
          steel looks cold.
        </Caution>
      </div>
      <div className="grid grid-cols-2 gap-px bg-rule">
        <Big
          isOff={!canStrike}
          isMain={canStrike}
          onClick={() =>
            report && strike(screen, { report, stage, count: 1, ...(last ? { lastSet: last } : {}) })
          }
        >
          Struck
        </Big>
        <Big isMain={!canStrike} onClick={() => setIsReading(true)}>
          Read
        </Big>
      </div>
      {report && (
        <Question title="Read along it" isOpen={isReading} onClose={() => setIsReading(false)} wide>
          <ReadSetGroup
            report={report}
            stage={stage}
            state={report.state}
            face={own.face}
            onFace={own.setFace}
            instrument={shop.instruments?.find(({ kind }) => kind === "feelers")?.id}
            onKept={() => setIsReading(false)}
            onAnvil={
              laid && (async (kind, on, xs) => readAnvil(id, { stage, kind, face: on, xs, y: report.y }))
            }
          />
        </Question>
      )}
    </div>
  );
}

/** The face that is read: the one that a hand begins with, until another is chosen. */
function useFace(hand: "left" | "right") {
  const [chosen, setFace] = useState<"left" | "right" | null>(null);
  return { face: chosen ?? firstFace(hand), setFace };
}
