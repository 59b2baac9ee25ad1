import type { DateOrder } from "@true-spine/formats/moments.ts";
import type { Asks, BroughtReadings } from "@true-spine/formats/read-readings.ts";
import { writeReadings } from "@true-spine/formats/read-readings.ts";
import { proxy } from "comlink";
import { useRef, useState } from "react";
import { useStore } from "zustand";
import { useDocument, useFile, useScreen } from "../../blade/screen.ts";
import { Alert } from "../../parts/Alert.tsx";
import { download } from "../../parts/download.ts";
import { FileBox } from "../../parts/FileBox.tsx";
import { Group, SmallButton } from "../../parts/Group.tsx";
import { askOnce, WorkStopped } from "../../workers/asking.ts";
import { ReadingsAsked } from "./ReadingsAsked.tsx";

type State =
  | { readonly at: "idle" }
  | { readonly at: "reading" | "sending"; readonly done: number; readonly of: number }
  | {
      readonly at: "done";
      readonly kept: number;
      readonly known: number;
      readonly read: BroughtReadings;
    }
  | { readonly at: "asking"; readonly picked: File; readonly asks: Asks }
  | { readonly at: "failed"; readonly why: string };

const MOST_SHOWN = 200;
/** Far beyond the rows that are taken at once: not even opened. */
const LARGEST_FILE = 64 * 1024 * 1024;

/** Readings in from a file, with progress and every row that was refused; and out again. */
export function FilesGroup({ stage }: { stage: string }) {
  const { readings, id } = useScreen();
  const file = useFile();
  const route = useDocument("route");
  const taken = useStore(readings.state);
  const [state, setState] = useState<State>({ at: "idle" });
  const stop = useRef<AbortController | null>(null);
  const bring = async (picked: File, said: { dates?: DateOrder; isAgreed?: boolean } = {}) => {
    if (picked.size > LARGEST_FILE) {
      setState({ at: "failed", why: `${picked.name} is larger than 64 MB. Nothing was read from it.` });
      return;
    }
    const control = new AbortController();
    stop.current = control;
    try {
      setState({ at: "reading", done: 0, of: 1 });
      const bytes = new Uint8Array(await picked.arrayBuffer());
      const read = await askOnce(
        "files",
        (files) =>
          files.readings(
            bytes,
            file,
            { of: id, stage, stages: route.stages.map((one) => one.id), ...said },
            proxy((share: number) => setState({ at: "reading", done: share, of: 1 })),
          ),
        { signal: control.signal },
      );
      if (read.asks) {
        setState({ at: "asking", picked, asks: read.asks });
        return;
      }
      const of = read.readings.length;
      setState({ at: "sending", done: 0, of });
      const kept = await readings.bring(
        read.readings,
        read.struck,
        (done) => setState({ at: "sending", done, of }),
        control.signal,
      );
      setState({ at: "done", kept, known: control.signal.aborted ? 0 : of - kept, read });
    } catch (error) {
      if (error instanceof WorkStopped) {
        setState({ at: "idle" });
        return;
      }
      setState({
        at: "failed",
        why: `${error instanceof Error ? error.message : "It could not be imported."} What was sent is kept; import the same file again and only the rest is added.`,
      });
    }
  };
  const refused = state.at === "done" ? state.read.refused : [];
  const isBusy = state.at === "reading" || state.at === "sending";
  return (
    <Group title="Readings in and out">
      <p className="text-xs text-faint">
        CSV with the columns what, value, x or u, side, …, a unit behind a heading or in a column of its own
      </p>
      <FileBox
        label="File of readings"
        words="Import readings"
        accept=".csv,.json,text/csv,application/json"
        disabled={isBusy}
        onPick={(picked) => void bring(picked)}
      />
      {isBusy && (
        <div className="flex items-center gap-2 text-xs">
          <progress
            aria-label="Importing readings"
            className="min-w-0 flex-1"
            value={state.done}
            max={Math.max(1, state.of)}
          />
          <span>{state.at === "sending" ? `${state.done} of ${state.of}` : "reading it"}</span>
          <SmallButton onClick={() => stop.current?.abort()}>Stop</SmallButton>
        </div>
      )}
      {state.at === "asking" && (
        <ReadingsAsked
          name={state.picked.name}
          asks={state.asks}
          onSay={(dates) => void bring(state.picked, { isAgreed: true, ...(dates ? { dates } : {}) })}
          onClose={() => setState({ at: "idle" })}
        />
      )}
      {state.at === "failed" && <Alert>{state.why}</Alert>}
      {state.at === "done" && (
        <div className="text-xs" role="status">
          {state.kept} imported{state.known > 0 && `, ${state.known} were known already`}
          {state.read.struck.length > 0 && `, ${state.read.struck.length} of them struck out`}
          {refused.length > 0 && `, ${refused.length} rows refused`}.
          {state.read.passedOver.length > 0 &&
            ` Nothing was read from ${state.read.passedOver.map((words) => `“${words}”`).join(", ")}.`}
          {refused.length > 0 && (
            <ul aria-label="Rows refused" className="mt-1 max-h-40 overflow-y-auto border-t border-rule">
              {refused.slice(0, MOST_SHOWN).map(({ line, why }) => (
                <li key={`${line} ${why}`} className="border-b border-rule py-0.5">
                  line {line}: {why}
                </li>
              ))}
              {refused.length > MOST_SHOWN && <li>and {refused.length - MOST_SHOWN} more</li>}
            </ul>
          )}
        </div>
      )}
      {taken.taken.length > 0 && (
        <div className="flex gap-2">
          <SmallButton
            onClick={() =>
              download(
                `${file.name} readings`,
                ".csv",
                writeReadings(taken.taken, [...taken.struck]),
                "text/csv",
              )
            }
          >
            all {taken.taken.length} as CSV
          </SmallButton>
          <SmallButton
            onClick={() =>
              download(
                `${file.name} readings`,
                ".json",
                `${JSON.stringify({ format: "true-spine/readings", version: 1, taken: taken.taken, struck: [...taken.struck] }, null, 2)}\n`,
                "application/json",
              )
            }
          >
            as JSON
          </SmallButton>
        </div>
      )}
    </Group>
  );
}
