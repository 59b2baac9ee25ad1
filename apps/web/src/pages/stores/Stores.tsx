import { beltLife, cuttingRate } from "@true-spine/core/abrasive/cutting.ts";
import {
  micronsOf,
  nearestGrade,
  SCALES,
  type ScaleKey,
  scaleOf,
} from "@true-spine/core/abrasive/gradings.ts";
import {
  ABRASIVES,
  type Abrasive,
  type AbrasiveForm,
  abrasiveName,
  CONDITIONS,
  FORMS,
} from "@true-spine/core/abrasive/schema.ts";
import { X } from "lucide-react";
import { type ReactNode, useState } from "react";
import { Alert } from "../../parts/Alert.tsx";
import { NumberBox } from "../../parts/Box.tsx";
import { From } from "../../parts/From.tsx";
import { PlainButton } from "../../parts/PlainButton.tsx";
import { useTitle } from "../../parts/useTitle.ts";
import { Workspace } from "../../parts/Workspace.tsx";
import { ShopConflict } from "../../shop/ShopConflict.tsx";
import { ShopAwaited, ShopRefused, ShopSaved } from "../../shop/ShopSaved.tsx";
import { useShop } from "../../shop/shop.ts";
import { BarsTable } from "./BarsTable.tsx";
import { FireTables } from "./FireTables.tsx";
import { GrindersTable } from "./GrindersTable.tsx";
import { InstrumentsTable } from "./InstrumentsTable.tsx";
import { PlanGroup } from "./PlanGroup.tsx";
import { SetupsTable } from "./SetupsTable.tsx";

/** The shop's stores: what there is to grind with, by its own grade and by microns, and what an hour costs. */
export function Stores() {
  useTitle("Stores");
  const { shop, saving, isAway, put } = useShop();
  const [why, setWhy] = useState<string | null>(null);
  // Nothing can be typed before it is known what stands: it would be refused, or written over.
  if (!saving) return <ShopAwaited isAway={isAway} what="the stores" />;
  const change = (abrasives: Abrasive[]) => setWhy(put({ ...shop, abrasives }));
  const edit = (i: number) => (patch: Partial<Abrasive>) =>
    change(shop.abrasives.map((one, k) => (k === i ? settled({ ...one, ...patch }) : one)));
  const sorted = shop.abrasives
    .map((abrasive, i) => ({ abrasive, i }))
    .toSorted((a, b) => b.abrasive.microns - a.abrasive.microns);
  return (
    <div className="flex h-full flex-col">
      <header className="flex h-13 shrink-0 items-center gap-4 border-b border-rule bg-paper px-5">
        <h1 className="text-base font-bold">Stores</h1>
        <span className="text-xs text-faint">
          <ShopSaved saving={saving} />
        </span>
        <span className="ml-auto">
          <PlainButton kind="main" onClick={() => change([...shop.abrasives, fresh(shop.abrasives)])}>
            Add a belt
          </PlainButton>
        </span>
      </header>
      <ShopRefused saving={saving} />
      <Workspace asideLabel="Plan and costs" aside={<PlanGroup />}>
        <div className="min-h-0 min-w-0 flex-1 overflow-auto p-5 max-lg:portrait:p-2">
          {why && <Alert className="mb-3">{why}</Alert>}
          {sorted.length === 0 && <p>No belts or stones yet. Add what you have; plans are made from it.</p>}
          {sorted.length > 0 && (
            <table className="w-full border-collapse bg-sheet text-sm">
              <thead className="text-left text-[11px] text-faint">
                <tr>
                  {[
                    "what",
                    "abrasive",
                    "scale",
                    "grade",
                    "µm",
                    "like",
                    "condition",
                    "on hand",
                    "price",
                    "cuts",
                    "remove",
                  ].map((name) => (
                    <th
                      key={name}
                      scope="col"
                      className={`px-1.5 py-1.5 font-normal ${name === "like" ? WIDE : ""}`}
                    >
                      <span className={name === "remove" ? "sr-only" : ""}>{name}</span>
                    </th>
                  ))}
                </tr>
              </thead>
              <tbody>
                {sorted.map(({ abrasive, i }) => (
                  <Row
                    key={abrasive.id}
                    abrasive={abrasive}
                    onEdit={edit(i)}
                    onRemove={() => change(shop.abrasives.filter((_, k) => k !== i))}
                  />
                ))}
              </tbody>
            </table>
          )}
          <p className="mt-3 max-w-prose text-xs text-faint">
            Cutting rates and lives are starting values of the program, by hand on a usual belt with looking
            and dipping counted in; they rank belts and are not promises. Scales differ: a P number is far
            coarser than the same number of the others beyond 220, so everything is compared in microns:{" "}
            {SCALES.map(({ name, source }) => `${name}, ${source}`).join("; ")}.
          </p>
          <SetupsTable />
          <GrindersTable />
          <BarsTable />
          <FireTables />
          <InstrumentsTable />
        </div>
      </Workspace>
      <ShopConflict />
    </div>
  );
}

/** A grade that its scale has, and the microns that follow from it. */
function settled(abrasive: Abrasive): Abrasive {
  const microns = micronsOf(abrasive.scale, abrasive.grade);
  if (microns !== null) return { ...abrasive, microns };
  const near = nearestGrade(abrasive.scale, abrasive.microns);
  return near
    ? settled({ ...abrasive, grade: near.grade })
    : { ...abrasive, grade: String(Math.round(abrasive.microns * 10) / 10) };
}

function fresh(all: readonly Abrasive[]): Abrasive {
  const ids = new Set(all.map(({ id }) => id));
  let n = all.length + 1;
  while (ids.has(`belt-${n}`)) n++;
  return {
    id: `belt-${n}`,
    abrasive: "ceramic",
    backing: "cloth",
    scale: "P",
    grade: "P120",
    microns: micronsOf("P", "P120")!,
    condition: "fresh",
    onHand: 1,
    price: 8,
  };
}

function Row({
  abrasive,
  onEdit,
  onRemove,
}: {
  abrasive: Abrasive;
  onEdit: (patch: Partial<Abrasive>) => void;
  onRemove: () => void;
}) {
  const name = abrasiveName(abrasive);
  const near =
    abrasive.scale === "P" ? nearestGrade("CAMI", abrasive.microns) : nearestGrade("P", abrasive.microns);
  const grades = scaleOf(abrasive.scale).grades;
  return (
    <tr className="border-t border-rule">
      <Cell>
        <Pick
          label={`Kind of ${name}`}
          value={abrasive.form ?? "belt"}
          options={FORMS}
          onChange={(value) => onEdit({ form: value as AbrasiveForm })}
        />
      </Cell>
      <Cell>
        <Pick
          label={`Abrasive of ${name}`}
          value={abrasive.abrasive}
          options={ABRASIVES}
          onChange={(value) => onEdit({ abrasive: value as Abrasive["abrasive"] })}
        />
      </Cell>
      <Cell>
        <Pick
          label={`Scale of ${name}`}
          value={abrasive.scale}
          options={SCALES.map(({ key }) => key)}
          onChange={(value) => onEdit({ scale: value as ScaleKey })}
        />
      </Cell>
      <Cell>
        {grades.length > 0 ? (
          <Pick
            label={`Grade of ${name}`}
            value={abrasive.grade}
            options={grades.map(([grade]) => grade)}
            onChange={(grade) => onEdit({ grade })}
          />
        ) : (
          <NumberBox
            label={`Microns of ${name}`}
            value={abrasive.microns}
            least={0.1}
            most={2000}
            onChange={(microns) => onEdit({ grade: String(microns), microns })}
          />
        )}
      </Cell>
      <Cell>{abrasive.microns}</Cell>
      <Cell isWide>{near ? `${abrasive.scale === "P" ? "CAMI " : ""}${near.grade}` : ""}</Cell>
      <Cell>
        <Pick
          label={`Condition of ${name}`}
          value={abrasive.condition}
          options={CONDITIONS}
          onChange={(value) => onEdit({ condition: value as Abrasive["condition"] })}
        />
      </Cell>
      <Cell>
        <NumberBox
          label={`On hand of ${name}`}
          value={abrasive.onHand}
          least={0}
          most={10_000}
          isWhole
          onChange={(onHand) => onEdit({ onHand })}
        />
      </Cell>
      <Cell>
        <NumberBox
          label={`Price of ${name}`}
          value={abrasive.price}
          least={0}
          most={10_000}
          onChange={(price) => onEdit({ price })}
        />
      </Cell>
      <Cell>
        <From
          className="text-xs whitespace-nowrap text-faint"
          words={`${abrasive.rate || abrasive.life ? "From the shop's own times" : "A starting value"}; ${(beltLife(abrasive) / 1000).toFixed(1)} cm³ in its life.`}
        >
          {cuttingRate(abrasive).toFixed(0)} mm³/min
        </From>
      </Cell>
      <Cell>
        <button
          type="button"
          aria-label={`Remove ${name} from the stores`}
          className="rounded p-1 text-faint hover:bg-room"
          onClick={onRemove}
        >
          <X className="size-4" aria-hidden />
        </button>
      </Cell>
    </tr>
  );
}

/** What an upright tablet has no room for. */
const WIDE = "max-lg:portrait:hidden";

function Cell({ children, isWide }: { children: ReactNode; isWide?: boolean }) {
  return <td className={`px-1.5 py-1 max-lg:portrait:px-1 ${isWide ? WIDE : ""}`}>{children}</td>;
}

function Pick({
  label,
  value,
  options,
  onChange,
}: {
  label: string;
  value: string;
  options: readonly string[];
  onChange: (value: string) => void;
}) {
  return (
    <select
      aria-label={label}
      className="h-8 rounded border border-frame bg-sheet px-1 font-semibold"
      value={value}
      onChange={(event) => onChange(event.currentTarget.value)}
    >
      {options.map((option) => (
        <option key={option} value={option}>
          {option}
        </option>
      ))}
    </select>
  );
}
