import type { Answer, Figure, Given, Sum } from "@true-spine/core/sums/sum.ts";
import { asksFor } from "@true-spine/core/sums/sums.ts";
import { COVERAGE } from "@true-spine/core/sums/uncertainty.ts";
import { createPortal } from "react-dom";
import { useSettings } from "../../app/settings.ts";
import { SmallButton } from "../../parts/Group.tsx";
import { dayInWords } from "../../parts/when.ts";
import { asTyped, showFigure } from "./reading.ts";

/** The sum as a slip of paper for the bench: hung on the page out of sight, and the only thing that is printed. */
export function Slip({
  sum,
  given,
  answer,
  worth,
}: {
  sum: Sum;
  given: Given;
  answer: Answer & { state: "answered" };
  worth: ReadonlyMap<string, number>;
}) {
  const unit = useSettings((settings) => settings.unit);
  const sure = (figure: Figure) => {
    const u = worth.get(figure.name);
    return u === undefined ? "" : ` ± ${showFigure({ ...figure, value: COVERAGE * u }, unit)}`;
  };
  return (
    <>
      <SmallButton onClick={() => window.print()}>Print as a slip</SmallButton>
      {createPortal(
        <article className="slip" aria-hidden>
          <h1>{sum.name}</h1>
          <p>{dayInWords(Date.now())}</p>
          <dl>
            {asksFor(sum, given).flatMap((ask) => {
              const value = given[ask.key];
              if (value === undefined) return [];
              const shown =
                ask.kind === "choice"
                  ? (ask.options.find((option) => option.value === value)?.name ?? "")
                  : `${asTyped(ask, value, unit)}${ask.kind === "length" ? ` ${unit}` : ask.kind === "angle" ? "°" : ""}`;
              return [
                <div key={ask.key}>
                  <dt>{ask.name}</dt>
                  <dd>{shown}</dd>
                </div>,
              ];
            })}
          </dl>
          <hr />
          <dl>
            {answer.figures.map((figure) => (
              <div key={figure.name} className={figure.isMain ? "main" : ""}>
                <dt>{figure.name}</dt>
                <dd>
                  {showFigure(figure, unit)}
                  {sure(figure)}
                </dd>
              </div>
            ))}
          </dl>
          {answer.relations.map((relation) => (
            <p key={relation}>{relation}</p>
          ))}
          {answer.notes?.map((note) => (
            <p key={note}>{note}</p>
          ))}
        </article>,
        document.body,
      )}
    </>
  );
}
