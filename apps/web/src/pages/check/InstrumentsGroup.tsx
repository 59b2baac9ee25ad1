import { BEHAVIOURS, type InstrumentState } from "@true-spine/core/inspect/wire.ts";
import { INSTRUMENT_NAMES } from "@true-spine/core/shop/instrument.ts";
import { Group, SmallButton } from "../../parts/Group.tsx";
import { useNotices } from "../../parts/Notices.tsx";
import { behave, putOnBench, takeOffBench } from "../../readings/instruments.ts";

const STATE_WORDS: Readonly<Record<InstrumentState["state"], string>> = {
  here: "here",
  away: "gone; it connects again by itself",
  nonsense: "sends nonsense, which is dropped",
};

/** Instruments that are connected; the simulated ones are put on the bench from here, and told how to behave. */
export function InstrumentsGroup({
  instruments,
  port,
  onPut,
}: {
  instruments: readonly InstrumentState[];
  port: number;
  onPut: () => void;
}) {
  const isSimulated = instruments.some((one) => one.isSimulated);
  const act = (doing: Promise<void>) => {
    doing.catch(() => useNotices.getState().tell("The server does not answer; nothing was done."));
  };
  return (
    <Group title="Instruments">
      {instruments.length === 0 && (
        <p className="text-xs text-faint">None is connected. Readings are typed.</p>
      )}
      {instruments.map((one) => (
        <div key={one.id} className="flex items-center gap-2 text-sm">
          <span className="min-w-0 flex-1">
            {one.isSimulated && "simulated "}
            {INSTRUMENT_NAMES[one.kind]}
            <span className={`block text-xs ${one.state === "here" ? "text-faint" : "text-fix"}`}>
              {STATE_WORDS[one.state]}
              {one.last && `; last ${one.last.value} ${one.last.unit}`}
            </span>
          </span>
          {one.isSimulated && one.state !== "away" && (
            <select
              aria-label={`How the ${INSTRUMENT_NAMES[one.kind]} behaves`}
              className="h-8 rounded border border-frame bg-sheet px-1 text-xs"
              defaultValue="well"
              onChange={(event) => act(behave(one.id, event.currentTarget.value))}
            >
              {BEHAVIOURS.map((how) => (
                <option key={how} value={how}>
                  {how}
                </option>
              ))}
            </select>
          )}
        </div>
      ))}
      <div>
        {isSimulated ? (
          <SmallButton onClick={() => act(takeOffBench())}>Remove the simulated ones</SmallButton>
        ) : (
          <SmallButton
            onClick={() => {
              act(putOnBench());
              onPut();
            }}
          >
            Connect simulated instruments
          </SmallButton>
        )}
      </div>
      <p className="text-xs text-faint">
        They read a hidden piece of steel with faults in it, for trying things out. A real one speaks to port{" "}
        {port || "–"} on this machine, a line for each reading.
      </p>
    </Group>
  );
}
