import { useLayoutEffect } from "react";
import { useNavigate } from "react-router";
import { isTaken } from "../parts/TextBox.tsx";
import { useSettings } from "./settings.ts";

/** K goes to the sums from anywhere in the shop; with Alt also while a box has the focus. */
export function useKeyToSums(): void {
  const navigate = useNavigate();
  useLayoutEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.code !== "KeyK" || event.ctrlKey || event.metaKey || event.shiftKey) return;
      const target = event.target as HTMLElement;
      if (target.closest("[role=dialog]") !== null) return;
      const isBox = target.matches("input, select, textarea");
      // What a box would not take is a key of the page.
      const isPassedOn = isBox && target.dataset.takes !== undefined && !isTaken(target, event);
      if (!event.altKey && (!useSettings.getState().letterKeys || (isBox && !isPassedOn))) return;
      event.preventDefault();
      navigate("/sums");
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [navigate]);
}
