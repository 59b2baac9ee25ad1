import type { StoredBar } from "@true-spine/core/shop/schema.ts";
import { X } from "lucide-react";
import { useState } from "react";
import { Alert } from "../../parts/Alert.tsx";
import { RangedLength } from "../../parts/Box.tsx";
import { PlainButton } from "../../parts/PlainButton.tsx";
import { freshId } from "../../shop/fresh-id.ts";
import { useShop } from "../../shop/shop.ts";
import { Headings } from "./tables.tsx";

/** Bars on hand: what Forge offers to begin with. */
export function BarsTable() {
  const { shop, put } = useShop();
  const [why, setWhy] = useState<string | null>(null);
  const bars = shop.bars ?? [];
  const change = (next: StoredBar[]) => setWhy(put({ ...shop, bars: next }));
  const add = (bar: Omit<StoredBar, "id">) => change([...bars, { id: freshId(bars, "bar"), ...bar }]);
  const edit = (one: StoredBar, patch: Partial<StoredBar>) =>
    change(bars.map((other) => (other === one ? { ...one, ...patch } : other)));
  return (
    <section aria-label="Bars" className="mt-6">
      <div className="mb-2 flex items-center justify-between gap-2">
        <h2 className="flex-1 font-bold">Bars</h2>
        <PlainButton onClick={() => add({ w: 38, t: 6.35, length: 500 })}>Add a flat bar</PlainButton>
        <PlainButton onClick={() => add({ d: 25, length: 500 })}>Add a round bar</PlainButton>
      </div>
      {why && <Alert className="mb-2">{why}</Alert>}
      {bars.length > 0 && (
        <table className="w-full border-collapse bg-sheet text-sm">
          <Headings names={["bar", "wide, or across", "thick", "long"]} />
          <tbody>
            {bars.map((one, i) => (
              <tr key={one.id} className="border-t border-rule">
                <th scope="row" className="px-1.5 py-1 text-left font-semibold">
                  {one.d === undefined ? "flat" : "round"}
                </th>
                <td className="px-1.5 py-1">
                  {one.d === undefined ? (
                    <RangedLength
                      label={`Width of bar ${i + 1}`}
                      value={one.w ?? 38}
                      least={5}
                      most={150}
                      onChange={(w) => edit(one, { w })}
                    />
                  ) : (
                    <RangedLength
                      label={`Across bar ${i + 1}`}
                      value={one.d}
                      least={5}
                      most={60}
                      onChange={(d) => edit(one, { d })}
                    />
                  )}
                </td>
                <td className="px-1.5 py-1">
                  {one.d === undefined && (
                    <RangedLength
                      label={`Thickness of bar ${i + 1}`}
                      value={one.t ?? 6.35}
                      least={2}
                      most={40}
                      onChange={(t) => edit(one, { t })}
                    />
                  )}
                </td>
                <td className="px-1.5 py-1">
                  <RangedLength
                    label={`Length of bar ${i + 1}`}
                    value={one.length}
                    least={10}
                    most={6000}
                    onChange={(length) => edit(one, { length })}
                  />
                </td>
                <td>
                  <button
                    type="button"
                    aria-label={`Remove bar ${i + 1}`}
                    className="rounded p-1.5 text-faint hover:bg-room"
                    onClick={() => change(bars.filter((other) => other !== one))}
                  >
                    <X className="size-4" aria-hidden />
                  </button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <p className="mt-2 max-w-prose text-xs text-faint">
        {bars.length === 0 && "None yet. "}What is here is offered on a blade's Forge page.
      </p>
    </section>
  );
}
