import { isSameJson } from "@true-spine/core/document/same.ts";
import { CERTAINTIES, STEEL_FROM, type SteelRecord } from "@true-spine/core/heat/schema.ts";
import { knownOf, type Span } from "@true-spine/core/heat/steel.ts";
import type { SteelFigures } from "@true-spine/core/route/heat-report.ts";
import { GRADES, middleOf } from "@true-spine/core/steel/composition.ts";
import { showLengthWithUnit } from "@true-spine/core/units/length.ts";
import { useState } from "react";
import { useSettings } from "../../app/settings.ts";
import { Alert } from "../../parts/Alert.tsx";
import { PercentBox } from "../../parts/Box.tsx";
import { Choice, Group, RecordButton } from "../../parts/Group.tsx";
import { TextBox } from "../../parts/TextBox.tsx";
import { freshId } from "../../shop/fresh-id.ts";
import { useShop } from "../../shop/shop.ts";
import { useHeat } from "./useHeat.ts";

const FROM_NAMES = { standard: "its standard", certificate: "a certificate", scrap: "scrap" } as const;
const ELEMENTS = [
  ["C", "Carbon"],
  ["Mn", "Manganese"],
  ["Si", "Silicon"],
  ["Cr", "Chromium"],
  ["Ni", "Nickel"],
  ["W", "Tungsten"],
  ["V", "Vanadium"],
  ["Mo", "Molybdenum"],
] as const;
type Mass = NonNullable<SteelRecord["mass"]>;

/** What the steel is, how sure that is, and what follows from it. */
export function SteelGroup({ steel }: { steel: SteelFigures | null }) {
  const { heat, blade, put, press, visit } = useHeat();
  const unit = useSettings((settings) => settings.unit);
  const record = heat.steel;
  const change = (changes: Partial<SteelRecord>) =>
    press((now) => ({ ...now, steel: { ...now.steel, ...changes } }));
  const grade = record.grade ?? blade.steel;
  const putMass = (element: keyof Mass, value: number) =>
    put((now) => ({
      ...now,
      steel: { ...now.steel, mass: { ...(now.steel.mass ?? started(grade)), [element]: value } },
    }));
  const { shop, put: putShop } = useShop();
  const own = shop.steels ?? [];
  const [name, setName] = useState("");
  const [why, setWhy] = useState<string | null>(null);
  const keep = () => {
    const told = name.trim();
    if (told === "") {
      setWhy("Give the bar a name first.");
      return;
    }
    const kept = { id: freshId(own, "steel"), name: told, record: grade ? { ...record, grade } : record };
    const refused = putShop({ ...shop, steels: [...own, kept] });
    setWhy(refused);
    if (!refused) setName("");
  };
  return (
    <Group title={`Steel: ${grade ?? "not named"}`}>
      {own.length > 0 && (
        <Choice
          label="A bar of the shop"
          value={own.find((one) => isSameJson(one.record, record))?.id ?? ""}
          options={[
            { value: "", name: "none of them" },
            ...own.map((one) => ({ value: one.id, name: one.name })),
          ]}
          onChange={(id) => {
            const bar = own.find((one) => one.id === id);
            if (bar) press((now) => ({ ...now, steel: structuredClone(bar.record) }));
          }}
        />
      )}
      <Choice
        label="Known by"
        value={record.from}
        options={STEEL_FROM.map((from) => ({ value: from, name: FROM_NAMES[from] }))}
        onChange={(from) => {
          if (from === "certificate")
            change({ from, certainty: "certificate", sure: 95, mass: record.mass ?? started(grade) });
          else
            press((now) => {
              const { mass: _, ...rest } = now.steel;
              const isScrap = from === "scrap";
              return {
                ...now,
                steel: {
                  ...rest,
                  from: from as SteelRecord["from"],
                  certainty: isScrap ? "guessed" : "believed",
                  sure: isScrap ? 50 : 80,
                },
              };
            });
        }}
      />
      <Choice
        label="Reckoned as"
        value={record.grade ?? ""}
        options={[
          { value: "", name: blade.steel ? `the blade's ${blade.steel}` : "not named" },
          ...Object.keys(GRADES).map((name) => ({ value: name, name })),
        ]}
        onChange={(name) =>
          press((now) => {
            const { grade: _, ...rest } = now.steel;
            return { ...now, steel: name ? { ...rest, grade: name } : rest };
          })
        }
      />
      <Choice
        label="That is"
        value={record.certainty}
        options={CERTAINTIES.map((name) => ({ value: name, name }))}
        onChange={(certainty) => change({ certainty: certainty as SteelRecord["certainty"] })}
      />
      <PercentBox
        label="Sure to"
        value={record.sure}
        most={100}
        onVisit={visit}
        onCommit={(sure) => put((now) => ({ ...now, steel: { ...now.steel, sure } }))}
      />
      {record.mass &&
        ELEMENTS.map(([element, name]) => (
          <PercentBox
            key={element}
            label={name}
            value={record.mass![element] ?? 0}
            most={element === "Cr" ? 30 : 3}
            onVisit={visit}
            onCommit={(value) => putMass(element, value)}
          />
        ))}
      <TextBox label="Keep this bar as" text={name} onText={setName} size="small" onEnter={keep} />
      {why && <Alert>{why}</Alert>}
      <RecordButton onClick={keep}>Keep for the shop</RecordButton>
      {steel ? (
        <dl className="text-sm">
          <Row name="begins to dissolve (Ac1)" span={steel.ac1} unit="°C" />
          <Row name="hardens from" span={steel.austenite} unit="°C" />
          <Row name="the magnet lets go" span={steel.magnet} unit="°C" />
          <Row name="martensite starts" span={steel.martensite} unit="°C" />
          <div className="flex justify-between gap-2 border-t border-rule py-1">
            <dt className="text-faint">hardens deep, in the round</dt>
            <dd className="font-semibold">
              {showLengthWithUnit(steel.ideal.middle, unit, unit === "mm" ? 1 : undefined)}{" "}
              <span className="font-normal text-faint">
                {steel.ideal.low.toFixed(1)} to {steel.ideal.high.toFixed(1)}
              </span>
            </dd>
          </div>
          <div className="flex justify-between gap-2 border-t border-rule py-1">
            <dt className="text-faint">a clay line</dt>
            <dd className="font-semibold">{steel.clay}</dd>
          </div>
          <p className="border-t border-rule pt-1 text-xs text-faint">
            {steel.isCertified ? "By its certificate. " : "At the middle and every corner of its standard. "}
            {steel.isBeyond && "More carbon than the formulas were made for. "}
            K. W. Andrews (1965), ASTM A255, from memory of; limits by J403, J404.
          </p>
        </dl>
      ) : (
        <p className="text-sm">
          {knownOf(record, blade.steel)
            ? "Working it out …"
            : "Not judged: say which steel it is reckoned as, or type its certificate. With more than 1.6 % chromium its maker's own sheet counts."}
        </p>
      )}
    </Group>
  );
}

/** A certificate begins as the grade's middle, to be typed over. */
function started(grade: string | undefined): Mass {
  const { C = 0.8, Mn = 0.5, ...rest } = (grade ? middleOf(grade) : null) ?? {};
  return { C, Mn, ...rest };
}

function Row({ name, span, unit }: { name: string; span: Span; unit: string }) {
  return (
    <div className="flex justify-between gap-2 border-t border-rule py-1">
      <dt className="text-faint">{name}</dt>
      <dd className="font-semibold whitespace-nowrap">
        {Math.round(span.middle)} {unit}{" "}
        <span className="font-normal text-faint">
          {Math.round(span.low)} to {Math.round(span.high)}
        </span>
      </dd>
    </div>
  );
}
