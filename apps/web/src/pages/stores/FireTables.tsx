import { AIRS, HEATED_BY, QUENCHES } from "@true-spine/core/heat/schema.ts";
import type { Oven, Quenchant } from "@true-spine/core/heat/shop.ts";
import { SEVERITY } from "@true-spine/core/steel/hardenability.ts";
import { X } from "lucide-react";
import { type ReactNode, useState } from "react";
import { Alert } from "../../parts/Alert.tsx";
import { NumberBox } from "../../parts/Box.tsx";
import { NameBox } from "../../parts/NameBox.tsx";
import { PlainButton } from "../../parts/PlainButton.tsx";
import { freshId } from "../../shop/fresh-id.ts";
import { useShop } from "../../shop/shop.ts";
import { Headings } from "./tables.tsx";

/** What the shop hardens with: ovens and forges, what it quenches in, and the bars and recipes kept from blades. */
export function FireTables() {
  const { shop, put } = useShop();
  const [why, setWhy] = useState<string | null>(null);
  const ovens = shop.ovens ?? [];
  const quenchants = shop.quenchants ?? [];
  const putOvens = (list: Oven[]) => setWhy(put({ ...shop, ovens: list }));
  const putQuenchants = (list: Quenchant[]) => setWhy(put({ ...shop, quenchants: list }));
  const kept = [
    ...(shop.steels ?? []).map(({ id, name, record }) => ({
      key: `steel ${id}`,
      what: "bar",
      name,
      of: record.grade ?? "",
      drop: () => setWhy(put({ ...shop, steels: shop.steels!.filter((one) => one.id !== id) })),
    })),
    ...(shop.heatRecipes ?? []).map(({ id, name, steel, ops }) => ({
      key: `recipe ${id}`,
      what: "recipe",
      name,
      of: [steel, `${ops.length} heats`].filter(Boolean).join(", "),
      drop: () => setWhy(put({ ...shop, heatRecipes: shop.heatRecipes!.filter((one) => one.id !== id) })),
    })),
  ];
  return (
    <section aria-label="Heat" className="mt-6">
      <div className="mb-2 flex flex-wrap items-center justify-between gap-2">
        <h2 className="font-bold">Heat</h2>
        <span className="flex gap-2">
          <PlainButton
            onClick={() =>
              putOvens([
                ...ovens,
                { id: freshId(ovens, "oven"), name: "oven", by: "oven", high: 0, air: "air" },
              ])
            }
          >
            Add an oven or forge
          </PlainButton>
          <PlainButton
            onClick={() =>
              putQuenchants([
                ...quenchants,
                {
                  id: freshId(quenchants, "quenchant"),
                  name: "oil tank",
                  medium: "oil",
                  H: [...SEVERITY["oil, moved"]],
                  T: 50,
                },
              ])
            }
          >
            Add a quenchant
          </PlainButton>
        </span>
      </div>
      {why && <Alert className="mb-2">{why}</Alert>}
      {ovens.length > 0 && (
        <table aria-label="Ovens and forges" className="mb-3 w-full border-collapse bg-sheet text-sm">
          <Headings names={["oven or forge", "kind", "reads high by, °C", "air in it"]} />
          <tbody>
            {ovens.map((one, i) => {
              const edit = (patch: Partial<Oven>) =>
                putOvens(ovens.map((other) => (other === one ? { ...one, ...patch } : other)));
              const n = i + 1;
              return (
                <Row
                  key={one.id}
                  name={`oven ${n}`}
                  onRemove={() => putOvens(ovens.filter((o) => o !== one))}
                >
                  <NameBox
                    labelled="hidden"
                    size="small"
                    label={`Name of oven ${n}`}
                    name={one.name}
                    onName={(name) => edit({ name })}
                  />
                  <Pick
                    label={`Kind of oven ${n}`}
                    value={one.by}
                    options={HEATED_BY}
                    onPick={(by) => edit({ by })}
                  />
                  <NumberBox
                    label={`Oven ${n} reads high by`}
                    value={one.high}
                    least={-200}
                    most={200}
                    unit="°C"
                    onChange={(high) => edit({ high })}
                  />
                  <Pick
                    label={`Air in oven ${n}`}
                    value={one.air}
                    options={AIRS}
                    onPick={(air) => edit({ air })}
                  />
                </Row>
              );
            })}
          </tbody>
        </table>
      )}
      {quenchants.length > 0 && (
        <table aria-label="Quenchants" className="mb-3 w-full border-collapse bg-sheet text-sm">
          <Headings names={["quenchant", "what it is", "severity, least", "most", "how warm, °C"]} />
          <tbody>
            {quenchants.map((one, i) => {
              const edit = (patch: Partial<Quenchant>) =>
                putQuenchants(quenchants.map((other) => (other === one ? { ...one, ...patch } : other)));
              const n = i + 1;
              const severity = (end: 0 | 1) => (
                <NumberBox
                  label={`${end === 0 ? "Least" : "Most"} severity of quenchant ${n}`}
                  value={one.H[end]!}
                  least={0.005}
                  most={10}
                  unit="1/in"
                  onChange={(value) =>
                    edit({
                      H:
                        end === 0 ? [value, Math.max(value, one.H[1]!)] : [Math.min(value, one.H[0]!), value],
                    })
                  }
                />
              );
              return (
                <Row
                  key={one.id}
                  name={`quenchant ${n}`}
                  onRemove={() => putQuenchants(quenchants.filter((o) => o !== one))}
                >
                  <NameBox
                    labelled="hidden"
                    size="small"
                    label={`Name of quenchant ${n}`}
                    name={one.name}
                    onName={(name) => edit({ name })}
                  />
                  <Pick
                    label={`What quenchant ${n} is`}
                    value={one.medium}
                    options={QUENCHES}
                    onPick={(medium) => edit({ medium })}
                  />
                  {severity(0)}
                  {severity(1)}
                  <NumberBox
                    label={`How warm quenchant ${n} is`}
                    value={one.T ?? 20}
                    least={-200}
                    most={400}
                    unit="°C"
                    onChange={(T) => edit({ T })}
                  />
                </Row>
              );
            })}
          </tbody>
        </table>
      )}
      {kept.length > 0 && (
        <table aria-label="Bars and recipes" className="mb-3 w-full border-collapse bg-sheet text-sm">
          <Headings names={["kept from a blade", "name", "of"]} />
          <tbody>
            {kept.map(({ key, what, name, of, drop }) => (
              <Row key={key} name={`${what} ${name}`} onRemove={drop}>
                <span className="px-1">{what}</span>
                <strong>{name}</strong>
                <span className="text-faint">{of}</span>
              </Row>
            ))}
          </tbody>
        </table>
      )}
      <p className="mt-2 max-w-prose text-xs text-faint">
        Oil still {SEVERITY["oil, still"].join(" to ")}, moved well {SEVERITY["oil, moved well"].join(" to ")}
        , water {SEVERITY.water.join(" to ")} for each inch (M. A. Grossmann, from memory of): it ranks
        sections, and files decide. Bars and recipes are kept on a blade's Heat page.
      </p>
    </section>
  );
}

function Row({ name, onRemove, children }: { name: string; onRemove: () => void; children: ReactNode[] }) {
  return (
    <tr className="border-t border-rule">
      {children.map((child, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a cell is its place in the row
        <td key={i} className="px-1.5 py-1">
          {child}
        </td>
      ))}
      <td>
        <button
          type="button"
          aria-label={`Remove ${name}`}
          className="rounded p-1.5 text-faint hover:bg-room"
          onClick={onRemove}
        >
          <X className="size-4" aria-hidden />
        </button>
      </td>
    </tr>
  );
}

function Pick<T extends string>({
  label,
  value,
  options,
  onPick,
}: {
  label: string;
  value: T;
  options: readonly T[];
  onPick: (value: T) => void;
}) {
  return (
    <select
      aria-label={label}
      className="h-8 rounded border border-frame bg-sheet px-1"
      value={value}
      onChange={(event) => onPick(event.currentTarget.value as T)}
    >
      {options.map((option) => (
        <option key={option} value={option}>
          {option}
        </option>
      ))}
    </select>
  );
}
