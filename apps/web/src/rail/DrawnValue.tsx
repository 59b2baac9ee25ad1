import { parseLength, showForTyping, showLength } from "@true-spine/core/units/length.ts";
import { useState } from "react";
import { useSettings } from "../app/settings.ts";
import { useEdit } from "../blade/useEdit.ts";

const WIDTH = 92;
const HEIGHT = 26;

/**
 * A length written on a drawing, which can be typed over where it stands: pressed or entered it becomes a box;
 * Enter puts it in, Escape leaves it, and a value that cannot be says why under it.
 */
export function DrawnValue({
  x,
  y,
  mm,
  label,
  places,
  anchor = "middle",
  onCommit,
}: {
  x: number;
  y: number;
  mm: number;
  label: string;
  places?: number;
  anchor?: "start" | "middle" | "end";
  onCommit: (mm: number) => string | null;
}) {
  const unit = useSettings((settings) => settings.unit);
  const { visit } = useEdit();
  const [typed, setTyped] = useState<string | null>(null);
  const [why, setWhy] = useState<string | null>(null);
  const shown = showLength(mm, unit, unit === "mm" ? places : undefined);
  const close = () => {
    setTyped(null);
    setWhy(null);
    visit(false);
  };
  const put = (text: string) => {
    const read = parseLength(text, unit);
    visit(true);
    const refused = read.ok ? onCommit(read.mm) : read.why;
    setWhy(refused);
    if (!refused) close();
  };
  if (typed === null) {
    const open = () => setTyped(showForTyping(mm, unit));
    return (
      <text
        x={x}
        y={y}
        textAnchor={anchor}
        role="button"
        tabIndex={0}
        aria-label={`${label}, ${shown} ${unit}. Type over it.`}
        className="cursor-text fill-scribed text-[13px] font-medium hover:underline focus-visible:underline"
        onPointerDown={(event) => event.stopPropagation()}
        onClick={open}
        onKeyDown={(event) => {
          if (event.key !== "Enter" && event.key !== " ") return;
          event.preventDefault();
          event.stopPropagation();
          open();
        }}
      >
        {shown}
      </text>
    );
  }
  const left = anchor === "middle" ? x - WIDTH / 2 : anchor === "end" ? x - WIDTH : x;
  return (
    <foreignObject
      x={left}
      y={y - HEIGHT + 8}
      width={Math.max(WIDTH, 220)}
      height={HEIGHT + 44}
      className="overflow-visible"
    >
      <input
        // biome-ignore lint/a11y/noAutofocus: the box was asked for by the press that opened it
        autoFocus
        aria-label={label}
        aria-invalid={why !== null}
        className={`h-6.5 w-23 rounded border bg-sheet px-1 text-center text-[13px] font-semibold text-ink ${why ? "border-2 border-fix" : "border-frame"}`}
        value={typed}
        onPointerDown={(event) => event.stopPropagation()}
        onFocus={(event) => event.currentTarget.select()}
        onChange={(event) => setTyped(event.currentTarget.value)}
        onBlur={() => (why === null ? close() : undefined)}
        onKeyDown={(event) => {
          event.stopPropagation();
          if (event.key === "Enter") put(typed);
          if (event.key === "Escape") close();
        }}
      />
      {why && (
        <p role="alert" className="mt-0.5 w-54 rounded bg-paper px-1.5 py-0.5 text-xs text-fix">
          {why}
        </p>
      )}
    </foreignObject>
  );
}
