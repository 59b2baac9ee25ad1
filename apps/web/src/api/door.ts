import { useQuery } from "@tanstack/react-query";
import type { DeviceRow, Door, Me, PairingCode, Role } from "@true-spine/core/registry/contract.ts";
import { send } from "./client.ts";

const LOOK_EVERY_MS = 3000;
const DESK: Me = { role: "desk", name: null };

const KNOWN = "true-spine-me";

/** Who this browser was to the server when it last answered: without the network that still stands. */
function lastKnown(): Me {
  try {
    const me = JSON.parse(localStorage.getItem(KNOWN) ?? "null") as Me | null;
    return me && typeof me.role === "string" ? me : DESK;
  } catch {
    return DESK;
  }
}

async function askWho(): Promise<Me> {
  const me = await send<Me>("GET", "/me");
  try {
    localStorage.setItem(KNOWN, JSON.stringify(me));
  } catch {
    // A browser that keeps nothing asks again.
  }
  return me;
}

/** Who this browser is to the server; what it was last until it is known, because the server holds every role itself. */
export function useMe(): Me {
  const { data } = useQuery({
    queryKey: ["me"],
    queryFn: askWho,
    staleTime: 60_000,
    placeholderData: lastKnown,
  });
  return data ?? DESK;
}

export const useDoor = () =>
  useQuery({ queryKey: ["door"], queryFn: () => send<Door | null>("GET", "/door"), staleTime: Infinity });

/** Devices, looked at again while the page is open: one that is being let in is seen at once. */
export const useDevices = () =>
  useQuery({
    queryKey: ["devices"],
    queryFn: () => send<DeviceRow[]>("GET", "/devices"),
    refetchInterval: LOOK_EVERY_MS,
  });

/** What is left of the code that was made last, while one is shown. */
export const useCodeLeft = (isShown: boolean) =>
  useQuery({
    queryKey: ["devices", "code"],
    queryFn: () => send<Omit<PairingCode, "code"> | null>("GET", "/devices/code"),
    enabled: isShown,
    refetchInterval: LOOK_EVERY_MS,
  });

export const makeCode = (name: string, role: Role) =>
  send<PairingCode>("POST", "/devices/code", { name, role });
export const shutOut = (id: string) => send<void>("DELETE", `/devices/${id}`);
