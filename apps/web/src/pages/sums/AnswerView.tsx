import type { Answer, Figure, Given, Nearest, Sum } from "@true-spine/core/sums/sum.ts";
import { COVERAGE } from "@true-spine/core/sums/uncertainty.ts";
import { useSettings } from "../../app/settings.ts";
import { SmallButton } from "../../parts/Group.tsx";
import { PutInto } from "./PutInto.tsx";
import { showFigure } from "./reading.ts";
import { SketchView } from "./SketchView.tsx";
import { Slip } from "./Slip.tsx";

/** What a sum comes to: figures, drawing, the relation with its figures put in, and what to do with it. */
export function AnswerView({
  sum,
  given,
  answer,
  worth,
  nearest,
  onNearest,
}: {
  sum: Sum;
  given: Given;
  answer: Answer;
  /** Standard uncertainties of its figures, by their names. */
  worth: ReadonlyMap<string, number>;
  /** What of an impossible question is possible. */
  nearest: Nearest | undefined;
  onNearest: (given: Given) => void;
}) {
  return (
    <section aria-label="Answer" aria-live="polite" className="min-h-0 min-w-0 flex-1 overflow-y-auto p-4">
      {answer.state === "wanting" && <p className="text-lg text-faint">{answer.why}</p>}
      {answer.state === "impossible" && (
        <div>
          <p className="text-lg font-semibold text-fix">Impossible because {answer.because}.</p>
          {nearest && (
            <p className="mt-2 flex flex-wrap items-center gap-3">
              {nearest.words}
              <SmallButton onClick={() => onNearest(nearest.given)}>Take that</SmallButton>
            </p>
          )}
        </div>
      )}
      {answer.state === "answered" && (
        <div className="flex flex-wrap items-start gap-4">
          <div className="flex min-w-66 flex-1 flex-col gap-3">
            <Figures figures={answer.figures} worth={worth} />
            {answer.relations.map((relation) => (
              <p key={relation} className="text-sm text-faint">
                {relation}
              </p>
            ))}
            {answer.notes?.map((note) => (
              <p key={note} className="text-sm">
                {note}
              </p>
            ))}
            <div className="flex flex-wrap items-center gap-2 border-t border-rule pt-3">
              <PutInto sum={sum} given={given} answer={answer} />
              <Slip sum={sum} given={given} answer={answer} worth={worth} />
            </div>
          </div>
          {answer.sketch && (
            <div className="w-80 max-w-full shrink-0">
              <SketchView sketch={answer.sketch} label={`Drawing: ${sum.name}`} />
            </div>
          )}
        </div>
      )}
    </section>
  );
}

export function Figures({
  figures,
  worth,
}: {
  figures: readonly Figure[];
  worth: ReadonlyMap<string, number>;
}) {
  const unit = useSettings((settings) => settings.unit);
  const main = figures.filter(({ isMain }) => isMain);
  const rest = figures.filter(({ isMain }) => !isMain);
  const sure = (figure: Figure) => {
    const u = worth.get(figure.name);
    return u === undefined ? null : `± ${showFigure({ ...figure, value: COVERAGE * u }, unit)}`;
  };
  return (
    <>
      <dl className="flex flex-wrap gap-x-8 gap-y-2">
        {main.map((figure) => (
          <div key={figure.name}>
            <dt className="text-xs text-faint">{figure.name}</dt>
            <dd className="text-3xl font-bold">
              {showFigure(figure, unit)}
              {sure(figure) && <span className="ml-2 text-sm font-semibold text-faint">{sure(figure)}</span>}
            </dd>
          </div>
        ))}
      </dl>
      {rest.length > 0 && (
        <table className="w-full max-w-96 text-sm">
          <tbody>
            {rest.map((figure) => (
              <tr key={figure.name} className="border-t border-rule">
                <th scope="row" className="py-1 text-left font-normal text-faint">
                  {figure.name}
                </th>
                <td className="text-right font-semibold whitespace-nowrap">
                  {showFigure(figure, unit)}
                  {sure(figure) && <span className="ml-1 text-xs text-faint">{sure(figure)}</span>}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </>
  );
}
