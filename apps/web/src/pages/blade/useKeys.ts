import { useLayoutEffect } from "react";
import { useNavigate } from "react-router";
import { useSettings } from "../../app/settings.ts";
import { fieldOf } from "../../blade/derived.ts";
import { useScreen } from "../../blade/screen.ts";
import { isTaken } from "../../parts/TextBox.tsx";
import { zoomAbout } from "../../rail/Rail.tsx";
import { fittedView, showing } from "../../rail/zoom.ts";
import { BLADE_PAGES, pagesFor } from "./pages.ts";

/** What the keys do, as the list behind ? shows it. */
export const KEYS: readonly { keys: string; does: string }[] = [
  {
    keys: "1 – 9",
    does: `the pages in their order: ${BLADE_PAGES.map(({ name }) => name).join(", ")}, as far as this blade needs them; with Alt also while a box has the focus`,
  },
  { keys: "← →", does: "move the scribe 1 mm, with Shift 5 mm; Home and End take it to the ends" },
  {
    keys: "+ −",
    does: "look nearer or further about the scribe; the wheel does so at the pointer, with Shift along the blade",
  },
  { keys: "K", does: "the sums; with Alt also while a box has the focus" },
  { keys: "S", does: "drop the scribe where the pointer is" },
  { keys: "F", does: "open or close the findings" },
  { keys: "Ctrl+Z, Ctrl+Shift+Z", does: "undo, redo" },
  { keys: "Tab, then arrows", does: "take hold of a handle and move it 0.1 mm, with Shift 1 mm" },
  { keys: "Delete", does: "remove the chosen node from the outline" },
  { keys: "P", does: "on Check: add a place to read at the scribe" },
  { keys: "R, W", does: "on Check: read the first doubted reading again, or put in what it would be" },
  { keys: "Enter, ↑ ↓", does: "on Check: keep what was typed, or press the instrument; go along the list" },
  { keys: "Escape", does: "leave a box, close what is open" },
  { keys: "/", does: "list of commands: every page, and the rack" },
  { keys: "?", does: "these keys" },
];

/** Keys of the blade's screen. A box keeps those it takes to itself, but for undo, Alt with a digit, and Escape, which leaves it. */
export function useKeys(): void {
  const { open, rail, id } = useScreen();
  const navigate = useNavigate();
  useLayoutEffect(() => {
    const goToPage = (code: string): boolean => {
      const digit = /^(?:Digit|Numpad)(\d)$/.exec(code)?.[1];
      // The tenth page is on 0.
      const page =
        digit === undefined ? undefined : pagesFor(open.store.getState().route)[(Number(digit) + 9) % 10];
      if (page) navigate(`/blades/${id}/${page.path}`);
      return page !== undefined;
    };
    const go = (to: number) => {
      const { ring } = fieldOf(open.store.getState().file);
      const x = Math.min(ring.right, Math.max(ring.left, Math.round(to * 10) / 10));
      const { view, fit } = rail.getState();
      rail.setState({ scribe: x, view: view && showing(view, fittedView(ring, fit), x) });
    };
    /** Whether a key without Ctrl, Alt or Meta was one of the screen's. */
    const isOfScreen = (event: KeyboardEvent): boolean => {
      const { scribe, pointer, isTrayOpen } = rail.getState();
      const { ring } = fieldOf(open.store.getState().file);
      const zoom = (way: "in" | "out") => zoomAbout(rail, open.store.getState().file, way);
      switch (event.key) {
        case "ArrowLeft":
          go(scribe - (event.shiftKey ? 5 : 1));
          return true;
        case "ArrowRight":
          go(scribe + (event.shiftKey ? 5 : 1));
          return true;
        case "Home":
          go(ring.left);
          return true;
        case "End":
          go(ring.right);
          return true;
        case "Escape":
          if (isTrayOpen) rail.setState({ isTrayOpen: false });
          return isTrayOpen;
        case "+":
        case "=":
          zoom("in");
          return true;
        case "-":
          zoom("out");
          return true;
      }
      if (!useSettings.getState().letterKeys) return false;
      switch (event.key.toLowerCase()) {
        case "s":
          go(pointer);
          return true;
        case "f":
          rail.setState({ isTrayOpen: !isTrayOpen });
          return true;
        case "/":
          rail.setState({ panel: "commands" });
          return true;
        case "?":
          rail.setState({ panel: "keys" });
          return true;
        default:
          return goToPage(event.code);
      }
    };
    const onKey = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement;
      if (target.closest("[role=dialog]") !== null) return;
      const isCommand = event.ctrlKey || event.metaKey;
      if (event.altKey && !isCommand) {
        if (goToPage(event.code)) event.preventDefault();
        return;
      }
      const isBox = target.matches("input, select, textarea");
      if (isCommand && ["z", "y"].includes(event.key.toLowerCase())) {
        event.preventDefault();
        if (isBox) target.blur();
        if (event.shiftKey || event.key.toLowerCase() === "y") open.redo();
        else open.undo();
        return;
      }
      if (isCommand) return;
      if (isBox) {
        // What the box would not take is prevented there already, and is a key of the page.
        const isPassedOn = target.dataset.takes !== undefined && !isTaken(target, event);
        if (!isPassedOn) return;
      } else if (event.defaultPrevented) return;
      if (isOfScreen(event)) event.preventDefault();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [open, rail, id, navigate]);
}
