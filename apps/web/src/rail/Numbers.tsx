import { From } from "../parts/From.tsx";
import type { NumberRow } from "./scribe-numbers.ts";

/** Numbers at the scribe: left, right, both together, and wanted. Hover or focus a row to see where it is from. */
export function Numbers({ rows }: { rows: readonly NumberRow[] }) {
  return (
    <section aria-label="Numbers at the scribe" className="bg-sheet px-2 py-1.5">
      <table className="w-full border-collapse text-[13px] leading-[20px]">
        <thead>
          <tr className="text-left text-[11px] text-faint">
            <th scope="col" className="font-normal">
              at the scribe
            </th>
            <th scope="col" className="w-12 text-right font-normal">
              left
            </th>
            <th scope="col" className="w-12 text-right font-normal">
              right
            </th>
            <th scope="col" className="w-12 text-right font-normal">
              both
            </th>
            <th scope="col" className="w-[74px] text-right font-normal">
              wanted
            </th>
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={row.name}>
              <th scope="row" className="text-left font-medium">
                <From words={row.from} className="text-left whitespace-nowrap">
                  {row.name}
                </From>
              </th>
              <Cell value={row.left} />
              <Cell value={row.right} />
              <Cell value={row.both} isOut={row.isOut} />
              <td className="text-right text-[12px] text-deep">{row.wanted ?? ""}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

function Cell({ value, isOut = false }: { value: string | null; isOut?: boolean }) {
  return (
    <td className={`text-right ${isOut ? "font-bold text-fix" : "font-medium"}`}>
      {isOut && <span className="sr-only">outside what is wanted: </span>}
      {value ?? ""}
    </td>
  );
}
