import { useQuery } from "@tanstack/react-query";
import type { CopyState, Thinning, TroubleRow } from "@true-spine/core/registry/contract.ts";
import { send } from "./client.ts";

const LOOK_EVERY_MS = 2000;

/** Copies, looked at again while one is being made. */
export const useCopies = () =>
  useQuery({
    queryKey: ["copies"],
    queryFn: () => send<CopyState>("GET", "/copies"),
    refetchInterval: ({ state }) => (state.data?.isRunning ? LOOK_EVERY_MS : false),
  });

export const nameFolder = (folder: string) => send<CopyState>("PUT", "/copies", { folder });
export const copyNow = () => send<CopyState>("POST", "/copies");

export const useTroubles = () =>
  useQuery({ queryKey: ["troubles"], queryFn: () => send<TroubleRow[]>("GET", "/troubles") });

export const useHistorySize = () =>
  useQuery({ queryKey: ["history"], queryFn: () => send<Thinning>("GET", "/history") });
export const thinHistory = () => send<Thinning>("POST", "/history/thin");
