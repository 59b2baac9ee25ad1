import { instrumentsOf } from "@true-spine/core/shop/instruments.ts";
import { nearestOf } from "@true-spine/core/sums/nearest.ts";
import {
  type Answer,
  type Ask,
  type Given,
  type Nearest,
  type ReadAs,
  type Say,
  type Sum,
  sayIn,
} from "@true-spine/core/sums/sum.ts";
import { asksFor, withUsual } from "@true-spine/core/sums/sums.ts";
import { COVERAGE, type ReadWith, uncertaintiesOf } from "@true-spine/core/sums/uncertainty.ts";
import { useEffect, useMemo, useRef, useState } from "react";
import { useSettings } from "../../app/settings.ts";
import { Alert } from "../../parts/Alert.tsx";
import { Choice, SmallButton } from "../../parts/Group.tsx";
import { TextBox } from "../../parts/TextBox.tsx";
import { useShop } from "../../shop/shop.ts";
import { AnswerView } from "./AnswerView.tsx";
import { type Typed, useSums } from "./kept.ts";
import { asTyped, givenFrom, readAsk, showFigure } from "./reading.ts";

const NOTHING_TYPED: Typed = {};
/** How long the hand rests before a question counts as asked, ms. */
const REST_MS = 1500;

/** One sum: its boxes, and beside them what they come to. */
export function SumView({ sum }: { sum: Sum }) {
  const unit = useSettings((settings) => settings.unit);
  const typed = useSums((kept) => kept.typed[sum.key] ?? NOTHING_TYPED);
  const { type, keep } = useSums();
  const readWith = useReadWith(sum);
  const say = useMemo(() => sayIn(unit), [unit]);
  const given = useMemo(() => withUsual(sum, givenFrom(sum.asks, typed, unit)), [sum, typed, unit]);
  const answer = useMemo(() => sum.answer(given, say), [sum, given, say]);
  const worth = useMemo(
    () =>
      answer.state === "answered" ? uncertaintiesOf(sum, given, readWith, say) : new Map<string, number>(),
    [answer, sum, given, readWith, say],
  );
  const box = useRef<HTMLInputElement>(null);
  useEffect(() => box.current?.focus({ preventScroll: true }), []);
  const nearest = useNearest(sum, given, answer, say);
  const said = saidBy(answer, unit);
  useEffect(() => {
    if (said === null) return;
    const rest = setTimeout(() => keep({ sum: sum.key, typed, said, at: Date.now() }), REST_MS);
    return () => clearTimeout(rest);
  }, [said, sum, typed, keep]);
  const put = (key: string, text: string) => type(sum.key, { ...typed, [key]: text });
  const first = sum.asks.find(({ kind }) => kind !== "choice");
  return (
    <div className="flex min-h-0 min-w-0 flex-1 max-lg:portrait:flex-col max-lg:portrait:overflow-y-auto">
      <form
        aria-label={sum.name}
        className="flex w-80 shrink-0 flex-col gap-2.5 overflow-y-auto border-r border-rule bg-sheet p-4 max-lg:portrait:w-full max-lg:portrait:border-r-0"
        onSubmit={(event) => event.preventDefault()}
      >
        <h2 className="text-lg leading-tight font-bold">{sum.name}</h2>
        <p className="text-xs text-faint">{sum.how}</p>
        {asksFor(sum, given).map((ask) =>
          ask.kind === "choice" ? (
            <Choice
              key={ask.key}
              label={ask.name}
              value={typed[ask.key] ?? ask.usual}
              options={ask.options}
              onChange={(value) => put(ask.key, value)}
            />
          ) : (
            <AskBox
              key={ask.key}
              ask={ask}
              text={typed[ask.key] ?? ""}
              onText={(text) => put(ask.key, text)}
              inputRef={ask === first ? box : undefined}
            />
          ),
        )}
        <div>
          <SmallButton onClick={() => type(sum.key, {})}>Clear the boxes</SmallButton>
        </div>
        <ReadWithChoices sum={sum} />
      </form>
      <AnswerView
        sum={sum}
        given={given}
        answer={answer}
        worth={worth}
        nearest={nearest}
        onNearest={(nearest) =>
          type(sum.key, {
            ...typed,
            ...Object.fromEntries(
              Object.entries(nearest).map(([key, value]) => [
                key,
                asTyped(sum.asks.find((ask) => ask.key === key)!, value, unit),
              ]),
            ),
          })
        }
      />
    </div>
  );
}

/** How long the hand rests before the nearest that is possible is looked for, ms: many questions are asked for it. */
const SEEK_MS = 350;

/** The nearest that is possible to an impossible question: as its answer says itself, else looked for once the hand rests. */
function useNearest(sum: Sum, given: Given, answer: Answer, say: Say): Nearest | undefined {
  const [found, setFound] = useState<{ readonly of: Answer; readonly nearest: Nearest | undefined } | null>(
    null,
  );
  const own = answer.state === "impossible" ? answer.nearest : undefined;
  const isSought = answer.state === "impossible" && !own;
  useEffect(() => {
    if (!isSought) return;
    const rest = setTimeout(() => setFound({ of: answer, nearest: nearestOf(sum, given, say) }), SEEK_MS);
    return () => clearTimeout(rest);
  }, [isSought, answer, sum, given, say]);
  return own ?? (found?.of === answer ? found.nearest : undefined);
}

/** An answer in a line; null while there is none. */
function saidBy(answer: Answer, unit: Parameters<typeof showFigure>[1]): string | null {
  if (answer.state !== "answered") return null;
  const main = answer.figures.filter(({ isMain }) => isMain);
  return (main.length > 0 ? main : answer.figures.slice(0, 1))
    .map((figure) => `${figure.name} ${showFigure(figure, unit)}`)
    .join(", ");
}

function AskBox({
  ask,
  text,
  onText,
  inputRef,
}: {
  ask: Exclude<Ask, { kind: "choice" }>;
  text: string;
  onText: (text: string) => void;
  inputRef: React.Ref<HTMLInputElement> | undefined;
}) {
  const unit = useSettings((settings) => settings.unit);
  const read = readAsk(ask, text, unit);
  const suffix = ask.kind === "length" ? (unit === "inch" ? "in" : unit) : ask.kind === "angle" ? "°" : "";
  return (
    <TextBox
      label={ask.name}
      size="usual"
      width="w-32 shrink-0"
      align={ask.kind === "text" ? "left" : "right"}
      inputMode="text"
      {...(suffix ? { suffix } : {})}
      {...(inputRef ? { inputRef } : {})}
      {...(ask.usual === undefined ? {} : { placeholder: asTyped(ask, ask.usual, unit) })}
      text={text}
      why={read && !read.ok ? read.why : null}
      onText={onText}
      onFocus={(input) => input.select()}
      onEnter={(input) => {
        const boxes = [...(input.form?.querySelectorAll("input") ?? [])];
        boxes[(boxes.indexOf(input) + 1) % boxes.length]?.focus();
      }}
    />
  );
}

const READ_AS: Readonly<Record<ReadAs, string>> = {
  thickness: "Thicknesses read with",
  height: "Heights read with",
};

const kindsOf = (sum: Sum): ReadAs[] =>
  (Object.keys(READ_AS) as ReadAs[]).filter((as) =>
    sum.asks.some((ask) => "readAs" in ask && ask.readAs === as),
  );

/** The instruments that were chosen for what this sum reads. */
function useReadWith(sum: Sum): ReadWith {
  const { shop } = useShop();
  const chosen = useSums((kept) => kept.readWith);
  return useMemo(() => {
    const instruments = instrumentsOf(shop);
    return Object.fromEntries(
      kindsOf(sum).flatMap((as) => {
        const instrument = instruments.find(({ id }) => id === chosen[as]);
        return instrument ? [[as, instrument] as const] : [];
      }),
    );
  }, [sum, shop, chosen]);
}

function ReadWithChoices({ sum }: { sum: Sum }) {
  const { shop } = useShop();
  const { readWith, read } = useSums();
  const instruments = instrumentsOf(shop).filter(({ kind }) =>
    ["caliper", "height-gauge", "rule", "feelers"].includes(kind),
  );
  const kinds = kindsOf(sum);
  if (kinds.length === 0) return null;
  return (
    <fieldset className="mt-1 flex flex-col gap-2 border-t border-rule pt-2">
      <legend className="sr-only">How sure</legend>
      {kinds.map((as) => (
        <Choice
          key={as}
          label={READ_AS[as]}
          value={instruments.some(({ id }) => id === readWith[as]) ? readWith[as]! : ""}
          options={[
            { value: "", name: "not said" },
            ...instruments.map(({ id, name }) => ({ value: id, name })),
          ]}
          onChange={(id) => read(as, id)}
        />
      ))}
      <p className="text-[11px] text-faint">
        Said, the answer tells how sure it is: {COVERAGE} standard uncertainties, as the readings bring them.
      </p>
      {kinds.some((as) => readWith[as] && !instruments.some(({ id }) => id === readWith[as])) && (
        <Alert>An instrument that was chosen is no longer in the stores.</Alert>
      )}
    </fieldset>
  );
}
