import type { BenchEvent, InstrumentState } from "@true-spine/core/inspect/wire.ts";
import { useEffect, useRef, useState } from "react";
import { send } from "../api/client.ts";

type Heard = Extract<BenchEvent, { event: "reading" }>;

/** The instruments that are connected, as the server streams them; every reading of one is told once. */
export function useInstruments(onReading: (reading: Heard) => void): {
  instruments: readonly InstrumentState[];
  port: number;
} {
  const [state, setState] = useState<{ instruments: readonly InstrumentState[]; port: number }>({
    instruments: [],
    port: 0,
  });
  const told = useRef(onReading);
  told.current = onReading;
  useEffect(() => {
    // It comes back by itself when the server does.
    const stream = new EventSource("/api/instruments/stream");
    stream.onmessage = ({ data }: MessageEvent<string>) => {
      const event = JSON.parse(data) as BenchEvent;
      if (event.event === "reading") told.current(event);
      else setState({ instruments: event.instruments, port: event.port });
    };
    stream.onerror = () =>
      setState((now) => (now.instruments.length > 0 ? { ...now, instruments: [] } : now));
    return () => stream.close();
  }, []);
  return state;
}

export const putOnBench = () => send<void>("POST", "/instruments/bench");
export const takeOffBench = () => send<void>("DELETE", "/instruments/bench");
export const press = (id: string, held: unknown) => send<void>("POST", `/instruments/${id}/press`, held);
export const behave = (id: string, how: string) => send<void>("POST", `/instruments/${id}/behave`, { how });
