import { type DateOrder, momentOf } from "@true-spine/formats/moments.ts";
import type { Asks } from "@true-spine/formats/read-readings.ts";
import { PlainButton } from "../../parts/PlainButton.tsx";
import { Question } from "../../parts/Question.tsx";

const ORDERS: readonly DateOrder[] = ["day first", "month first"];

/** What a file of readings leaves open, asked before anything is read from it. */
export function ReadingsAsked({
  name,
  asks,
  onSay,
  onClose,
}: {
  name: string;
  asks: Asks;
  onSay: (dates?: DateOrder) => void;
  onClose: () => void;
}) {
  const { date, headings } = asks;
  const ways = date === null ? [] : ORDERS.flatMap((order) => inWords(date, order));
  return (
    <Question title={`What ${name} means`} isOpen onClose={onClose}>
      {headings.length > 0 && (
        <>
          <p>These columns have other names here:</p>
          <ul className="mt-1 list-disc pl-5">
            {headings.map(({ words, column }) => (
              <li key={words}>
                “{words}” is read as <strong className="font-semibold">{column}</strong>
              </li>
            ))}
          </ul>
        </>
      )}
      {date !== null && (
        <p className="mt-2">
          Its dates are written like “{date}”: {ways.length > 1 ? "which day is that?" : "is that this day?"}
        </p>
      )}
      <div className="mt-5 flex flex-wrap justify-end gap-2">
        <PlainButton onClick={onClose}>Leave it</PlainButton>
        {date === null && (
          <PlainButton kind="main" onClick={() => onSay()}>
            Read it so
          </PlainButton>
        )}
        {ways.map(({ order, day }) => (
          <PlainButton key={order} kind="main" onClick={() => onSay(order)}>
            {day}
          </PlainButton>
        ))}
      </div>
    </Question>
  );
}

/** The day a date is when it is read in an order; nothing where the calendar has none such. */
function inWords(date: string, order: DateOrder): { order: DateOrder; day: string }[] {
  const moment = momentOf(date, order);
  if (!moment) return [];
  const day = new Date(moment).toLocaleDateString("en-GB", {
    day: "numeric",
    month: "long",
    year: "numeric",
  });
  return [{ order, day: `${day} (${order})` }];
}
