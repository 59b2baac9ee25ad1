import { useQuery } from "@tanstack/react-query";
import { logOf } from "@true-spine/core/record/log.ts";
import { LOG_KINDS, type LogKind } from "@true-spine/core/record/log-entry.ts";
import type { DocumentState, RevisionRow } from "@true-spine/core/registry/contract.ts";
import { inUnit } from "@true-spine/core/units/sentence.ts";
import { writeLog } from "@true-spine/formats/write-log.ts";
import { useDeferredValue, useMemo, useState } from "react";
import { useStore } from "zustand";
import { send } from "../../api/client.ts";
import { useSettings } from "../../app/settings.ts";
import { useFilePart, useSaveStatus, useScreen } from "../../blade/screen.ts";
import { download } from "../../parts/download.ts";
import { PlainButton } from "../../parts/PlainButton.tsx";
import { SearchBox } from "../../parts/SearchBox.tsx";
import { whenInWords } from "../../parts/when.ts";
import { useShop } from "../../shop/shop.ts";
import { useCheck, useRoute, useWorkRows } from "../../work/useWorkRows.ts";

const AT_FIRST = 300;

/** Everything that happened to this blade, newest first: filtered by kind and by words, and taken out as CSV. */
export function LogPage() {
  const { id, readings } = useScreen();
  const name = useFilePart((file) => file.name);
  const route = useRoute();
  const check = useCheck();
  const { shop } = useShop();
  const kept = useStore(readings.state);
  const { revision, status } = useSaveStatus();
  const [kinds, setKinds] = useState<readonly LogKind[]>(LOG_KINDS);
  const [search, setSearch] = useState("");
  const [shown, setShown] = useState(AT_FIRST);
  const { data, isError } = useQuery({
    queryKey: ["log", id, revision, status === "saved"],
    queryFn: async () => {
      const [revisions, documents] = await Promise.all([
        send<RevisionRow[]>("GET", `/blades/${id}/revisions`),
        send<DocumentState[]>("GET", `/blades/${id}/documents`),
      ]);
      return { revisions, documents };
    },
    placeholderData: (before) => before,
  });
  const unit = useSettings((settings) => settings.unit);
  const work = useWorkRows();
  const entries = useMemo(
    () =>
      logOf({
        revisions: data?.revisions ?? [],
        documents: data?.documents ?? [],
        route,
        check,
        readings: kept.taken,
        struck: kept.struck,
        shop,
        work,
      }).map((one) => ({ ...one, words: inUnit(one.words, unit) })),
    [data, route, check, kept.taken, kept.struck, shop, work, unit],
  );
  const words = useDeferredValue(search.trim().toLowerCase());
  const found = useMemo(
    () => entries.filter((one) => kinds.includes(one.kind) && one.words.toLowerCase().includes(words)),
    [entries, kinds, words],
  );
  const toggle = (kind: LogKind) =>
    setKinds(kinds.includes(kind) ? kinds.filter((one) => one !== kind) : [...kinds, kind]);
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <div className="flex flex-wrap items-center gap-3 border-b border-rule bg-paper px-5 py-2">
        <fieldset className="flex flex-wrap gap-x-2.5 gap-y-1 text-[13px]">
          <legend className="sr-only">Kinds shown</legend>
          {LOG_KINDS.map((kind) => (
            <label key={kind} className="flex items-center gap-1.5">
              <input
                type="checkbox"
                className="size-5"
                checked={kinds.includes(kind)}
                onChange={() => toggle(kind)}
              />
              {kind}s
            </label>
          ))}
        </fieldset>
        <SearchBox
          className="w-36"
          label="Search the log"
          placeholder="words"
          text={search}
          onText={setSearch}
        />
        <span className="text-sm text-faint" role="status">
          {found.length} of {entries.length}
        </span>
        <span className="ml-auto">
          <PlainButton onClick={() => download(name, "-log.csv", writeLog(found), "text/csv")}>
            Export as CSV
          </PlainButton>
        </span>
      </div>
      <div className="min-h-0 flex-1 overflow-y-auto bg-sheet px-5">
        {isError && (
          <p role="alert" className="py-2 text-sm">
            The server does not answer: revisions and saves are missing here, what this browser knows is
            shown.
          </p>
        )}
        {found.length === 0 && (
          <p className="py-4 text-sm text-faint">Nothing of these kinds happened yet.</p>
        )}
        <ol aria-label="Log">
          {found.slice(0, shown).map((one, i) => (
            <li
              // biome-ignore lint/suspicious/noArrayIndexKey: two entries may be alike in all else
              key={`${one.when} ${one.words} ${i}`}
              className="grid grid-cols-[9.5rem_6rem_1fr] gap-3 border-b border-rule py-1.5 text-sm"
            >
              <time dateTime={one.when} className="text-faint">
                {whenInWords(Date.parse(one.when))}
              </time>
              <span className="text-faint">{one.kind}</span>
              <span>{one.words}</span>
            </li>
          ))}
        </ol>
        {found.length > shown && (
          <div className="py-3">
            <PlainButton onClick={() => setShown(shown + 1000)}>
              Show more of {found.length - shown}
            </PlainButton>
          </div>
        )}
      </div>
    </div>
  );
}
