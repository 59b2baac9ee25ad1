import { useQueryClient } from "@tanstack/react-query";
import { useVirtualizer } from "@tanstack/react-virtual";
import type { BladeRow, Me } from "@true-spine/core/registry/contract.ts";
import { type LengthUnit, showLength } from "@true-spine/core/units/length.ts";
import { inUnit } from "@true-spine/core/units/sentence.ts";
import {
  memo,
  type RefObject,
  Suspense,
  useCallback,
  useDeferredValue,
  useEffect,
  useMemo,
  useRef,
  useState,
} from "react";
import { Link, useNavigate } from "react-router";
import { takeBackBlade, useDeletedBlades, useRack } from "../../api/blades.ts";
import { useMe } from "../../api/door.ts";
import { useSettings } from "../../app/settings.ts";
import { DeletedList } from "../../parts/DeletedList.tsx";
import { later } from "../../parts/later.ts";
import { PlainButton } from "../../parts/PlainButton.tsx";
import { SearchBox } from "../../parts/SearchBox.tsx";
import { Segmented } from "../../parts/Segmented.tsx";
import { Sign } from "../../parts/Sign.tsx";
import { UnitMenu } from "../../parts/UnitMenu.tsx";
import { useTitle } from "../../parts/useTitle.ts";
import { agoInWords } from "../../parts/when.ts";
import { OpenFile } from "./OpenFile.tsx";

const RowMenu = later(async () => (await import("./RowMenu.tsx")).RowMenu);

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
  const scroller = useRef<HTMLDivElement>(null);
  // What is looked for begins at its top.
  // biome-ignore lint/correctness/useExhaustiveDependencies: whenever either changes
  useEffect(() => {
    scroller.current?.scrollTo(0, 0);
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
      <div ref={scroller} className="min-h-0 flex-1 overflow-auto px-5 py-4">
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
            <Rows
              rows={rows}
              total={total}
              scroller={scroller}
              unit={unit}
              role={role}
              onDone={refresh}
              onNearEnd={() => {
                if (rack.hasNextPage && !rack.isFetchingNextPage) void rack.fetchNextPage();
              }}
            />
          </>
        )}
      </div>
    </div>
  );
}

/** Rows that are looked at from the end before the next page is fetched. */
const NEAR_END = 15;
const USUAL_HEIGHT = 122;

/** The rows in sight and a few beside them; the others are room. One scale for all that are fetched: a short knife looks short. */
function Rows({
  rows,
  total,
  scroller,
  unit,
  role,
  onDone,
  onNearEnd,
}: {
  rows: readonly BladeRow[];
  total: number | null;
  scroller: RefObject<HTMLDivElement | null>;
  unit: LengthUnit;
  role: Me["role"];
  onDone: () => void;
  onNearEnd: () => void;
}) {
  const longest = useMemo(() => rows.reduce((most, row) => Math.max(most, row.summary.box[2]), 1), [rows]);
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => USUAL_HEIGHT,
    getItemKey: (index) => rows[index]!.id,
    gap: 12,
    overscan: 6,
  });
  const items = virtual.getVirtualItems();
  const isNearEnd = (items.at(-1)?.index ?? 0) > rows.length - NEAR_END;
  useEffect(() => {
    if (isNearEnd) onNearEnd();
  }, [isNearEnd, onNearEnd]);
  return (
    <ul className="relative" style={{ height: virtual.getTotalSize() }}>
      {items.map(({ index, key, start }) => (
        <li
          key={key}
          ref={virtual.measureElement}
          data-index={index}
          aria-setsize={total ?? rows.length}
          aria-posinset={index + 1}
          className="absolute top-0 left-0 flex w-full items-stretch rounded-md border border-rule bg-sheet"
          style={{ transform: `translateY(${start}px)` }}
        >
          <RackRow row={rows[index]!} unit={unit} longest={longest} role={role} onDone={onDone} />
        </li>
      ))}
    </ul>
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

/** Drawn again only where it changes: while the rack is scrolled, none of those in sight does. */
const RackRow = memo(function RackRow({
  row,
  unit,
  longest,
  role,
  onDone,
}: {
  row: BladeRow;
  unit: LengthUnit;
  longest: number;
  role: Me["role"];
  onDone: () => void;
}) {
  const { summary } = row;
  const [x, y, width, height] = summary.box;
  const say = (mm: number, places?: number) => showLength(mm, unit, places);
  return (
    <>
      <Link
        to={role === "card" ? `/card/${row.id}` : `/blades/${row.id}/grind`}
        // What keeps cards without the network looks after pages that begin as one.
        reloadDocument={role === "card"}
        className="flex min-w-0 flex-1 items-stretch rounded-md"
      >
        <span className="flex w-[46%] shrink-0 items-center rounded-l-md bg-layout px-4 py-3">
          {/* One scale for the whole rack: a short knife looks short. */}
          <svg
            viewBox={`${x - 1} ${y - 1} ${width + 2} ${height + 2}`}
            style={{ width: `${(100 * width) / longest}%` }}
            className="max-h-24"
            role="img"
            aria-label={`Outline of ${row.name}`}
          >
            <path
              d={summary.outline}
              fill="var(--color-layout-steel)"
              stroke="var(--color-scribed)"
              strokeWidth={1}
              vectorEffect="non-scaling-stroke"
            />
            {summary.lines && (
              <path
                d={summary.lines}
                fill="none"
                stroke="var(--color-grind)"
                strokeWidth={1}
                vectorEffect="non-scaling-stroke"
              />
            )}
          </svg>
        </span>
        <span className="flex min-w-0 flex-1 flex-col justify-center gap-1 px-4 py-2.5">
          <span className="flex items-baseline gap-2">
            <span className="truncate text-base font-bold">{row.name}</span>
            <span className="shrink-0 text-sm text-faint">
              {[row.use, row.steel].filter(Boolean).join(", ")}
            </span>
            <span className="ml-auto shrink-0 rounded border border-rule px-1.5 text-xs text-faint">
              {row.state}
            </span>
          </span>
          <span className="flex gap-5 text-sm">
            <Figure name="blade" value={`${say(summary.length, unit === "mm" ? 0 : undefined)}`} />
            <Figure name="steel" value={`${summary.mass.toFixed(0)} g`} />
            {summary.behind && (
              <Figure
                name="behind the edge"
                value={
                  summary.behind[0] === summary.behind[1]
                    ? say(summary.behind[0])
                    : `${say(summary.behind[0])}–${say(summary.behind[1])}`
                }
              />
            )}
            <span className="ml-auto self-end text-xs text-faint">
              revision {row.revision}, {agoInWords(Date.parse(row.updatedAt))}
            </span>
          </span>
          <span className="flex min-w-0 items-start gap-2 text-sm">
            <span className="pt-0.5">
              <Sign of={summary.fix > 0 ? "fix" : summary.watch > 0 ? "watch" : "well"} />
            </span>
            <span className="line-clamp-2">
              {summary.worst ? inUnit(summary.worst, unit) : "Sound as drawn."}
              {summary.fix + summary.watch > 1 && <span className="text-faint"> {countWords(summary)}</span>}
            </span>
          </span>
        </span>
      </Link>
      {(role === "desk" || role === "all") && (
        <Suspense fallback={<span className="w-10" />}>
          <RowMenu row={row} onDone={onDone} />
        </Suspense>
      )}
    </>
  );
});

function countWords({ fix, watch }: { fix: number; watch: number }): string {
  const parts = [fix > 0 ? `${fix} to fix` : "", watch > 0 ? `${watch} to watch` : ""].filter(Boolean);
  return `In all ${parts.join(", ")}.`;
}

function Figure({ name, value }: { name: string; value: string }) {
  return (
    <span>
      <span className="block text-[11px] whitespace-nowrap text-faint">{name}</span>
      <span className="font-semibold whitespace-nowrap">{value}</span>
    </span>
  );
}
