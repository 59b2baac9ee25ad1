import type { BroughtReadings } from "@true-spine/formats/read-readings.ts";
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

type State =
  | { readonly at: "idle" }
  | { readonly at: "reading" | "sending"; readonly done: number; readonly of: number }
  | {
      readonly at: "done";
      readonly kept: number;
      readonly known: number;
      readonly refused: BroughtReadings["refused"];
    }
  | { readonly at: "failed"; readonly why: string };

const MOST_SHOWN = 200;

/** Readings in from a file, with progress and every row that was refused; and out again. */
export function FilesGroup({ stage }: { stage: string }) {
  const { readings, id } = useScreen();
  const file = useFile();
  const route = useDocument("route");
  const taken = useStore(readings.state);
  const [state, setState] = useState<State>({ at: "idle" });
  const stop = useRef<AbortController | null>(null);
  const bring = async (picked: File) => {
    const control = new AbortController();
    stop.current = control;
    try {
      setState({ at: "reading", done: 0, of: 1 });
      const text = await picked.text();
      const read = await askOnce(
        "files",
        (files) =>
          files.readings(
            text,
            id,
            file,
            stage,
            route.stages.map((one) => one.id),
            proxy((share: number) => setState({ at: "reading", done: share, of: 1 })),
          ),
        { signal: control.signal },
      );
      const of = read.readings.length;
      setState({ at: "sending", done: 0, of });
      const kept = await readings.bring(
        read.readings,
        (done) => setState({ at: "sending", done, of }),
        control.signal,
      );
      setState({ at: "done", kept, known: control.signal.aborted ? 0 : of - kept, refused: read.refused });
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
  const isBusy = state.at === "reading" || state.at === "sending";
  return (
    <Group title="Readings in and out">
      <p className="text-xs text-faint">CSV with the columns what, value, x or u, side, …</p>
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
      {state.at === "failed" && <Alert>{state.why}</Alert>}
      {state.at === "done" && (
        <div className="text-xs" role="status">
          {state.kept} imported{state.known > 0 && `, ${state.known} were known already`}
          {state.refused.length > 0 && `, ${state.refused.length} rows refused`}.
          {state.refused.length > 0 && (
            <ul aria-label="Rows refused" className="mt-1 max-h-40 overflow-y-auto border-t border-rule">
              {state.refused.slice(0, MOST_SHOWN).map(({ line, why }) => (
                <li key={`${line} ${why}`} className="border-b border-rule py-0.5">
                  line {line}: {why}
                </li>
              ))}
              {state.refused.length > MOST_SHOWN && <li>and {state.refused.length - MOST_SHOWN} more</li>}
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
                `${JSON.stringify({ format: "true-spine/readings", version: 1, taken: taken.taken }, null, 2)}\n`,
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
