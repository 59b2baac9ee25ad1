import { FAMILIES, valuesOf } from "@true-spine/core/design/families.ts";
import type { Dimension, Values } from "@true-spine/core/design/family.ts";
import { type Answers, type FirstBlade, GRINDS, handleFor, STARTS } from "@true-spine/core/design/first.ts";
import { firstHandle } from "@true-spine/core/design/first-handle.ts";
import { edgeOf, type Knife, middleOf } from "@true-spine/core/edge/knives.ts";
import { OWN_PURPOSE, PURPOSES } from "@true-spine/core/findings/purposes.ts";
import { stockOfRound } from "@true-spine/core/route/bar.ts";
import { NO_ROUTE } from "@true-spine/core/route/schema.ts";
import { STEELS } from "@true-spine/core/steel/steels.ts";
import { inUnit } from "@true-spine/core/units/sentence.ts";
import { useMemo, useState } from "react";
import { useNavigate, useSearchParams } from "react-router";
import { createBlade, saveDocument } from "../../api/blades.ts";
import { useSettings } from "../../app/settings.ts";
import { Alert } from "../../parts/Alert.tsx";
import { LengthBox } from "../../parts/Box.tsx";
import { Caution } from "../../parts/Caution.tsx";
import { Choice } from "../../parts/Group.tsx";
import { useNotices } from "../../parts/Notices.tsx";
import { PlainButton } from "../../parts/PlainButton.tsx";
import { useGuard, WithRefusals } from "../../parts/refusals.tsx";
import { Segmented } from "../../parts/Segmented.tsx";
import { Sign } from "../../parts/Sign.tsx";
import { TextBox } from "../../parts/TextBox.tsx";
import { UnitMenu } from "../../parts/UnitMenu.tsx";
import { useTakenOnceKnown } from "../../parts/useTakenOnceKnown.ts";
import { useTitle } from "../../parts/useTitle.ts";
import { newId } from "../../saving/id.ts";
import { useShop } from "../../shop/shop.ts";
import { WorkTrouble } from "../../workers/WorkTrouble.tsx";
import { BarQuestion, bladeFrom, type InHand } from "./BarQuestion.tsx";
import { Preview, Thumbnail } from "./Outlines.tsx";
import { Cards, DimensionRow, Question, rangeInWords } from "./questions.tsx";
import { useFirstBlade } from "./useFirstBlade.ts";

const HAND = 85;

function answersFor(use: string): Answers {
  const start = STARTS[use] ?? STARTS.field!;
  return {
    name: "",
    use,
    family: start.family,
    values: { ...start.values, handle: handleFor(HAND) },
    tang: "full",
    grind: start.grinds[0]!,
    stock: start.stock,
    steel: "1084",
  };
}

/** The same for a knife that was measured: as long, for what it is for, its edge as it was read in the middle. */
function answersLike(knife: Knife): Answers {
  const { e, angle } = edgeOf(middleOf(knife));
  const like = answersFor(knife.use ?? "field");
  return {
    ...like,
    name: `Like ${knife.name}`.slice(0, 120),
    values: { ...like.values, length: knife.length },
    edge: { behind: e, angle: Math.round(angle * 10) / 10 },
  };
}

/** Questions in the order a maker decides them, and beside them the blade they make so far, with every choice explained. */
export function NewBlade() {
  return (
    <WithRefusals>
      <Questions />
    </WithRefusals>
  );
}

function Questions() {
  useTitle("New blade");
  const { guard, why: refused } = useGuard();
  const navigate = useNavigate();
  const unit = useSettings((settings) => settings.unit);
  const { shop } = useShop();
  const [search] = useSearchParams();
  const knife = shop.knives?.find(({ id }) => id === search.get("knife")) ?? null;
  const [answers, setAnswers] = useState(() => answersFor("field"));
  const [taken, setTaken] = useState<string | null>(null);
  // The shop is there a moment after the page where that is opened by itself.
  if (knife && taken !== knife.id) {
    setTaken(knife.id);
    setAnswers(answersLike(knife));
  }
  const [hand, setHand] = useState(HAND);
  const [bar, setBar] = useState<InHand>(() => ({
    thick: answers.stock,
    surface: "ground",
  }));
  const [why, setWhy] = useState<string | null>(null);
  const [isBusy, setIsBusy] = useState(false);
  const family = FAMILIES.find((one) => one.key === answers.family)!;
  const tang = family.tangs.includes(answers.tang) ? answers.tang : family.tangs[0]!;
  const stock = bladeFrom(bar);
  const asked = useMemo(
    () => ({ ...answers, stock, name: answers.name.trim() || `New ${answers.use} knife` }),
    [answers, stock],
  );
  const { made, trouble, tryAgain } = useFirstBlade(asked, unit);
  const change = (some: Partial<Answers>) => setAnswers((was) => ({ ...was, ...some }));
  const setValue =
    ({ key, low, high, unit: kind }: Dimension) =>
    (value: number) => {
      if (value < low - 1e-9 || value > high + 1e-9) return rangeInWords(low, high, kind, unit);
      change({ values: { ...answers.values, [key]: value } });
      return null;
    };
  const save = async (first: FirstBlade) => {
    if (!first.ok)
      return setWhy(`The blade was not started. ${inUnit(first.why, unit)} Change a size or the bar.`);
    setIsBusy(true);
    const id = newId();
    try {
      await createBlade(id, first.blade);
      const file = firstHandle(first.blade, tang);
      // The blade is on the rack by now: without its handle it is still the blade that was asked for.
      await saveDocument(id, "handle", { file, base: 0, saveKey: newId() }).catch(() =>
        useNotices.getState().tell("The blade is on the rack; its handle could not be kept."),
      );
      const { thick, ...inHand } = bar;
      const stock = inHand.diameter === undefined ? thick : stockOfRound(inHand.diameter);
      await saveDocument(id, "route", {
        file: { ...NO_ROUTE, stock, bar: inHand },
        base: 0,
        saveKey: newId(),
      }).catch(() => useNotices.getState().tell("The blade is on the rack; its bar could not be kept."));
      navigate(`/blades/${id}/shape`);
    } catch (error) {
      setWhy(error instanceof Error ? error.message : "The blade could not be saved.");
      setIsBusy(false);
    }
  };
  // Pressed while the blade is still calculated, the button takes effect as soon as the blade is there.
  const { press, waiting } = useTakenOnceKnown(
    new Map(made ? [["start", made]] : []),
    made === null && trouble === null,
    (first) => void save(first),
  );
  const start = () => {
    setWhy(null);
    guard(() => press("start"));
  };
  const grinds = STARTS[answers.use]?.grinds ?? GRINDS;
  return (
    <form
      className="flex h-full flex-col"
      onSubmit={(event) => {
        event.preventDefault();
        if (!isBusy) start();
      }}
    >
      <header className="flex h-13 shrink-0 items-center gap-3 border-b border-rule bg-paper px-5">
        <h1 className="flex-1 text-[17px] font-bold">Start a blade</h1>
        {(refused ?? why) && <Alert>{refused ?? why}</Alert>}
        <UnitMenu />
        <PlainButton onClick={() => navigate("/")}>Cancel</PlainButton>
        <PlainButton kind="main" type="submit" isBusy={isBusy || waiting !== null}>
          {startWords(isBusy, waiting !== null)}
        </PlainButton>
      </header>
      <div className="grid min-h-0 flex-1 grid-cols-[minmax(360px,430px)_1fr]">
        <div className="flex flex-col gap-1.5 overflow-y-auto border-r border-rule *:shrink-0">
          <Question title="What is it for?">
            <Cards
              label="What is it for?"
              options={[...PURPOSES, OWN_PURPOSE].map(({ key, name }) => ({
                key,
                name: key === OWN_PURPOSE.key ? "own limits" : name.replace(/^an? /, ""),
              }))}
              value={answers.use}
              onChange={(use) => {
                const next = answersFor(use);
                setAnswers({ ...next, name: answers.name });
                setBar((was) => ({ ...was, thick: next.stock }));
              }}
            />
            {answers.use === "display" && (
              <Caution>Double edges, blade length and carry are matters of local law.</Caution>
            )}
          </Question>
          <Question title="Which outline?" aside={family.words}>
            <Cards
              label="Which outline?"
              options={FAMILIES.map(({ key, name }) => ({ key, name, picture: <Thumbnail family={key} /> }))}
              value={answers.family}
              onChange={(next) => change({ family: next, values: sized(next, answers, hand) })}
            />
          </Question>
          <Question title="How big?">
            <LengthBox
              label="Your hand, across four fingers"
              value={hand}
              onCommit={(breadth) => {
                if (breadth < 50 || breadth > 130) return rangeInWords(50, 130, "mm", unit);
                setHand(breadth);
                change({ values: { ...answers.values, handle: handleFor(breadth) } });
                return null;
              }}
            />
            {family.dimensions.map((dimension) => (
              <DimensionRow
                key={`${family.key} ${dimension.key}`}
                dimension={dimension}
                value={valuesOf(family, answers.values)[dimension.key]!}
                onCommit={setValue(dimension)}
              />
            ))}
          </Question>
          <Question title="How is it held?">
            <Segmented
              label="How is it held?"
              options={family.tangs}
              names={{ full: "full tang, scales", hidden: "hidden tang, guard" }}
              value={tang}
              onChange={(next) => change({ tang: next })}
            />
          </Question>
          <Question title="How is it ground?">
            <Segmented
              label="How is it ground?"
              options={grinds}
              value={answers.grind}
              onChange={(grind) => change({ grind })}
            />
          </Question>
          <Question title="Which steel have you?">
            <BarQuestion bar={bar} onBar={setBar} />
            <label className="flex items-center gap-2 text-sm text-faint">
              <input
                type="checkbox"
                checked={answers.isUntapered ?? false}
                onChange={(event) => change({ isUntapered: event.currentTarget.checked })}
              />
              no taper: alike thick from end to end
            </label>
            <Choice
              label="Steel"
              value={answers.steel ?? ""}
              options={STEELS.map(({ name }) => ({ value: name, name }))}
              onChange={(steel) => change({ steel })}
            />
            <TextBox
              label="Name"
              width="w-44"
              placeholder={asked.name}
              maxLength={120}
              text={answers.name}
              onText={(name) => change({ name })}
            />
          </Question>
        </div>
        <div className="flex min-w-0 flex-col">
          <Preview
            family={family}
            answers={{ ...answers, stock, tang }}
            blade={made?.ok ? made.blade : null}
            unit={unit}
          />
          <section
            aria-label="Summary"
            aria-busy={made === null && !trouble}
            className="min-h-0 flex-1 overflow-y-auto bg-sheet px-6 py-5"
          >
            <WorkTrouble what="The grind, edge and taper" trouble={trouble} onTry={tryAgain} />
            {made === null && !trouble && (
              <p className="text-faint">Looking for the grind, edge and taper …</p>
            )}
            {made && !made.ok && (
              <p role="alert" className="font-semibold text-fix">
                {inUnit(made.why, unit)} Change a size or the bar.
              </p>
            )}
            {made?.ok && (
              <>
                <p className="flex items-center gap-2 font-semibold">
                  <Sign of={made.open === 0 ? "well" : "watch"} />
                  {made.open === 0
                    ? "Within all that this purpose asks."
                    : `${made.open} finding${made.open === 1 ? "" : "s"} left on it: they are shown with what would mend them.`}
                </p>
                <dl className="mt-3 grid max-w-3xl grid-cols-[minmax(180px,auto)_1fr] gap-x-5 gap-y-2">
                  {made.reasons.map(({ what, because }) => (
                    <div key={what} className="contents">
                      <dt className="font-semibold first-letter:uppercase">{what}</dt>
                      <dd className="text-faint">{inUnit(because, unit)}.</dd>
                    </div>
                  ))}
                </dl>
                <p className="mt-4 max-w-3xl text-sm text-faint">
                  Everything here is a start: drag it, type over it, or choose otherwise. The limits are
                  starting values of our own; change them to what your shop has found.
                </p>
              </>
            )}
          </section>
        </div>
      </div>
    </form>
  );
}

function startWords(isSaving: boolean, isWaiting: boolean): string {
  if (isSaving) return "Saving the blade …";
  return isWaiting ? "Start with this blade …" : "Start with this blade";
}

/** A family's values with the sizes kept that it can take, and the handle for this hand. */
function sized(key: string, { values }: Answers, hand: number): Values {
  const family = FAMILIES.find((one) => one.key === key)!;
  const fits = (name: string) => {
    const dimension = family.dimensions.find((one) => one.key === name);
    const value = values[name];
    return dimension && value !== undefined && value >= dimension.low && value <= dimension.high;
  };
  const kept = ["length", "height"].filter(fits).map((name) => [name, values[name]!] as const);
  return { ...Object.fromEntries(kept), handle: handleFor(hand) };
}
