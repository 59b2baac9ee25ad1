import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useDeferredValue, useEffect, useMemo, useState } from "react";
import { Link, useNavigate } from "react-router";
import { takeBackBlade, useDeletedBlades, useRack } from "../../api/blades.ts";
import { useMe } from "../../api/door.ts";
import { useSettings } from "../../app/settings.ts";
import { DeletedList } from "../../parts/DeletedList.tsx";
import { later } from "../../parts/later.ts";
import { PlainButton } from "../../parts/PlainButton.tsx";
import { SearchBox } from "../../parts/SearchBox.tsx";
import { Segmented } from "../../parts/Segmented.tsx";
import { UnitMenu } from "../../parts/UnitMenu.tsx";
import { useTitle } from "../../parts/useTitle.ts";
import { OpenFile } from "./OpenFile.tsx";
import { RackRow, ROW_CLASS } from "./RackRow.tsx";
import { useFreely } from "./useFreely.ts";

const VirtualRows = later(async () => (await import("./VirtualRows.tsx")).VirtualRows);
/** Rows that stand at once, before what shows only those in sight has come. */
const AT_ONCE = 12;

/** All blades, as on a rack: each with its outline to one scale, what it is for, its figures and what is found. */
export function Rack() {
  const [search, setSearch] = useState("");
  const [shelf, setShelf] = useState<"rack" | "archive" | "deleted">("rack");
  const rack = useRack(useDeferredValue(search), shelf === "archive");
  const { data, isError, isPending, refetch } = rack;
  const rows = useMemo(() => data?.pages.flatMap((page) => page.rows), [data]);
  const total = data?.pages[0]?.total ?? null;
  const { unit } = useSettings();
  useTitle("Rack");
  const { role } = useMe();
  const mayChange = role === "desk" || role === "all";
  const navigate = useNavigate();
  const queries = useQueryClient();
  const refresh = useCallback(() => void queries.invalidateQueries({ queryKey: ["blades"] }), [queries]);
  // One scale for all that are fetched: a short knife looks short.
  const longest = useMemo(
    () => (rows ?? []).reduce((most, row) => Math.max(most, row.summary.box[2]), 1),
    [rows],
  );
  const [scroller, setScroller] = useState<HTMLDivElement | null>(null);
  const isScrolled = useFreely(VirtualRows, scroller);
  // What is looked for begins at its top.
  // biome-ignore lint/correctness/useExhaustiveDependencies: whenever either changes
  useEffect(() => {
    scroller?.scrollTo(0, 0);
  }, [search, shelf]);
  return (
    <div className="flex h-full flex-col">
      <header className="flex h-13 shrink-0 items-center gap-3 border-b border-rule bg-paper px-5">
        <h1 className="text-[17px] font-bold">Rack</h1>
        <SearchBox
          className="ml-3 max-w-80 flex-1"
          label="Search by name, purpose, steel, state or run"
          placeholder="name, purpose, steel, state or run"
          text={search}
          onText={setSearch}
        />
        <span className="flex-1" />
        <div className="w-52">
          <Segmented
            label="Shelf"
            options={mayChange ? ["rack", "archive", "deleted"] : ["rack", "archive"]}
            value={shelf}
            onChange={setShelf}
          />
        </div>
        <UnitMenu />
        {mayChange && (
          <>
            <OpenFile onDone={refresh} />
            <Link
              to="/new"
              className="flex min-h-9 items-center rounded bg-deep px-3 py-1.5 font-semibold text-on-deep"
            >
              New blade
            </Link>
          </>
        )}
      </header>
      <div ref={setScroller} className="min-h-0 flex-1 overflow-auto px-5 py-4">
        {shelf === "deleted" && <Deleted onDone={refresh} />}
        {shelf !== "deleted" && isPending && <p className="text-faint">Fetching the rack …</p>}
        {isError && (
          <div role="alert" className="flex items-center gap-4">
            <p>The server does not answer, so the rack cannot be shown. Nothing is lost.</p>
            <PlainButton onClick={() => void refetch()}>Try again</PlainButton>
          </div>
        )}
        {shelf !== "deleted" && rows?.length === 0 && (
          <Empty search={search} shelf={shelf} onNew={() => navigate("/new")} />
        )}
        {shelf !== "deleted" && rows && rows.length > 0 && (
          <>
            {total !== null && rows.length < total && (
              <p className="mb-2 text-sm text-faint">
                {total} blades{search && ` that match “${search}”`}
              </p>
            )}
            {isScrolled && scroller ? (
              <VirtualRows
                rows={rows}
                total={total}
                scroller={scroller}
                unit={unit}
                longest={longest}
                role={role}
                onDone={refresh}
                onNearEnd={() => {
                  if (rack.hasNextPage && !rack.isFetchingNextPage) void rack.fetchNextPage();
                }}
              />
            ) : (
              <ul className="flex flex-col gap-3">
                {rows.slice(0, AT_ONCE).map((row) => (
                  <li key={row.id} className={ROW_CLASS}>
                    <RackRow row={row} unit={unit} longest={longest} role={role} onDone={refresh} />
                  </li>
                ))}
              </ul>
            )}
          </>
        )}
      </div>
    </div>
  );
}

function Deleted({ onDone }: { onDone: () => void }) {
  const { data, isError } = useDeletedBlades();
  if (isError) return <p role="alert">The server does not answer. Nothing is lost.</p>;
  return (
    <DeletedList
      rows={data ?? []}
      empty={data ? "Nothing was deleted in the last 30 days." : "Fetching …"}
      onTakeBack={async (id) => {
        await takeBackBlade(id);
        onDone();
      }}
    />
  );
}

function Empty({ search, shelf, onNew }: { search: string; shelf: string; onNew: () => void }) {
  if (search)
    return (
      <p className="text-faint">
        Nothing on the {shelf} matches “{search}”. Try part of a name, or a steel.
      </p>
    );
  if (shelf === "archive")
    return <p className="text-faint">Nothing is archived. A blade is archived from its menu.</p>;
  return (
    <div className="max-w-lg">
      <p>The rack is empty. Start a blade from what it is for and its size, or open a blade file.</p>
      <div className="mt-4">
        <PlainButton kind="main" onClick={onNew}>
          Start a blade
        </PlainButton>
      </div>
    </div>
  );
}
