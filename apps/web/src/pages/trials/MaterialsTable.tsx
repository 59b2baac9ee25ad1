import { type Batch, counted, demandOf } from "@true-spine/core/edge/trials.ts";

/** What each material asks of an apex, by what failed and what stood. */
export function MaterialsTable({ batches }: { batches: readonly Batch[] }) {
  const materials = [...new Set(batches.map(({ material }) => material))];
  if (materials.length === 0) return null;
  return (
    <table aria-label="What each material asks" className="w-full border-b border-rule text-sm">
      <thead className="text-left text-[11px] text-faint">
        <tr>
          {["material", "edges", "failed", "may still fail, of 100", "apex failed at", "apex stood at"].map(
            (name, i) => (
              <th key={name} scope="col" className={`py-1 font-normal ${i > 0 ? "text-right" : ""}`}>
                {name}
              </th>
            ),
          )}
        </tr>
      </thead>
      <tbody>
        {materials.map((material) => {
          const mine = batches.filter((one) => one.material === material);
          const { n, failed, below } = counted(mine);
          const { lo, hi, isUnsettled } = demandOf(mine, "apex");
          const load = (value: number | null) => (value === null ? "–" : `${value.toFixed(1)} N/mm`);
          return (
            <tr key={material} className="border-t border-rule">
              <th scope="row" className="py-1 text-left font-semibold">
                {material}
              </th>
              <td className="text-right">{n}</td>
              <td className="text-right">{failed}</td>
              <td className="text-right">{(100 * below).toFixed(0)}</td>
              <td className="text-right">{load(lo)}</td>
              <td className="text-right">
                {load(hi)}
                {isUnsettled && " unsettled"}
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
