import { useEffect } from "react";
import { useNavigate } from "react-router";
import { fieldOf } from "../../blade/derived.ts";
import { useScreen } from "../../blade/screen.ts";
import { zoomAbout } from "../../rail/Rail.tsx";
import { fittedView, showing } from "../../rail/zoom.ts";
import { BLADE_PAGES } from "./pages.ts";

/** What the keys do, as the list behind ? shows it. */
export const KEYS: readonly { keys: string; does: string }[] = [
  { keys: "1 – 5", does: "Shape, Grind, Route, Check, Log" },
  { keys: "← →", does: "move the scribe 1 mm, with Shift 5 mm" },
  {
    keys: "+ −",
    does: "look nearer or further about the scribe; the wheel does so at the pointer, with Shift along the blade",
  },
  { keys: "S", does: "drop the scribe where the pointer is" },
  { keys: "F", does: "open or close the findings" },
  { keys: "Ctrl+Z, Ctrl+Shift+Z", does: "undo, redo" },
  { keys: "Tab, then arrows", does: "take hold of a handle and move it 0.1 mm, with Shift 1 mm" },
  { keys: "Delete", does: "take the node in hand out of the outline" },
  { keys: "P", does: "on Check: add a place to read at the scribe" },
  { keys: "Enter, ↑ ↓", does: "on Check: keep what was typed, or press the instrument; go along the list" },
  { keys: "/", does: "list of commands" },
  { keys: "?", does: "these keys" },
];

/** Keys of the blade's screen. Typing in a box keeps its keys to itself, but for undo. */
export function useKeys(): void {
  const { open, rail, id } = useScreen();
  const navigate = useNavigate();
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement;
      const isTyping = target.matches("input, select, textarea");
      const isInDialog = target.closest("[role=dialog]") !== null;
      if (isInDialog) return;
      if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === "z") {
        event.preventDefault();
        if (isTyping) target.blur();
        if (event.shiftKey) open.redo();
        else open.undo();
        return;
      }
      if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === "y") {
        event.preventDefault();
        open.redo();
        return;
      }
      if (isTyping || event.ctrlKey || event.metaKey || event.altKey || event.defaultPrevented) return;
      const { scribe, pointer, isTrayOpen } = rail.getState();
      const { ring } = fieldOf(open.store.getState().file);
      const go = (to: number) => {
        const x = Math.min(ring.right, Math.max(ring.left, Math.round(to * 10) / 10));
        const { view, fit } = rail.getState();
        rail.setState({ scribe: x, view: view && showing(view, fittedView(ring, fit), x) });
      };
      const page = BLADE_PAGES[Number(event.key) - 1];
      if (page) navigate(`/blades/${id}/${page.path}`);
      else if (event.key === "ArrowLeft") go(scribe - (event.shiftKey ? 5 : 1));
      else if (event.key === "ArrowRight") go(scribe + (event.shiftKey ? 5 : 1));
      else if (event.key === "Home") go(ring.left);
      else if (event.key === "End") go(ring.right);
      else if (event.key.toLowerCase() === "s") go(pointer);
      else if (event.key.toLowerCase() === "f") rail.setState({ isTrayOpen: !isTrayOpen });
      else if (event.key === "Escape" && isTrayOpen) rail.setState({ isTrayOpen: false });
      else if (event.key === "+" || event.key === "=") zoomAbout(rail, open.store.getState().file, "in");
      else if (event.key === "-") zoomAbout(rail, open.store.getState().file, "out");
      else if (event.key === "/") rail.setState({ panel: "commands" });
      else if (event.key === "?") rail.setState({ panel: "keys" });
      else return;
      event.preventDefault();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [open, rail, id, navigate]);
}
