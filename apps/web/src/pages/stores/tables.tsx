/** What the tables of the stores share. */

/** The headings of a table; the last column's, that of the keys that remove, is for those who hear it. */
export function Headings({ names }: { names: readonly string[] }) {
  return (
    <thead className="text-left text-[11px] text-faint">
      <tr>
        {names.map((name) => (
          <th key={name} scope="col" className="px-1.5 py-1 font-normal">
            {name}
          </th>
        ))}
        <th scope="col" className="px-1.5 py-1 font-normal">
          <span className="sr-only">remove</span>
        </th>
      </tr>
    </thead>
  );
}
