import { SUM_GROUPS, type Sum } from "@true-spine/core/sums/sum.ts";
import { findSums, SUMS, sumOf } from "@true-spine/core/sums/sums.ts";
import { useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { SearchBox } from "../../parts/SearchBox.tsx";
import { UnitMenu } from "../../parts/UnitMenu.tsx";
import { useTitle } from "../../parts/useTitle.ts";
import { type Asked, useSums } from "./kept.ts";
import { SumView } from "./SumView.tsx";

/** Sums: one question of the bench, one answer, nothing to make or save first. */
export function SumsPage() {
  const { key } = useParams();
  const [typed, setTyped] = useState("");
  const found = findSums(typed);
  const { asked, type } = useSums();
  const navigate = useNavigate();
  const sum = sumOf(key ?? "") ?? SUMS[0]!;
  useTitle(`Sums: ${sum.name}`);
  /** Counts questions taken up again: each begins its boxes anew. */
  const [taken, setTaken] = useState(0);
  const takeUp = ({ sum: of, typed: boxes }: Asked) => {
    type(of, boxes);
    setTaken((times) => times + 1);
    navigate(`/sums/${of}`);
  };
  const isSearching = typed.trim() !== "";
  return (
    <div className="flex h-full flex-col">
      <header className="flex h-13 shrink-0 items-center gap-4 border-b border-rule bg-paper px-5">
        <h1 className="text-base font-bold">Sums</h1>
        <span className="text-xs text-faint max-md:hidden">one question, one answer, nothing to save</span>
        <span className="ml-auto">
          <UnitMenu />
        </span>
      </header>
      <div className="flex min-h-0 flex-1">
        <nav
          aria-label="Questions"
          className="flex w-62 shrink-0 flex-col overflow-y-auto border-r border-rule bg-room"
        >
          <form
            className="sticky top-0 bg-room p-2"
            onSubmit={(event) => {
              event.preventDefault();
              if (found[0]) navigate(`/sums/${found[0].key}`);
            }}
          >
            <SearchBox
              label="Find a sum"
              placeholder="quarter inch bevel, scribe …"
              text={typed}
              onText={setTyped}
            />
          </form>
          {isSearching && found.length === 0 && (
            <p className="px-3 py-2 text-sm text-faint">
              No sum is called so. Try bevel, hollow, gauge, jig, taper, grit.
            </p>
          )}
          {isSearching && <SumList sums={found} current={sum} />}
          {!isSearching &&
            SUM_GROUPS.map((group) => (
              <section key={group} aria-label={group} className="pb-2">
                <h2 className="px-3 pt-1 pb-0.5 text-[11px] font-bold text-faint uppercase">{group}</h2>
                <SumList sums={found.filter((one) => one.group === group)} current={sum} />
              </section>
            ))}
          {asked.length > 0 && (
            <section aria-label="Asked lately" className="border-t border-rule pb-3">
              <h2 className="px-3 pt-2 pb-0.5 text-[11px] font-bold text-faint uppercase">asked lately</h2>
              <ul>
                {asked.map((one) => (
                  <li key={`${one.sum} ${one.at}`}>
                    <button
                      type="button"
                      className="block w-full px-3 py-1 text-left text-xs hover:bg-rule"
                      onClick={() => takeUp(one)}
                    >
                      <span className="font-semibold">{sumOf(one.sum)?.name}</span>
                      <span className="block truncate text-faint">{one.said}</span>
                    </button>
                  </li>
                ))}
              </ul>
            </section>
          )}
        </nav>
        <SumView key={`${sum.key} ${taken}`} sum={sum} />
      </div>
    </div>
  );
}

function SumList({ sums, current }: { sums: readonly Sum[]; current: Sum }) {
  return (
    <ul>
      {sums.map(({ key, name }) => (
        <li key={key}>
          <Link
            to={`/sums/${key}`}
            aria-current={key === current.key ? "page" : undefined}
            className={`block px-3 py-1.5 text-sm ${key === current.key ? "bg-deep font-semibold text-on-deep" : "hover:bg-rule"}`}
          >
            {name}
          </Link>
        </li>
      ))}
    </ul>
  );
}
