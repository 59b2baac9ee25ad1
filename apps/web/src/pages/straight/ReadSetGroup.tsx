import type { StraightReport } from "@true-spine/core/inspect/straightness.ts";
import { INSTRUMENT_NAMES } from "@true-spine/core/shop/instrument.ts";
import type { SetKind, State, StraightSet } from "@true-spine/core/straight/schema.ts";
import { READ_WITH } from "@true-spine/core/straight/sets.ts";
import { parseAngle } from "@true-spine/core/units/angle.ts";
import {
  type LengthUnit,
  parseLength,
  showForTyping,
  showLength,
  showLengthWithUnit,
} from "@true-spine/core/units/length.ts";
import { useRef, useState } from "react";
import { useSettings } from "../../app/settings.ts";
import { useScreen } from "../../blade/screen.ts";
import { Alert } from "../../parts/Alert.tsx";
import { Choice, Group, SmallButton } from "../../parts/Group.tsx";
import { Segmented } from "../../parts/Segmented.tsx";
import { TextBox } from "../../parts/TextBox.tsx";
import { newId } from "../../saving/id.ts";
import { record } from "../../work/useWorkRows.ts";
import { useTyped } from "./typed.ts";

const KINDS: readonly SetKind[] = ["gap", "rise", "edge", "roll"];
const KIND_NAMES: Readonly<Record<SetKind, string>> = {
  gap: "gaps under a straightedge",
  rise: "gauge over the flat",
  edge: "gauge over the edge",
  roll: "roll, an angle finder",
};
const ASKED: Readonly<Record<SetKind, string>> = {
  gap: "What goes in between straightedge and flat.",
  rise: "What the gauge shows over the flat that lies up, on three supports.",
  edge: "What the gauge shows over the edge.",
  roll: "How the blade lies there, degrees: + where its edge stands up toward you.",
};
/** Places are so far apart, mm: round in the unit on show. */
const SPACINGS: Readonly<Record<"metric" | "inch", readonly number[]>> = {
  metric: [12.5, 25, 50],
  inch: [12.7, 25.4, 50.8],
};

/** One line of readings along the blade, typed place by place, or read off the simulated anvil. */
export function ReadSetGroup({
  report,
  stage,
  state,
  face,
  onFace,
  onAnvil,
  instrument,
  onKept,
}: {
  report: StraightReport;
  stage: string;
  state: State;
  face: StraightSet["face"];
  onFace: (face: StraightSet["face"]) => void;
  /** Reads the piece on the anvil; null where none lies there. */
  onAnvil:
    | ((
        kind: SetKind,
        face: StraightSet["face"],
        xs: readonly number[],
      ) => Promise<StraightSet["rows"] | null>)
    | null;
  /** The shop's own straightedge, by its id. */
  instrument: string | undefined;
  onKept?: () => void;
}) {
  const screen = useScreen();
  const unit = useSettings((settings) => settings.unit);
  const [kind, setKind] = useState<SetKind>("gap");
  const spacings = SPACINGS[unit === "mm" ? "metric" : "inch"];
  const [step, setStep] = useState(1);
  const [typed, setTyped] = useTyped({ blade: screen.id, stage, kind, unit });
  const [faults, setFaults] = useState<ReadonlyMap<number, string>>(new Map());
  const [why, setWhy] = useState<string | null>(null);
  /** The set that the next one is to be read against, with the same straightedge turned to the other face. */
  const [first, setFirst] = useState<string | null>(null);
  const [isPairKept, setIsPairKept] = useState(false);
  const boxes = useRef<HTMLDivElement>(null);
  const { along, fit, y } = report;
  // Whatever was typed stays in sight, though places are asked otherwise now.
  const begun = [...typed].flatMap(([x, text]) => (text.trim() === "" ? [] : [x]));
  const xs = placesOf(along, spacings[step]!, [...(fit.next ? [fit.next.x] : []), ...begun]);
  const forget = () => {
    setTyped(new Map());
    setFaults(new Map());
    setWhy(null);
  };
  const keep = () => {
    const read = xs.flatMap((x) => {
      const text = (typed.get(x) ?? "").trim();
      return text === "" ? [] : [{ x, ...figureOf(kind, text, unit) }];
    });
    const wrong = read.flatMap((one) => (one.ok ? [] : [[one.x, one.why] as const]));
    setFaults(new Map(wrong));
    if (wrong.length > 0) return;
    const rows = read.flatMap((one) => (one.ok ? [{ x: one.x, y, v: one.value }] : []));
    if (rows.length < 3) {
      setWhy("Three places at least, both ends among them: a line is laid through the ends.");
      return;
    }
    const pair = first ?? undefined;
    record(screen, {
      stage,
      what: "set",
      state,
      kind,
      face,
      ...(kind === "gap" && instrument ? { instrument } : {}),
      ...(pair ? { pair } : {}),
      rows,
    });
    if (pair && isPairKept) setFirst(null);
    else if (pair) onFace(face === "left" ? "right" : "left");
    setIsPairKept(pair !== undefined && !isPairKept);
    forget();
    onKept?.();
  };
  return (
    <Group title="Read along it">
      <Choice
        label="With"
        value={kind}
        options={KINDS.map((value) => ({ value, name: KIND_NAMES[value] }))}
        onChange={(next) => {
          setKind(next as SetKind);
          setFaults(new Map());
          setWhy(null);
        }}
      />
      <Segmented
        label="Face"
        options={["left", "right"]}
        value={face}
        names={{ left: "left face up", right: "right face up" }}
        onChange={onFace}
      />
      <Choice
        label="A place every"
        value={String(step)}
        options={spacings.map((mm, i) => ({ value: String(i), name: showLengthWithUnit(mm, unit) }))}
        onChange={(next) => setStep(Number(next))}
      />
      <p className="text-xs text-faint">
        {ASKED[kind]} With the {INSTRUMENT_NAMES[READ_WITH[kind]]}; Enter goes on to the next place.
      </p>
      <div ref={boxes} className="grid grid-cols-2 gap-x-3 gap-y-1">
        {xs.map((x) => (
          <TextBox
            key={x}
            label={`at ${unit === "mm" ? x : showLength(x, unit)}`}
            labelled="beside"
            size="small"
            align="right"
            width="w-20"
            inputMode="decimal"
            text={typed.get(x) ?? ""}
            why={faults.get(x) ?? null}
            onText={(text) => setTyped(new Map([...typed, [x, text]]))}
            onEnter={(input) => {
              const all = [...(boxes.current?.querySelectorAll("input") ?? [])];
              const next = all[all.indexOf(input) + 1];
              if (next) next.focus();
              else keep();
            }}
          />
        ))}
      </div>
      {why && <Alert>{why}</Alert>}
      <div className="flex flex-wrap gap-2">
        <SmallButton onClick={keep}>Keep these readings</SmallButton>
        {onAnvil && (
          <SmallButton
            onClick={async () => {
              const rows = await onAnvil(kind, face, xs).catch(() => null);
              if (!rows) {
                setWhy("The simulated anvil does not answer, or nothing lies on it.");
                return;
              }
              const show = (v: number) => (kind === "roll" ? String(v) : showForTyping(v, unit));
              setTyped(new Map(rows.map(({ x, v }) => [x, show(v)])));
              setFaults(new Map());
              setWhy(null);
            }}
          >
            Read it off the anvil
          </SmallButton>
        )}
      </div>
      {kind === "gap" && (
        <label className="flex items-center gap-2 text-sm">
          <input
            type="checkbox"
            checked={first !== null}
            onChange={(event) => setFirst(event.currentTarget.checked ? newId() : null)}
          />
          both faces with this straightedge, the same end to the tip
        </label>
      )}
    </Group>
  );
}

/** Places from one end to the other, with more where those would tell, or were read. */
function placesOf([from, to]: readonly [number, number], spacing: number, more: readonly number[]): number[] {
  const count = Math.floor((to - from) / spacing);
  const even = Array.from({ length: count + 1 }, (_, i) => from + i * spacing);
  const all = new Set([...even, ...(to - even[even.length - 1]! > spacing / 3 ? [to] : []), ...more]);
  return [...all].sort((a, b) => a - b);
}

function figureOf(
  kind: SetKind,
  text: string,
  unit: LengthUnit,
): { ok: true; value: number } | { ok: false; why: string } {
  const trimmed = text.replace("−", "-");
  const sign = trimmed.startsWith("-") ? -1 : 1;
  const bare = trimmed.replace(/^[+-]\s*/, "");
  if (kind === "roll") {
    const read = parseAngle(bare);
    if (!read.ok) return read;
    return read.degrees > 45 ? { ok: false, why: "Below 45°." } : { ok: true, value: sign * read.degrees };
  }
  const read = parseLength(bare, unit);
  if (!read.ok) return read;
  if (read.mm > 50) return { ok: false, why: "Below 50 mm." };
  return { ok: true, value: Math.round(sign * read.mm * 1e4) / 1e4 };
}
