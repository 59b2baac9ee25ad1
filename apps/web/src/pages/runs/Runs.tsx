import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate } from "react-router";
import { whyOf } from "../../api/client.ts";
import { createRun, takeBackRun, useDeletedRuns, useRuns } from "../../api/runs.ts";
import { DeletedList } from "../../parts/DeletedList.tsx";
import { useNotices } from "../../parts/Notices.tsx";
import { PlainButton } from "../../parts/PlainButton.tsx";
import { useTitle } from "../../parts/useTitle.ts";
import { agoInWords } from "../../parts/when.ts";
import { newId } from "../../saving/id.ts";

/** Runs: several blades to one specification, to see whether the work is steady. */
export function Runs() {
  useTitle("Runs");
  const { data, isError, isPending, refetch } = useRuns();
  const deleted = useDeletedRuns();
  const queries = useQueryClient();
  const navigate = useNavigate();
  const [busy, setBusy] = useState(false);
  const start = async () => {
    setBusy(true);
    const id = newId();
    try {
      await createRun(id, {
        format: "true-spine/run",
        version: 1,
        name: "A new run",
        blades: [],
        places: [],
      });
      await queries.invalidateQueries({ queryKey: ["runs"] });
      navigate(`/runs/${id}`);
    } catch (error) {
      useNotices.getState().tell(`${whyOf(error)} No run was begun.`);
      setBusy(false);
    }
  };
  return (
    <div className="flex h-full flex-col">
      <header className="flex h-13 shrink-0 items-center gap-3 border-b border-rule bg-paper px-5">
        <h1 className="text-[17px] font-bold">Runs</h1>
        <span className="ml-auto">
          <PlainButton kind="main" onClick={start} disabled={busy}>
            New run
          </PlainButton>
        </span>
      </header>
      <div className="min-h-0 flex-1 overflow-auto px-5 py-4">
        {isPending && <p className="text-faint">Fetching the runs …</p>}
        {isError && (
          <div role="alert" className="flex items-center gap-4">
            <p>The server does not answer, so the runs cannot be shown. Nothing is lost.</p>
            <PlainButton onClick={() => void refetch()}>Try again</PlainButton>
          </div>
        )}
        {data?.length === 0 && (
          <div className="max-w-prose">
            <h2 className="text-lg font-bold">No run yet</h2>
            <p className="mt-1 text-sm text-faint">
              A run is several blades made to one specification. Pick the blades in the order they were made
              and the places to chart: whether the work is steady, whether it fits its band, and which step
              drifts.
            </p>
          </div>
        )}
        <ul className="flex flex-col gap-2">
          {data?.map(({ id, file, updatedAt }) => (
            <li key={id}>
              <Link
                to={`/runs/${id}`}
                className="flex items-center gap-4 rounded bg-sheet px-4 py-3 hover:bg-room"
              >
                <span className="min-w-0 flex-1 font-semibold">{file.name}</span>
                <span className="text-sm text-faint">
                  {file.blades.length} blades, {file.places.length} places
                </span>
                <span className="text-sm text-faint">{agoInWords(Date.parse(updatedAt))}</span>
              </Link>
            </li>
          ))}
        </ul>
        {deleted.data && deleted.data.length > 0 && (
          <section aria-label="Deleted runs" className="mt-8">
            <h2 className="mb-2 font-bold">Deleted in the last 30 days</h2>
            <DeletedList
              rows={deleted.data}
              empty=""
              onTakeBack={async (id) => {
                await takeBackRun(id);
                await queries.invalidateQueries({ queryKey: ["runs"] });
              }}
            />
          </section>
        )}
      </div>
    </div>
  );
}
