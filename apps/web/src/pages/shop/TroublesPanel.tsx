import { useTroubles } from "../../api/house.ts";
import { whenInWords } from "../../parts/when.ts";

/** What the server did wrong lately: for whoever looks after it, or writes to whoever made it. */
export function TroublesPanel() {
  const { data } = useTroubles();
  return (
    <section aria-labelledby="troubles" className="mt-5 pb-6">
      <h2 id="troubles" className="text-lg font-bold">
        What went wrong lately
      </h2>
      {data?.length === 0 && <p className="mt-1 text-sm text-faint">Nothing in the last 30 days.</p>}
      {data && data.length > 0 && (
        <table aria-label="What went wrong lately" className="mt-2 w-full border-collapse text-sm">
          <thead>
            <tr className="text-left text-faint">
              {["when", "what", "where"].map((head) => (
                <th key={head} className="border-b border-rule py-1 pr-4 font-semibold">
                  {head}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {data.map(({ at, what, where }) => (
              <tr key={at + what}>
                <th
                  scope="row"
                  className="border-b border-rule py-1.5 pr-4 text-left font-semibold whitespace-nowrap"
                >
                  {whenInWords(Date.parse(at))}
                </th>
                <td className="border-b border-rule pr-4">{what}</td>
                <td className="border-b border-rule break-all">{where}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}
