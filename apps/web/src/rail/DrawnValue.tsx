import { parseLength, showForTyping, showLength } from "@true-spine/core/units/length.ts";
import { useState } from "react";
import { useSettings } from "../app/settings.ts";
import { useEdit } from "../blade/useEdit.ts";
import { TextBox } from "../parts/TextBox.tsx";

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
      <div onPointerDown={(event) => event.stopPropagation()}>
        <TextBox
          label={label}
          labelled="hidden"
          width="w-23"
          align="center"
          autoFocus
          text={typed}
          why={why}
          onText={setTyped}
          onFocus={(input) => input.select()}
          onBlur={() => (why === null ? close() : undefined)}
          onKey={(event) => event.stopPropagation()}
          onEnter={() => put(typed)}
          onEscape={close}
        />
      </div>
    </foreignObject>
  );
}
