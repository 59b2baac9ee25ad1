import {
  INSTRUMENT_KINDS,
  INSTRUMENT_NAMES,
  type Instrument,
  type InstrumentKind,
  USUAL_INSTRUMENTS,
} from "@true-spine/core/shop/instrument.ts";
import { X } from "lucide-react";
import { useState } from "react";
import { Alert } from "../../parts/Alert.tsx";
import { NumberBox, RangedLength } from "../../parts/Box.tsx";
import { NameBox } from "../../parts/NameBox.tsx";
import { PlainButton } from "../../parts/PlainButton.tsx";
import { freshId } from "../../shop/fresh-id.ts";
import { useShop } from "../../shop/shop.ts";
import { Headings } from "./tables.tsx";

const UNIT: Readonly<Record<InstrumentKind, string>> = {
  caliper: "mm",
  "height-gauge": "mm",
  "angle-finder": "°",
  "hardness-tester": "HRC",
  rule: "mm",
  feelers: "mm",
};

/** What blades are read with: how finely and how surely, what is known against it, and when that was last looked at. */
export function InstrumentsTable() {
  const { shop, put } = useShop();
  const [why, setWhy] = useState<string | null>(null);
  const own = shop.instruments ?? [];
  const change = (instruments: Instrument[]) => setWhy(put({ ...shop, instruments }));
  const edit = (id: string, patch: Partial<Instrument>) =>
    change(own.map((one) => (one.id === id ? settled({ ...one, ...patch }) : one)));
  const add = () => {
    const usual =
      USUAL_INSTRUMENTS.find(({ kind }) => !own.some((one) => one.kind === kind)) ?? USUAL_INSTRUMENTS[0]!;
    change([...own, { ...usual, id: freshId(own, "instrument") }]);
  };
  return (
    <section aria-label="Instruments" className="mt-6">
      <div className="mb-2 flex items-center justify-between">
        <h2 className="font-bold">Instruments</h2>
        <PlainButton onClick={add}>Add an instrument</PlainButton>
      </div>
      {why && <Alert className="mb-2">{why}</Alert>}
      {own.length > 0 && (
        <table className="w-full border-collapse bg-sheet text-sm">
          <Headings
            names={[
              "name",
              "kind",
              "last figure",
              "repeats ±1σ",
              "reads too much by",
              "zero reads",
              "jaws",
              "checked",
            ]}
          />
          <tbody>
            {own.map((one) => (
              <Row
                key={one.id}
                one={one}
                onEdit={(patch) => edit(one.id, patch)}
                onRemove={() => change(own.filter(({ id }) => id !== one.id))}
              />
            ))}
          </tbody>
        </table>
      )}
      <p className="mt-2 max-w-prose text-xs text-faint">
        {own.length === 0 ? "None of your own yet: usual" : "Usual"} ones stand in for every kind that is not
        listed, with figures that are common practice or starting values. Hold each against something known
        now and then; what it reads too much is taken off every reading.
      </p>
    </section>
  );
}

function Row({
  one,
  onEdit,
  onRemove,
}: {
  one: Instrument;
  onEdit: (patch: Partial<Instrument>) => void;
  onRemove: () => void;
}) {
  const Box = UNIT[one.kind] === "mm" ? RangedLength : NumberBox;
  const number = (what: "resolution" | "repeat" | "error" | "zero", least: number, most: number) => (
    <td className="px-1.5 py-1">
      <Box
        label={`${what} of ${one.name}`}
        value={one[what]}
        least={least}
        most={most}
        unit={UNIT[one.kind]}
        onChange={(value) => onEdit({ [what]: value })}
      />
    </td>
  );
  return (
    <tr className="border-t border-rule">
      <td className="px-1.5 py-1">
        <NameBox
          label={`Name of ${one.name}`}
          labelled="hidden"
          className="w-34"
          maxLength={60}
          name={one.name}
          onName={(name) => onEdit({ name })}
        />
      </td>
      <td className="px-1.5 py-1">
        <select
          aria-label={`Kind of ${one.name}`}
          className="h-8 w-30 rounded border border-frame bg-sheet px-1"
          value={one.kind}
          onChange={(event) => onEdit({ kind: event.currentTarget.value as InstrumentKind })}
        >
          {INSTRUMENT_KINDS.map((kind) => (
            <option key={kind} value={kind}>
              {INSTRUMENT_NAMES[kind]}
            </option>
          ))}
        </select>
      </td>
      {number("resolution", 0.001, 5)}
      {number("repeat", 0, 5)}
      {number("error", -10, 10)}
      {number("zero", -10, 10)}
      <td className="px-1.5 py-1">
        {one.kind === "caliper" && (
          <RangedLength
            label={`Width of the jaws of ${one.name}`}
            value={one.jaw ?? 0}
            least={0}
            most={30}
            onChange={(jaw) => onEdit({ jaw })}
          />
        )}
      </td>
      <td className="px-1.5 py-1">
        <input
          type="date"
          aria-label={`Day ${one.name} was last checked`}
          className="h-8 w-31 rounded border border-frame bg-sheet px-1 text-xs"
          value={one.checked ?? ""}
          onChange={(event) => onEdit({ checked: event.currentTarget.value || undefined })}
        />
      </td>
      <td>
        <button
          type="button"
          aria-label={`Remove ${one.name}`}
          className="rounded p-1.5 text-faint hover:bg-room"
          onClick={onRemove}
        >
          <X className="size-4" aria-hidden />
        </button>
      </td>
    </tr>
  );
}

/** Only a caliper has jaws, and a day that is not said is not kept. */
function settled({ jaw, checked, ...one }: Instrument): Instrument {
  return {
    ...one,
    ...(one.kind === "caliper" ? { jaw: jaw ?? 1 } : {}),
    ...(checked ? { checked } : {}),
  };
}
