import type { BladeRow, Me } from "@true-spine/core/registry/contract.ts";
import { type LengthUnit, showLength } from "@true-spine/core/units/length.ts";
import { inUnit } from "@true-spine/core/units/sentence.ts";
import { memo, Suspense } from "react";
import { Link } from "react-router";
import { later } from "../../parts/later.ts";
import { Sign } from "../../parts/Sign.tsx";
import { agoInWords } from "../../parts/when.ts";

const RowMenu = later(async () => (await import("./RowMenu.tsx")).RowMenu);

export const ROW_CLASS = "flex items-stretch rounded-md border border-rule bg-sheet";

/** Drawn again only where it changes: while the rack is scrolled, none of those in sight does. */
export const RackRow = memo(function RackRow({
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
